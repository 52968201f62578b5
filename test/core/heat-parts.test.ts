/** The parts of the heat model on their own: what a batter weighs and stores, how a mould is cut into cells, what surrounds it. */
import { expect } from 'chai';
import fc from 'fast-check';
import { capacities, conductivity, heatBatters, rateFactor, reactionJ } from '../../src/core/heat/batter';
import { questionOfBatch, readingsOf } from '../../src/core/heat/batch-pour';
import { conductancesOf, gridOf } from '../../src/core/heat/grid';
import { hasSugars, outcomeOf } from '../../src/core/heat/judge';
import { paceOf } from '../../src/core/heat/pace';
import { facesOf, rangeOf } from '../../src/core/heat/surroundings';
import { MOULD_WALLS, type MouldShape } from '../../src/core/heat/types';
import { loadsOf } from '../../src/core/making/loads';
import type { Batch } from '../../src/core/batch/types';
import type { Formula } from '../../src/core/formula/types';
import { LIBRARY } from '../../src/library';
import { around, batter, formulaOf, LAURIC, pour, SILICONE, WOOD } from '../support/heat';

const splitFormula = (share: number): Formula => {
  const formula = formulaOf({
    more: [
      ['table-salt', 40],
      ['kaolin', 2],
    ],
  });
  return {
    ...formula,
    portions: [
      { id: 'a', share },
      { id: 'b', share: 1 - share },
    ],
    lines: formula.lines.map((line) => (line.material === 'table-salt' ? { ...line, portion: 'a' } : line)),
  };
};

describe('a batter as heat sees it', () => {
  it('weighs what the assessment says, and its parts add up to it however it is split', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 0.95, noNaN: true }), (share) => {
        const formula = splitFormula(share);
        const { assessment } = loadsOf(formula, LIBRARY)!;
        const parts = heatBatters(formula, LIBRARY)!;
        const sum = (of: (part: (typeof parts)[number]) => number) =>
          parts.reduce((all, one) => all + of(one), 0);
        expect(sum(({ massG }) => massG)).to.be.closeTo(assessment.masses.pourG, 1e-6);
        expect(sum(({ fatsG }) => fatsG)).to.be.closeTo(assessment.masses.fatsG, 1e-6);
        expect(sum(({ share: own }) => own)).to.be.closeTo(1, 1e-9);
        expect(parts.map(({ saltG }) => saltG > 0)).to.deep.equal([true, false]);
      }),
      { numRuns: 50 },
    );
  });

  it('makes soap, glycerin, water and free fat of its fats and alkali, to the gram', () => {
    for (const superfatPct of [0, 5, 20]) {
      const [one] = batter({ superfatPct });
      const made = one!.soapG + one!.glycerinG + one!.freeFatG + one!.reactionWaterG;
      expect(made).to.be.closeTo(one!.fatsG + one!.alkaliG, 1e-6);
      expect(one!.freeFatG).to.be.closeTo((superfatPct / 100) * one!.fatsG, 1e-6);
    }
  });

  it('gives about 200 kJ for each kilogram of ordinary fats, and stores more heat the more water is in it', () => {
    const [one] = batter({ superfatPct: 0 });
    expect(reactionJ(one!) / one!.fatsG).to.be.within(190, 225);
    const [dry, wet] = [batter({ waterPct: 25 })[0]!, batter({ waterPct: 40 })[0]!];
    expect(capacities(wet).before - capacities(dry).before).to.be.closeTo(
      4.18 * (wet.waterG - dry.waterG),
      1e-6,
    );
    expect(conductivity(wet)).to.be.above(conductivity(dry));
  });

  it('reacts faster with lauric fats, stronger lye and what is lively', () => {
    const rate = (asked: Parameters<typeof batter>[0]) => rateFactor(batter(asked)[0]!);
    expect(rate({ fats: LAURIC })).to.be.above(rate({}));
    expect(rate({ waterPct: 26 })).to.be.above(rate({ waterPct: 38 }));
    const lively = { ...batter()[0]!, isLively: true };
    expect(rateFactor(lively)).to.be.above(rateFactor(batter()[0]!));
  });
});

