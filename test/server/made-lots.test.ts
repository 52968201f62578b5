/** Lots made of lots, the whole way: weighed together, drawn from on the day, traced and held through. */
import { expect } from 'chai';
import type { Assessment } from '../../src/core/formula/answer';
import { nextLot, type Lot } from '../../src/core/making/cost';
import type { RunSheet } from '../../src/core/making/run-sheet-types';
import type { PourPlan, Trace } from '../../src/core/records/batch';
import type { CupboardEntry } from '../../src/core/records/cupboard';
import type { Holding } from '../../src/core/records/holding';
import { findLot, lotsOf } from '../../src/server/repositories/lots';
import { requireBatch } from '../../src/server/store/batches';
import { caller } from './call';
import { DAY, useDemo } from './database';

const go = caller({
  mixes: () => import('../../src/pages/api/v1/mixes'),
  made: () => import('../../src/pages/api/v1/materials/[id]/made'),
  material: () => import('../../src/pages/api/v1/materials/[id]'),
  lot: () => import('../../src/pages/api/v1/materials/[id]/lots/[lot]'),
  plan: () => import('../../src/pages/api/v1/batches/plan'),
  batches: () => import('../../src/pages/api/v1/batches'),
  events: () => import('../../src/pages/api/v1/batches/[id]/events'),
  assessment: () => import('../../src/pages/api/v1/batches/[id]/assessment'),
  batchTrace: () => import('../../src/pages/api/v1/batches/[id]/trace'),
  lotTrace: () => import('../../src/pages/api/v1/lots/[lot]/trace'),
  hold: () => import('../../src/pages/api/v1/lots/[lot]/hold'),
});

interface Refusal {
  errors: { path: string; code: string; message: string }[];
}

/** The fats of the bar in a bucket; castor is left out and weighed by itself. */
const SHARES = { olive: 45, coconut: 25, shea: 15, rapeseed: 10 };
const BAR = 'first-light';
const SIZE = { fatsMassG: 1000 };

