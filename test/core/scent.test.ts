/** The nearest blend that fits: the solver's answers held against the assessment and against brute force. */
import { rulebook } from '../../src/rulebook';
import { expect } from 'chai';
import { claimReader } from '../../src/rulebook/claims';
import loadHighs from 'highs';
import { assess } from '../../src/core/assess';
import type { Assessment } from '../../src/core/formula/answer';
import type { AssessmentRequest, Formula, Limit, Material } from '../../src/core/formula/types';
import { overviewOf } from '../../src/core/overview';
import { withOils, withoutScent } from '../../src/core/scent/bar';
import type { Solve } from '../../src/core/numerics/highs';
import { frontier } from '../../src/core/scent/frontier';
import { solveBlend, type BlendAnswer } from '../../src/core/scent/nearest';
import { blendProgramme, withBlendMasses, type BlendDemand } from '../../src/core/scent/programme';
import {
  hasTooMuchPeroxide,
  monthsBetween,
  storageCaution,
  type StoredLot,
} from '../../src/core/scent/storage';
import { solveWith } from '../../src/core/numerics/highs';
import { seeded } from '../support/generate';
import { limitOn, MATERIALS, near, NOTHING_STORED, request } from '../support/request';

let solve: Solve;
before(async () => {
  solve = solveWith(await loadHighs());
});

const citrus: Material = {
  id: 'citrus',
  name: 'citrus',
  kind: 'essentialOil',
  inci: [{ name: 'Citrus Oil', sharePct: 100, role: 'scent' }],
  constituents: [{ id: 'limonene', lowPct: 85, typicalPct: 90, highPct: 95 }],
};
const EUGENOL = limitOn({ type: 'constituent', id: 'eugenol' }, 0.5);
const PROVEN = ['clove', 'cinnamon', 'citrus'].map((id) => limitOn({ type: 'material', id }, 4));
const PARTS = [
  { material: 'clove', parts: 3 },
  { material: 'cinnamon', parts: 1 },
  { material: 'citrus', parts: 6 },
];
const DEMAND: BlendDemand = {
  mode: 'nearest',
  totalPctFats: 2,
  leewayPct: null,
  keepMargin: false,
  stayUnder: [],
};

function trial(
  limits: Limit[],
  formula: Partial<Formula> = {},
  parts = PARTS,
  more: Partial<AssessmentRequest> = {},
) {
  const bar = request(
    [
      ['o', 'olive', 'fats', 800, 'g'],
      ['c', 'coconut', 'fats', 200, 'g'],
      ['w', 'water', 'liquid', 330, 'g'],
    ],
    formula,
    { materials: [...MATERIALS, citrus], rules: { replace: true, limits }, ...more },
  );
  const { formula: blended, oils } = withOils(bar.formula, parts, 2);
  return { asked: { ...bar, formula: blended }, oils };
}

/** Grams of the oils as they stand, 20 g in all. */
function startOf({ oils }: ReturnType<typeof trial>, parts: readonly { parts: number }[]): number[] {
  const sum = parts.reduce((total, one) => total + one.parts, 0);
  return oils.map((_, at) => (20 * parts[at]!.parts) / sum);
}

function solved({ asked, oils }: ReturnType<typeof trial>, demand: BlendDemand): BlendAnswer {
  const made = blendProgramme(asked, NOTHING_STORED, oils, demand);
  if (!made.ok) expect.fail(JSON.stringify(made.errors));
  return solveBlend(made.programme, demand, solve);
}

type Found = Extract<BlendAnswer, { outcome: 'found' }>;
function found(answer: BlendAnswer): Found {
  if (answer.outcome !== 'found') expect.fail(JSON.stringify(answer));
  return answer;
}

function again({ asked, oils }: ReturnType<typeof trial>, answer: Found): Assessment {
  const formula = withBlendMasses(
    asked.formula,
    oils,
    answer.masses.map(({ massG }) => massG),
  );
  const result = assess({ ...asked, formula }, NOTHING_STORED);
  if (!result.ok) expect.fail(JSON.stringify(result.errors));
  return result.assessment;
}

