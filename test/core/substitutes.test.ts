/** What could take a material's place: each row is two assessments of every bar, and the order is as it is said. */
import { expect } from 'chai';
import fc from 'fast-check';
import { assess } from '../../src/core/assess';
import { isWorse, requestOf, standsOf } from '../../src/core/change/effects';
import {
  judgeInBar,
  onLine,
  rankInBar,
  type InCupboard,
  type StandInBar,
} from '../../src/core/change/in-bar';
import {
  judgeSubstitutes,
  otherAcids,
  rankSubstitutes,
  type Priced,
  type Substitute,
} from '../../src/core/change/substitutes';
import { swapped } from '../../src/core/change/swap';
import type { Subject } from '../../src/core/change/types';
import { VERDICTS, type Verdict } from '../../src/core/formula/answer';
import type { Formula, Stored } from '../../src/core/formula/types';
import { LIBRARY, libraryMaterial } from '../../src/library';
import { rulebook } from '../../src/rulebook';

const DAY = '2026-11-24';
const { limits, declarables } = rulebook();
const stored: Stored = { material: (id) => libraryMaterial(id), limits, declarables };
const subject: Subject = {
  what: 'bar',
  id: 'a',
  product: 'a',
  name: 'A',
  markets: ['EU', 'US'],
  firstPlacedOn: {},
  hands: { curing: 0, inStock: 0, sold: 0, buyers: 0 },
};
const formula = (scent: string, g: number): Formula => ({
  alkali: { superfatPct: 5 },
  lines: [
    { id: 'o', material: 'olive', stage: 'fats', amount: { value: 700, unit: 'g' } },
    { id: 'c', material: 'coconut', stage: 'fats', amount: { value: 300, unit: 'g' } },
    { id: 'w', material: 'water', stage: 'liquid', amount: { value: 330, unit: 'g' } },
    { id: 's', material: scent, stage: 'trace', amount: { value: g, unit: 'g' } },
  ],
});
const OILS = LIBRARY.filter(({ kind }) => kind === 'essentialOil').map(({ id }) => id);
const FATS = LIBRARY.filter(({ kind }) => kind === 'fat').map(({ id }) => id);