describe('lots that are made here', () => {
  const demo = useDemo();
  let bucket: CupboardEntry;
  let stock: CupboardEntry;
  const source = new Map<string, Lot>();
  const leftOf = async (lot: string) => (await findLot(demo.db, lot))!.leftG;
  const ofMix = (factor: (material: string) => number = () => 1) =>
    Object.entries(SHARES).map(([material, share]) => ({
      ...{ material, lot: source.get(material)!.id, massG: 10 * share * factor(material) },
    }));
  const make = (id: string, of: object[], code: string | null = null) =>
    go<CupboardEntry & Refusal>('made', 'POST', { params: { id }, body: { code, of, bestBefore: null } });

  before(async () => {
    for (const material of [...Object.keys(SHARES), 'sodium-hydroxide'])
      source.set(material, nextLot(await lotsOf(demo.db, [material]), DAY)!);
    const parts = Object.entries(SHARES).map(([material, share]) => ({ material, parts: share }));
    const { status, body } = await go<CupboardEntry>('mixes', 'POST', { body: { name: 'Base fats', parts } });
    expect(status).to.equal(201);
    bucket = body;
  });

  it('take what was weighed from their lots, and are best before the first of them is', async () => {
    const { id } = bucket.material;
    const off = await make(
      id,
      ofMix((material) => (material === 'shea' ? 1.1 : 1)),
    );
    expect([off.status, off.body.errors[0]!.code]).to.deep.equal([422, 'share-off']);
    const strange = await make(id, [...ofMix(), { material: 'castor', lot: null, massG: 1 }]);
    expect([strange.status, strange.body.errors[0]!.path]).to.deep.equal([422, 'of.4']);
    const short = await make(id, [{ material: 'olive', lot: source.get('olive')!.id, massG: 1e6 }]);
    expect([short.status, short.body.errors[0]!.code]).to.deep.equal([422, 'share-off']);
    for (const lot of source.values()) expect(await leftOf(lot.id)).to.equal(lot.leftG);

    const { status, body } = await make(id, ofMix(), 'BF 1');
    expect(status, JSON.stringify(body)).to.equal(201);
    bucket = body;
    const [lot] = body.lots;
    expect(lot).to.include({ code: 'BF 1', quantityG: 950, leftG: 950, quarantine: null });
    const days = Object.keys(SHARES).map((material) => source.get(material)!.bestBefore!);
    expect(lot!.bestBefore).to.equal(days.sort()[0]);
    for (const [material, share] of Object.entries(SHARES)) {
      const { id: own, leftG } = source.get(material)!;
      expect(await leftOf(own)).to.be.closeTo(leftG - 10 * share, 1e-6);
    }
  });

  it('of lye know their strength, and refuse one that is no stock', async () => {
    const water = { material: 'water', lot: null, massG: 500 };
    const lye = (massG: number) => ({
      material: 'sodium-hydroxide',
      lot: source.get('sodium-hydroxide')!.id,
      massG,
    });
    const weak = await make('lye-stock', [water, lye(20)]);
    expect([weak.status, weak.body.errors[0]!.code]).to.deep.equal([422, 'strength']);
    const oily = await make('lye-stock', [lye(500), { material: 'olive', lot: null, massG: 500 }]);
    expect([oily.status, oily.body.errors[0]!.code]).to.deep.equal([422, 'not-of-a-stock']);
    const { status, body } = await make('lye-stock', [water, lye(500)], 'LS 1');
    expect(status, JSON.stringify(body)).to.equal(201);
    stock = body;
    expect(stock.lots[0]).to.include({ code: 'LS 1', strengthPct: 50, quantityG: 1000 });
  });

  let batch = '';
  it('are drawn from on the day: the bar is the same as weighed one by one', async () => {
    const wish = {
      product: BAR,
      size: SIZE,
      lyeStock: { concentrationPct: 50, isMade: true },
      bucket: bucket.material.id,
    };
    const plain = await go<PourPlan>('plan', 'POST', { body: { product: BAR, size: SIZE } });
    const plan = await go<PourPlan>('plan', 'POST', { body: wish });
    expect(plan.body.needed.map(({ name }) => name)).to.include.members(['Base fats', 'Lye stock']);
    const begun = await go<{ id: string; sheet: RunSheet }>('batches', 'POST', {
      body: { ...wish, by: null },
    });
    expect(begun.status, JSON.stringify(begun.body)).to.equal(201);
    batch = begun.body.id;
    const weighs = begun.body.sheet.steps.flatMap(({ weigh }) => weigh);
    // Of what the bucket holds nothing is left to weigh but what stood out of proportion.
    expect(weighs.filter(({ material }) => material in SHARES)).to.deep.equal([]);
    const lotOf: Record<string, string> = {
      [bucket.material.id]: bucket.lots[0]!.id,
      'lye-stock': stock.lots[0]!.id,
    };
    const events = weighs.map(({ line, material, massG, portion }, at) => ({
      ...{ id: `w${at}`, type: 'weighed', at: `${DAY}T09:00:00Z`, by: null, line, massG },
      ...{ readabilityG: 0.1, how: 'scale', lot: lotOf[material] ?? null, ...(portion ? { portion } : {}) },
    }));
    const poured = { id: 'p', type: 'poured', at: `${DAY}T10:00:00Z`, by: null, moulds: [], leftoverG: 0 };
    const sent = await go('events', 'POST', { params: { id: batch }, body: { events: [...events, poured] } });
    expect(sent.status, JSON.stringify(sent.body)).to.equal(200);
    const { body } = await go<{ assessment: Assessment }>('assessment', 'GET', { params: { id: batch } });
    for (const key of ['fatsG', 'alkaliG', 'pourG'] as const)
      expect(body.assessment.masses[key], key).to.be.closeTo(plain.body.sheet[key], 1e-6);
    const bucketG = weighs.find(({ line }) => line === 'fats-bucket')!.massG;
    expect(await leftOf(lotOf[bucket.material.id]!)).to.be.closeTo(950 - bucketG, 1e-6);
    const stockG = weighs.find(({ line }) => line === 'lye-stock')!.massG;
    expect(await leftOf(lotOf['lye-stock']!)).to.be.closeTo(1000 - stockG, 1e-6);
  });

  it('of another strength than the day counts with are refused at the bench', async () => {
    const wish = { product: BAR, size: SIZE, lyeStock: { concentrationPct: 40, isMade: true }, by: null };
    const begun = await go<{ id: string }>('batches', 'POST', { body: wish });
    const event = {
      ...{ id: 's', type: 'weighed', at: `${DAY}T09:00:00Z`, by: null, line: 'lye-stock', massG: 100 },
      ...{ readabilityG: 0.1, how: 'scale', lot: stock.lots[0]!.id },
    };
    const sent = await go<Refusal>('events', 'POST', {
      params: { id: begun.body.id },
      body: { events: [event] },
    });
    expect([sent.status, sent.body.errors[0]!.code]).to.deep.equal([422, 'other-strength']);
    const unlike = { product: 'snow-plough', size: SIZE, bucket: 'sidings', by: null };
    const refused = await go<Refusal>('batches', 'POST', { body: unlike });
    expect([refused.status, refused.body.errors[0]!.path]).to.deep.equal([422, 'bucket']);
  });

  it('are traced and held through, and what they were made of stays', async () => {
    const olive = source.get('olive')!.id;
    const forward = (await go<Trace>('lotTrace', 'GET', { params: { lot: olive } })).body;
    expect(forward.batches.map(({ id }) => id)).to.include(batch);
    const back = (await go<Trace>('batchTrace', 'GET', { params: { id: batch } })).body;
    expect(back.lots.map(({ id }) => id)).to.include.members([olive, source.get('sodium-hydroxide')!.id]);
    const own = back.lots.find(({ id }) => id === bucket.lots[0]!.id)!;
    expect(own.madeOf.map(({ lot, massG }) => [lot, massG])).to.deep.include([olive, 450]);

    const hold = (isHeld: boolean) =>
      go<Holding>('hold', 'POST', { params: { lot: olive }, body: { isHeld, reason: 'Smells.', by: null } });
    expect((await hold(true)).body.made).to.deep.equal([
      { id: bucket.lots[0]!.id, code: 'BF 1', isHeld: true },
    ]);
    expect((await requireBatch(demo.house, batch)).batch.isQuarantined).to.equal(true);
    expect((await hold(false)).body.made[0]!.isHeld).to.equal(false);
    expect((await requireBatch(demo.house, batch)).batch.isQuarantined).to.equal(false);

    const gone = await go<Refusal>('lot', 'DELETE', { params: { id: 'olive', lot: olive } });
    expect([gone.status, gone.body.errors[0]!.code]).to.deep.equal([422, 'in-use']);
  });

  it('that were never drawn from give back what they were made of when they are removed', async () => {
    const before = await leftOf(source.get('sodium-hydroxide')!.id);
    const lye = { material: 'sodium-hydroxide', lot: source.get('sodium-hydroxide')!.id, massG: 100 };
    const { body } = await make('lye-stock', [lye, { material: 'water', lot: null, massG: 200 }], 'LS 2');
    const lot = body.lots.find(({ code }) => code === 'LS 2')!;
    expect(await leftOf(lye.lot)).to.be.closeTo(before - 100, 1e-6);
    expect((await go('lot', 'DELETE', { params: { id: 'lye-stock', lot: lot.id } })).status).to.equal(200);
    expect(await leftOf(lye.lot)).to.be.closeTo(before, 1e-6);
  });
});
