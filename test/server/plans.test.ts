/** No screen reads the house from end to end: what is asked has an index, and a larger house asks no more statements. */
import { expect } from 'chai';
import type { Knex } from 'knex';
import { growHouse, TWICE } from '../support/big-house';
import type { House } from '../../src/server/house';
import { recordOf } from '../../src/server/services/pour/batch-record';
import { mouldWarmth } from '../../src/server/services/rack/warmth';
import { nextData, startDays } from '../../src/server/services/rack/next';
import { cureData, rackNow, stockForSale } from '../../src/server/services/rack/rack';
import { recordSales } from '../../src/server/services/rack/sales';
import { traceLot } from '../../src/server/store/trace';
import { planPour } from '../../src/server/services/pour/pour-plan';
import { attentionNow } from '../../src/server/services/watch/attention';
import { watchData } from '../../src/server/services/watch/watch';
import { cupboardRows } from '../../src/server/services/cupboard/materials';
import { lotsOnShelf } from '../../src/server/services/cupboard/lots';
import { scentDeskData } from '../../src/server/services/scent/scent';
import { wrapData } from '../../src/server/services/wrap/desk';
import { worktableData } from '../../src/server/services/worktable/products';
import { rangeData } from '../../src/server/services/range/range';
import { overviewsSettled } from '../../src/server/store/overviews';
import { pageOfBatches, requireBatch } from '../../src/server/store/batches';
import { useDemo } from './database';

const BATCH = 'nm-260930';
const BAR = 'night-mail';
/** A lot that batches drew from. */
const LOT = 'lot-olive-1';

/** What screens ask for. */
const SCREENS: Record<string, (house: House) => Promise<unknown>> = {
  range: (house) => rangeData(house, 20),
  rack: rackNow,
  attention: attentionNow,
  'what to pour next': nextData,
  'days to pour by': startDays,
  'what went out': stockForSale,
  'a row of a till': (house) =>
    recordSales(house, [{ day: house.today, what: 'Night Mail', bars: 1, how: 'sample' }], {
      by: null,
      isPreview: true,
    }),
  'pour day': (house) => pageOfBatches(house, { find: 'night', state: 'released', page: 1 }),
  'a pour planned': (house) => planPour(house, { product: BAR }),
  'a batch': (house) => requireBatch(house, BATCH),
  'a cure': (house) => cureData(house, BATCH),
  'a record': (house) => recordOf(house, BATCH),
  'a lot traced': (house) => traceLot(house, LOT),
  warmth: (house) => mouldWarmth(house, 'long-block'),
  watch: watchData,
  cupboard: cupboardRows,
  shelf: lotsOnShelf,
  scent: scentDeskData,
  wrap: (house) => wrapData(house, BAR),
  worktable: (house) => worktableData(house, BAR),
};

/** Tables that grow with the years. */
const LONG = /\bSCAN (\w+)(?: USING (?:COVERING )?INDEX (\w+))?/;
const GROWS = [
  'batch_events',
  'batches',
  'batch_standings',
  'batch_sales',
  'lots',
  'lot_ledgers',
  'stock_movements',
  'issued_labels',
  'batch_photos',
];

/** The table that a plan names as the statement calls it. */
function tableOf(sql: string, called: string | undefined): string | undefined {
  const plain = sql.replaceAll('`', '');
  const alias = new RegExp(`(?:from|join)\\s+(\\w+)\\s+as\\s+${called}\\b`, 'i').exec(plain);
  return alias?.[1] ?? called;
}

interface Statement {
  sql: string;
  bindings: readonly unknown[];
}

async function statementsOf(db: Knex, work: () => Promise<unknown>): Promise<Statement[]> {
  const found: Statement[] = [];
  const note = ({ sql, bindings }: Statement) => found.push({ sql, bindings: bindings ?? [] });
  db.on('query', note);
  await work();
  db.removeListener('query', note);
  return found.filter(({ sql }) => /^\s*(select|with)/i.test(sql));
}

describe('a house as it grows', () => {
  const demo = useDemo();
  const counts = new Map<string, number>();

  async function settled(screen: (house: House) => Promise<unknown>): Promise<Statement[]> {
    await screen(demo.house);
    await overviewsSettled(demo.db);
    return statementsOf(demo.db, () => screen(demo.house));
  }

  for (const [name, screen] of Object.entries(SCREENS))
    it(`${name}: reads no table that grows from end to end`, async () => {
      const statements = await settled(screen);
      counts.set(name, statements.length);
      for (const { sql, bindings } of statements) {
        const plan: { detail: string }[] = await demo.db.raw(`explain query plan ${sql}`, bindings as never);
        for (const { detail } of plan) {
          const [, called, index] = LONG.exec(detail) ?? [];
          const table = tableOf(sql, called);
          if (table && !index && GROWS.includes(table)) expect.fail(`${name}: ${detail}\n${sql}`);
        }
      }
    });

  it('asks no more statements when it is larger', async () => {
    await growHouse(demo.house, TWICE);
    for (const [name, screen] of Object.entries(SCREENS)) {
      const now = (await settled(screen)).length;
      expect(now, name).to.be.at.most(counts.get(name)!);
    }
  }).timeout(120_000);
});
