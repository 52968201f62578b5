/**
 * Pages and calls of a house as it grows: the demo, a maker after five years, a workshop, asked by turns of servers of
 * their own. The short form asks two small ones once; how many statements they take is held by `plans.test.ts`.
 */
import { gzipSync } from 'node:zlib';
import { startApplication, type Application } from '../browser/application';
import { FIXED_DAY, seededFolder, seedOnce } from '../support/seeded';
import { FIVE_YEARS, growHouse, TWICE, WORKSHOP, type HouseSize } from '../support/big-house';
import { openDatabase } from '../../src/server/database';
import { sized } from './size';

const ROUNDS = sized(5, 1);
/** After so long an address is asked no more than it was. */
const MOST_MS = 20_000;
const BAR = 'night-mail';
const BATCH = 'nm-260930';

/** What pages ask for: screens, and what they call. */
const ADDRESSES: readonly string[] = [
  '/',
  '/rack',
  '/api/v1/rack',
  '/rack/next',
  '/api/v1/next',
  '/api/v1/attention',
  '/api/v1/range/days',
  '/pour',
  '/pour/trace',
  '/watch',
  '/cupboard',
  '/cupboard/shelf',
  '/cupboard/papers',
  '/scent',
  '/wrap',
  `/bars/${BAR}`,
  `/wrap/${BAR}`,
  `/rack/${BATCH}`,
  '/rack/out',
  `/pour/${BATCH}/record`,
  '/api/v1/lots/lye-lot/trace',
  '/api/v1/moulds/long-block/warmth',
  '/house',
  '/api/v1/installation',
  '/api/v1/search?q=citral',
  '/api/v1/ask?q=bars%20without%20palm%20with%20clay%20under%202%20%25',
  '/api/v1/ask?q=curing%20since%20September',
];

const houseOn = (db: Awaited<ReturnType<typeof openDatabase>>) => ({
  db,
  today: FIXED_DAY,
  now: `${FIXED_DAY}T12:00:00.000Z`,
  zone: 'UTC',
});

/** A folder with a house of a size in it, and a lot to trace there. */
async function build(size: HouseSize | null): Promise<{ folder: string; lot: string }> {
  const folder = seededFolder();
  const db = await openDatabase(folder);
  if (size) await growHouse(houseOn(db), size);
  const [{ lot }] = (await db('stock_movements')
    .whereNotNull('batch_id')
    .select({ lot: 'lot_id' })
    .orderBy('id')
    .limit(1)) as [{ lot: string }];
  await db.destroy();
  return { folder, lot };
}

interface Running extends Application {
  name: string;
  lot: string;
  startMs: number;
}

async function start({ name, folder, lot }: { name: string; folder: string; lot: string }): Promise<Running> {
  const began = performance.now();
  const application = await startApplication({ folder });
  return { ...application, name, lot, startMs: performance.now() - began };
}

const median = (times: readonly number[]) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]!;

async function ask(
  { url, lot }: Running,
  address: string,
): Promise<{ ms: number; bytes: number; packed: number }> {
  const began = performance.now();
  const answer = await fetch(url + address.replace('lye-lot', lot));
  const body = Buffer.from(await answer.arrayBuffer());
  const ms = performance.now() - began;
  if (!answer.ok) throw new Error(`${address} answers ${answer.status}: ${body.toString().slice(0, 300)}`);
  return { ms, bytes: body.length, packed: gzipSync(body).length };
}

const SIZES = sized<readonly [name: string, size: HouseSize | null][]>(
  [
    ['demo', null],
    ['five years', FIVE_YEARS],
    ['workshop', WORKSHOP],
  ],
  [
    ['demo', null],
    ['twice', TWICE],
  ],
);

/** Prints a line an address: what it takes in the larger houses against the demo. */
export async function benchHouse(): Promise<void> {
  const unseed = seedOnce();
  const wanted = process.env.HOUSES?.split(',');
  const sizes = SIZES.filter(([name]) => !wanted || wanted.includes(name.replace(' ', '-')));
  const built = [];
  for (const [name, size] of sizes) built.push({ name, ...(await build(size)) });
  const running: Running[] = [];
  for (const one of built) running.push(await start(one));
  for (const { name, startMs } of running)
    console.log(
      JSON.stringify({ measure: `${name}: from start to listening`, startMs: Math.round(startMs) }),
    );
  const only = process.env.ADDRESSES?.split(',');
  for (const address of ADDRESSES.filter((one) => !only || only.includes(one))) {
    const times = running.map((): number[] => []);
    const sizes = running.map(() => ({ bytes: 0, packed: 0 }));
    const ends = performance.now() + MOST_MS;
    for (let round = 0; round <= ROUNDS && (round < 2 || performance.now() < ends); round++)
      for (const [at, house] of running.entries()) {
        const { ms, ...size } = await ask(house, address);
        // The first only warms up.
        if (round > 0) times[at]!.push(ms);
        sizes[at] = size;
      }
    const ms = times.map(median);
    console.log(
      JSON.stringify({
        measure: address,
        houses: running.map(({ name }) => name),
        ratio: ms.map((one) => Number((one / ms[0]!).toFixed(2))),
        ms: ms.map((one) => Math.round(one)),
        kB: sizes.map(({ bytes }) => Math.round(bytes / 1000)),
        packedKB: sizes.map(({ packed }) => Math.round(packed / 1000)),
      }),
    );
  }
  for (const application of running) application.stop();
  unseed();
}
