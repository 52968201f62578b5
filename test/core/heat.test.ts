/** How the block heats: energy, grids and bounds as properties; known behaviours; recovery of hidden figures. */
import { expect } from 'chai';
import fc from 'fast-check';
import { gelPointC, lyePct, noLossC } from '../../src/core/heat/batter';
import { calibrate, courseAt, knownFactor, type Reading, type Touched } from '../../src/core/heat/calibrate';
import { outcomeOf } from '../../src/core/heat/judge';
import { bandAtOnce, ensemble, unknownsOf } from '../../src/core/heat/ensemble';
import { simulate, USUAL_FINENESS } from '../../src/core/heat/simulate';
import type { MouldShape, Run, Surroundings } from '../../src/core/heat/types';
import { seededRandom } from '../../src/core/numerics/random';
import { loadsOf } from '../../src/core/making/loads';
import { LIBRARY } from '../../src/library';
import { BAR, batter, formulaOf, LAURIC, pour, SILICONE, WOOD, type Asked } from '../support/heat';
import { many } from '../support/many';

const pours = fc.record({
  shape: fc.record({
    form: fc.constantFrom('block', 'column') as fc.Arbitrary<'block' | 'column'>,
    wall: fc.constantFrom('wood', 'silicone', 'plastic', 'cardboard') as fc.Arbitrary<MouldShape['wall']>,
    lengthMm: fc.integer({ min: 60, max: 500 }),
    widthMm: fc.integer({ min: 30, max: 300 }),
    heightMm: fc.integer({ min: 20, max: 150 }),
  }),
  way: fc.constantFrom('warm', 'leave', 'chill') as fc.Arbitrary<Surroundings['way']>,
  roomC: fc.integer({ min: 5, max: 30 }),
  startC: fc.integer({ min: 25, max: 55 }),
  waterPct: fc.integer({ min: 24, max: 42 }),
  honeyPct: fc.constantFrom(0, 3),
});
const pourFrom = ({
  shape,
  way,
  roomC,
  startC,
  waterPct,
  honeyPct,
}: typeof pours extends fc.Arbitrary<infer T> ? T : never) =>
  pour(shape, way, { roomC, startC, waterPct, more: honeyPct > 0 ? [['honey', honeyPct]] : [] });

