/** The service worker that lets a bench go on without the network: built by Workbox from what the build made. */
import { readdirSync, readFileSync } from 'node:fs';
import { generateSW } from 'workbox-build';

const PIECES = 'dist/client/_astro';

/** What stands on the screens of a bench. */
const BENCHES = ['Bench', 'CutBench', 'WeighBench'];
/** What stands around every screen, and what wakes it; what those load later wants the network anyway. */
const SHELL = ['Leftovers', 'PlaceBadge', 'Finder', 'client'];

const SECONDS = 4;

/** A script that stands as text in a piece, also one that is loaded later. */
const AT_ANY_TIME = /"(?:\.\/|\/?_astro\/)([^"/]+\.js)"/g;
/** A script that a piece begins with. */
const AT_ONCE = /(?:from|import)\s*"\.\/([^"/]+\.js)"/g;

/** The scripts of a bench, by the imports of what the build made: files of dist/client/_astro. */
function scriptsOfBenches() {
  const all = readdirSync(PIECES).filter((name) => name.endsWith('.js'));
  const kept = new Set();
  const keep = (name, reference) => {
    if (kept.has(name) || !all.includes(name)) return;
    kept.add(name);
    for (const [, next] of readFileSync(`${PIECES}/${name}`, 'utf8').matchAll(reference))
      keep(next, reference);
  };
  for (const [roots, reference] of [
    [BENCHES, AT_ANY_TIME],
    [SHELL, AT_ONCE],
  ])
    for (const root of roots) {
      const found = all.filter((name) => name.startsWith(`${root}.`));
      if (found.length !== 1)
        throw new Error(`${found.length} scripts are called ${root} in ${PIECES}; one is wanted.`);
      keep(found[0], reference);
    }
  return [...kept];
}

/** Writes dist/client/sw.js. Pages of the bench and what they ask for come from the network first, else as last seen. */
export async function buildOffline() {
  const { warnings } = await generateSW({
    globDirectory: 'dist/client',
    // Only what a bench wants: each file more is one more that can fail to come, and then nothing is kept at all.
    globPatterns: [
      ...scriptsOfBenches().map((name) => `_astro/${name}`),
      '_astro/*.css',
      '_astro/archivo-narrow-latin{,-ext}-*.woff2',
      '_astro/{archivo,besley}-latin{,-ext}-*.woff2',
      'mark.svg',
    ],
    swDest: 'dist/client/sw.js',
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
