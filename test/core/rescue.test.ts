/** Rescue at the pot: what it proposes, put in and reckoned, lies within every bound; never more lye than the fats take. */
import { expect } from 'chai';
import loadHighs from 'highs';
import { assess } from '../../src/core/assess';
import { foldBatch } from '../../src/core/batch/fold';
import { batchRequest } from '../../src/core/batch/request';
import { rescue, type Rescue } from '../../src/core/batch/rescue';
import { shortLiquid, shortWords, toldAt } from '../../src/core/batch/told';
import { RESCUED_CHECK, type BatchEvent } from '../../src/core/batch/types';
import { isLyeOver, isStepDone, wantedOf } from '../../src/core/batch/targets';
import type { Formula, Stage } from '../../src/core/formula/types';
import { PLACES } from '../../src/core/making/run-sheet-types';
import { runSheet } from '../../src/core/making/run-sheet';
import { LIBRARY } from '../../src/library';
import { shippedStore } from '../../src/server/store/snapshot';
import { solveWith, type Solve } from '../../src/core/numerics/highs';
import { seeded } from '../support/generate';

const TODAY = '2026-11-30';
const STORE = shippedStore(TODAY);
let solve: Solve;
before(async () => {
  solve = solveWith(await loadHighs());
});

const line = (id: string, material: string, stage: Stage, value: number) => ({
  ...{ id, material, stage },
  amount: { value, unit: 'g' as const },
});
const FORMULA: Formula = {
  alkali: { superfatPct: 5, purityPct: 99 },
  bars: 10,
  lines: [
    line('o', 'olive', 'fats', 600),
    line('c', 'coconut', 'fats', 250),
    line('s', 'shea', 'fats', 150),
    line('w', 'water', 'liquid', 330),
    line('l', 'clove-bud-oil', 'trace', 0.3),
  ],
};
const USED = LIBRARY.filter(({ id }) => FORMULA.lines.some((one) => one.material === id));
const made = runSheet(FORMULA, USED, {});
if (!made.ok) throw new Error('It does not reckon.');
const { ok: _, ...sheet } = made;
let count = 0;
const event = (type: string, more: object) =>
  ({ id: `e${++count}`, type, at: '2026-11-30T09:00:00Z', by: null, ...more }) as unknown as BatchEvent;
const begun = event('started', {
  ...{ product: 'p', version: 1, code: 'P-1', sheet, formula: sheet.formula, materials: USED },
});
const weighed = (of: string, massG: number) =>
  event('weighed', { line: of, massG, readabilityG: 0.1, how: 'scale' });
const joined = event('stepDone', { step: 'join' });

function tried(events: BatchEvent[], holdsMl: number | null = null) {
  const batch = foldBatch([begun, ...events])!;
  return {
    batch,
    found: rescue({ batch, stored: STORE, markets: ['EU', 'UK'], onDate: TODAY, holdsMl }, solve)!,
  };
}

type Found = Extract<Rescue, { outcome: 'found' }>;

/** What the bench writes down where the additions are accepted. */
const settled = ({ totalsG }: Found) =>
  event('checked', { check: RESCUED_CHECK, outcome: 'good', value: JSON.stringify(totalsG) });

function reckoned(events: BatchEvent[]) {
  const batch = foldBatch([begun, ...events])!;
  const result = assess(batchRequest(batch, STORE, { markets: ['EU', 'UK'], onDate: TODAY }), STORE);
  if (!result.ok) throw new Error(JSON.stringify(result.errors));
  return result.assessment;
}

/** Everything that the steps then ask for, weighed as they ask for it, and poured: as a bench would. */
function putIn(events: BatchEvent[], found: Found) {
  const all = [...events, settled(found)];
  for (const step of sheet.steps)
    for (const wanted of wantedOf(foldBatch([begun, ...all])!, step)) {
      const leftG = wanted.massG - wanted.doneG;
      if (leftG > 1e-9)
        all.push(
          event('weighed', {
            line: wanted.line,
            massG: leftG,
            readabilityG: 0.1,
            how: 'scale',
            step: step.id,
          }),
        );
    }
  const batch = foldBatch([begun, ...all])!;
  for (const step of sheet.steps)
    expect(wantedOf(batch, step).filter(isLyeOver), 'lye that is asked for is not too much').to.deep.equal(
      [],
    );
  return reckoned([...all, event('poured', { moulds: [], leftoverG: 0 })]);
}