describe('how the block heats', () => {
  it('conserves energy: what is made is given off or stored, to a millionth', () => {
    fc.assert(
      fc.property(pours, (one) => {
        const { madeJ, lostJ, storedJ } = simulate(pourFrom(one), { hours: 8 }).energy;
        expect(Math.abs(madeJ - lostJ - storedJ)).to.be.at.most(1e-6 * madeJ);
      }),
      { numRuns: many(12, 40) },
    );
  });

  it('makes no cell colder than its coldest surrounding or hotter than the no-loss rise allows', () => {
    fc.assert(
      fc.property(pours, (one) => {
        const asked = pourFrom(one);
        const run = simulate(asked, { hours: 24, withCut: true });
        const coldest = Math.min(asked.startC, one.way === 'chill' ? 4 : one.roomC);
        const cells = run.cut!.framesC.flatMap((frame) => [Math.min(...frame), Math.max(...frame)]);
        expect(Math.min(...cells)).to.be.at.least(coldest - 1e-3);
        expect(Math.max(...run.peakC)).to.be.at.most(run.noLossC + 1e-6);
      }),
      { numRuns: many(12, 40) },
    );
  });

  it('takes up what the assessment says: acids have their hydroxide first, and milk fat has its share', () => {
    const freeFatG = (one: Asked) => batter(one).reduce((sum, part) => sum + part.freeFatG, 0);
    const plain = freeFatG({ fatsG: 1200 });
    expect(plain).to.be.closeTo(60, 1);
    expect(freeFatG({ fatsG: 1200, more: [['citric-acid', 2]] })).to.be.closeTo(plain, 1e-6);
    for (const more of [
      [['citric-acid', 2]],
      [['goat-milk', 20]],
      [
        ['citric-acid', 1],
        ['coconut-milk', 15],
      ],
    ] as const) {
      const asked = { more, superfatPct: 7 };
      const { masses } = loadsOf(formulaOf(asked), LIBRARY)!.assessment;
      const parts = batter(asked);
      const sum = (of: (part: (typeof parts)[number]) => number) =>
        parts.reduce((total, part) => total + of(part), 0);
      expect(sum((part) => part.freeFatG)).to.be.closeTo(masses.freeFatG, 1e-6);
      expect(sum((part) => part.soapG)).to.be.closeTo(masses.soapG, 1e-6);
      expect(sum((part) => part.glycerinG)).to.be.closeTo(masses.glycerinG, 1e-6);
      expect(sum((part) => part.massG)).to.be.closeTo(masses.pourG, 1e-6);
    }
  });

  it('rises by 45 to 60 K without any loss, for an ordinary batter', () => {
    for (const waterPct of [28, 33, 38])
      expect(noLossC(batter({ waterPct })[0]!, 40) - 40, `${waterPct} % water`).to.be.within(45, 60);
    const closed = simulate(pour(WOOD, 'warm'), { hours: 12, unknowns: unknownsOf([0, 60, 0, 0]) });
    expect(closed.peakMiddleC).to.be.closeTo(closed.noLossC, 0.1);
  });

  it('converges: each finer grid moves the middle less, and the usual one is near the finest', () => {
    const peak = (times: number) =>
      simulate(pour(WOOD, 'leave'), {
        hours: 5,
        fineness: {
          across: Math.round(4 * times),
          up: Math.round(5 * times),
          along: Math.round(2 * times),
          stepS: 240 / times,
          stepConverted: 0.04 / times,
        },
      }).peakMiddleC;
    const [middle, fine, finest] = [peak(1.5), peak(3), peak(many(5, 8))];
    expect(Math.abs(finest! - fine!)).to.be.below(0.6 * Math.abs(fine! - middle!));
    const usual = simulate(pour(WOOD, 'leave'), { hours: 5, fineness: USUAL_FINENESS }).peakMiddleC;
    expect(usual).to.be.closeTo(finest!, 0.6);
  });

  it('reckons a short block along its length too: its middle and what gels are those of many planes', () => {
    const short = (lengthMm: number, widthMm: number): MouldShape => ({ ...WOOD, lengthMm, widthMm });
    for (const shape of [short(100, 80), short(90, 90), short(120, 250), WOOD, BAR])
      for (const way of ['leave', 'warm'] as const) {
        const of = (along: number) =>
          simulate(pour(shape, way), { hours: 8, fineness: { ...USUAL_FINENESS, along } });
        const [usual, fine] = [of(USUAL_FINENESS.along), of(20)];
        const name = `${shape.lengthMm} x ${shape.widthMm} ${way}`;
        expect(usual.peakMiddleC, name).to.be.closeTo(fine.peakMiddleC, 0.4);
        expect(usual.gelledShare, name).to.be.closeTo(fine.gelledShare, 0.02);
      }
  });

  it('places the gel by the water: 80 °C at 38 % lye, 65 °C at 27 %', () => {
    const at = (pct: number) => {
      const [one] = batter();
      return gelPointC({ ...one!, waterG: one!.alkaliG * (100 / pct - 1) });
    };
    expect(at(38)).to.be.closeTo(80, 1e-9);
    expect(at(27)).to.be.closeTo(65, 1e-9);
    expect(lyePct(batter({ waterPct: 33 })[0]!)).to.be.closeTo(30, 0.5);
  });
});

const peakHour = ({ peakMiddleHour }: Run) => peakMiddleHour;
/** The hour at which the middle, past its peak, is down at a temperature; between the moments of the course. */
const coolsTo = ({ course: { hours, middleC } }: Run, c: number) => {
  const peak = middleC.indexOf(Math.max(...middleC));
  const after = middleC.findIndex((one, at) => at > peak && one < c);
  if (after < 0) return Infinity;
  const share = (middleC[after - 1]! - c) / (middleC[after - 1]! - middleC[after]!);
  return hours[after - 1]! + share * (hours[after]! - hours[after - 1]!);
};
const edgePeak = ({ course }: Run) => Math.max(...course.edgeC);
const run = (...asked: Parameters<typeof pour>) => simulate(pour(...asked));
const salted: Asked = { fats: LAURIC, fatsG: 500, superfatPct: 15, more: [['table-salt', 80]] };

