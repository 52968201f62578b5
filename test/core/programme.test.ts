/** The programme behind the scent desk: its rows are the very limits, at whatever masses the oils stand. */
import { expect } from 'chai';
import fc from 'fast-check';
import { assess } from '../../src/core/assess';
import type { Formula, Limit } from '../../src/core/formula/types';
import {
  blendProgramme,
  withBlendMasses,
  type BlendDemand,
  type Programme,
} from '../../src/core/scent/programme';
import { problemText } from '../../src/core/numerics/highs';
import { limitOn, MATERIALS, near, NOTHING_STORED, request, type ShortLine } from '../support/request';

const DEMAND: BlendDemand = {
  mode: 'nearest',
  totalPctFats: 2,
  leewayPct: null,
  keepMargin: false,
  stayUnder: [],
};
const OILS = [
  { line: 'c', parts: 2 },
  { line: 'n', parts: 1 },
];
const LINES: ShortLine[] = [
  ['o', 'olive', 'fats', 800, 'g'],
  ['k', 'coconut', 'fats', 200, 'g'],
  ['w', 'water', 'liquid', 330, 'g'],
  ['c', 'clove', 'trace', 5, 'g'],
  ['n', 'cinnamon', 'trace', 5, 'g'],
];
const LIMITS: Limit[] = [
  limitOn({ type: 'constituent', id: 'eugenol' }, 0.6),
  limitOn({ type: 'material', id: 'clove' }, 0.8, { basis: 'pour' }),
  limitOn({ type: 'material', id: 'cinnamon' }, 0.9, { basis: 'fats' }),
  limitOn({ type: 'kind', id: 'essentialOil' }, 2),
];

function asked(more: ShortLine[] = [], formula: Partial<Formula> = {}, limits = LIMITS) {
  return request([...LINES, ...more], formula, { rules: { replace: true, limits } });
}

function programmeOf(from: ReturnType<typeof asked>, demand = DEMAND): Programme {
  const made = blendProgramme(from, NOTHING_STORED, OILS, demand);
  if (!made.ok) expect.fail(JSON.stringify(made.errors));
  return made.programme;
}

/** What each limit leaves free in the assessment, as a ratio of its maximum, by limit and portion. */
function ratios(from: ReturnType<typeof asked>, masses: number[]): Map<string, number> {
  const formula = withBlendMasses(from.formula, OILS, masses);
  const result = assess({ ...from, formula }, NOTHING_STORED);
  if (!result.ok) expect.fail(JSON.stringify(result.errors));
  return new Map(result.assessment.limits.map(({ id, highPct, maxPct }) => [id, highPct / maxPct]));
}

const MASSES = fc.tuple(
  fc.double({ min: 0.1, max: 40, noNaN: true }),
  fc.double({ min: 0.1, max: 40, noNaN: true }),
);

