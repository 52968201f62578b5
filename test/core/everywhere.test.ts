/** The nearest formula that is clear everywhere: put in and assessed, it is; nothing moves that need not. */
import { expect } from 'chai';
import loadHighs from 'highs';
import { assess } from '../../src/core/assess';
import type { Formula, Line, Market, Stage } from '../../src/core/formula/types';
import { everywhere, type EverywhereDemand } from '../../src/core/loads/everywhere';
import { solveWith, type Solve } from '../../src/core/numerics/highs';
import { LIBRARY } from '../../src/library';
import { shippedStore } from '../../src/server/store/snapshot';
import { seeded } from '../support/generate';

const TODAY = '2026-11-30';
const LATER = '2028-08-01';
const STORE = shippedStore(TODAY);
const find = (id: string) => LIBRARY.find((one) => one.id === id);
const MARKETS: Market[] = ['EU', 'UK', 'US', 'CA', 'AU'];
let solve: Solve;
before(async () => {
  solve = solveWith(await loadHighs());
});

const line = (
  id: string,
  material: string,
  stage: Stage,
  value: number,
  unit: Line['amount']['unit'] = '%fats',
): Line => ({
  ...{ id, material, stage },
  amount: { value, unit },
  measuredBy: 'scale',
});
const bar = (lines: Line[], more: Partial<Formula> = {}): Formula => ({
  format: 'proportia.formula/1',
  name: 'A bar',
  process: 'cold',
  fatsMassG: 1000,
  alkali: { superfatPct: 5, purityPct: 99 },
  liquid: { basis: 'ofFats', value: 33 },
  cure: { residualWaterPct: 8 },
  marginPct: 10,
  lines: [line('o', 'olive', 'fats', 70), line('c', 'coconut', 'fats', 30), ...lines],
  ...more,
});
const ask = (formula: Formula, demand: Partial<EverywhereDemand> = {}) =>
  everywhere(
    {
      ...{ request: {}, formula, stored: STORE, find },
      demand: { markets: MARKETS, dates: [TODAY, LATER], keepMargin: true, facts: [], ...demand },
      beside: LIBRARY.filter(({ kind }) => kind === 'fat'),
    },
    solve,
  );
const verdictOf = (formula: Formula, onDate: string) => {
  const result = assess({ format: 'proportia.request/1', formula, markets: MARKETS, onDate } as never, STORE);
  return result.ok ? result.assessment : null;
};