/** What makers know of their blocks. All of it is craft: told by hand and eye, of ordinary formulas. */
const BEHAVIOURS: Record<string, () => void> = {
  'an ordinary 1.2 kg block in wood, 33 % water, poured at 40 °C and blanketed, gels through': () =>
    expect(run(WOOD, 'warm').gelledShare).to.equal(1),
  'the same in silicone at 18 °C gels in the middle only': () => {
    const { gelledShare, peakMiddleC, gelC, course } = run(SILICONE, 'leave', { roomC: 18 });
    expect(gelledShare).to.be.within(0.05, 0.7);
    expect(peakMiddleC).to.be.above(gelC[0]!);
    expect(Math.max(...course.edgeC)).to.be.below(gelC[0]!);
  },
  'single bars uncovered do not gel': () => expect(run(BAR, 'leave').gelledShare).to.equal(0),
  'in the fridge none does': () => {
    for (const shape of [WOOD, SILICONE, BAR]) expect(outcomeOf(run(shape, 'chill'))).to.equal('none');
  },
  'honey at 3 % raises the peak by several degrees': () => {
    const more = run(WOOD, 'warm', { more: [['honey', 3]] }).peakMiddleC - run(WOOD, 'warm').peakMiddleC;
    expect(more).to.be.within(2, 9);
  },
  '25 % lye gels at a lower temperature than 33 %': () => {
    const [wet, dry] = [batter({ waterPct: 42 })[0]!, batter({ waterPct: 28 })[0]!];
    expect([lyePct(wet) < 26, lyePct(dry) > 32]).to.deep.equal([true, true]);
    expect(gelPointC(wet)).to.be.below(gelPointC(dry) - 8);
  },
  'and with more water it is later cooler, for it holds more heat': () => {
    const cools = (waterPct: number) => {
      const found = run(WOOD, 'leave', { waterPct });
      return coolsTo(found, 20 + (found.peakMiddleC - 20) / 2) - peakHour(found);
    };
    expect(cools(42)).to.be.above(cools(28));
  },
  'a salted block rich in coconut sets within hours': () => {
    const [firm] = run(WOOD, 'leave', salted).firm;
    expect(firm!.edgeHour).to.be.below(4);
    expect(firm!.middleHour).to.be.below(6);
  },
  'poured at 27 °C and insulated, it gels through as well, only later': () => {
    const [cool, usual] = [run(WOOD, 'warm', { startC: 27 }), run(WOOD, 'warm')];
    expect(outcomeOf(cool)).to.equal('through');
    expect(peakHour(cool)).to.be.above(1.5 * peakHour(usual));
  },
  'poured cooler without insulation, it stays below gel': () =>
    expect(run(SILICONE, 'leave', { startC: 27, roomC: 18 }).gelledShare).to.equal(0),
  'the edge stays cooler than the middle': () => {
    for (const way of ['warm', 'leave', 'chill'] as const) {
      const found = run(WOOD, way);
      expect(edgePeak(found)).to.be.below(found.peakMiddleC);
    }
  },
  'an open top stays coolest': () => {
    const found = run(WOOD, 'leave');
    expect(found.peakTopC).to.be.below(found.peakMiddleC);
  },
  'wood keeps more warmth than silicone': () =>
    expect(run(WOOD, 'leave').gelledShare).to.be.above(run(SILICONE, 'leave').gelledShare),
  'a large block gets hotter than a small one': () => {
    const large = { ...WOOD, lengthMm: 400, widthMm: 160, heightMm: 144 };
    expect(run(large, 'leave').peakMiddleC).to.be.above(run(WOOD, 'leave').peakMiddleC + 3);
  },
  'a thin slab stays cooler than a block of the same mass': () => {
    const slab = { ...WOOD, lengthMm: 400, widthMm: 144, heightMm: 20 };
    expect(run(slab, 'leave').peakMiddleC).to.be.below(run(WOOD, 'leave').peakMiddleC - 5);
  },
  'a tall round column gels from its axis': () => {
    const column: MouldShape = {
      form: 'column',
      wall: 'cardboard',
      widthMm: 75,
      lengthMm: 75,
      heightMm: 250,
    };
    const found = run(column, 'leave');
    const [axis, side] = [5 * 8, 5 * 8 + 7];
    expect(found.gel[axis]).to.equal('gelled');
    expect(found.peakC[axis]).to.be.above(found.peakC[side]! + 3);
  },
  'lauric fats heat sooner': () =>
    expect(peakHour(run(WOOD, 'warm', { fats: LAURIC }))).to.be.below(peakHour(run(WOOD, 'warm'))),
  'olive alone heats later and less': () => {
    const [olive, usual] = [run(WOOD, 'leave', { fats: { olive: 100 } }), run(WOOD, 'leave')];
    expect(peakHour(olive)).to.be.above(peakHour(usual));
    expect(olive.peakMiddleC).to.be.below(usual.peakMiddleC);
  },
  'a warm room helps the gel': () =>
    expect(run(SILICONE, 'leave', { roomC: 28 }).gelledShare).to.be.above(
      run(SILICONE, 'leave', { roomC: 16 }).gelledShare,
    ),
  'a warming mat below brings the bottom to gel': () => {
    const cold = pour(SILICONE, 'leave', { roomC: 16 });
    const onMat = { ...cold, around: { ...cold.around, matC: 55 } };
    expect(simulate(onMat).gelledShare).to.be.above(simulate(cold).gelledShare);
  },
  'left to itself in the cold it is firm much later than gelled': () => {
    const [cold, usual] = [run(WOOD, 'chill').firm[0]!, run(WOOD, 'leave').firm[0]!];
    expect(cold.edgeHour).to.be.above(usual.edgeHour! + 3);
  },
  'milk and honey in a blanketed block may scorch and crack; chilled they do not': () => {
    const more = {
      more: [
        ['honey', 3],
        ['coconut-milk', 10],
      ] as const,
    };
    const [warm, cold] = [
      bandAtOnce(pour(WOOD, 'warm', more), { runs: many(20, 40) }),
      bandAtOnce(pour(SILICONE, 'chill', more), { runs: many(20, 40) }),
    ];
    expect([warm.chances.scorch > 0.8, warm.chances.crack > 0.3]).to.deep.equal([true, true]);
    expect([cold.chances.scorch < 0.2, cold.chances.crack]).to.deep.equal([true, 0]);
  },
};