describe('the nearest blend that fits', () => {
  it('leaves a blend that fits as it is', () => {
    const set = trial([limitOn({ type: 'constituent', id: 'eugenol' }, 5), ...PROVEN]);
    const answer = found(solved(set, DEMAND));
    near(answer.movedPct, 0, 1e-6);
    near(answer.totalPctFats, 2, 1e-6);
    expect(answer.bounds).to.deep.equal([]);
  });

  it('keeps the total, moves as little as can be, and fits when assessed again', () => {
    const set = trial([EUGENOL, ...PROVEN]);
    const answer = found(solved(set, DEMAND));
    near(answer.totalPctFats, 2, 1e-6);
    const a = again(set, answer);
    expect(['tight', 'clear']).to.include(a.verdict);
    const eugenol = a.limits.find(({ id }) => id === EUGENOL.id)!;
    near(eugenol.highPct, 0.5, 1e-3); // it goes right up to what binds
    expect(answer.bounds.map(({ meaning }) => meaning.id)).to.deep.equal([EUGENOL.id]);
    expect(answer.bounds[0]!.looserMovedPct!).to.be.below(answer.movedPct);
  });

  it('finds what no other mixture of the two oils beats', () => {
    const parts = [
      { material: 'clove', parts: 1 },
      { material: 'citrus', parts: 1 },
    ];
    const set = trial([EUGENOL, ...PROVEN], {}, parts);
    const answer = found(solved(set, DEMAND));
    let best = Infinity;
    for (let clove = 0; clove <= 20; clove += 0.005) {
      const formula = withBlendMasses(set.asked.formula, set.oils, [clove, 20 - clove]);
      const result = assess({ ...set.asked, formula }, NOTHING_STORED);
      const fits = result.ok && result.assessment.limits.every(({ highPct, maxPct }) => highPct <= maxPct);
      if (fits) best = Math.min(best, Math.abs(clove - 10) / 20);
    }
    near(answer.movedPct / 100, best, 2e-3);
  });

  it('goes as far as the largest load of the blend as a whole where no part may move', () => {
    const set = trial([EUGENOL, ...PROVEN]);
    const answer = found(solved(set, { ...DEMAND, mode: 'largest', leewayPct: 0 }));
    near(answer.movedPct, 0, 1e-6);
    const shares = PARTS.map(({ parts }) => parts / 10);
    let low = 0;
    let high = 200;
    for (let i = 0; i < 50; i++) {
      const middle = (low + high) / 2;
      const formula = withBlendMasses(
        set.asked.formula,
        set.oils,
        shares.map((share) => share * middle),
      );
      const result = assess({ ...set.asked, formula }, NOTHING_STORED);
      if (result.ok && result.assessment.limits.every(({ highPct, maxPct }) => highPct <= maxPct))
        low = middle;
      else high = middle;
    }
    near(answer.totalPctFats, low / 10, 1e-3);
    const wider = found(solved(set, { ...DEMAND, mode: 'largest', leewayPct: 20 }));
    expect(wider.totalPctFats).to.be.above(answer.totalPctFats);
    expect(answer.bounds[0]!.looserTotalPctFats!).to.be.above(answer.totalPctFats);
  });

  it('keeps the margin and stays under naming thresholds when asked', () => {
    const set = trial([EUGENOL, ...PROVEN], {}, PARTS, {
      rules: {
        replace: true,
        limits: [EUGENOL, ...PROVEN],
        declarables: [
          { id: 'limonene', name: 'Limonene', markets: ['EU'], thresholdPct: 0.9, allFrom: '2020-01-01' },
        ],
      },
    });
    const demand = {
      ...DEMAND,
      keepMargin: true,
      totalPctFats: 1.5,
      stayUnder: [{ market: 'EU' as const, id: 'limonene' }],
    };
    const a = again(set, found(solved(set, demand)));
    expect(a.verdict).to.equal('clear');
    expect(a.declarables.find(({ id }) => id === 'limonene')!.declare).to.equal(false);
  });

  it('says plainly when nothing fits, and which demands collide', () => {
    const set = trial([EUGENOL, ...PROVEN]);
    const held = solved(set, { ...DEMAND, leewayPct: 1 });
    if (held.outcome !== 'nothing') expect.fail(held.outcome);
    const kinds = held.collide.map((one) => ('id' in one ? one.id : one.kind));
    expect(kinds).to.include.members([EUGENOL.id, 'total']);
    expect(kinds).to.not.include('max-citrus');
    const forbidden = trial(
      [limitOn({ type: 'constituent', id: 'eugenol' }, 0), ...PROVEN],
      {},
      PARTS.slice(0, 2),
    );
    const none = solved(forbidden, { ...DEMAND, mode: 'largest', leewayPct: 10 });
    if (none.outcome !== 'nothing') expect.fail(none.outcome);
    expect(none.collide.some((one) => 'id' in one && one.id === EUGENOL.id)).to.equal(true);
  });

  it('sees what the bar holds already and what each portion holds', () => {
    const portions = [
      { id: 'A', share: 0.5 },
      { id: 'B', share: 0.5 },
    ];
    const set = trial([EUGENOL, ...PROVEN], { portions });
    set.asked.formula.lines.push({
      id: 'extra',
      material: 'clove',
      stage: 'trace',
      amount: { value: 3, unit: 'g' },
      portion: 'A',
    });
    const answer = found(solved(set, DEMAND));
    expect(again(set, answer).limits.every(({ highPct, maxPct }) => highPct <= maxPct)).to.equal(true);
    expect(answer.bounds[0]!.meaning.portion).to.equal('A');
  });

  it('holds over fifty made-up blends and limits', () => {
    const random = seeded(11);
    let fitted = 0;
    for (let i = 0; i < 50; i++) {
      const limits = [
        limitOn({ type: 'constituent', id: 'eugenol' }, 0.05 + random() * 0.8),
        limitOn({ type: 'constituent', id: 'limonene' }, 0.3 + random() * 2, { basis: 'pour' }),
        ...['clove', 'cinnamon', 'citrus'].map((id) => limitOn({ type: 'material', id }, 0.2 + random() * 2)),
      ];
      const parts = PARTS.map(({ material }) => ({ material, parts: 0.2 + random() * 5 }));
      const set = trial(limits, { cure: { residualWaterPct: random() * 15 } }, parts);
      const answer = solved(set, { ...DEMAND, totalPctFats: 0.5 + random() * 2.5 });
      if (answer.outcome !== 'found') continue;
      fitted++;
      const worst = Math.max(...again(set, answer).limits.map(({ highPct, maxPct }) => highPct / maxPct));
      expect(worst, `blend ${i}`).to.be.at.most(1);
    }
    expect(fitted).to.be.above(20);
  });
});

