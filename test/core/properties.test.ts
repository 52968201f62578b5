/** What holds for every formula, tried on formulas generated from the starter library. */
import { expect } from 'chai';
import fc from 'fast-check';
import { assess } from '../../src/core/assess';
import type { Assessment } from '../../src/core/formula/answer';
import {
  MARKETS,
  REQUEST_FORMAT,
  type AssessmentRequest,
  type Formula,
  type Stored,
} from '../../src/core/formula/types';
import { balance, standsAlone, withMass } from '../../src/core/loads/balance';
import { lyeTable } from '../../src/core/loads/lye';
import { measureOf, planFormula } from '../../src/core/loads/plan';
import { LIBRARY } from '../../src/library';
import { rulebook } from '../../src/rulebook';
import { allLimits, certifiedMaterials, generateFormula, seeded } from '../support/generate';
import { near } from '../support/request';

const byId = new Map(certifiedMaterials().map((material) => [material.id, material]));
const stored: Stored = {
  material: (id) => byId.get(id),
  limits: allLimits(),
  declarables: rulebook().declarables,
};

/** Generated formulas, some with milks, acids, free acids, waxes and fats after the cook thrown in. */
const formulas = fc
  .record({ seed: fc.integer({ min: 1, max: 1e9 }), count: fc.integer({ min: 8, max: 26 }) })
  .map(({ seed, count }) => {
    const random = seeded(seed);
    const formula = generateFormula(count, random);
    const extra: [string, Formula['lines'][number]['stage'], number][] = [
      ['goat-milk', 'liquid', 80],
      ['citric-acid-monohydrate', 'lye', 12],
      ['lactic-acid-80', 'lye', 9],
      ['stearic-acid', 'fats', 30],
      ['beeswax', 'fats', 15],
      ['shea', 'afterCook', 25],
    ];
    extra.forEach(([material, stage, grams], index) => {
      if (random() < 0.4)
        formula.lines.push({ id: `x${index}`, material, stage, amount: { value: grams, unit: 'g' } });
    });
    return formula;
  });

function ask(formula: Formula, more: Partial<AssessmentRequest> = {}): AssessmentRequest {
  return { format: REQUEST_FORMAT, formula, markets: ['EU', 'US'], onDate: '2026-11-24', ...more };
}

function answer(formula: Formula, more: Partial<AssessmentRequest> = {}): Assessment {
  const result = assess(ask(formula, more), stored);
  if (!result.ok) expect.fail(JSON.stringify(result.errors));
  return result.assessment;
}

const RUNS = { numRuns: 150 };
const dryOf = (a: Assessment) => a.masses.pourG - a.masses.waterG;

function itemsG(a: Assessment, school: 'added' | 'formed'): number {
  const list = a.ingredients.find((entry) => entry.school === school)!;
  return list.items.filter(({ role }) => role !== 'allergen').reduce((sum, { massG }) => sum + massG, 0);
}

/** Every finite number somewhere in an answer is finite; finds the first that is not. */
function notFinite(value: unknown, path = ''): string | null {
  if (typeof value === 'number') return Number.isFinite(value) ? null : path;
  if (typeof value !== 'object' || value === null) return null;
  for (const [key, inner] of Object.entries(value)) {
    const found = notFinite(inner, `${path}.${key}`);
    if (found) return found;
  }
  return null;
}