describe('rescue at the pot', () => {
  it('proposes nothing where nothing is out of bounds', () => {
    expect(tried([]).found.outcome).to.equal('fine');
    expect(tried([weighed('o', 601)]).found.outcome).to.equal('fine');
  });

  it('brings an oil that ran over back with lye and liquid, and lye that ran over with fats', () => {
    const oil = tried([weighed('o', 760)]).found;
    expect(oil.outcome).to.equal('found');
    if (oil.outcome === 'found') {
      expect(oil.additions.map((one) => one.line)).to.include('alkali');
      expect(oil.becomes.superfatPct).to.be.within(4, 6.001);
    }
    const lye = tried([weighed('alkali', sheet.alkaliG + 9)]).found;
    expect(lye.outcome).to.equal('found');
    if (lye.outcome === 'found') expect(lye.additions.every((one) => one.line !== 'alkali')).to.equal(true);
  });

  it('holds for whatever ran over: within superfat and every limit, nothing taken out, never too much lye', () => {
    const random = seeded(7);
    let rescued = 0;
    for (let run = 0; run < 60; run++) {
      const over = (of: string, g: number) => weighed(of, g * (1 + 0.5 * random()));
      const events = [
        ...(random() < 0.6 ? [over('o', 600)] : []),
        ...(random() < 0.4 ? [over('c', 250)] : []),
        ...(random() < 0.4 ? [weighed('alkali', sheet.alkaliG * (0.92 + 0.2 * random()))] : []),
        ...(random() < 0.4 ? [weighed('w', 330 * (0.6 + 0.6 * random()))] : []),
        ...(random() < 0.3 ? [weighed('l', 0.3 + 0.6 * random())] : []),
        ...(random() < 0.3 ? [joined] : []),
      ];
      const { found, batch } = tried(events, 1400 + 500 * random());
      if (found.outcome !== 'found') continue;
      rescued++;
      const isJoined = batch.stepsDone.some(({ step }) => step === 'join');
      const assessment = putIn(events, found);
      expect(found.additions.every(({ massG }) => massG > 0)).to.equal(true);
      expect(assessment.superfat.nominalPct, `${run}`).to.be.within(3.99, 6.01);
      expect(assessment.verdict, `${run}`).to.be.oneOf(['clear', 'tight', 'unproven']);
      if (isJoined)
        expect(
          found.additions.every((one) => /^[ocs]$/.test(one.line)),
          `${run}`,
        ).to.equal(true);
      expect(found.becomes.superfatPct).to.be.closeTo(assessment.superfat.nominalPct!, 1e-6);
    }
    expect(rescued).to.be.above(20);
  });

  it('asks for no more than is needed: a tenth less of everything is out of bounds', () => {
    const events = [weighed('o', 800)];
    const { found } = tried(events);
    if (found.outcome !== 'found') return expect.fail(found.outcome);
    const less = Object.fromEntries(
      found.additions.map(({ line: of, massG }) => [of, found.totalsG[of]! - 0.1 * massG]),
    );
    expect(
      putIn(events, { ...found, totalsG: { ...found.totalsG, ...less } }).superfat.nominalPct,
    ).to.be.above(6);
  });

  it('is part of the plan once it is accepted: foretold at once, asked for by steps that were done', () => {
    const lyeStep = sheet.steps.find(({ weigh }) => weigh.some((one) => one.line === 'alkali'))!;
    const events = [
      weighed('alkali', sheet.alkaliG),
      weighed('w', 330),
      event('stepDone', { step: lyeStep.id }),
      weighed('o', 780),
    ];
    const { found } = tried(events);
    if (found.outcome !== 'found') return expect.fail(found.outcome);
    const [alkali, water] = ['alkali', 'w'].map((of) => found.additions.find((one) => one.line === of)!);
    // What comes after the lye was made is dissolved in water of its own.
    expect(water!.massG).to.be.at.least(alkali!.massG);
    const batch = foldBatch([begun, ...events, settled(found)])!;
    expect(isStepDone(batch, lyeStep)).to.equal(false);
    expect(reckoned([...events, settled(found)]).superfat.nominalPct).to.be.closeTo(
      found.becomes.superfatPct!,
      1e-6,
    );
    expect(
      rescue({ batch, stored: STORE, markets: ['EU', 'UK'], onDate: TODAY, holdsMl: null }, solve)!.outcome,
    ).to.equal('fine');
  });

  it('takes what is begun for what it will be, and what is done for what it is', () => {
    expect(tried([weighed('o', 200)]).found.outcome).to.equal('fine');
    const oils = sheet.steps.filter(({ weigh }) => weigh.some((one) => one.line === 'o'));
    const done = oils.map(({ id }) => event('stepDone', { step: id }));
    expect(tried([weighed('o', 200), ...done]).found.outcome).to.equal('found');
  });

  it('says that there is no way back, what it becomes, and how much room one would want', () => {
    const events = [weighed('o', 900)];
    const { found } = tried(events, 1300);
    expect(found.outcome).to.equal('nothing');
    if (found.outcome !== 'nothing') return;
    expect(found.roomMl).to.be.above(0);
    expect(found.becomes.superfatPct).to.be.above(6);
    // Once the lye is in the fats no lye is offered.
    const after = tried([weighed('o', 900), joined]).found;
    expect(after.outcome).to.equal('nothing');
    expect(after.outcome === 'nothing' && after.roomMl).to.equal(null);
  });
});

describe('a liquid that fell short', () => {
  const batch = foldBatch([begun])!;

  it('tells what it does before it is taken, and nothing where it is within what is allowed', () => {
    const short = shortLiquid(batch, 'w', 280, 330, 6.6)!;
    const lye = (liquid: number) => (100 * sheet.alkaliG) / (sheet.alkaliG + liquid);
    expect(short.plannedPct).to.be.closeTo(lye(330), 1e-9);
    expect(short.comesPct).to.be.closeTo(lye(280), 1e-9);
    expect(shortWords(short)).to.match(/^Left at that, the lye comes to .* cured they weigh the same\.$/);
    expect(shortWords({ ...short, comesPct: 44 })).to.contain('hardly dissolves');
    expect(shortLiquid(batch, 'w', 326, 330, 6.6)).to.equal(null);
    expect(shortLiquid(batch, 'w', 0, 330, 6.6)).to.equal(null);
    expect(shortLiquid(batch, 'o', 100, 600, 12)).to.equal(null);
  });

  it('has something to tell at every place', () => {
    for (const place of PLACES) expect(toldAt(place).length, place).to.be.above(0);
    expect(toldAt('portion')).to.include('It riced');
    expect(toldAt('rest')).to.include('It did not gel');
  });
});
