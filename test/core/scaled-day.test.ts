/** A day that was scaled at the bench: what is foretold meanwhile is what comes of it, whatever is weighed already. */
import { expect } from 'chai';
import fc from 'fast-check';
import { foldBatch } from '../../src/core/batch/fold';
import { refusalOf } from '../../src/core/batch/admit';
import { batchFormula } from '../../src/core/batch/request';
import { SCALED_CHECK, type BatchEvent } from '../../src/core/batch/types';
import { governingPaper } from '../../src/core/paperwork/governing';
import type { Formula } from '../../src/core/formula/types';
import { runSheet } from '../../src/core/making/run-sheet';
import { LIBRARY } from '../../src/library';

const at = '2026-11-24T09:00:00Z';
const line = (id: string, material: string, stage: 'fats' | 'liquid', value: number) => ({
  ...{ id, material, stage },
  amount: { value, unit: 'g' as const },
});
const formula: Formula = {
  alkali: { superfatPct: 5, purityPct: 100 },
  bars: 10,
  lines: [
    line('o', 'olive', 'fats', 700),
    line('c', 'coconut', 'fats', 300),
    line('w', 'water', 'liquid', 300),
  ],
};
const made = runSheet(
  formula,
  LIBRARY.filter(({ id }) => formula.lines.some((one) => one.material === id)),
  {},
);
if (!made.ok) throw new Error('It does not reckon.');
const { ok: _, ...sheet } = made;
const event = (type: string, more: object, id = `${type} ${JSON.stringify(more)}`) =>
  ({ id, type, at, by: null, ...more }) as unknown as BatchEvent;
const begun = event('started', {
  ...{ product: 'p', version: 1, code: 'P-1', sheet, formula: sheet.formula },
  materials: LIBRARY.filter(({ id }) => formula.lines.some((one) => one.material === id)),
});
const weighed = (of: string, massG: number) =>
  event('weighed', { line: of, massG, readabilityG: 0.1, how: 'scale' });
const scaled = (factor: number) =>
  event('checked', { check: SCALED_CHECK, outcome: 'good', value: String(factor) });
const massesOf = (events: BatchEvent[]) => {
  const { lines, alkali } = batchFormula(foldBatch([begun, ...events])!);
  return {
    ...Object.fromEntries(lines.map(({ id, amount }) => [id, amount.value])),
    lye: alkali.massG!,
  } as Record<string, number>;
};

describe('a day that was scaled', () => {
  it('is foretold in proportion at once, whichever lines are weighed, and as weighed where that is more', () => {
    const plan = massesOf([]);
    fc.assert(
      fc.property(
        fc.double({ min: 1.01, max: 1.5, noNaN: true }),
        fc.subarray(['c', 'w']),
        (factor, first) => {
          const events = [weighed('o', 700 * factor), ...first.map((id) => weighed(id, 300)), scaled(factor)];
          const now = massesOf(events);
          for (const id of ['o', 'c', 'w', 'lye']) expect(now[id]).to.be.closeTo(plan[id]! * factor, 1e-6);
        },
      ),
      { numRuns: 60 },
    );
    expect(massesOf([weighed('c', 400), scaled(1.1)]).c).to.be.closeTo(400, 1e-9);
    // Once it is poured, what was weighed counts and nothing else.
    const poured = massesOf([
      weighed('o', 770),
      weighed('c', 300),
      scaled(1.1),
      event('poured', { moulds: [], leftoverG: 0 }),
    ]);
    expect([poured.c, poured.w]).to.deep.equal([300, undefined]);
  });

  it('knows its factor from its events; the last one counts', () => {
    expect(foldBatch([begun])!.scale).to.equal(1);
    expect(foldBatch([begun, scaled(1.2), scaled(1.05)])!.scale).to.equal(1.05);
    expect(
      foldBatch([begun, event('checked', { check: 'ph', outcome: 'good', value: '9' })])!.scale,
    ).to.equal(1);
  });
});

describe('a line that is in the pot', () => {
  it('is not left out while anything of it stands weighed; corrected to nothing, it may be', () => {
    const skip = event('skipped', { line: 'c', reason: 'none left' });
    const batch = foldBatch([begun, weighed('c', 120)])!;
    expect(refusalOf(batch, skip)).to.include({ code: 'already-weighed', path: 'line' });
    const { id } = weighed('c', 120);
    const undone = foldBatch([
      begun,
      weighed('c', 120),
      event('corrected', { event: id, massG: 0, reason: 'out again' }),
    ])!;
    expect(refusalOf(undone, skip)).to.equal(null);
    expect(refusalOf(foldBatch([begun])!, skip)).to.equal(null);
  });
});

describe('two papers of one day', () => {
  it('the one filed later counts, and it is told so', () => {
    const paper = (number: string) => ({
      ...{ id: number, type: 'certificate' as const, number, edition: '51st' },
      ...{ issuedOn: '2026-10-01', issuer: 'X' },
    });
    const found = governingPaper([paper('later'), paper('first')], 'certificate', '2026-11-24', '51st')!;
    expect(found.paper.number).to.equal('later');
    expect(found.reasons[0]).to.contain('filed later');
  });
});
