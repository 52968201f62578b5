/** `npm run papers -- FIRST COUNT`: bundles and runs the reading of made-up papers, which tells its figures by field. */
import { bundleForNode } from './bundle.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensureInstalled, run } from './install.mjs';

const OUT = 'dist/bench/papers.mjs';

ensureInstalled();
if (!ensureChromium()) process.exit(1);
bundleForNode({
  entryPoints: ['test/papers/run.ts'],
  outfile: OUT,
});
run(process.execPath, [OUT, ...process.argv.slice(2)]);