describe('clear everywhere', () => {
  const SCENTS = LIBRARY.filter(({ kind, constituents }) => kind === 'essentialOil' && constituents?.length);

  it('holds, once it is put in, in every market on every day, and moves only what has to move', () => {
    let moved = 0;
    for (let seed = 1; seed <= 25; seed++) {
      const random = seeded(seed);
      const oils = Array.from({ length: 3 }, (_, at) =>
        line(`s${at}`, SCENTS[Math.floor(random() * SCENTS.length)]!.id, 'trace', 0.2 + 3 * random()),
      ).filter((one, at, all) => all.findIndex(({ material }) => material === one.material) === at);
      const formula = bar([...oils, line('k', 'kaolin', 'trace', 2)]);
      const found = ask(formula);
      if (found.outcome !== 'found') throw new Error(`seed ${seed}: ${JSON.stringify(found)}`);
      moved += found.moves.length;
      const limits = [TODAY, LATER].flatMap((day) => verdictOf(found.formula, day)!.limits);
      const over = limits.filter(({ verdict, force }) => force !== 'craft' && verdict !== 'clear');
      expect(
        over.map(({ id }) => id),
        `seed ${seed}`,
      ).to.deep.equal([]);
      expect(found.moves.map((move) => move.line).filter((id) => !id.startsWith('s'))).to.deep.equal([]);
      for (const { fromG, toG } of found.moves) expect(toG).to.be.below(fromG);
      // From there nothing has to move any more.
      const again = ask(found.formula);
      expect(again.outcome === 'found' && again.moves, `seed ${seed}`).to.deep.equal([]);
      // A little more of what moved, and a limit is no longer kept with its margin.
      for (const { line: id, toG } of found.moves.filter((move) => move.toG > 0.05)) {
        const more = found.formula.lines.map((one) =>
          one.id === id
            ? {
                ...one,
                amount: { value: (one.amount.value * (toG * 1.01 + 0.02)) / toG, unit: one.amount.unit },
              }
            : one,
        );
        const after = [TODAY, LATER].flatMap(
          (day) => verdictOf({ ...found.formula, lines: more }, day)!.limits,
        );
        expect(
          after.some(({ verdict, force }) => force !== 'craft' && verdict !== 'clear'),
          `seed ${seed} ${id}`,
        ).to.equal(true);
      }
    }
    expect(moved).to.be.above(15);
  });

  it('lets palm go for fats that keep the acids near, without any limit in the way', () => {
    const formula = bar([line('p', 'palm', 'fats', 0)]);
    const palm = {
      ...formula,
      lines: [
        line('o', 'olive', 'fats', 45),
        line('c', 'coconut', 'fats', 25),
        line('p', 'palm', 'fats', 30),
      ],
    };
    const found = ask(palm, { facts: ['palmFree'] });
    if (found.outcome !== 'found') throw new Error(JSON.stringify(found));
    const fats = found.formula.lines.filter(({ stage }) => stage === 'fats');
    expect(fats.some(({ material }) => material === 'palm')).to.equal(false);
    expect(fats.reduce((sum, { amount }) => sum + amount.value, 0)).to.be.closeTo(100, 0.01);
    const acids = (lines: readonly Line[], of: readonly string[]) =>
      lines.reduce((sum, { material, amount }) => {
        const known = find(material)!.fattyAcids as Record<string, number>;
        return sum + (amount.value / 100) * of.reduce((all, acid) => all + (known[acid] ?? 0), 0);
      }, 0);
    for (const group of [
      ['lauric', 'myristic'],
      ['palmitic', 'stearic'],
      ['oleic', 'ricinoleic'],
      ['linoleic', 'linolenic'],
    ])
      expect(acids(fats, group), group.join()).to.be.closeTo(acids(palm.lines, group), 4);
    expect(found.verdicts.every(({ verdict }) => verdict === 'clear')).to.equal(true);
  });

  it('keeps the superfat where the lye was stated by its mass and fats move', () => {
    const lines = [
      line('o', 'olive', 'fats', 45),
      line('c', 'coconut', 'fats', 25),
      line('p', 'palm', 'fats', 30),
    ];
    const stated = { ...bar([]), lines, alkali: { massG: 140, purityPct: 99 } };
    const before = verdictOf(stated, TODAY)!.superfat.nominalPct!;
    const found = ask(stated, { facts: ['palmFree'] });
    if (found.outcome !== 'found') throw new Error(JSON.stringify(found));
    expect(found.moves.some(({ toG }) => toG === 0)).to.equal(true);
    expect(verdictOf(found.formula, TODAY)!.superfat.nominalPct!).to.be.closeTo(before, 0.01);
    expect(found.lyeFollows).to.equal(true);
    const heavy = ask({ ...stated, alkali: { massG: 190, purityPct: 99 } }, { facts: ['palmFree'] });
    expect(heavy.outcome === 'error' && heavy.errors[0]!.code).to.equal('lye-heavy');
    // Where only loads move the lye stays as it was stated.
    const oil = ask({ ...stated, lines: [...lines, line('l', 'clove-bud-oil', 'trace', 6)] });
    expect(oil.outcome === 'found' && [oil.formula.alkali.massG, oil.lyeFollows]).to.deep.equal([140, false]);
  });

  it('lets an animal fat go where vegan is wanted, and says what does not go together where nothing takes its place', () => {
    const lard = { ...bar([]), lines: [line('l', 'lard', 'fats', 60), line('c', 'coconut', 'fats', 40)] };
    const found = ask(lard, { facts: ['vegan'] });
    expect(
      found.outcome === 'found' && found.formula.lines.some(({ material }) => material === 'lard'),
    ).to.equal(false);
    const alone = { ...bar([]), lines: [line('l', 'lard', 'fats', 100)] };
    const none = everywhere(
      {
        ...{ request: {}, formula: alone, stored: STORE, find, beside: [] },
        demand: { markets: ['EU'], dates: [TODAY], keepMargin: true, facts: ['vegan'] },
      },
      solve,
    );
    expect(none).to.deep.equal({ outcome: 'nothing', facts: ['vegan'], because: [find('lard')!.name] });
  });

  it('names what no amount proves, and tells a formula that does not reckon', () => {
    const own = { id: 'own', name: 'Own fragrance', kind: 'fragrance' as const };
    const known = (id: string) => (id === 'own' ? own : find(id));
    const unproven = everywhere(
      {
        ...{ request: {}, formula: bar([line('f', 'own', 'trace', 2)]), find: known, beside: [] },
        stored: { ...STORE, material: known },
        demand: { markets: ['EU'], dates: [TODAY], keepMargin: true, facts: [] },
      },
      solve,
    );
    expect(unproven).to.deep.include({ outcome: 'found', moves: [], unproven: ['f'] });
    expect(ask(bar([line('f', 'nowhere', 'trace', 2)])).outcome).to.equal('error');
    // Stearic acid may come of palm or tallow: that is told, and nothing moves for it.
    const acid = ask(bar([line('a', 'stearic-acid', 'intoFats', 1)]), { facts: ['vegan', 'palmFree'] });
    expect(acid.outcome === 'found' && acid.open.map(({ fact }) => fact)).to.deep.equal([
      'vegan',
      'palmFree',
    ]);
    const none = ask({ ...bar([]), lines: [] });
    expect(none.outcome).to.equal('error');
  });
});
