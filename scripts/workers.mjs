/** Bundles what runs outside Astro's own bundle: the worker threads and the server around its pages. */
import { rmSync } from 'node:fs';
import { bundleForNode } from './bundle.mjs';

const ENTRIES = { jobs: 'src/server/jobs/jobs.ts' };

/** Bundles every thread into dist/workers: a file each, and beside it what is loaded only when it is asked for. */
export function bundleWorkers() {
  rmSync('dist/workers', { recursive: true, force: true });
  bundleForNode({
    entryPoints: ENTRIES,
    outdir: 'dist/workers',
    splitting: true,
    outExtension: { '.js': '.mjs' },
  });
}

/** Bundles the server around Astro's handler. */
export function bundleServer() {
  bundleForNode({
    entryPoints: ['src/server/serve.ts'],
    outfile: 'dist/server/serve.mjs',
  });
}
