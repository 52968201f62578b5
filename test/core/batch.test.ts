/** Folding, admitting and assessing batches without any server. */
import { expect } from 'chai';
import { batchLetters } from '../../src/core/batch/code';
import fc from 'fast-check';
import { assess } from '../../src/core/assess';
import { refusalOf } from '../../src/core/batch/admit';
import { extendBatch, foldBatch } from '../../src/core/batch/fold';
import { batchRecord } from '../../src/core/batch/record';
import { batchRequest } from '../../src/core/batch/request';
import type { Batch, BatchEvent } from '../../src/core/batch/types';
import type { Formula } from '../../src/core/formula/types';
import { runSheet } from '../../src/core/making/run-sheet';
import { LIBRARY } from '../../src/library';

const stage = { w: 'liquid', k: 'trace', s: 'trace', t: 'top' } as Record<string, 'liquid' | 'trace' | 'top'>;
const line = (id: string, material: string, value: number, portion?: string) => ({
  id,
  material,
  stage: stage[id] ?? ('fats' as const),
  amount: { value, unit: 'g' as const },
  ...(portion ? { portion } : {}),
});
const formula: Formula = {
  alkali: { superfatPct: 6, purityPct: 99 },
  bars: 10,
  portions: [
    { id: 'A', share: 0.5 },
    { id: 'B', share: 0.5 },
  ],
  lines: [
    line('o', 'olive', 600),
    line('c', 'coconut', 400),
    line('w', 'water', 330),
    line('k', 'kaolin', 20, 'B'),
    line('s', 'sea-salt-fine', 100),
    line('t', 'calendula-petals', 5),
  ],
};
const materials = LIBRARY.filter(({ id }) => formula.lines.some(({ material }) => material === id));
const made = runSheet(formula, materials);
if (!made.ok) throw new Error('The sheet is not made.');
const { ok: _ok, ...sheet } = made;

let count = 0;
const event = (type: string, more: object, at = '2026-11-24T09:00:00Z') =>
  ({ id: `e${++count}`, type, at, by: null, ...more }) as unknown as BatchEvent;
const started = event('started', {
  product: 'p',
  version: 1,
  formula: sheet.formula,
  materials,
  sheet,
  code: 'P-1',
});
const weighed = (id: string, massG: number, more: object = {}) =>
  event('weighed', { line: id, massG, readabilityG: 0.5, how: 'scale', ...more });
const fold = (...events: BatchEvent[]): Batch => foldBatch([started, ...events])!;
const stored = {
  material: (id: string) => LIBRARY.find((one) => one.id === id),
  limits: [],
  declarables: [],
};
const requestOf = (batch: Batch) => batchRequest(batch, stored, { markets: ['EU'], onDate: '2026-11-24' });
const requested = (batch: Batch, id: string) =>
  requestOf(batch).formula.lines.filter((one) => one.id.split(':')[0] === id);
const poured = event('poured', { moulds: [], leftoverG: 0 });

describe('a batch folded from its events', () => {
  it('adds weighings up as corrected, keeps what was first said, and counts an id once', () => {
    const first = weighed('o', 300);
    const batch = fold(
      first,
      weighed('o', 250),
      event('corrected', { event: first.id, massG: 340, reason: 'tare' }),
      first,
    );
    const olive = batch.lines.find((one) => one.line === 'o')!;
    expect(olive.massG).to.equal(590);
    expect(olive.weighings[0]).to.include({ massG: 340, firstG: 300, correction: 'tare' });
  });

  it('is the same folded at once or extended event by event, and is not changed by looking', () => {
    const pool = [
      () => weighed('o', 10),
      () => event('guessed', { line: 'k', massG: 5, how: 'spoon' }),
      () => event('added', { material: 'kaolin', stage: 'trace', massG: 3, how: 'eye' }),
      () => event('skipped', { line: 's', reason: 'none left' }),
      () => event('stepDone', { step: 'gear' }),
      () => event('stepUndone', { step: 'gear' }),
      () => event('noted', { text: 'x', for: 'record' }),
      () => poured,
      () => event('cut', { bars: 10, seconds: 1, trimmingsG: 3 }),
      () => event('barWeighed', { bar: '1', massG: 90, readabilityG: 1 }),
      () => event('quarantined', { reason: 'spots' }),
      () => event('decided', { decision: 'release', reason: 'only ash' }),
      () => event('released', { bars: 5, netMassG: 85, markets: ['EU'] }),
      () => event('moved', { bars: 1, how: 'sale' }),
    ];
    fc.assert(
      fc.property(fc.array(fc.nat(pool.length - 1), { maxLength: 30 }), (picks) => {
        const taken: BatchEvent[] = [started];
        const grown = foldBatch(taken)!;
        for (const pick of picks) {
          const next = pool[pick]!();
          if (taken.some(({ id }) => id === next.id) || refusalOf(grown, next)) continue;
          taken.push(next);
          extendBatch(grown, next);
        }
        const whole = foldBatch(taken)!;
        expect(whole).to.deep.equal(grown);
        const { good, released, gone, left } = whole.bars;
        expect(gone).to.be.at.most(good);
        expect(released).to.be.at.most(good);
        expect(left).to.equal(good - gone);
      }),
      { numRuns: 300 },
    );
  });

  it('cures once a bar is weighed after the cut, or a day after it', () => {
    const cut = event('cut', { bars: 10, seconds: 0, trimmingsG: 0 }, '2026-11-25T09:00:00Z');
    expect(fold(poured, cut).state).to.equal('cut');
    expect(foldBatch([started, poured, cut], '2026-11-26T08:59:00Z')!.state).to.equal('cut');
    expect(foldBatch([started, poured, cut], '2026-11-26T09:00:00Z')!.state).to.equal('curing');
    const bar = event('barWeighed', { bar: '1', massG: 99, readabilityG: 1 }, '2026-11-25T10:00:00Z');
    expect(fold(poured, cut, bar).state).to.equal('curing');
    expect(foldBatch([weighed('o', 1)])).to.equal(null);
  });
});