describe('fewer names for so much movement', () => {
  const { declarables } = rulebook();
  const naming = { rules: { replace: true, limits: PROVEN, declarables } } as Partial<AssessmentRequest>;
  const stayUnder = declarables.flatMap(({ id, markets }) => markets.map((market) => ({ market, id })));
  const points = (set: ReturnType<typeof trial>) => {
    const made = blendProgramme(set.asked, NOTHING_STORED, set.oils, { ...DEMAND, stayUnder });
    if (!made.ok) expect.fail(JSON.stringify(made.errors));
    return frontier(made.programme, DEMAND.totalPctFats, solve);
  };
  const declaredIn = (set: ReturnType<typeof trial>, masses: readonly number[]) => {
    const formula = withBlendMasses(set.asked.formula, set.oils, masses);
    const result = assess({ ...set.asked, formula }, NOTHING_STORED);
    if (!result.ok) expect.fail(JSON.stringify(result.errors));
    return new Set(result.assessment.declarables.filter(({ declare }) => declare).map(({ id }) => id));
  };

  it('takes off what it says, once it is assessed again, and each further name costs more', () => {
    const random = seeded(11);
    let taken = 0;
    for (let round = 0; round < 12; round++) {
      const parts = PARTS.map((part) => ({ ...part, parts: 0.3 + 5 * random() }));
      const set = trial([], {}, parts, naming);
      const before = declaredIn(set, startOf(set, parts));
      const found = points(set);
      for (const [at, { off, movedPct, masses }] of found.entries()) {
        const left = declaredIn(
          set,
          masses.map(({ massG }) => massG),
        );
        for (const id of off) expect(left.has(id), `round ${round} ${id}`).to.equal(false);
        expect(off.length).to.be.above(at === 0 ? 0 : found[at - 1]!.off.length);
        if (at > 0) expect(movedPct).to.be.above(found[at - 1]!.movedPct);
        near(
          masses.reduce((sum, { massG }) => sum + massG, 0),
          20,
          1e-6,
        );
        taken += [...before].filter((id) => !left.has(id)).length;
      }
    }
    expect(taken).to.be.above(5);
  });

  it('moves no more than the best of all mixtures with as few names, tried one by one', () => {
    const set = trial([], {}, PARTS, naming);
    const start = startOf(set, PARTS);
    const found = points(set);
    const STEPS = 60;
    for (let a = 0; a <= STEPS; a++)
      for (let b = 0; a + b <= STEPS; b++) {
        const masses = [a, b, STEPS - a - b].map((share) => (20 * share) / STEPS);
        if (masses.some((mass) => mass === 0)) continue;
        const left = declaredIn(set, masses);
        const moved = (100 * masses.reduce((sum, mass, at) => sum + Math.abs(mass - start[at]!), 0)) / 2 / 20;
        for (const { off, movedPct } of found)
          if (off.every((id) => !left.has(id))) expect(movedPct).to.be.most(moved + 1e-6);
      }
  });
});

