/** A change that ripples through 5,000 bars, their 10,000 kept versions and 20,000 batches, against a plain sweep. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Change } from '../../src/core/change/types';
import type { Formula } from '../../src/core/formula/types';
import { sweepOnThreads } from '../../src/server/jobs/sweep';
import type { House } from '../../src/server/house';
import {
  cancelChange,
  followChange,
  previewChange,
  requireChange,
  viewChange,
} from '../../src/server/services/watch/changes';
import { sharedSetting } from '../../src/server/store/shared';
import { snapshotOf } from '../../src/server/store/snapshot';
import { writing } from '../../src/server/store/writing';
import { generateProducts, seeded } from '../support/generate';
import { sized } from './size';
import { houseOf } from './store';

const BARS = sized(5000, 25);
const VERSIONS_EACH = 2;
const BATCHES_EACH = 4;
const ROUNDS = sized(3, 1);
const MARKETS = ['EU', 'UK'] as const;

/** A hand at the scale: every line by a little off, so that no batch is another's like. */
function weighed(formula: Formula, seed: number): Formula {
  const random = seeded(seed);
  const off = () => 1 + 0.008 * (random() - 0.5);
  return {
    ...formula,
    lines: formula.lines.map((line) => ({
      ...line,
      amount: { ...line.amount, value: line.amount.value * off() },
    })),
  };
}

/** Versions and batches of every bar, as rows: the newest version is the bar as it stands, the other another one. */
async function fill({ db }: House): Promise<{ id: string; formulaText: string }[]> {
  const products = generateProducts(BARS, 4);
  const stored: { id: string; formulaText: string }[] = [];
  await writing(db, async (trx) => {
    for (const [at, { id, formula }] of products.entries()) {
      const text = (seed: number) => JSON.stringify(seed === 0 ? formula : weighed(formula, 100 * at + seed));
      stored.push({ id, formulaText: text(0) });
      for (let number = 0; number < VERSIONS_EACH; number++) {
        const formulaText = text(number);
        stored.push({ id: `${id}/${number}`, formulaText });
        await trx('formula_versions').insert({
          product_id: id,
          number: -number,
          name: `kept ${number}`,
          revision: 1,
          saved_at: '2026-10-01',
          formula: formulaText,
        });
      }
      for (let count = 0; count < BATCHES_EACH; count++) {
        const formulaText = text(VERSIONS_EACH + count);
        stored.push({ id: `${id}-${count}`, formulaText });
        await trx('batches').insert({
          id: `${id}-${count}`,
          code: `${id}-${count}`,
          product_id: id,
          started_at: '2026-10-01T08:00:00Z',
          seq: 1,
          state: 'released',
          quarantined: false,
          summary: JSON.stringify({ bars: { good: 12, released: 12, gone: 4, left: 8 } }),
          weighed: JSON.stringify({
            formula: JSON.parse(formulaText) as Formula,
            version: 1,
            releasedOn: { EU: '2026-11-01' },
            sold: 4,
            buyers: [],
          }),
        });
      }
    }
  });
  return stored;
}

async function look(house: House, change: Change) {
  const beforeMb = process.memoryUsage().rss / 1e6;
  const start = performance.now();
  const { id } = await previewChange(house, change);
  let last = start;
  let slowestMs = 0;
  let mostMb = 0;
  const stop = followChange(house, id, () => {
    slowestMs = Math.max(slowestMs, performance.now() - last);
    last = performance.now();
    mostMb = Math.max(mostMb, process.memoryUsage().rss / 1e6);
  });
  for (;;) {
    await new Promise((resolve) => setTimeout(resolve, 20));
    if ((await requireChange(house, id)).state === 'running') continue;
    stop();
    const { effects } = await viewChange(house, id);
    return { ms: performance.now() - start, slowestMs, mostMb, beforeMb, rows: effects?.length ?? 0 };
  }
}

async function cancelMs(house: House, change: Change): Promise<number> {
  const { id } = await previewChange(house, change);
  await new Promise((resolve) => setTimeout(resolve, 400));
  const start = performance.now();
  while ((await cancelChange(house, id)).state === 'running')
    await new Promise((resolve) => setTimeout(resolve, 5));
  return performance.now() - start;
}

/** One line a change: how long against a plain sweep of as many formulas, how often it tells, how much it takes. */
export async function benchChanges(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'bench-changes-'));
  const house = await houseOf(BARS, folder);
  const stored = await fill(house);
  const snapshot = await snapshotOf(house.db, house.today);
  const sweep = async () => {
    const start = performance.now();
    await sweepOnThreads(stored, { setting: sharedSetting(snapshot), markets: MARKETS, onDate: house.today });
    return performance.now() - start;
  };
  const [held] = await house
    .db<{ material_id: string }>('product_materials')
    .select('material_id')
    .whereIn(
      'material_id',
      [...snapshot.own.keys()].filter((id) => snapshot.own.get(id)!.kind === 'essentialOil'),
    )
    .groupBy('material_id')
    .orderByRaw('count(*) desc')
    .limit(1);
  const changes: [string, Change][] = [
    [
      'a stricter limit on the scent that most bars hold',
      {
        kind: 'limit',
        limit: {
          id: 'own',
          subject: { type: 'material', id: held!.material_id },
          maxPct: 0.1,
          basis: 'cured',
          force: 'standard',
        },
      },
    ],
    [
      'an edition that halves every limit',
      {
        kind: 'edition',
        edition: {
          edition: 'halved',
          dated: house.today,
          title: 'Halved',
          limits: snapshot.limits.map((limit) => ({ ...limit, maxPct: limit.maxPct / 2 })),
          declarables: [...snapshot.declarables],
        },
      },
    ],
  ];
  await sweep();
  for (const [name, change] of changes) {
    const rounds = [];
    for (let round = 0; round < ROUNDS; round++)
      rounds.push({ sweepMs: await sweep(), ...(await look(house, change)) });
    const ratios = rounds.map(({ ms, sweepMs }) => ms / sweepMs).sort((a, b) => a - b);
    console.log(
      JSON.stringify({
        measure: `${name}, through ${stored.length} formulas, against a plain sweep of as many`,
        ratio: Number(ratios[Math.floor(ROUNDS / 2)]!.toFixed(2)),
        wanted: 'at most 3',
        lookMs: Math.round(Math.min(...rounds.map(({ ms }) => ms))),
        sweepMs: Math.round(Math.min(...rounds.map(({ sweepMs }) => sweepMs))),
        rows: rounds[0]!.rows,
        slowestProgressMs: Math.round(Math.max(...rounds.map(({ slowestMs }) => slowestMs))),
        memoryMb: Math.round(Math.max(...rounds.map(({ mostMb }) => mostMb))),
        memoryBeforeMb: Math.round(Math.max(...rounds.map(({ beforeMb }) => beforeMb))),
        cancelMs: Math.round(await cancelMs(house, change)),
      }),
    );
  }
  // The look that was cancelled last still lets go of the database.
  await new Promise((resolve) => setTimeout(resolve, 1000));
  await house.db.destroy();
  rmSync(folder, { recursive: true, force: true });
}