describe('for every formula', () => {
  it('mass is conserved: what is poured is all there, and both schools list all of it', () => {
    fc.assert(
      fc.property(formulas, (formula) => {
        const a = answer(formula);
        expect(notFinite(a)).to.equal(null);
        near(itemsG(a, 'added'), a.masses.pourG, 1e-9);
        const { unreactedAlkaliG, alkaliImpurityG, curedG } = a.masses;
        const leftWaterG = curedG - dryOf(a);
        const wanted = leftWaterG >= 0 ? curedG : dryOf(a);
        near(itemsG(a, 'formed'), wanted - unreactedAlkaliG - alkaliImpurityG, 1e-9);
      }),
      RUNS,
    );
  });

  it('a line in percent of the whole is that percent of it', () => {
    fc.assert(
      fc.property(formulas, (formula) => {
        const a = answer(formula);
        formula.lines.forEach((line, index) => {
          if (line.amount.unit === '%pour') near(a.lines[index]!.pctPour, line.amount.value, 1e-11);
          if (line.amount.unit === '%cured') near(a.lines[index]!.pctCured, line.amount.value, 1e-11);
        });
      }),
      RUNS,
    );
  });

  it('the largest load put back sits on its limit, and no limit it feeds is exceeded', () => {
    let tried = 0;
    fc.assert(
      fc.property(formulas, (formula) => {
        const a = answer(formula);
        const bound = a.lines.filter(({ maxG }) => maxG !== null && maxG > 0).slice(0, 3);
        for (const { id, maxG, boundBy, maxInUnit } of bound) {
          const stated = formula.lines.find((line) => line.id === id)!;
          const measuredBy = measureOf(stated);
          const put = (amount: Formula['lines'][number]['amount']) =>
            answer({
              ...formula,
              lines: formula.lines.map((line) => (line.id === id ? { ...line, amount, measuredBy } : line)),
            });
          const back = put({ value: maxG!, unit: 'g' });
          const fed = back.limits.filter(
            ({ force, contributors }) => force !== 'craft' && contributors.some(({ line }) => line === id),
          );
          const own = fed.filter((limit) => limit.id === boundBy);
          if (own.length === 0) {
            // The same material is over in another portion, and the limit tells of that one.
            const told = back.limits.filter((limit) => limit.id === boundBy);
            expect(told.length).to.be.above(0);
            for (const { portion, verdict } of told)
              expect([portion === stated.portion, verdict]).to.deep.equal([false, 'over']);
            continue;
          }
          near(Math.max(...own.map(({ highPct, maxPct }) => highPct / maxPct)), 1, 1e-9);
          for (const limit of fed) expect(limit.highPct).to.be.at.most(limit.maxPct * (1 + 1e-9));
          if (maxInUnit) near(put(maxInUnit).lines.find((line) => line.id === id)!.massG, maxG!, 1e-9);
          tried++;
        }
      }),
      RUNS,
    );
    expect(tried).to.be.above(100);
  });

  it('another mass of a line that stands alone makes the batch that reckoning all of it makes', () => {
    let tried = 0;
    fc.assert(
      fc.property(formulas, fc.double({ min: 0, max: 3, noNaN: true }), (formula, factor) => {
        const plan = planFormula(
          formula,
          formula.lines.map(({ material }) => byId.get(material)!),
        );
        const batch = balance(plan);
        for (let line = 0; line < plan.count; line++) {
          if (!standsAlone(plan, line)) continue;
          tried++;
          const held = { line, massG: batch.massG[line]! * factor };
          const [quick, whole] = [withMass(plan, batch, held), balance(plan, held)];
          expect(quick.solved).to.equal(whole.solved);
          quick.massG.forEach((massG, at) => near(massG, whole.massG[at]!));
          for (const key of ['pourG', 'waterG', 'curedG', 'liquidG', 'alkaliG', 'saponified'] as const)
            near(quick[key], whole[key]);
        }
      }),
    );
    expect(tried).to.be.above(20);
  });

  it('more of a scent never gives its own certificate more room', () => {
    fc.assert(
      fc.property(formulas, fc.double({ min: 1.01, max: 3, noNaN: true }), (formula, factor) => {
        const a = answer(formula);
        const certificate = a.limits.find(({ force }) => force === 'certificate');
        fc.pre(certificate !== undefined);
        const id = certificate!.contributors[0]!.line;
        const lines = formula.lines.map((line) =>
          line.id === id ? { ...line, amount: { ...line.amount, value: line.amount.value * factor } } : line,
        );
        const same = (limit: typeof certificate) => (other: NonNullable<typeof certificate>) =>
          other.id === limit!.id && other.market === limit!.market;
        const more = answer({ ...formula, lines }).limits.find(same(certificate))!;
        expect(more.headroomPct!).to.be.below(certificate!.headroomPct! + 1e-9);
      }),
      RUNS,
    );
  });

  it('stating a line in grams instead changes nothing', () => {
    fc.assert(
      fc.property(formulas, (formula) => {
        const a = answer(formula);
        const lines = formula.lines.map((line, index) => {
          const amount = { value: a.lines[index]!.massG, unit: 'g' as const };
          return { ...line, amount, measuredBy: measureOf(line) };
        });
        const b = answer({ ...formula, lines });
        near(b.masses.pourG, a.masses.pourG, 1e-10);
        expect(b.limits.map(({ id, verdict }) => `${id} ${verdict}`).sort()).to.deep.equal(
          a.limits.map(({ id, verdict }) => `${id} ${verdict}`).sort(),
        );
        a.ingredients.forEach((list, index) =>
          expect(b.ingredients[index]!.items.length).to.equal(list.items.length),
        );
      }),
      RUNS,
    );
  });

  it('one portion of share 1 is the same as none', () => {
    fc.assert(
      fc.property(formulas, (formula) => {
        const lines = formula.lines.map((line) => ({ ...line, portion: null }));
        const a = answer({ ...formula, lines, portions: null });
        const b = answer({
          ...formula,
          lines: lines.map((line) => ({ ...line, portion: 'only' })),
          portions: [{ id: 'only', share: 1 }],
        });
        expect(b.limits.map(({ id, portion, verdict }) => `${id} ${portion} ${verdict}`)).to.deep.equal(
          a.limits.map(({ id, portion, verdict }) => `${id} ${portion} ${verdict}`),
        );
        near(b.portions[0]!.curedG, a.masses.curedG, 1e-12);
      }),
      RUNS,
    );
  });

  it('portions together weigh what the batch weighs', () => {
    fc.assert(
      fc.property(formulas, (formula) => {
        const a = answer(formula);
        fc.pre(a.portions.length > 0);
        near(
          a.portions.reduce((sum, { pourG }) => sum + pourG, 0),
          a.masses.pourG,
          1e-12,
        );
        near(
          a.portions.reduce((sum, { waterG }) => sum + waterG, 0),
          a.masses.waterG,
          1e-12,
        );
      }),
      RUNS,
    );
  });

  it('the explained chain multiplies out to the figures of the limit', () => {
    fc.assert(
      fc.property(formulas, (formula) => {
        const a = answer(formula, { explain: true });
        expect(a.explanations!.length).to.be.above(0);
        for (const chain of a.explanations!) {
          const brought = chain.terms.reduce((sum, { massG, sharePct }) => sum + (massG * sharePct) / 100, 0);
          const high = chain.terms.reduce(
            (sum, { highG, highSharePct }) => sum + (highG * highSharePct) / 100,
            0,
          );
          near((100 * brought) / chain.basisSteps.at(-1)!.massG, chain.nominalPct, 1e-10);
          near((100 * high) / chain.basisHighG, chain.highPct, 1e-10);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('every market asked for is answered, and order and repetition of markets do not matter', () => {
    const formula = generateFormula(20, seeded(11));
    const all = answer(formula, { markets: [...MARKETS] });
    const twice = answer(formula, { markets: [...MARKETS, 'EU'] });
    expect(twice).to.deep.equal(all);
    expect(all.ingredients).to.have.length(10);
    expect(LIBRARY.length).to.be.above(250);
  });

  it('the lye fat by fat comes to the lye that is weighed, and to the superfat that is reached', () => {
    fc.assert(
      fc.property(formulas, (formula) => {
        const a = answer(formula);
        const masses = new Map(a.lines.map(({ id, massG }) => [id, massG]));
        const table = lyeTable(formula, stored.material, (line) => masses.get(line)!);
        near(table.weighedG, a.masses.alkaliG, 1e-6);
        if (a.superfat.effectivePct !== null) near(table.reachedPct!, a.superfat.effectivePct, 1e-6);
        const set = formula.alkali.superfatPct;
        const isReached = set == null || Math.abs(table.reachedPct! - set) <= 0.05;
        expect(table.why.length > 0).to.equal(!isReached);
      }),
      RUNS,
    );
  });
});