describe('a blend in a bar', () => {
  it('takes the place of the bar’s scent and leaves the rest', () => {
    const { formula } = request([
      ['o', 'olive', 'fats', 800, 'g'],
      ['p', 'perfume', 'trace', 30, 'g'],
      ['k', 'clay', 'trace', 20, 'g'],
    ]);
    const bare = withoutScent(formula, (id) => MATERIALS.find((material) => material.id === id));
    expect(bare.lines.map(({ id }) => id)).to.deep.equal(['o', 'k']);
    const { formula: blended } = withOils(bare, PARTS, 2);
    expect(blended.lines.slice(2).map(({ amount }) => Number(amount.value.toFixed(6)))).to.deep.equal([
      0.6, 0.2, 1.2,
    ]);
  });

  it('is cautioned about bottles of citrus and pine opened long ago', () => {
    const orange = {
      name: 'Sweet orange oil',
      concerns: ['oxidises' as const],
      constituents: [{ id: 'limonene', lowPct: 90, typicalPct: 94, highPct: 97 }],
    };
    const pine = { ...orange, inci: [{ name: 'Pinus Sylvestris Leaf Oil', sharePct: 100 }] };
    const rules = rulebook().peroxides;
    const cautioned = (
      oil: Parameters<typeof storageCaution>[0],
      opened: string | null,
      paper: Partial<StoredLot> = {},
    ) => storageCaution(oil, { openedOn: opened, receivedOn: '2024-01-01', ...paper }, '2026-11-24', rules);
    expect(monthsBetween('2025-01-15', '2026-01-16')).to.equal(12);
    expect(cautioned(orange, '2025-10-01')).to.contain('20 mmol/l');
    expect(cautioned(pine, '2025-10-01')).to.contain('10 mmol/l');
    expect(cautioned(orange, '2026-06-01')).to.equal(null);
    expect(cautioned(orange, null)).to.equal(null);
    expect(cautioned({ name: 'Cedar' }, '2020-01-01')).to.equal(null);
    // A value on a paper counts in place of the time it stood open, until that paper is old itself.
    const measured = (peroxideMmolPerL: number, peroxideOn: string) =>
      cautioned(orange, '2025-10-01', { peroxideMmolPerL, peroxideOn });
    expect(measured(4, '2026-09-01')).to.equal(null);
    expect(measured(20, '2026-09-01')).to.contain('held 20 mmol/l').and.to.contain('under 20');
    expect(measured(4, '2025-10-01')).to.contain('months ago');
    const lot = { openedOn: null, receivedOn: '2026-10-01', peroxideMmolPerL: 12 };
    expect(hasTooMuchPeroxide(pine, lot, '2026-11-24', rules)).to.equal(true);
    expect(hasTooMuchPeroxide(orange, lot, '2026-11-24', rules)).to.equal(false);
  });
});

describe('which materials are scents', () => {
  const kinds = ['fragrance', 'essentialOil', 'isolate'] as const;

  it('is one notion: on the range, off what is plain, and wanting a certificate', () => {
    for (const kind of kinds) {
      const scent: Material = { ...citrus, kind };
      const asked = request([
        ['o', 'olive', 'fats', 1000, 'g'],
        ['s', 'citrus', 'trace', 2, '%fats'],
      ]);
      const stored = {
        ...NOTHING_STORED,
        material: (id: string) => (id === scent.id ? scent : MATERIALS.find((one) => one.id === id)),
      };
      const input = { formula: asked.formula, markets: asked.markets, onDate: asked.onDate };
      const { scents } = overviewOf(
        { ...input, firstPlacedOn: {}, words: '', issued: [] },
        stored,
        claimReader(),
      );
      expect(scents, kind).to.deep.equal(['citrus']);
      expect(withoutScent(asked.formula, stored.material).lines.map(({ id }) => id)).to.deep.equal(['o']);
      const result = assess({ ...asked, materials: [] }, stored);
      expect(result.ok && result.assessment.unproven.map(({ line }) => line), kind).to.include('s');
    }
  });
});
