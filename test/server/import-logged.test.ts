/** Batches of a log, from the sheet to their record: as weighed, on their day, all taken or none. */
import { expect } from 'chai';
import type { Batch } from '../../src/core/batch/types';
import type { Assessment } from '../../src/core/formula/answer';
import type { BatchSummary } from '../../src/core/records/batch';
import type { ImportResult } from '../../src/core/records/import';
import { caller } from './call';
import { useDemo } from './database';

const go = caller({
  take: () => import('../../src/pages/api/v1/import'),
  batches: () => import('../../src/pages/api/v1/batches'),
  batch: () => import('../../src/pages/api/v1/batches/[id]'),
  assessment: () => import('../../src/pages/api/v1/batches/[id]/assessment'),
});

const line = (id: string, material: string, stage: string, value: number) => ({
  ...{ id, material, stage, amount: { value, unit: 'g' } },
});
const FORMULA = {
  alkali: { massG: 66, purityPct: 99 },
  lines: [
    line('l1', 'olive', 'fats', 500),
    line('l2', 'water', 'liquid', 170),
    line('l3', 'cinnamon-leaf-oil', 'trace', 1),
  ],
};
const weighing = (of: string, massG: number) => ({ line: of, massG, readabilityG: 0.1 });
const batch = (code: string, day: string, oilG = 1.1) => ({
  code,
  day,
  bars: null as number | null,
  weighed: [weighing('l1', 502.5), weighing('l2', 171), weighing('alkali', 66.1), weighing('l3', oilG)],
});

describe('batches of a log', () => {
  const test = useDemo();
  const send = (name: string, batches: object[]) =>
    go<ImportResult & { errors: { path: string; message: string }[] }>('take', 'POST', {
      body: { preview: false, bars: [{ name, note: '', formula: FORMULA, batches }] },
    });
  const made = async () =>
    (await go<{ batches: BatchSummary[] }>('batches', 'GET')).body.batches.filter(({ productName }) =>
      productName.startsWith('Logged'),
    );

  it('stand poured on their day, and answer for what was weighed', async () => {
    const { status, body } = await send('Logged', [
      { ...batch('T-014', '2026-10-01'), bars: 6 },
      batch('', '2026-10-08', 40),
    ]);
    expect([status, body.taken, body.batches]).to.deep.equal([201, 1, 2]);
    const all = await made();
    expect(
      all.map(({ code, state, startedAt }) => [code, state, startedAt.slice(0, 10)]),
    ).to.have.deep.members([
      ['T-014', 'curing', '2026-10-01'],
      ['LO-261008', 'poured', '2026-10-08'],
    ]);
    const { id } = all.find(({ code }) => code === 'T-014')!;
    const read = await go<{ batch: Batch }>('batch', 'GET', { params: { id } });
    expect(read.body.batch.bars.good).to.equal(6);
    expect(read.body.batch.cut!.at.slice(0, 10)).to.equal('2026-10-02');
    const masses = read.body.batch.lines.map((one) => [one.line, one.massG]);
    expect(masses).to.deep.include.members([
      ['l1', 502.5],
      ['l3', 1.1],
    ]);
    const { assessment } = (await go<{ assessment: Assessment }>('assessment', 'GET', { params: { id } }))
      .body;
    expect(assessment.lines.find(({ id: of }) => of === 'l1')!.massG).to.be.closeTo(502.5, 1e-9);
    expect(assessment.masses.alkaliG).to.be.closeTo(66.1, 1e-9);
    // Nothing was drawn from a lot that the log does not name.
    expect(await test.db('stock_movements').where('batch_id', id)).to.deep.equal([]);
    // Forty times the oil is over, and held as any batch that was weighed so.
    const over = all.find(({ code }) => code !== 'T-014')!;
    expect(over.isQuarantined).to.equal(true);
  });

  it('of any day, code and mass are taken or refused, and nothing of them breaks', async () => {
    const many = Array.from({ length: 80 }, () => weighing('l1', 0.1));
    for (const [at, odd] of [
      { ...batch('%_', '1900-01-01'), bars: 1_000_000 },
      { ...batch('100 %', '2026-11-24'), weighed: [weighing('l1', 0), weighing('alkali', 1e7)] },
      { ...batch('<b>', '2026-02-28'), weighed: many },
      { ...batch('none', '2026-02-28'), weighed: [] },
      { ...batch(' ', '2026-02-28'), weighed: [{ ...weighing('alkali', 66), readabilityG: 0 }] },
    ].entries()) {
      const { status } = await send(`Odd ${at}`, [odd]);
      expect(status, JSON.stringify(odd).slice(0, 80)).to.be.oneOf([201, 422]);
    }
    expect((await go('batches', 'GET')).status).to.equal(200);
  });

  it('are all refused where one is, by its place, with its bar', async () => {
    const before = await test.db('products').count({ count: '*' });
    for (const [wrong, path] of [
      [batch('T-015', '2027-01-01'), 'bars.0.batches.1'],
      [batch('T-014', '2026-10-02'), 'bars.0.batches.1'],
      [{ ...batch('T-016', '2026-10-02'), weighed: [weighing('nothing', 3)] }, 'bars.0.batches.1'],
    ] as const) {
      const { status, body } = await send('Logged twice', [batch('T-020', '2026-10-01'), wrong]);
      expect([status, body.errors[0]?.path], JSON.stringify(body)).to.deep.equal([422, path]);
      expect(body.errors[0]!.message).to.match(/^Logged twice T-01/);
    }
    expect(await test.db('products').count({ count: '*' })).to.deep.equal(before);
    expect((await made()).map(({ code }) => code)).to.not.include('T-020');
  });
});
