/** `npm run bench`: bundles the benchmark as the application itself is bundled, then runs it. */
import { buildSync } from 'esbuild';
import { ensureBuilt } from './build.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensureInstalled, run } from './install.mjs';
import { bundleWorkers } from './workers.mjs';

const OUT = 'dist/bench/run.mjs';

ensureInstalled();
if (!ensureChromium()) process.exit(1);
await ensureBuilt();
bundleWorkers();
buildSync({
  entryPoints: ['test/bench/run.ts'],
  outfile: OUT,
  bundle: true,
  packages: 'external',
  platform: 'node',
  format: 'esm',
  target: 'node20',
  logLevel: 'warning',
});
run(process.execPath, [OUT]);