describe('the rows of the programme', () => {
  /** A row says "over" exactly where the assessment's high value is over, but for the guard kept for rounding. */
  function agrees(from: ReturnType<typeof asked>): void {
    const { rows } = programmeOf(from);
    fc.assert(
      fc.property(MASSES, (masses) => {
        const found = ratios(from, masses);
        for (const [id, ratio] of found) {
          const worst = Math.max(
            ...rows
              .filter(({ meaning }) => meaning.id === id)
              .map(
                ({ coefficients, constant }) =>
                  constant + coefficients[0]! * masses[0]! + coefficients[1]! * masses[1]!,
              ),
          );
          if (ratio > 1) expect(worst, `${id} ${ratio}`).to.be.above(0);
          if (ratio < 0.999) expect(worst, `${id} ${ratio}`).to.be.below(0);
        }
      }),
      { numRuns: 60 },
    );
  }

  it('are the limits themselves, on every basis', () => agrees(asked()));

  it('are so where the bar holds some of a subject already', () =>
    agrees(asked([['x', 'clove', 'trace', 3, 'g']])));

  it('are so beside lines in percent of the pour and of the cured bar', () =>
    agrees(
      asked([
        ['s', 'salt', 'trace', 5, '%pour'],
        ['y', 'clay', 'trace', 2, '%cured'],
      ]),
    ));

  it('are so with a measured cure and in portions', () =>
    agrees(
      asked([['s', 'salt', 'trace', 200, 'g', { portion: 'B' }]], {
        cure: { massRatio: 0.85 },
        portions: [
          { id: 'A', share: 0.3 },
          { id: 'B', share: 0.7 },
        ],
      }),
    ));

  it('stand once for the whole and once for every portion, and say what they stand for', () => {
    const split = asked([], {
      portions: [
        { id: 'A', share: 0.5 },
        { id: 'B', share: 0.5 },
      ],
    });
    const { rows } = programmeOf(split);
    expect(rows).to.have.length(LIMITS.length * 3);
    expect(new Set(rows.map(({ key }) => key)).size).to.equal(rows.length);
    expect(rows.map(({ meaning }) => meaning.portion)).to.include.members([null, 'A', 'B']);
  });

  it('tighten with the margin and follow the wanted thresholds only', () => {
    const free = (keepMargin: boolean) => programmeOf(asked(), { ...DEMAND, keepMargin }).rows[0]!;
    const [without, withMargin] = [free(false), free(true)];
    expect(withMargin.constant).to.be.above(without.constant);
    const declarables = [
      { id: 'eugenol', name: 'Eugenol', markets: ['EU' as const], thresholdPct: 0.01, allFrom: '2020-01-01' },
    ];
    const named = { ...asked(), rules: { replace: true, limits: LIMITS, declarables } };
    const under = (stayUnder: BlendDemand['stayUnder']) =>
      programmeOf(named, { ...DEMAND, stayUnder }).rows.filter(({ meaning }) => meaning.kind === 'threshold')
        .length;
    expect(under([])).to.equal(0);
    expect(under([{ market: 'EU', id: 'eugenol' }])).to.equal(1);
    expect(under([{ market: 'US', id: 'eugenol' }])).to.equal(0);
  });

  it('are refused with the request’s own faults where the bar does not stand', () => {
    const broken = asked();
    broken.formula.lines[0]!.material = 'nothing';
    const made = blendProgramme(broken, NOTHING_STORED, OILS, DEMAND);
    expect(made.ok ? '' : made.errors[0]!.code).to.equal('unknown-material');
    const fatless = request(
      [
        ['c', 'clove', 'trace', 5, 'g'],
        ['n', 'cinnamon', 'trace', 5, 'g'],
      ],
      {},
      {
        rules: { replace: true, limits: LIMITS },
        materials: MATERIALS,
      },
    );
    const none = blendProgramme(fatless, NOTHING_STORED, OILS, DEMAND);
    expect(none.ok ? '' : none.errors[0]!.path).to.equal('formula');
  });
});

describe('a problem as text', () => {
  it('names every variable and row, and writes signs and zeros as the solver reads them', () => {
    const text = problemText({
      variables: 2,
      cost: [1, -2],
      rows: [
        {
          terms: [
            [0, 1],
            [1, -0.5],
          ],
          relation: '<=',
          right: -0,
        },
        {
          terms: [
            [0, 0],
            [1, 0],
          ],
          relation: '=',
          right: 3,
        },
      ],
    });
    expect(text.split('\n')).to.deep.equal([
      'Minimize',
      ' obj: + 1 x0 - 2 x1',
      'Subject To',
      ' r0: + 1 x0 - 0.5 x1 <= 0',
      ' r1: 0 x0 = 3',
      'Bounds',
      ' x0 >= 0',
      ' x1 >= 0',
      'End',
      '',
    ]);
  });
});

describe('mixes within mixes', () => {
  it('come to the same as one mix of all their parts', async () => {
    const { mixFinder } = await import('../../src/core/formula/mix');
    const plain = (id: string) => MATERIALS.find((material) => material.id === id);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 9 }),
        (a, b, c) => {
          const mixes = new Map(
            [
              {
                id: 'inner',
                name: 'Inner',
                parts: [
                  { material: 'clove', parts: a },
                  { material: 'cinnamon', parts: b },
                ],
              },
              {
                id: 'outer',
                name: 'Outer',
                parts: [
                  { material: 'inner', parts: a + b },
                  { material: 'perfume', parts: c },
                ],
              },
              {
                id: 'flat',
                name: 'Flat',
                parts: [
                  { material: 'clove', parts: a },
                  { material: 'cinnamon', parts: b },
                  { material: 'perfume', parts: c },
                ],
              },
            ].map((mix) => [mix.id, mix] as const),
          );
          const find = mixFinder(plain, mixes);
          const [outer, flat] = [find('outer')!, find('flat')!];
          const shares = (of: typeof outer) =>
            new Map(of.madeOf!.map(({ material, sharePct }) => [material, sharePct]));
          for (const [material, share] of shares(flat)) near(shares(outer).get(material), share);
          near(
            outer.inci!.reduce((sum, { sharePct }) => sum + sharePct, 0),
            100,
          );
          near(
            outer.constituents!.find(({ id }) => id === 'eugenol')!.highPct,
            flat.constituents!.find(({ id }) => id === 'eugenol')!.highPct,
          );
        },
      ),
      { numRuns: 60 },
    );
  });
});
