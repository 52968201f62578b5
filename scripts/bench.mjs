/** `npm run bench`: bundles the benchmark as the application itself is bundled, then runs it, or the parts of it that are named. */
import { bundleForNode } from './bundle.mjs';
import { ensureBuilt } from './build.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensureInstalled, run } from './install.mjs';
import { bundleWorkers } from './workers.mjs';

const OUT = 'dist/bench/run.mjs';

ensureInstalled();
if (!ensureChromium()) process.exit(1);
await ensureBuilt();
bundleWorkers();
bundleForNode({
  entryPoints: ['test/bench/run.ts'],
  outfile: OUT,
});
run(process.execPath, [OUT, ...process.argv.slice(2)]);
