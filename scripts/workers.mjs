/** Bundles the worker threads' entry points, which run outside the server's own bundle. */
import { buildSync } from 'esbuild';

const ENTRIES = ['src/workers/sweep-worker.ts'];

/** Bundles every worker into dist/workers, one file each. */
export function bundleWorkers() {
  buildSync({
    entryPoints: ENTRIES,
    outdir: 'dist/workers',
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'warning',
  });
}