describe('what could take a material’s place', () => {
  it('is told of every candidate as two single assessments of every bar would tell it', () => {
    const bars = [formula('lavender-oil', 30), formula('lavender-oil', 60)].map((one) => ({
      subject,
      formula: one,
      claimed: [],
    }));
    const judged = judgeSubstitutes('lavender-oil', OILS, bars, stored, DAY);
    expect(judged.map(({ id }) => id)).to.deep.equal(OILS);
    for (const { id, worst, worse, relisted } of judged) {
      const pairs = bars.map(({ formula: one }) => {
        const next = swapped(subject, one, { from: 'lavender-oil', to: id, by: 'mass' }, stored, DAY);
        return [standsOf(subject, one, stored, DAY), standsOf(subject, next, stored, DAY)] as const;
      });
      expect(worse, id).to.equal(
        pairs.filter(([was, is]) => was.some((stand, at) => isWorse(stand, is[at]!))).length,
      );
      const all = pairs.flatMap(([, is]) => is);
      const wanted = all.includes(null)
        ? null
        : all.map((stand) => stand!.verdict).sort((a, b) => VERDICTS.indexOf(a) - VERDICTS.indexOf(b))[0];
      expect(worst, id).to.equal(wanted);
      expect(relisted, id).to.equal(
        pairs.filter(([was, is]) =>
          was.some(
            (stand, at) => stand!.listAdded !== is[at]?.listAdded || stand!.listFormed !== is[at]?.listFormed,
          ),
        ).length,
      );
    }
    const itself = judged.find(({ id }) => id === 'lavender-oil')!;
    expect([itself.worse, itself.relisted]).to.deep.equal([0, 0]);
  });

  it('says of fats how much of their acids are others: none of itself, all of nothing shared, the same both ways', () => {
    for (const a of FATS)
      for (const b of FATS) {
        const [there, back] = [
          otherAcids(libraryMaterial(a), libraryMaterial(b)),
          otherAcids(libraryMaterial(b), libraryMaterial(a)),
        ];
        expect(there).to.equal(back);
        if (there === null) continue;
        expect(there, `${a} ${b}`).to.be.within(0, 101);
        if (a === b) expect(there).to.equal(0);
      }
    expect(otherAcids(libraryMaterial('olive'), libraryMaterial('coconut'))).to.be.above(50);
    expect(otherAcids(libraryMaterial('olive'), libraryMaterial('kaolin'))).to.equal(null);
    const near = (to: string) => otherAcids(libraryMaterial('coconut'), libraryMaterial(to))!;
    expect(near('babassu')).to.be.below(near('olive'));
  });

  it('puts the better verdict first, then fewer bars that get worse or belie their words, then what is alike, at hand, cheaper', () => {
    type Row = Substitute & Priced;
    const row: fc.Arbitrary<Row> = fc.record({
      id: fc.string({ minLength: 1, maxLength: 4 }),
      worst: fc.option(fc.constantFrom<Verdict>(...VERDICTS)),
      worse: fc.nat(3),
      relisted: fc.nat(3),
      misclaimed: fc.record({ vegan: fc.nat(2), palmFree: fc.nat(2) }, { requiredKeys: [] }),
      otherAcidsPct: fc.option(fc.integer({ min: 0, max: 100 })),
      isOwn: fc.boolean(),
      priceRatio: fc.option(fc.double({ min: 0.1, max: 5, noNaN: true })),
    });
    const rank = ({ worst }: Row) => (worst === null ? -1 : VERDICTS.indexOf(worst));
    const misclaims = ({ misclaimed: { vegan = 0, palmFree = 0 } }: Row) => vegan + palmFree;
    fc.assert(
      fc.property(fc.array(row, { maxLength: 12 }), (rows) => {
        const ranked = rankSubstitutes(rows);
        expect([...ranked].sort((a, b) => (a.id < b.id ? -1 : 1)).map(({ id }) => id)).to.deep.equal(
          [...rows].sort((a, b) => (a.id < b.id ? -1 : 1)).map(({ id }) => id),
        );
        for (let at = 1; at < ranked.length; at++) {
          const [one, two] = [ranked[at - 1]!, ranked[at]!];
          expect(rank(one)).to.be.at.least(rank(two));
          if (rank(one) !== rank(two)) continue;
          expect(one.worse).to.be.at.most(two.worse);
          if (one.worse !== two.worse) continue;
          expect(misclaims(one)).to.be.at.most(misclaims(two));
          if (misclaims(one) !== misclaims(two)) continue;
          expect(one.otherAcidsPct ?? 100).to.be.at.most(two.otherAcidsPct ?? 100);
        }
      }),
      { numRuns: 300 },
    );
  });

  it('counts the bars whose words the formula would belie, and only what it did not belie before', () => {
    const bars = [
      { subject, formula: formula('lavender-oil', 30), claimed: ['vegan', 'palmFree', 'unscented'] as const },
      { subject, formula: formula('lavender-oil', 40), claimed: ['vegan'] as const },
      { subject, formula: formula('lavender-oil', 50), claimed: [] },
    ];
    const judged = judgeSubstitutes('olive', ['beef-tallow', 'palm', 'sunflower'], bars, stored, DAY);
    expect(judged.map(({ misclaimed }) => misclaimed)).to.deep.equal([{ vegan: 2 }, { palmFree: 1 }, {}]);
  });

  it('has nothing to say where no bar holds the material', () => {
    const judged = judgeSubstitutes('lavender-oil', OILS.slice(0, 3), [], stored, DAY);
    expect(judged.map(({ worst, worse, relisted }) => [worst, worse, relisted])).to.deep.equal(
      Array.from({ length: 3 }, () => ['clear', 0, 0]),
    );
  });

  it('on a line of one bar is told as that bar reckoned with it, and leaves amount, stage and portion', () => {
    const now = formula('lavender-oil', 30);
    const spooned: Formula = {
      ...now,
      lines: now.lines.map((line) =>
        line.id === 's' ? { ...line, amount: { value: 2, unit: 'tsp' }, measuredBy: 'spoon' as const } : line,
      ),
    };
    const sold = { markets: subject.markets, firstPlacedOn: {} };
    const judged = judgeInBar('c', FATS, { sold, formula: now, claimed: [] }, stored, DAY);
    const whole = assess(requestOf(sold, now, DAY), stored);
    expect(whole.ok && whole.assessment.masses.alkaliG).to.equal(judged.now.alkaliG);
    expect([judged.now.comes, judged.now.goes, judged.massG]).to.deep.equal([[], [], 300]);
    for (const one of judged.candidates) {
      const next = onLine(now, 'c', one.id, judged.massG);
      const [, line] = next.lines;
      expect(line).to.deep.equal({ ...now.lines[1], material: one.id });
      const after = assess(requestOf(sold, next, DAY), stored);
      expect(after.ok ? after.assessment.masses.alkaliG : null, one.id).to.equal(one.alkaliG);
      if (one.verdict !== null && !one.id.startsWith('coconut'))
        expect(one.goes, one.id).to.include('Cocos Nucifera (Coconut) Oil');
    }
    const scent = judgeInBar('s', OILS, { sold, formula: spooned, claimed: [] }, stored, DAY);
    const last = onLine(spooned, 's', OILS[0]!, scent.massG).lines.at(-1)!;
    expect([last.amount.unit, last.measuredBy]).to.deep.equal(['g', 'scale']);
    expect(last.amount.value).to.be.closeTo(scent.massG, 1e-4);
  });

  it('on a line stands by verdict, claims, stock, likeness and cost', () => {
    const one = (id: string, more: Partial<StandInBar & InCupboard>) => ({
      ...{ id, verdict: 'clear' as Verdict, alkaliG: 1, comes: [], goes: [], misclaimed: [] },
      ...{ otherAcidsPct: null, isOwn: true, costMore: 0, freeG: 100 },
      ...more,
    });
    const all = [
      one('over', { verdict: 'over' }),
      one('claims', { misclaimed: ['vegan'] }),
      one('short', { freeG: 5 }),
      one('none', { isOwn: false, freeG: 0 }),
      one('far', { otherAcidsPct: 60 }),
      one('near', { otherAcidsPct: 2, costMore: 3 }),
      one('cheap', { otherAcidsPct: 2, costMore: -1 }),
    ];
    expect(rankInBar(all, 50).map(({ id }) => id)).to.deep.equal([
      ...['cheap', 'near', 'far', 'short', 'none', 'claims', 'over'],
    ]);
  });
});
