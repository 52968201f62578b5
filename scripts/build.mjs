/** Builds the application unless nothing that goes into it has changed since the last build. */
import { createHash } from 'node:crypto';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { basename, join } from 'node:path';
import { run } from './install.mjs';

const STAMP = 'dist/.source';
const SOURCES = [
  'src',
  'scripts/build.mjs',
  'scripts/bundle.mjs',
  'scripts/offline.mjs',
  'scripts/workers.mjs',
  'public',
  'astro.config.mjs',
  'package-lock.json',
  'tsconfig.json',
];

function filesUnder(path) {
  if (!statSync(path).isDirectory()) return [path];
  return readdirSync(path)
    .sort()
    .flatMap((name) => filesUnder(join(path, name)));
}

/** Trained letters of the languages that pictures of papers are read in. */
const LETTERS = [
  'node_modules/@tesseract.js-data/deu/4.0.0_best_int/deu.traineddata.gz',
  'node_modules/@tesseract.js-data/eng/4.0.0_best_int/eng.traineddata.gz',
  'node_modules/@tesseract.js-data/fra/4.0.0_best_int/fra.traineddata.gz',
  'node_modules/@tesseract.js-data/ita/4.0.0_best_int/ita.traineddata.gz',
  'node_modules/@tesseract.js-data/nld/4.0.0_best_int/nld.traineddata.gz',
  'node_modules/@tesseract.js-data/pol/4.0.0_best_int/pol.traineddata.gz',
  'node_modules/@tesseract.js-data/spa/4.0.0_best_int/spa.traineddata.gz',
];

/** The reader of pictures asks for the letters of a language by this name. */
function layOutReader() {
  mkdirSync('dist/client/reader', { recursive: true });
  for (const letters of LETTERS) copyFileSync(letters, join('dist/client/reader', basename(letters)));
}

/** Builds into dist/ where needed. */
export async function ensureBuilt() {
  const hash = createHash('sha256');
  for (const file of SOURCES.flatMap(filesUnder)) hash.update(file).update(readFileSync(file));
  const wanted = hash.digest('hex');
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return;
  console.log('Building…');
  run('npx', ['astro', 'build'], { env: { ...process.env, ASTRO_TELEMETRY_DISABLED: '1' } });
  const { bundleServer, bundleWorkers } = await import('./workers.mjs');
  bundleWorkers();
  bundleServer();
  layOutReader();
  const { buildOffline } = await import('./offline.mjs');
  await buildOffline();
  writeFileSync(STAMP, wanted);
}
