/** What the bench shows of a run sheet while it is followed. */
import { expect } from 'chai';
import { foldBatch } from '../../src/core/batch/fold';
import type { BatchEvent } from '../../src/core/batch/types';
import type { Formula } from '../../src/core/formula/types';
import { runSheet } from '../../src/core/making/run-sheet';
import { inTheWay, nextStep, SCALED, scaledBy, wantedOf } from '../../src/islands/pour/sheet-view';
import { LIBRARY } from '../../src/library';

const at = '2026-11-24T09:00:00Z';
const line = (id: string, material: string, stage: 'fats' | 'liquid' | 'trace', value: number) => ({
  id,
  material,
  stage,
  amount: { value, unit: 'g' as const },
});
const formula: Formula = {
  alkali: { superfatPct: 5, purityPct: 100 },
  bars: 10,
  lines: [
    line('o', 'olive', 'fats', 700),
    line('c', 'coconut', 'fats', 300),
    line('w', 'water', 'liquid', 330),
    line('k', 'kaolin', 'trace', 20),
  ],
};
const materials = LIBRARY.filter(({ id }) => ['olive', 'coconut', 'water', 'kaolin'].includes(id));
const made = runSheet(formula, materials);
if (!made.ok) throw new Error('The sheet is not made.');
const { ok: _ok, ...sheet } = made;

let count = 0;
const event = (type: string, more: object) =>
  ({ id: `e${++count}`, type, at, by: null, ...more }) as unknown as BatchEvent;
const weighed = (id: string, massG: number) =>
  event('weighed', { line: id, massG, readabilityG: 0.1, how: 'scale' });
const batchAfter = (...events: BatchEvent[]) =>
  foldBatch([
    event('started', { product: 'p', version: 1, formula: sheet.formula, materials, sheet, code: 'P-1' }),
    ...events,
  ])!;
const step = (id: string) => sheet.steps.find((one) => one.id === id)!;

describe('the bench', () => {
  it('asks of an oil only what its premix has not taken', () => {
    const premix = sheet.steps.find(({ place }) => place === 'premix')!;
    const carrierG = premix.weigh[0]!.massG;
    const batch = batchAfter(weighed('o', carrierG));
    expect(wantedOf(batch, premix)[0]).to.include({ isDone: true });
    const [rest] = wantedOf(batch, step('fat-o'));
    expect(rest!.doneG).to.be.closeTo(0, 1e-9);
    expect(rest!.massG).to.be.closeTo(700 - carrierG, 1e-9);
    const later = batchAfter(
      weighed('o', carrierG),
      event('stepDone', { step: premix.id }),
      weighed('o', 100),
    );
    expect(wantedOf(later, step('fat-o'))[0]!.doneG).to.be.closeTo(100, 1e-9);
  });

  it('says what comes first, what is to be weighed, and goes on where something is left out with a reason', () => {
    expect(nextStep(batchAfter())!.id).to.equal('gear');
    expect(inTheWay(batchAfter(), step('join'))).to.match(/^First: /);
    const dressed = ['gear', 'set-out'].map((id) => event('stepDone', { step: id }));
    expect(inTheWay(batchAfter(...dressed), step('liquid-w'))).to.contain('Weigh Water');
    expect(inTheWay(batchAfter(...dressed, weighed('w', 330)), step('liquid-w'))).to.equal(null);
    const without = event('skipped', { line: 'w', reason: 'ice is in' });
    expect(inTheWay(batchAfter(...dressed, without), step('liquid-w'))).to.equal(null);
    const all = batchAfter(...sheet.steps.map(({ id }) => event('stepDone', { step: id })));
    expect(nextStep(all)).to.equal(null);
  });

  it('holds up too much lye until the rest is scaled, and scales what is still to come', () => {
    const dressed = ['gear', 'set-out'].map((id) => event('stepDone', { step: id }));
    const over = weighed('alkali', sheet.alkaliG * 1.1);
    const alkali = step('weigh-alkali');
    expect(inTheWay(batchAfter(...dressed, over), alkali)).to.contain('Too much lye');
    const scaled = event('checked', { check: SCALED, outcome: 'good', value: '1.1' });
    const batch = batchAfter(...dressed, weighed('w', 330), over, scaled);
    expect(scaledBy(batch)).to.equal(1.1);
    expect(inTheWay(batch, alkali)).to.equal(null);
    expect(wantedOf(batch, step('fat-c'))[0]!.massG).to.be.closeTo(330, 1e-9);
    expect(wantedOf(batch, step('liquid-w'))[0]!.massG).to.be.closeTo(330, 1e-9);
  });
});