describe('a mould cut into cells', () => {
  const shapes = fc.record({
    form: fc.constantFrom('block', 'column') as fc.Arbitrary<MouldShape['form']>,
    wall: fc.constantFrom(...MOULD_WALLS),
    lengthMm: fc.integer({ min: 20, max: 600 }),
    widthMm: fc.integer({ min: 20, max: 400 }),
    heightMm: fc.integer({ min: 10, max: 200 }),
  });

  it('holds its whole volume and shows its whole surface, however finely it is cut', () => {
    fc.assert(
      fc.property(
        shapes,
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 1, max: 12 }),
        (shape, across, up) => {
          const grid = gridOf(shape, { across, up, along: 3 });
          const sum = (values: Float64Array) => values.reduce((all, one) => all + one, 0);
          const [w, l, h] = [shape.widthMm, shape.lengthMm, shape.heightMm].map((mm) => mm / 1000) as [
            number,
            number,
            number,
          ];
          const floor = shape.form === 'column' ? (Math.PI * w * w) / 4 : w * l;
          const side = shape.form === 'column' ? Math.PI * w * h : 2 * l * h;
          expect(sum(grid.volume)).to.be.closeTo(floor * h, 1e-9 + 1e-9 * floor * h);
          expect(sum(grid.topArea)).to.be.closeTo(floor, 1e-9);
          expect(sum(grid.bottomArea)).to.be.closeTo(floor, 1e-9);
          expect(sum(grid.sideArea)).to.be.closeTo(side, 1e-9);
          expect(sum(grid.endArea)).to.be.closeTo(shape.form === 'column' ? 0 : 2 * w * h, 1e-9);
        },
      ),
      { numRuns: 100 },
    );
  });

  it('conducts less through a thicker wall, and nothing past its outermost cells', () => {
    const grid = gridOf(WOOD, { across: 4, up: 5, along: 1 });
    const k = new Float64Array(20).fill(0.3);
    const wood = conductancesOf(grid, k, facesOf(WOOD, around('leave')));
    const silicone = conductancesOf(grid, k, facesOf(SILICONE, around('leave')));
    for (let row = 0; row < 5; row++) {
      expect(silicone.side[row * 4 + 3]).to.be.above(wood.side[row * 4 + 3]!);
      expect(wood.outward[row * 4 + 3]).to.equal(0);
    }
    expect([...wood.upward.slice(16)]).to.deep.equal([0, 0, 0, 0]);
  });

  it('is cut off more from the air the warmer it is kept; a mat warms it from below', () => {
    const side = (way: 'warm' | 'leave' | 'chill') => facesOf(WOOD, around(way)).side.resistance;
    expect(side('warm')).to.be.above(side('leave'));
    expect(side('leave')).to.be.above(side('chill'));
    expect(rangeOf(facesOf(WOOD, { way: 'leave', roomC: 18, matC: 45 }))).to.deep.equal({
      coldest: 18,
      hottest: 45,
    });
    expect(rangeOf(facesOf(WOOD, around('chill', 30))).hottest).to.be.below(10);
    expect(facesOf(WOOD, around('leave'), 2).top.resistance).to.equal(
      2 * facesOf(WOOD, around('leave')).top.resistance,
    );
  });
});

describe('what the heat says to the knife', () => {
  it('opens later in the cold, by no more than twice, and never for less than six tenths', () => {
    for (const shape of [WOOD, SILICONE])
      for (const way of ['warm', 'leave', 'chill'] as const) {
        const [{ factor, why }] = paceOf(pour(shape, way)) as [ReturnType<typeof paceOf>[number]];
        expect(factor).to.be.within(0.6, 2);
        expect(why).to.match(/it (gels|does not gel).*estimate/);
      }
    expect(paceOf(pour(WOOD, 'chill'))[0]!.factor).to.be.above(paceOf(pour(WOOD, 'warm'))[0]!.factor);
  });

  it('opens by the unknowns that a thermometer told, where it told any', () => {
    const known = (rate: number) => ({
      mean: [rate, 0, 0, 0],
      spread: [0, 1, 2, 3].map(() => [0, 0, 0, 0]),
      firm: 1,
    });
    const factor = (rate: number) => paceOf(pour(WOOD, 'leave'), known(rate))[0]!.factor;
    expect(factor(0)).to.be.closeTo(paceOf(pour(WOOD, 'leave'))[0]!.factor, 1e-9);
    expect(factor(-1.5)).to.be.above(factor(0) * 1.05);
    expect(factor(1.5)).to.be.below(factor(0));
  });

  it('judges a run by its gelled share, and sugars from one percent of the fats on', () => {
    const gelled = (gelledShare: number) => outcomeOf({ gelledShare } as Parameters<typeof outcomeOf>[0]);
    expect([gelled(1), gelled(0.5), gelled(0)]).to.deep.equal(['through', 'ring', 'none']);
    expect(hasSugars(pour(WOOD, 'leave'))).to.equal(false);
    expect(hasSugars(pour(WOOD, 'leave', { more: [['honey', 3]] }))).to.equal(true);
  });

  it('takes from a batch what was measured, and the usual where nothing was', () => {
    const mould = { id: 'm', name: 'M', volumeMl: 1000, cavities: 10 };
    const at = (minutes: number) => new Date(Date.UTC(2026, 10, 24, 8, minutes)).toISOString();
    const batch = {
      poured: { at: at(30), moulds: [{ id: 'm', count: 1 }], leftoverG: 0 },
      rested: null,
      temperatures: [],
      formula: formulaOf({}),
      materials: LIBRARY,
      lines: [],
      sheet: { alkaliG: 100 },
      scale: 1,
      wantedG: {},
      state: 'poured',
      portions: null,
      cut: null,
      checks: [],
    } as unknown as Batch;
    const plain = questionOfBatch(batch, [mould])!;
    expect([plain.startC, plain.around]).to.deep.equal([40, { way: 'leave', roomC: 20 }]);
    expect(questionOfBatch(batch, [])).to.equal(null);
    expect(questionOfBatch({ ...batch, poured: null }, [mould])).to.equal(null);
    const temperatures: Batch['temperatures'] = [
      { of: 'batter', c: 37, at: at(29) },
      { of: 'lye', c: 50, at: at(40) },
      { of: 'batter', c: 66, at: at(120) },
      { of: 'mould', c: 51, at: at(150) },
      { of: 'room', c: 16, at: at(150) },
    ];
    const measured = questionOfBatch({ ...batch, temperatures, rested: 'chill' }, [mould])!;
    expect([measured.startC, measured.around]).to.deep.equal([37, { way: 'chill', roomC: 16 }]);
    expect(readingsOf({ ...batch, temperatures })).to.deep.equal([
      { hour: 1.5, where: 'middle', c: 66 },
      { hour: 2, where: 'edge', c: 51 },
    ]);
  });
});
