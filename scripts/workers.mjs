/** Bundles what runs outside Astro's own bundle: the worker threads and the server around its pages. */
import { rmSync } from 'node:fs';
import { buildSync } from 'esbuild';

const ENTRIES = { jobs: 'src/server/jobs/jobs.ts' };

/** Bundles every thread into dist/workers, one file each. */
export function bundleWorkers() {
  rmSync('dist/workers', { recursive: true, force: true });
  buildSync({
    entryPoints: ENTRIES,
    outdir: 'dist/workers',
    outExtension: { '.js': '.mjs' },
    bundle: true,
    packages: 'external',
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'warning',
  });
}

/** Bundles the server around Astro's handler. */
export function bundleServer() {
  buildSync({
    entryPoints: ['src/server/serve.ts'],
    outfile: 'dist/server/serve.mjs',
    bundle: true,
    packages: 'external',
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'warning',
  });
}