describe('behaviours that makers know (craft)', () => {
  for (const [name, look] of Object.entries(BEHAVIOURS)) it(name, look);
});

describe('the band of a pour', () => {
  it('is the same for the same seed, holds the usual run, and tells how far it is', () => {
    const asked = pour(WOOD, 'leave');
    const band = bandAtOnce(asked, { runs: many(25, 100), seed: 7 });
    expect(bandAtOnce(asked, { runs: many(25, 100), seed: 7 })).to.deep.equal(band);
    const usual = simulate(asked).peakMiddleC;
    expect(usual).to.be.within(band.peakMiddleC.low, band.peakMiddleC.high);
    expect(band.chances.through + band.chances.ring + band.chances.none).to.be.closeTo(1, 1e-9);
    expect([...ensemble(asked, { runs: 5 })]).to.deep.equal([1, 2, 3, 4, 5]);
  });

  it('finds hidden rates and walls from noisy thermometers within its 90 % range, in 80 of 100 or more', () => {
    const pours = many(9, 100);
    const random = seededRandom(20261126);
    const ways = ['warm', 'leave', 'chill'] as const;
    const inside = { rate: 0, wall: 0 };
    for (let one = 0; one < pours; one++) {
      const z = Array.from({ length: 4 }, () => random.normal());
      const asked = pour(one % 4 === 0 ? SILICONE : WOOD, ways[one % 3]!, {
        startC: 28 + 17 * random.uniform(),
        roomC: 16 + 8 * random.uniform(),
        waterPct: 28 + 10 * random.uniform(),
      });
      const { course } = simulate(asked, { unknowns: unknownsOf(z), hours: 6 });
      const readings = [0.5, 1, 2, 3, 5].flatMap((hour) =>
        (['middle', 'edge'] as const).map((where): Reading => ({
          hour,
          where,
          c: courseAt(course, { hour, where }) + random.normal(),
        })),
      );
      const known = calibrate([{ pour: asked, readings }]);
      const truth = unknownsOf(z);
      for (const name of ['rate', 'wall'] as const) {
        const { low, high } = knownFactor(known, name);
        if (truth[name] >= low && truth[name] <= high) inside[name]++;
      }
    }
    const least = pours === 100 ? 80 : 0.6 * pours;
    expect(inside.rate).to.be.at.least(least);
    expect(inside.wall).to.be.at.least(least);
  });

  it('narrows by what was measured, and answers the usual spread without any', () => {
    const asked = pour(WOOD, 'leave');
    const { course } = simulate(asked, { unknowns: unknownsOf([1, -1, 0, 0]) });
    const readings: Reading[] = [1, 2, 4].map((hour) => ({
      hour,
      where: 'middle',
      c: courseAt(course, { hour, where: 'middle' }),
    }));
    const known = calibrate([{ pour: asked, readings }]);
    const width = (known1: typeof known | null) => {
      const { low, high } = bandAtOnce(asked, { runs: many(20, 40), known: known1 }).peakMiddleC;
      return high - low;
    };
    expect(width(known)).to.be.below(0.7 * width(null));
    expect(calibrate([]).mean).to.deep.equal([0, 0, 0, 0]);
    expect(calibrate([{ pour: asked, readings: [] }]).spread[0]![0]).to.equal(1);
  });

  it('moves by what a finger felt: a block that still dents firms later, one that is firm early sooner', () => {
    const asked = pour(WOOD, 'leave');
    const firmAt = (touched: Touched[]) => {
      const known = calibrate([{ pour: asked, readings: [], touched }]);
      return bandAtOnce(asked, { runs: 12, known }).firm[0]!.allHour!.likely;
    };
    const usual = firmAt([]);
    expect(usual).to.be.within(2, 40);
    expect(firmAt([{ hour: 1.4 * usual, isFirm: false }])).to.be.above(1.05 * usual);
    expect(firmAt([{ hour: 0.7 * usual, isFirm: true }])).to.be.below(0.95 * usual);
    // What the model says already moves nothing.
    expect(
      firmAt([
        { hour: 0.5 * usual, isFirm: false },
        { hour: 1.5 * usual, isFirm: true },
      ]),
    ).to.be.closeTo(usual, 0.1);
  });
});
