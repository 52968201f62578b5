/** What a batch cost: each weighing at its own lot's price. */
import { expect } from 'chai';
import { batchCost } from '../../src/core/batch/cost';
import { foretoldCost } from '../../src/core/sure/foretold-cost';
import { foldBatch } from '../../src/core/batch/fold';
import type { BatchEvent } from '../../src/core/batch/types';
import type { Lot } from '../../src/core/making/cost';
import { runSheet } from '../../src/core/making/run-sheet';
import { LIBRARY } from '../../src/library';

const materials = LIBRARY.filter(({ id }) => ['olive', 'coconut', 'water'].includes(id));
const made = runSheet(
  {
    alkali: { superfatPct: 5, purityPct: 100 },
    lines: [
      { id: 'o', material: 'olive', stage: 'fats', amount: { value: 600, unit: 'g' } },
      { id: 'c', material: 'coconut', stage: 'fats', amount: { value: 400, unit: 'g' } },
      { id: 'w', material: 'water', stage: 'liquid', amount: { value: 330, unit: 'g' } },
    ],
  },
  materials,
  { lyeStock: { concentrationPct: 50 } },
);
if (!made.ok) throw new Error('The sheet is not made.');
const { ok: _ok, ...sheet } = made;

let count = 0;
const event = (type: string, more: object): BatchEvent =>
  ({ id: `c${++count}`, type, at: '2026-11-01T08:00:00Z', by: null, ...more }) as unknown as BatchEvent;
const weighed = (line: string, massG: number, lot: string | null) =>
  event('weighed', { line, massG, lot, readabilityG: 1, how: 'scale' });
const lot = (id: string, price: number | null, quantityG = 1000): Lot => ({
  id,
  material: 'olive',
  supplier: 'x',
  code: id,
  receivedOn: '2026-01-01',
  openedOn: null,
  bestBefore: null,
  quantityG,
  leftG: quantityG,
  quarantine: null,
  price,
  revision: 1,
});

describe('the cost of a batch', () => {
  const events = [
    event('started', { product: 'p', version: 1, formula: sheet.formula, materials, sheet, code: 'P-1' }),
    weighed('o', 400, 'cheap'),
    weighed('o', 200, 'dear'),
    weighed('c', 400, 'gift'),
    weighed('w', 200, null),
    weighed('lye-stock', 280, null),
    event('poured', { moulds: [], leftoverG: 0 }),
    event('cut', { bars: 12, seconds: 2, trimmingsG: 0 }),
  ];
  const lots = new Map([lot('cheap', 5), lot('dear', 20), lot('gift', null)].map((one) => [one.id, one]));
  const prices: Record<string, number> = { coconut: 0.004, 'sodium-hydroxide': 0.01 };
  const cost = batchCost(foldBatch(events)!, lots, (material) => prices[material] ?? null);
  const of = (name: RegExp) => cost.lines.find((line) => name.test(line.name))!.cost;

  it('takes each weighing at its lot’s price, else at the material’s', () => {
    expect(of(/olive/i)).to.be.closeTo(400 * 0.005 + 200 * 0.02, 1e-9);
    expect(of(/coconut/i)).to.be.closeTo(1.6, 1e-9);
  });
  it('counts of a lye stock the alkali in it', () => {
    expect(of(/lye stock/i)).to.be.closeTo(280 * 0.5 * 0.01, 1e-9);
  });
  it('says what has no price, and shares the sum over the good bars', () => {
    expect(cost.unpriced).to.have.length(1);
    expect(cost.total).to.be.closeTo(6 + 1.6 + 1.4, 1e-9);
    expect(cost.perBar).to.be.closeTo(0.9, 1e-9);
  });

  it('is held against what the plan would have said, at the newest prices of its day', () => {
    const priced = [
      lot('cheap', 5),
      { ...lot('dear', 20), receivedOn: '2026-02-01' },
      { ...lot('later', 90), receivedOn: '2026-12-01' },
      ...['coconut', 'water', 'sodium-hydroxide'].map((material) => ({ ...lot(material, 4), material })),
    ];
    const told = { product: 'p', of: 'P-1', on: '2026-11-01' };
    const started = { product: 'p', version: 1, formula: sheet.formula, materials, code: 'P-1' };
    const begun = [event('started', { ...started, sheet: { ...sheet, bars: 12 } }), ...events.slice(1)];
    const batch = foldBatch(begun)!;
    const found = foretoldCost(told, batch, priced)!;
    const rest = batch.lines.reduce(
      (sum, { material, plannedG }) => sum + (material === 'olive' ? 0 : (plannedG ?? 0)),
      0,
    );
    // Olive at the 20 of February, never the 90 of December; a lye stock costs what is hydroxide in it.
    expect(found.likely).to.be.within((600 * 0.02) / 12, (600 * 0.02 + rest * 0.004) / 12);
    expect([found.low / found.likely, found.high / found.likely].map((one) => one.toFixed(3))).to.deep.equal([
      '0.900',
      '1.100',
    ]);
    // 400 g of it at 5 and 200 g at 20, and ten good bars of twelve.
    expect(found.came).to.be.within(
      (400 * 0.005 + 200 * 0.02) / 10,
      (400 * 0.005 + 200 * 0.02 + rest * 0.004) / 10,
    );
    // Nothing of it had come by then.
    const late = priced.slice(0, 2).map((one) => ({ ...one, receivedOn: '2026-12-01' }));
    expect(foretoldCost(told, batch, late)).to.equal(null);
    expect(foretoldCost(told, foldBatch(begun.slice(0, -1))!, priced)).to.equal(null);
    expect(foretoldCost(told, foldBatch(events)!, priced)).to.equal(null);
  });
});
