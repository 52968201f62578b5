/** What the scent desk reckons over the demo's cupboard: reach, what each oil brings, and a blend tried in a bar. */
import { expect } from 'chai';
import { assess } from '../../src/core/assess';
import type { MixPart } from '../../src/core/formula/mix';
import { binds } from '../../src/core/loads/limits';
import { benchFrom, broughtBy, reachOf, tryBlend, type Bench } from '../../src/islands/scent/reckoning';
import type { CupboardEntry } from '../../src/core/records/cupboard';
import type { ScentDeskData, TryBar } from '../../src/core/records/scent';
import { usesOf } from '../../src/server/services/cupboard/materials';
import { scentDeskData, tryBar } from '../../src/server/services/scent/scent';
import { cupboardEntry } from '../../src/server/store/materials';
import { useDemo } from '../server/database';
import { near } from '../support/request';

describe('the scent desk', () => {
  const test = useDemo();
  let data: ScentDeskData;
  let scents: CupboardEntry[];
  let bench: Bench;
  let plain: TryBar;
  const PARTS: MixPart[] = [
    { material: 'clove-bud-oil', parts: 6 },
    { material: 'sweet-orange-oil', parts: 9 },
    { material: 'palmarosa-oil', parts: 5 },
  ];
  before(async () => {
    data = await scentDeskData(test.house);
    scents = await Promise.all(data.scents.map(({ id }) => cupboardEntry(test.house, id)));
    bench = benchFrom(data, scents);
    plain = data.first;
  });

  it('knows blends apart from single scents and from other mixes, and the bars that use them', async () => {
    expect(data.blends.map(({ id }) => id)).to.have.members(['sidings', 'evening-departure']);
    expect(data.scents.map(({ id }) => id)).to.include.members(['clove-bud-oil', 'wet-slate']);
    expect(data.scents.map(({ id }) => id)).to.not.include('sidings');
    expect(data.blends.find(({ id }) => id === 'sidings')!.usedIn).to.equal(1);
    expect(await usesOf(test.house, 'sidings')).to.deep.equal({
      count: 1,
      some: [{ product: 'goods-yard', name: 'Goods Yard', through: null }],
    });
  });

  it('brings with the page what the opened blend is made of, and names alone of the rest', async () => {
    const held = (desk: ScentDeskData) => desk.known.map(({ material }) => material.id);
    expect(data.opened!.material.id).to.equal('evening-departure');
    expect(held(data)).to.have.members(data.opened!.mix!.map(({ material }) => material));
    const sidings = await scentDeskData(test.house, 'sidings');
    expect(held(sidings)).to.have.members(sidings.opened!.mix!.map(({ material }) => material));
    expect((await scentDeskData(test.house, 'nothing')).opened).to.deep.equal(data.opened);
  });

  it('tries a blend in a bar in place of its scent', async () => {
    const night = await tryBar(test.house, 'night-mail');
    const bench = benchFrom(data, scents, night.materials);
    const tried = tryBlend(bench, night, PARTS, 2)!;
    const materials = tried.request.formula.lines.map(({ material }) => material);
    expect(materials).to.not.include('coal-and-violets');
    expect(materials).to.include('grey-clay');
    const total = tried.assessment.lines
      .filter(({ id }) => id.startsWith('oil '))
      .reduce((sum, { pctFats }) => sum + pctFats, 0);
    near(total, 2);
    expect(tryBlend(bench, night, [], 2)).to.equal(null);
    expect(tryBlend(bench, night, [{ material: 'clove-bud-oil', parts: 0 }], 2)).to.equal(null);
    expect(tryBlend(bench, night, [{ material: 'nothing', parts: 1 }], 2)).to.equal(null);
  });

  it('reaches exactly to a limit in every market: there it fits, a hair further it does not', () => {
    const reach = reachOf(bench, plain, PARTS, 2);
    expect(reach.map(({ market }) => market)).to.deep.equal(['EU', 'UK', 'US', 'CA', 'AU']);
    for (const { market, mostPctFats, boundBy } of reach) {
      expect(boundBy!.subject.id, market).to.equal('eugenol');
      const over = (pct: number) => {
        const tried = tryBlend(bench, plain, PARTS, pct)!;
        const request = { ...tried.request, markets: [market] };
        const result = assess(request, bench.stored);
        return (
          result.ok &&
          result.assessment.limits.some(
            ({ force, highPct, maxPct }) => binds(force) && highPct > maxPct * (1 + 1e-9),
          )
        );
      };
      // Weighed oil by oil, each brings a doubt of its own: a hair of room is kept for that.
      expect(over(mostPctFats! * 0.999), market).to.equal(false);
      expect(over(mostPctFats! * 1.001), market).to.equal(true);
    }
    const unlimited = reachOf(bench, plain, [{ material: 'wet-slate', parts: 1 }], 2);
    expect(unlimited.every(({ mostPctFats, boundBy }) => mostPctFats === null && boundBy === null)).to.equal(
      true,
    );
  });

  it('tells what each oil brings of every constituent, so that it adds up to what the bar holds', () => {
    const tried = tryBlend(bench, plain, PARTS, 3)!;
    const rows = broughtBy(tried, bench, String);
    const eugenol = rows.find(({ id }) => id === 'eugenol')!;
    expect(rows[0]).to.equal(eugenol); // closest to its limit
    const limit = tried.assessment.limits.find(({ subject }) => subject.id === 'eugenol')!;
    near(
      eugenol.byOil.reduce((sum, one) => sum + one, 0),
      limit.nominalPct,
    );
    const clove = tried.oils.findIndex(({ line }) => line.includes('clove'));
    expect(eugenol.byOil[clove]!).to.be.above(0);
    const limonene = rows.find(({ id }) => id === 'limonene')!;
    const declared = tried.assessment.declarables.find(
      ({ id, market }) => id === 'limonene' && market === 'EU',
    )!;
    near(limonene.highPct, declared.highPct);
    expect(limonene.declaredIn).to.include('EU');
    for (const { byOil } of rows) expect(byOil).to.have.length(PARTS.length);
  });
});