describe('the request of what was weighed', () => {
  it('stands as planned while pouring, and leaves out what was never touched once it is poured', () => {
    const pouring = fold(weighed('o', 610));
    expect(requested(pouring, 'o')[0]!.amount).to.deep.equal({ value: 610, unit: 'g' });
    expect(requested(pouring, 'c')[0]!.amount.value).to.be.closeTo(400, 1e-9);
    expect(requestOf(pouring).formula.alkali.massG).to.be.closeTo(sheet.alkaliG, 1e-9);
    const done = fold(weighed('o', 610), weighed('alkali', 130), poured);
    expect(requestOf(done).formula.lines.map(({ id }) => id)).to.deep.equal(['o']);
    expect(requestOf(done).formula.alkali).to.deep.equal({ purityPct: 99, massG: 130 });
  });

  it('carries the scale’s doubt, a guess’s, or both together', () => {
    const doubt = (...events: BatchEvent[]) => requested(fold(...events), 'k')[0]!;
    expect(doubt(weighed('k', 20), weighed('k', 5)).uncertaintyPct).to.be.closeTo(4, 1e-9);
    expect(doubt(event('guessed', { line: 'k', massG: 20, how: 'heaped' })).measuredBy).to.equal('heaped');
    // A spoon that its maker has weighed is as doubtful as it was found, also beside what the scale said.
    const spooned = event('guessed', { line: 'k', massG: 10, how: 'spoon' });
    const ofOwn = { ...fold(weighed('k', 10), spooned) };
    ofOwn.materials = ofOwn.materials.map((one) => (one.id === 'kaolin' ? { ...one, spoonPct: 4 } : one));
    expect(doubt(weighed('k', 10), spooned).doubtPct!.high).to.be.closeTo((100 * (0.5 + 1.5)) / 20, 1e-9);
    expect(requested(ofOwn, 'k')[0]!.doubtPct!.high).to.be.closeTo((100 * (0.5 + 0.4)) / 20, 1e-9);
    const both = doubt(weighed('k', 10), event('guessed', { line: 'k', massG: 10, how: 'eye' }));
    expect(both.doubtPct!.low).to.be.closeTo((100 * (0.5 + 4)) / 20, 1e-9);
    expect(both.doubtPct!.high).to.be.closeTo((100 * (0.5 + 6)) / 20, 1e-9);
    const assessed = assess(
      requestOf(fold(weighed('k', 10), event('guessed', { line: 'k', massG: 10, how: 'eye' }))),
      stored,
    );
    if (!assessed.ok) expect.fail(JSON.stringify(assessed.errors));
    const found = assessed.assessment.lines.find(({ id }) => id === 'k')!;
    expect([found.lowG, found.highG].map((g) => Number(g.toFixed(6)))).to.deep.equal([15.5, 26.5]);
  });

  it('splits as it was really split, and common salt weighed by portion goes where it was put', () => {
    const batch = fold(
      event('split', {
        portions: [
          { id: 'A', share: 0.4 },
          { id: 'B', share: 0.6 },
        ],
      }),
      weighed('s', 30, { portion: 'A' }),
      weighed('s', 70, { portion: 'B' }),
    );
    expect(requestOf(batch).formula.portions).to.deep.equal([
      { id: 'A', share: 0.4 },
      { id: 'B', share: 0.6 },
    ]);
    const salts = requested(batch, 's');
    expect(salts.map(({ portion, amount }) => [portion, amount.value])).to.deep.equal([
      ['A', 30],
      ['B', 70],
    ]);
  });
});

describe('the record of a batch', () => {
  it('tells in a sentence each what differed, and nothing where nothing did', () => {
    const all = sheet.steps
      .flatMap(({ weigh }) => weigh)
      .map((one) => weighed(one.line, one.massG, one.portion ? { portion: one.portion } : {}));
    const quiet = batchRecord({
      id: 'b',
      productName: 'P',
      batch: fold(...all, poured),
      events: [],
      verdicts: null,
    });
    expect(quiet.deviations).to.deep.equal([]);
    const bent = fold(
      ...all,
      weighed('c', 40),
      event('added', { material: 'kaolin', stage: 'trace', massG: 3, how: 'eye' }),
      event('quarantined', { reason: 'soft spots' }),
    );
    const told = batchRecord({
      id: 'b',
      productName: 'P',
      batch: bent,
      events: [],
      verdicts: null,
    }).deviations;
    expect(told).to.have.length(3);
    expect(told[0]).to.match(/Coconut oil.*: 440 g instead of 400 g \(\+10\.0 %\)/);
    expect(told[1]).to.match(/3 g added that was not planned/);
    expect(told[2]).to.contain('soft spots');
  });

  it('names batches by letters of their bar, whatever accents it has', () => {
    expect(
      ['Crème brûlée', 'Öl und Salz', 'Signal Red', 'Oat', '石鹸', "L'été à la mer"].map(batchLetters),
    ).to.deep.equal([...['CB', 'OUS', 'SR', 'OA', 'B', 'LEAL']]);
  });
});
