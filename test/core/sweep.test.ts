import { expect } from 'chai';
import { assess, verdictsOf } from '../../src/core/assess';
import { MARKETS, REQUEST_FORMAT } from '../../src/core/formula/types';
import { rulebook } from '../../src/rulebook';
import { sweepOnThreads } from '../../src/server/jobs/sweep';
import { shareSetting } from '../../src/server/jobs/reckon-jobs';
import type { SweepOptions } from '../../src/server/jobs/sweep-pool';
import { allLimits, asStored, certifiedMaterials, generateProducts } from '../support/generate';

const materials = certifiedMaterials();
const byId = new Map(materials.map((material) => [material.id, material]));
const { declarables } = rulebook();
const limits = allLimits();
const setting = {
  setting: shareSetting('sweep test', { materials, limits, declarables }),
  markets: MARKETS,
  onDate: '2026-11-24',
};
const stored = { material: (id: string) => byId.get(id), limits, declarables };
const sweep = (products: ReturnType<typeof generateProducts>, options?: SweepOptions) =>
  sweepOnThreads(asStored(products), setting, options);

describe('sweep', () => {
  it('answers for every product what a single assessment answers, in order, telling its progress', async () => {
    const products = generateProducts(600, 5);
    const progress: number[] = [];
    const rows = await sweep(products, { onProgress: (done) => progress.push(done) });
    expect(rows.map(({ id }) => id)).to.deep.equal(products.map(({ id }) => id));
    expect(progress.at(-1)).to.equal(600);
    expect(progress.length).to.be.above(2);
    for (const [index, { formula }] of products.entries()) {
      const result = assess(
        { format: REQUEST_FORMAT, formula, markets: [...MARKETS], onDate: setting.onDate },
        stored,
      );
      if (!result.ok) expect.fail(JSON.stringify(result.errors));
      const { markets, limits } = result.assessment;
      expect(rows[index]!.markets!.map(({ market, verdict }) => ({ market, verdict }))).to.deep.equal(
        markets,
      );
      for (const { market, headroomPct } of rows[index]!.markets!) {
        const binding = limits.filter(
          (row) => row.market === market && row.force !== 'craft' && row.headroomPct !== null,
        );
        const least = binding.length ? Math.min(...binding.map((row) => row.headroomPct!)) : null;
        expect(headroomPct).to.equal(least);
      }
    }
  });

  it('says of a product that does not reckon that it does not, and carries on', async () => {
    const [good] = generateProducts(1, 9);
    const bad = {
      id: 'bad',
      formula: { ...good!.formula, lines: [{ ...good!.formula.lines[0]!, material: 'nowhere' }] },
    };
    const rows = await sweep([bad, good!]);
    expect(rows[0]).to.deep.equal({ id: 'bad', markets: null });
    expect(rows[1]!.markets).to.have.length(MARKETS.length);
    expect(await sweep([])).to.deep.equal([]);
  });

  it('stops when asked, and the next sweep is not disturbed by it', async () => {
    const products = generateProducts(2000, 6);
    const stopping = new AbortController();
    const stopped = sweep(products, {
      signal: stopping.signal,
      onProgress: () => stopping.abort(new Error('enough')),
    });
    const outcome = await stopped.then(
      () => 'finished',
      (error: Error) => error.message,
    );
    expect(outcome).to.equal('enough');
    const rows = await sweep(products.slice(0, 300));
    expect(rows.map(({ id }) => id)).to.deep.equal(products.slice(0, 300).map(({ id }) => id));
  });
});

describe('the door that gives verdicts alone', () => {
  it('gives what the whole assessment gives, for any formula', () => {
    for (const { formula } of generateProducts(150, 12)) {
      const asked = { format: REQUEST_FORMAT, formula, markets: [...MARKETS], onDate: setting.onDate };
      const whole = assess(asked, stored);
      const verdicts = verdictsOf(asked, stored);
      if (!whole.ok) {
        expect(verdicts).to.equal(null);
        continue;
      }
      const { verdict, markets, limits: rows, unproven } = whole.assessment;
      expect(verdicts).to.deep.include({ verdict, markets, limits: rows, unproven });
    }
  });

  it('the same limits with another list of allergens give that list’s answer, by turns', () => {
    const { formula } = generateProducts(1, 3)[0]!;
    const asked = { format: REQUEST_FORMAT, formula, markets: [...MARKETS], onDate: setting.onDate };
    const names = (declared: typeof declarables) => {
      const result = assess(asked, { ...stored, declarables: declared });
      return result.ok ? result.assessment.declarables.map(({ id }) => id) : [];
    };
    const none: typeof declarables = [];
    const all = names(declarables);
    expect(all.length).to.be.above(0);
    expect(names(none)).to.deep.equal([]);
    expect(names(declarables)).to.deep.equal(all);
  });
});
