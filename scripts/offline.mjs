/** The service worker that lets a bench go on without the network: built by Workbox from what the build made. */
import { generateSW } from 'workbox-build';

/** Larger pieces (readers of papers, solvers) are of desks alone. */
const MOST_BYTES = 700_000;
const SECONDS = 4;

/** Writes dist/client/sw.js. Pages of the bench and what they ask for come from the network first, else as last seen. */
export async function buildOffline() {
  const { warnings } = await generateSW({
    globDirectory: 'dist/client',
    globPatterns: ['_astro/**/*.{js,css,woff2}', 'mark.svg'],
    swDest: 'dist/client/sw.js',
    maximumFileSizeToCacheInBytes: MOST_BYTES,
    dontCacheBustURLsMatching: /^_astro\//,
    inlineWorkboxRuntime: true,
    sourcemap: false,
    skipWaiting: true,
    clientsClaim: true,
    cleanupOutdatedCaches: true,
    navigateFallback: undefined,
    runtimeCaching: [
      {
        urlPattern: ({ url, request }) =>
          request.mode === 'navigate' && /^\/(?:pour\/[^/]+|rack\/[^/]+\/(?:cut|weigh))$/.test(url.pathname),
        handler: 'NetworkFirst',
        options: {
          cacheName: 'bench-pages',
          networkTimeoutSeconds: SECONDS,
          cacheableResponse: { statuses: [200] },
          expiration: { maxEntries: 40 },
        },
      },
      {
        urlPattern: ({ url, request }) =>
          request.method === 'GET' && /^\/api\/v1\/batches\/[^/]+\/(?:lots|assessment)$/.test(url.pathname),
        handler: 'NetworkFirst',
        options: {
          cacheName: 'bench-data',
          networkTimeoutSeconds: SECONDS,
          cacheableResponse: { statuses: [200] },
          expiration: { maxEntries: 80 },
        },
      },
    ],
  });
  const grave = warnings.filter(
    (warning) => !warning.includes('configured limit') && !warning.includes('is '),
  );
  if (grave.length > 0) console.warn(grave.join('\n'));
}
