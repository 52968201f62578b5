/** Overviews over many bars: the range of 5,000 against the range of 50, statements, and how long the loop is held. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import type { Knex } from 'knex';
import { openDatabase } from '../../src/server/database';
import type { House } from '../../src/server/house';
import { addMaterial } from '../../src/server/repositories/materials';
import { addProduct } from '../../src/server/repositories/products';
import { cupboardEntries } from '../../src/server/store/materials';
import { overviewsSettled, wrapOverview } from '../../src/server/store/overviews';
import { rangeData } from '../../src/server/services/range/range';
import { scentDeskData } from '../../src/server/services/scent/scent';
import { writing } from '../../src/server/store/writing';
import { certifiedMaterials, generateProducts } from '../support/generate';
import { sized } from './size';

const FEW = sized(50, 5);
const MANY = sized(5000, 45);
const MATERIALS = 300;
const ROUNDS = sized(15, 1);
/** Rows that come with the page. */
const FIRST_ROWS = 40;
const DAY = '2026-11-24';
const MS_PER_NS = 1e-6;

export async function houseOf(bars: number, folder: string): Promise<House> {
  const db = await openDatabase(join(folder, String(bars)));
  const known = certifiedMaterials();
  const materials = Array.from({ length: MATERIALS }, (_, index) => {
    const one = known[index % known.length]!;
    return index < known.length ? one : { ...one, id: `${one.id}-${index}`, name: `${one.name} ${index}` };
  });
  await writing(db, async (trx) => {
    for (const material of materials) await addMaterial(trx, material, null);
    for (const { id, formula } of generateProducts(bars, 4)) {
      const product = {
        id,
        name: `Bar ${id}`,
        identity: 'Soap',
        note: '',
        markets: ['EU' as const, 'UK' as const],
        netMassG: null,
        batchCode: '',
        firstPlacedOn: {},
        revision: 1,
        putAwayOn: null,
      };
      await addProduct(trx, product, formula, `${DAY}T08:00:00.000Z`);
    }
  });
  return { db, today: DAY, now: `${DAY}T09:00:00.000Z`, zone: 'UTC' };
}

async function statementsOf(db: Knex, work: () => Promise<unknown>): Promise<number> {
  let count = 0;
  const note = () => count++;
  db.on('query', note);
  await work();
  db.removeListener('query', note);
  return count;
}

/** A moment in which the loop turns, so that what held it is seen. */
const turn = () => new Promise((resolve) => setTimeout(resolve, 10));

async function medianMs(work: () => Promise<unknown>): Promise<number> {
  const times: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
    await turn();
  }
  return times.sort((a, b) => a - b)[Math.floor(ROUNDS / 2)]!;
}

const SCREENS = {
  'range, its first rows': (house: House) => rangeData(house, FIRST_ROWS),
  'range, all rows': (house: House) => rangeData(house),
  wrap: (house: House) => wrapOverview(house),
  cupboard: (house: House) => cupboardEntries(house),
  scent: (house: House) => scentDeskData(house),
} as const;

/** How long a screen holds the loop at the most, milliseconds, and how long it takes. */
async function measure(house: House, work: (house: House) => Promise<unknown>) {
  await work(house);
  await overviewsSettled(house.db);
  const loop = monitorEventLoopDelay({ resolution: 5 });
  loop.enable();
  await turn();
  loop.reset();
  const ms = await medianMs(() => work(house));
  loop.disable();
  const statements = await statementsOf(house.db, () => work(house));
  return { ms, statements, heldMs: loop.percentile(90) * MS_PER_NS };
}

/** Prints a line a screen. */
export async function benchStore(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'proportia-'));
  const [few, many] = [await houseOf(FEW, folder), await houseOf(MANY, folder)];
  const start = performance.now();
  await rangeData(many, FIRST_ROWS);
  const firstMs = performance.now() - start;
  await overviewsSettled(many.db);
  const allMs = performance.now() - start;
  for (const [screen, work] of Object.entries(SCREENS)) {
    const [one, two] = [await measure(few, work), await measure(many, work)];
    console.log(
      JSON.stringify({
        measure: `${screen}: ${MANY} bars against ${FEW}, ${MATERIALS} materials`,
        ratio: Number((two.ms / one.ms).toFixed(2)),
        ...(screen.includes('first rows') ? { wanted: 'at most 3' } : {}),
        statements: [one.statements, two.statements],
        manyMs: Number(two.ms.toFixed(1)),
        loopHeldMs: Number(two.heldMs.toFixed(1)),
      }),
    );
  }
  console.log(
    JSON.stringify({
      measure: `verdicts of ${MANY} bars made anew in the background, against the first page of them`,
      ratio: Number((allMs / firstMs).toFixed(1)),
      firstPageMs: Math.round(firstMs),
      allMs: Math.round(allMs),
    }),
  );
  await few.db.destroy();
  await many.db.destroy();
  rmSync(folder, { recursive: true, force: true });
}
