/** Sizes and costs: volumes by hand, scaling as a property, prices from lots. */
import { expect } from 'chai';
import fc from 'fast-check';
import { costOf, nextLot, pricePerGram, type Lot } from '../../src/core/making/cost';
import {
  batterVolume,
  fillMoulds,
  heldBy,
  lyeDensity,
  scaleFactor,
  scaleFormula,
  type Mould,
} from '../../src/core/making/size';
import type { Formula, Material } from '../../src/core/formula/types';
import { assessed, MATERIALS, near, request, type ShortLine } from '../support/request';

const DENSITIES: Record<string, number> = { olive: 0.9, coconut: 0.9, water: 1, clay: 2.5, perfume: 1 };
const materials: Material[] = MATERIALS.map((material) => ({
  ...material,
  density: DENSITIES[material.id] ?? null,
  bulkDensity: null,
}));
const material = (id: string) => materials.find((one) => one.id === id);

const LINES: ShortLine[] = [
  ['o', 'olive', 'fats', 900, 'g'],
  ['w', 'water', 'liquid', 300, 'g'],
  ['c', 'clay', 'trace', 2, '%fats'],
  ['p', 'perfume', 'trace', 30, 'g'],
];

describe('what the moulds hold', () => {
  const loaf: Mould = { id: 'loaf', name: 'Loaf', volumeMl: 1200, cavities: 10 };
  it('is that of those on file, and nothing where none is', () => {
    expect(
      heldBy(
        [
          { id: 'loaf', count: 2 },
          { id: 'gone', count: 4 },
        ],
        [loaf],
      ),
    ).to.equal(2400);
    expect(heldBy([{ id: 'gone', count: 4 }], [loaf])).to.equal(null);
    expect(heldBy([], [loaf])).to.equal(null);
  });
});

describe('size', () => {
  it('knows lye water by its strength, between the usual figures and beyond them', () => {
    near(lyeDensity(0), 0.998);
    near(lyeDensity(30), 1.328);
    near(lyeDensity(25), (1.219 + 1.328) / 2);
    near(lyeDensity(70), 1.525);
  });

  it('adds up every add-in by its density, and the lye by what it adds to its water', () => {
    const a = assessed(request(LINES, { alkali: { massG: 100, purityPct: 100 } }));
    const { volumeMl, lyeMl, guessed } = batterVolume(request(LINES).formula, a, material);
    // 100 g in 300 g of water is 25 %: 400 g at 1.2735 g/mL, less the water's own 300.6 mL.
    near(lyeMl, 400 / 1.2735 - 300 / 0.998, 1e-6);
    near(volumeMl, 900 / 0.9 + 300 + 18 / 2.5 + 30 + lyeMl, 1e-6);
    expect(guessed).to.deep.equal([]);
    const salted = request([...LINES, ['s', 'salt', 'trace', 50, 'g']]);
    expect(batterVolume(salted.formula, assessed(salted), material).guessed).to.deep.equal(['s']);
  });

  it('fills moulds one after the other and tells what is left over', () => {
    const mould = { id: 'm', name: 'Block', volumeMl: 1000, cavities: 10 };
    expect(fillMoulds(2350, 2500, mould)).to.deep.include({ full: 2, leftBars: 3 });
    near(fillMoulds(2350, 2500, mould).leftMl, 350);
    near(fillMoulds(2350, 2500, mould).leftG, (350 / 2350) * 2500);
    expect(fillMoulds(1000, 1000, mould)).to.deep.include({ full: 1, leftMl: 0, lastFilled: 1 });
    expect(fillMoulds(600, 600, mould)).to.deep.include({ full: 0, lastFilled: 0.6 });
  });

  it('scales every mass by one factor and moves no percent', () => {
    const formula: Formula = { ...request(LINES).formula, fatsMassG: 900 };
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 20, noNaN: true }), (factor) => {
        const before = assessed({ ...request(LINES), formula });
        const after = assessed({ ...request(LINES), formula: scaleFormula(formula, factor) });
        before.lines.forEach((line, i) => {
          near(after.lines[i]!.massG, line.massG * factor);
          near(after.lines[i]!.pctCured, line.pctCured);
        });
        near(after.masses.alkaliG, before.masses.alkaliG * factor);
      }),
      { numRuns: 40 },
    );
  });

  it('reaches a mass of fats, a number of bars or a mould to the rim', () => {
    const { formula } = request(LINES);
    const a = assessed(request(LINES));
    const { volumeMl } = batterVolume(formula, a, material);
    const sized = (factor: number) => {
      const scaled = scaleFormula(formula, factor);
      const b = assessed({ ...request(LINES), formula: scaled });
      return { b, volume: batterVolume(scaled, b, material).volumeMl };
    };
    near(sized(scaleFactor({ kind: 'fats', massG: 500 }, a, volumeMl)).b.masses.fatsG, 500);
    near(sized(scaleFactor({ kind: 'bars', count: 20, barG: 95 }, a, volumeMl)).b.masses.curedG, 1900);
    const mould = { id: 'm', name: 'Block', volumeMl: 1350, cavities: 14 };
    near(sized(scaleFactor({ kind: 'mould', mould, count: 2 }, a, volumeMl)).volume, 2700);
  });
});

