/** Bundling for Node the same way everywhere: packages stay outside. */
import { buildSync } from 'esbuild';

/** Bundles by esbuild's own options for entries and where they go. */
export function bundleForNode(options) {
  buildSync({
    ...options,
    bundle: true,
    packages: 'external',
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'warning',
  });
}
