/** What the bench shows of a run sheet while it is followed. */
import { expect } from 'chai';
import fc from 'fast-check';
import { foldBatch } from '../../src/core/batch/fold';
import { SCALED_CHECK, type BatchEvent } from '../../src/core/batch/types';
import type { Formula } from '../../src/core/formula/types';
import { runSheet } from '../../src/core/making/run-sheet';
import { canGrow } from '../../src/core/batch/joined';
import { isStepDone, nextStep, topUps, wantedOf } from '../../src/core/batch/targets';
import { inTheWay } from '../../src/islands/pour/sheet-view';
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

  it('knows what was weighed for which step, in whatever order they are done', () => {
    const premix = sheet.steps.find(({ place }) => place === 'premix')!;
    const carrierG = premix.weigh[0]!.massG;
    const forStep = (id: string, massG: number) =>
      event('weighed', { line: 'o', massG, readabilityG: 0.1, how: 'scale', step: id });
    const first = batchAfter(forStep('fat-o', 700 - carrierG));
    expect(wantedOf(first, step('fat-o'))[0]).to.include({ isDone: true });
    expect(wantedOf(first, premix)[0]).to.include({ doneG: 0, isDone: false });
    // Too much for one step is not taken for another; what is said for no step fills what lacks.
    const both = batchAfter(forStep('fat-o', 750 - carrierG), weighed('o', carrierG));
    expect(wantedOf(both, step('fat-o'))[0]!.doneG).to.be.closeTo(750 - carrierG, 1e-9);
    expect(wantedOf(both, premix)[0]!.doneG).to.be.closeTo(carrierG, 1e-9);
    const unknown = batchAfter(
      event('weighed', { line: 'o', massG: 5, readabilityG: 0.1, how: 'scale', step: 'gone' }),
    );
    expect(wantedOf(unknown, premix)[0]!.doneG).to.be.closeTo(5, 1e-9);
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

  const dressed = ['gear', 'set-out'].map((id) => event('stepDone', { step: id }));
  const scaled = (value: string) => event('checked', { check: SCALED_CHECK, outcome: 'good', value });

  it('holds up too much lye until the day is scaled', () => {
    const over = weighed('alkali', sheet.alkaliG * 1.1);
    const alkali = step('weigh-alkali');
    expect(inTheWay(batchAfter(...dressed, over), alkali)).to.contain('Too much lye');
    const batch = batchAfter(...dressed, over, scaled('1.1'));
    expect(batch.scale).to.equal(1.1);
    expect(inTheWay(batch, alkali)).to.equal(null);
    expect(wantedOf(batch, step('fat-c'))[0]!.massG).to.be.closeTo(330, 1e-9);
  });

  it('never makes a bar of other proportions by scaling: what is in already is topped up', () => {
    const events = [
      ...dressed,
      weighed('w', 330),
      event('stepDone', { step: 'liquid-w' }),
      weighed('alkali', sheet.alkaliG),
      event('stepDone', { step: 'weigh-alkali' }),
      weighed('c', 360),
    ];
    expect(
      topUps(batchAfter(...events), 1.2).map(({ name, massG }) => `${name} ${massG.toFixed(1)}`),
    ).to.deep.equal(['Water, distilled 66.0', `Sodium hydroxide ${(sheet.alkaliG * 0.2).toFixed(1)}`]);
    const after = batchAfter(...events, scaled('1.2'));
    expect(nextStep(after)!.id).to.equal('liquid-w');
    expect(isStepDone(after, step('weigh-alkali'))).to.equal(false);
    expect(inTheWay(after, step('weigh-alkali'))).to.contain('Top up Sodium hydroxide');
    const topped = batchAfter(
      ...events,
      scaled('1.2'),
      weighed('w', 66),
      weighed('alkali', sheet.alkaliG * 0.2),
    );
    for (const id of ['liquid-w', 'weigh-alkali']) expect(isStepDone(topped, step(id)), id).to.equal(true);
  });

  it('keeps every proportion, whatever ran over and in whatever order, once all is weighed to its mark', () => {
    const weighable = sheet.steps.filter(({ weigh }) => weigh.length > 0);
    fc.assert(
      fc.property(
        fc.shuffledSubarray(weighable, { minLength: weighable.length }),
        fc.nat(weighable.length - 1),
        fc.double({ min: 1.03, max: 1.5, noNaN: true }),
        (order, at, factor) => {
          const events: BatchEvent[] = [];
          const fill = ({ id }: (typeof order)[number], by = 1) => {
            for (const one of wantedOf(batchAfter(...events), step(id)))
              if (one.doneG < one.massG * by) events.push(weighed(one.line, one.massG * by - one.doneG));
          };
          order.slice(0, at).forEach((one) => fill(one));
          fill(order[at]!, factor);
          events.push(scaled(String(factor)));
          // Twice: oil weighed for the pot before its premix counts for the premix first.
          [...order, ...order].forEach((one) => fill(one));
          const totals = batchAfter(...events).lines.map(({ massG, plannedG }) => massG / plannedG!);
          for (const ratio of totals) expect(ratio).to.be.closeTo(factor, 0.02);
        },
      ),
    );
  });

  it('cannot be scaled any more once the lye is in the fats', () => {
    const joined = [...dressed, event('stepDone', { step: 'join' })];
    expect([batchAfter(...dressed), batchAfter(...joined)].map(canGrow)).to.deep.equal([true, false]);
    // What was scaled before then is not asked for again.
    const late = batchAfter(...sheet.steps.map(({ id }) => event('stepDone', { step: id })), scaled('1.1'));
    expect(nextStep(late)).to.equal(null);
  });
});