describe('costs beside an assessment of other lines', () => {
  it('belong to their lines by name, in any order, and those it does not know have none yet', () => {
    const formula = request(LINES).formula;
    const known = assessed(request(LINES));
    const price = () => 0.01;
    const usual = costOf(formula, known, price, () => []);
    const turned = { ...formula, lines: [...formula.lines].reverse() };
    const byLine = (cost: typeof usual) => new Map(cost.lines.map((entry) => [entry.line, entry.cost]));
    expect(byLine(costOf(turned, known, price, () => []))).to.deep.equal(byLine(usual));
    const longer = { ...formula, lines: [...formula.lines, { ...formula.lines[0]!, id: 'new' }] };
    expect(costOf(longer, known, price, () => []).total).to.equal(usual.total);
  });
});

const lot = (more: Partial<Lot>): Lot => ({
  id: 'l',
  material: 'olive',
  supplier: '',
  code: '1',
  receivedOn: '2026-01-01',
  openedOn: null,
  bestBefore: null,
  quantityG: 1000,
  leftG: 500,
  quarantine: null,
  price: 10,
  revision: 1,
  ...more,
});

describe('cost', () => {
  it('takes opened lots first, then the oldest that hold some', () => {
    const lots = [
      lot({ id: 'old', receivedOn: '2025-01-01' }),
      lot({ id: 'open', receivedOn: '2026-02-01', openedOn: '2026-03-01' }),
      lot({ id: 'empty', receivedOn: '2024-01-01', leftG: 0, openedOn: '2024-01-02' }),
    ];
    expect(nextLot(lots)!.id).to.equal('open');
    expect(nextLot([lots[0]!, lots[2]!])!.id).to.equal('old');
    expect(nextLot([lots[2]!])).to.equal(null);
  });

  it('prices a gram by the lot in use, else the newest that had a price', () => {
    near(pricePerGram([lot({ price: 20 })]), 0.02);
    const gone = [
      lot({ leftG: 0, price: 5, receivedOn: '2025-01-01' }),
      lot({ id: 'b', leftG: 0, price: 8 }),
    ];
    near(pricePerGram(gone), 0.008);
    expect(pricePerGram([lot({ price: null })])).to.equal(null);
  });

  it('costs lines, the alkali and mixes by their parts, and says what has no price', () => {
    const formula = { ...request(LINES).formula, bars: 10 };
    const a = assessed(request(LINES));
    const prices: Record<string, number> = {
      olive: 0.01,
      water: 0.001,
      'sodium-hydroxide': 0.004,
      clove: 0.1,
    };
    const cost = costOf(
      formula,
      a,
      (id) => prices[id] ?? null,
      (id) =>
        id === 'perfume'
          ? [
              { material: 'clove', sharePct: 50 },
              { material: 'water', sharePct: 50 },
            ]
          : [],
    );
    const perfume = 30 * (0.5 * 0.1 + 0.5 * 0.001);
    near(cost.total, 900 * 0.01 + 300 * 0.001 + perfume + a.masses.alkaliG * 0.004);
    near(cost.perBar, cost.total / 10);
    expect(cost.unpriced).to.deep.equal(['clay']);
  });

  it('adds up: the lines are the total, twice the batch costs twice, and no bar costs more than its batch', () => {
    const price = (id: string) => ({ olive: 0.01, water: 0.001, clay: 0.02, perfume: 0.08 })[id] ?? 0.004;
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 10, noNaN: true }),
        fc.integer({ min: 1, max: 60 }),
        (factor, bars) => {
          const formula = { ...request(LINES).formula, bars };
          const once = costOf(formula, assessed({ ...request(LINES), formula }), price, () => []);
          near(
            once.lines.reduce((sum, { cost }) => sum + cost!, 0),
            once.total,
          );
          const scaled = scaleFormula(formula, factor);
          const more = costOf(scaled, assessed({ ...request(LINES), formula: scaled }), price, () => []);
          near(more.total, once.total * factor);
          expect(once.perBar!).to.be.at.most(once.total);
          expect(once.unpriced).to.deep.equal([]);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('has no price a bar where the bars are not stated', () => {
    const { formula } = request(LINES);
    expect(
      costOf(
        formula,
        assessed(request(LINES)),
        () => 1,
        () => [],
      ).perBar,
    ).to.equal(null);
  });
});

describe('filling moulds', () => {
  it('never loses batter: what is full and what is left is what there was', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 20_000, noNaN: true }),
        fc.double({ min: 50, max: 5000, noNaN: true }),
        fc.integer({ min: 1, max: 40 }),
        (volumeMl, mouldMl, cavities) => {
          const mould = { id: 'm', name: 'M', volumeMl: mouldMl, cavities };
          const { full, leftMl, leftG, leftBars, lastFilled } = fillMoulds(volumeMl, volumeMl * 1.02, mould);
          expect(Math.abs(full * mouldMl + leftMl - volumeMl)).to.be.at.most(mouldMl * 1e-3 + 1e-6);
          expect(leftMl).to.be.below(mouldMl);
          expect(leftBars).to.be.at.most(cavities);
          expect(lastFilled).to.be.within(0, 1);
          near(leftG, leftMl * 1.02, 1e-6);
        },
      ),
    );
  });
});
