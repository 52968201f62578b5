/** Bundles the worker threads' entry points, which run outside the server's own bundle. */
import { buildSync } from 'esbuild';

const ENTRIES = { jobs: 'src/server/jobs/jobs.ts' };

/** Bundles every thread into dist/workers, one file each. */
export function bundleWorkers() {
  buildSync({
    entryPoints: ENTRIES,
    outdir: 'dist/workers',
    outExtension: { '.js': '.mjs' },
    bundle: true,
    splitting: true,
    chunkNames: 'chunk-[hash]',
    packages: 'external',
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'warning',
  });
}
