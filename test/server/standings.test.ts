/** What stands beside batches' events in rows is what a full fold gives, whatever happened and by whichever door. */
import { expect } from 'chai';
import fc from 'fast-check';
import { foldBatch } from '../../src/core/batch/fold';
import type { Batch, BatchEvent } from '../../src/core/batch/types';
import { standingOf } from '../../src/core/curing/standing';
import { measuredIn } from '../../src/core/heat/batch-pour';
import { comingBars, readyBars } from '../../src/core/stock/supply';
import { HttpFault } from '../../src/server/http';
import { allEvents } from '../../src/server/repositories/batches';
import { barsAbout, type BarsAbout } from '../../src/server/repositories/overviews';
import { addEvents } from '../../src/server/store/batch-events';
import { recordSales } from '../../src/server/services/rack/sales';
import { foldMissing, lookAtSome, refold } from '../../src/server/store/batches';
import { writing } from '../../src/server/store/writing';
import { useDemo } from './database';

describe('rows kept beside the events of batches', () => {
  const demo = useDemo();
  const plain = (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown;

  interface Row {
    batch_id: string;
    ready: number;
    coming: number;
    body: string;
  }

  /** Adds the bars of a batch to those of its bar: ready, here besides, sold. */
  function countBars(about: Map<string, BarsAbout>, batch: Batch): void {
    const { product, state, isQuarantined, bars, moved } = batch;
    const before = about.get(product) ?? { ready: 0, curing: 0, sold: 0 };
    const isGone = state === 'stopped' || state === 'discarded';
    const left = isGone || isQuarantined ? 0 : bars.left;
    const sales = isGone ? [] : moved.filter(({ how }) => how === 'sale');
    about.set(product, {
      ready: before.ready + readyBars(batch),
      curing: before.curing + left - readyBars(batch),
      sold: sales.reduce((sum, sale) => sum + sale.bars, before.sold),
    });
  }

  /** Every row against its batch folded anew. */
  async function expectFolded(): Promise<void> {
    const rows: Row[] = await demo.db('batch_standings');
    expect(rows.length).to.equal(((await demo.db('batches')) as unknown[]).length);
    const about = new Map<string, BarsAbout>();
    for (const { batch_id: id, body, ready, coming } of rows) {
      const batch = foldBatch(await allEvents(demo.db, id))!;
      countBars(about, batch);
      const standing = standingOf(batch);
      expect(JSON.parse(body), id).to.deep.equal(plain(standing));
      expect([ready, coming], id).to.deep.equal([readyBars(batch), comingBars(batch)]);
      const sold: { bars: number }[] = await demo.db('batch_sales').where('batch_id', id).orderBy('rowid');
      expect(
        sold.map(({ bars }) => bars),
        id,
      ).to.deep.equal(batch.moved.filter(({ how }) => how === 'sale').map(({ bars }) => bars));
      const warm: { mould_id: string }[] = await demo.db('batch_warmth').where('batch_id', id);
      expect(
        warm.map(({ mould_id }) => mould_id),
        id,
      ).to.have.members(measuredIn(batch));
    }
    const told = await barsAbout(demo.db);
    for (const [product, bars] of about) expect(told.get(product), product).to.deep.equal(bars);
    expect([...told.keys()].filter((product) => !about.has(product))).to.deep.equal([]);
  }

  /** What is left of every lot, summed from the ledger. */
  async function expectLedgers(): Promise<void> {
    const rows: { id: string; left: number; summed: number }[] = await demo.db.raw(
      `select lots.id, g.left_g as left, json_extract(lots.body, '$.quantityG')
              - coalesce((select sum(mass_g) from stock_movements where lot_id = lots.id), 0) as summed
       from lots left join lot_ledgers as g on g.lot_id = lots.id`,
    );
    expect(rows.length).to.be.above(20);
    for (const { id, left, summed } of rows) expect(left, id).to.be.closeTo(summed, 1e-6);
  }

  const times = fc.integer({ min: 0, max: 20 });
  const events = fc.oneof(
    times.map((bars) => ({
      type: 'moved',
      bars: bars + 1,
      how: bars % 3 ? 'sale' : 'sample',
      despite: 'so it was',
    })),
    times.map((c) => ({ type: 'temperature', of: c % 2 ? 'mould' : 'batter', c: 30 + c })),
    times.map((bar) => ({ type: 'barWeighed', bar: String(bar), massG: 90 + bar, readabilityG: 0.1 })),
    times.map((bars) => ({ type: 'sorted', bars: bars % 3, reason: 'cracked' })),
    times.map((bars) => ({
      type: 'released',
      bars: bars + 1,
      netMassG: 80,
      markets: ['EU'],
      despite: 'tried',
    })),
    fc.constant({ type: 'quarantined', reason: 'smells odd' }),
    fc.constant({ type: 'decided', decision: 'release', reason: 'it was the box' }),
    fc.constant({ type: 'decided', decision: 'discard', reason: 'it was not' }),
    fc.constant({ type: 'cut', bars: 14, seconds: 1, trimmingsG: 20 }),
    fc.constant({ type: 'noted', text: 'cooler next time', for: 'nextTime' }),
  );

  it('are what a full fold gives, over random histories', async () => {
    await expectFolded();
    const ids: { id: string }[] = await demo.db('batches').select('id');
    let [count, taken] = [0, 0];
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.nat(), events), { minLength: 5, maxLength: 25 }),
        async (history) => {
          for (const [which, fields] of history) {
            const { id } = ids[which % ids.length]!;
            const own = {
              id: `random${++count}`,
              at: demo.house.now,
              by: null,
              ...fields,
            } as unknown as BatchEvent;
            try {
              await addEvents(demo.house, id, { after: null, events: [own] });
              taken++;
            } catch (error) {
              // Refused as making no sense now: nothing may have changed.
              if (!(error instanceof HttpFault)) throw error;
            }
          }
          await expectFolded();
        },
      ),
      { numRuns: 8 },
    );
    expect(taken).to.be.above(count / 5);
  }).timeout(120_000);

  it('follow what a till tells, and are made anew where they are missing or of other events', async () => {
    // The random histories before may have left nothing of a bar: one is taken of which something is ready.
    const { name } = (await demo
      .db('batch_standings as s')
      .join('products as p', 'p.id', 's.product_id')
      .where('s.ready', '>', 0)
      .first('p.name')) as { name: string };
    const row = { day: demo.house.today, what: name, bars: 1, how: 'sample' as const };
    await recordSales(demo.house, [row], { by: null, isPreview: false });
    await expectFolded();
    const before: Row[] = await demo.db('batch_standings').orderBy('batch_id');
    await demo.db('batch_standings').where('batch_id', before[0]!.batch_id).delete();
    await demo
      .db('batch_standings')
      .where('batch_id', before[1]!.batch_id)
      .update({ made_of: '0 3', body: '{}' });
    expect(await writing(demo.db, foldMissing)).to.equal(2);
    expect(await demo.db('batch_standings').orderBy('batch_id')).to.deep.equal(before);
    expect(await writing(demo.db, foldMissing)).to.equal(0);
  });

  it('hold what the events say, not how late they were told', async () => {
    const cut = (await allEvents(demo.db, 'sp-261121')).find(({ type }) => type === 'cut')!;
    const at = new Date(Date.parse(cut.at) + 3_600_000).toISOString();
    const late = { id: 'told late', type: 'noted', at, by: null, text: 'firm', for: 'batch' } as never;
    await addEvents(demo.house, 'sp-261121', { after: null, events: [late] });
    const before: Row[] = await demo.db('batch_standings').orderBy('batch_id');
    for (let look = 0; look < 100; look++)
      expect(await writing(demo.db, (trx) => lookAtSome(trx, look))).to.deep.equal([]);
    expect(await demo.db('batch_standings').orderBy('batch_id')).to.deep.equal(before);
  });

  it('are looked at one in a hundred, told where they differ, and made anew by one command', async () => {
    const before: Row[] = await demo.db('batch_standings').orderBy('batch_id');
    const lots: object[] = await demo.db('lot_ledgers').orderBy('lot_id').select('lot_id', 'material_id');
    const [first] = (await demo.db('batches').orderBy('rowid').limit(1)) as [{ id: string }];
    await demo.db('batch_standings').where('batch_id', first.id).update({ ready: 77 });
    await demo.db('lot_ledgers').update({ left_g: 1 });
    expect(await writing(demo.db, (trx) => lookAtSome(trx, 1))).to.deep.equal([]);
    expect(await writing(demo.db, (trx) => lookAtSome(trx, 100))).to.deep.equal([first.id]);
    expect(await demo.db('batch_standings').orderBy('batch_id')).to.deep.equal(before);
    expect(await writing(demo.db, refold)).to.equal(before.length);
    expect(await demo.db('batch_standings').orderBy('batch_id')).to.deep.equal(before);
    expect(await demo.db('lot_ledgers').orderBy('lot_id').select('lot_id', 'material_id')).to.deep.equal(
      lots,
    );
    await expectLedgers();
  });

  it('say what is left of a lot as the ledger does, whatever writes a lot or a movement', async () => {
    await expectLedgers();
    const [movement] = (await demo.db('stock_movements').limit(1)) as [{ id: number; lot_id: string }];
    await demo.db('stock_movements').where('id', movement.id).update({ mass_g: 12.5 });
    await expectLedgers();
    await demo
      .db('lots')
      .where('id', movement.lot_id)
      .update({ body: demo.db.raw("json_set(body, '$.quantityG', 4321)") });
    await expectLedgers();
    await demo.db('stock_movements').where('id', movement.id).delete();
    await expectLedgers();
  });
});
