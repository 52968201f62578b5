/** The ten demo bars in the five markets: what each is there, what its colours and words lead to. */
import { expect } from 'chai';
import { findClaims } from '../../src/core/claims/read';
import { formulaFacts, type FactStanding } from '../../src/core/claims/facts';
import type { FactId } from '../../src/core/claims/types';
import type { TraitMaterial } from '../../src/core/formula/traits';
import { MARKETS, type Market } from '../../src/core/formula/types';
import { colourFindings } from '../../src/core/labels/checklist';
import { standingIn, type Regime } from '../../src/core/labels/standing';
import { colourKnown, rulebook } from '../../src/rulebook';
import { claimReader } from '../../src/rulebook/claims';
import { marketRules } from '../../src/rulebook/markets';
import { findWrap } from '../../src/server/repositories/wraps';
import { wrapOverview } from '../../src/server/store/overviews';
import { wrapData } from '../../src/server/services/wrap/desk';
import { labelFor, saveProductWrap } from '../../src/server/services/wrap/wrap';
import { useDemo } from './database';

describe('the demo bars in law', () => {
  const test = useDemo();
  const regimes = async (id: string, words = '') => {
    const { assessment } = await wrapData(test.house, id);
    const claims = findClaims(words, claimReader());
    return Object.fromEntries(
      MARKETS.map((market) => [market, standingIn(market, claims, assessment).regime]),
    );
  };
  const everywhere = (regime: Regime) => Object.fromEntries(MARKETS.map((market) => [market, regime]));

  it('are cosmetics, and soap proper in the US, as long as their words are plain', async () => {
    for (const { id, regimes: found } of (await wrapOverview(test.house)).rows) {
      const { US, ...others } = found;
      expect(Object.values(others), id).to.deep.equal(['cosmetic', 'cosmetic', 'cosmetic', 'cosmetic']);
      expect(US, id).to.equal('soap');
    }
  });

  it('become what their words make of them', async () => {
    expect(await regimes('first-light', 'Heals eczema')).to.deep.equal(everywhere('medicine'));
    expect(await regimes('first-light', 'Moisturises')).to.deep.equal(everywhere('cosmetic'));
    expect(await regimes('first-light', 'With SPF 15')).to.deep.include({
      EU: 'cosmetic',
      US: 'medicine',
      AU: 'medicine',
    });
    expect(await regimes('first-light', 'It does not heal eczema')).to.deep.include({
      US: 'soap',
      EU: 'cosmetic',
    });
  });

  it('hold colours that one market lets in and another does not know', async () => {
    const { materials } = await wrapData(test.house, 'signal-red');
    const found = (market: Market) =>
      Object.fromEntries(
        colourFindings(materials, (name) => colourKnown(rulebook(), name, market)).map(
          ({ name, permission }) => [name, permission],
        ),
      );
    expect(found('EU')['CI 77491']).to.equal('permitted');
    expect(Object.values(found('US'))).to.include('permitted');
    expect(Object.values(found('EU')).concat(Object.values(found('US')))).to.satisfy((all: string[]) =>
      all.some((permission) => permission !== 'permitted'),
    );
  });

  it('say of themselves what their formula says', async () => {
    const wanted: Record<string, Partial<Record<FactId, FactStanding>>> = {
      'waiting-room': {
        vegan: 'holds',
        unscented: 'holds',
        palmFree: 'holds',
        milkFree: 'holds',
        glutenFree: 'holds',
      },
      'snow-plough': {
        vegan: 'contradicted',
        milkFree: 'contradicted',
        glutenFree: 'contradicted',
        unscented: 'holds',
      },
      'first-light': { unscented: 'contradicted', glutenFree: 'contradicted', vegan: 'holds' },
      'night-mail': { unscented: 'contradicted', natural: 'contradicted', vegan: 'open' },
      'signal-red': { natural: 'contradicted', unscented: 'holds' },
    };
    for (const [id, facts] of Object.entries(wanted)) {
      const { materials } = await wrapData(test.house, id);
      const found = formulaFacts((materials as TraitMaterial[]).map((material) => ({ material })));
      for (const [fact, standing] of Object.entries(facts))
        expect(found.find((one) => one.id === fact)!.standing, `${id} ${fact}`).to.equal(standing);
    }
  });

  it('every market asks for something in every regime it knows, with a source', () => {
    for (const market of MARKETS) {
      const { items, regimes: words } = marketRules(market);
      for (const regime of ['cosmetic', 'medicine'] as const)
        expect(
          items.some(({ when }) => when.includes(regime)),
          `${market} ${regime}`,
        ).to.equal(true);
      for (const item of items) {
        expect(item.source.length, item.id).to.be.above(5);
        expect(item.standing, item.id).to.be.oneOf(['published', 'typical']);
      }
      expect(Object.values(words).every((one) => one.length > 5)).to.equal(true);
      expect(new Set(items.map(({ id }) => id)).size).to.equal(items.length);
    }
  });

  it('state as net content what the lightest bar weighs, else what is stated, else what is predicted', async () => {
    const { revision, wrap } = (await findWrap(test.db, 'first-light'))!;
    const net = async (part: object) => {
      const { content } = await labelFor(test.house, 'first-light', 'EU', 'layout', {
        wrap: { ...wrap, ...part },
      });
      return content.front.net;
    };
    expect(await net({ weighedG: [91, 87.9, 90] })).to.equal('87 g');
    expect(await net({ weighedG: [], netMassG: 85 })).to.equal('85 g');
    const { predictedBarG } = await wrapData(test.house, 'first-light');
    expect(await net({ weighedG: [], netMassG: null })).to.equal(`${Math.floor(predictedBarG)} g`);
    expect('saved' in (await saveProductWrap(test.house, 'first-light', revision, wrap))).to.equal(true);
  });

  it('offer the other school exactly where only that fits', async () => {
    const { wrap } = (await findWrap(test.db, 'ticket-office'))!;
    const findings = async (heightMm: number, school: 'added' | 'formed') => {
      const format = { shape: 'band' as const, widthMm: 80, heightMm, marginMm: 2 };
      const tried = { ...wrap, markets: { ...wrap.markets, EU: { school, format } } };
      return (await labelFor(test.house, 'ticket-office', 'EU', 'layout', { wrap: tried })).layout.findings;
    };
    const lacks = (found: Awaited<ReturnType<typeof findings>>) =>
      found.some(({ code }) => code === 'does-not-fit');
    let tried = 0;
    for (let heightMm = 18; heightMm <= 60; heightMm += 2) {
      const formed = await findings(heightMm, 'formed');
      const list = formed.find(({ element, code }) => element === 'ingredients' && code === 'does-not-fit');
      if (!list) continue;
      tried++;
      const offered = list.waysOut!.some((way) => way.includes('the list as added'));
      expect(offered, `${heightMm} mm`).to.equal(!lacks(await findings(heightMm, 'added')));
    }
    expect(tried).to.be.above(1);
  });
});
