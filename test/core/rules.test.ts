/** The newest edition of the rules: what it corrects, and what it left as it shipped. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { formulaFacts } from '../../src/core/claims/facts';
import type { FactId } from '../../src/core/claims/types';
import type { Declarable, Market, Material } from '../../src/core/formula/types';
import { peroxideCondition } from '../../src/core/scent/storage';
import { declarableApplies } from '../../src/core/loads/declarables';
import { LIBRARY, libraryMaterial } from '../../src/library';
import { rulebook } from '../../src/rulebook';
import { editionDifferences } from '../../src/rulebook/differences';
import { shippedStore } from '../../src/server/store/snapshot';
import { assessed, request, type ShortLine } from '../support/request';

const TODAY = '2026-11-24';

/** A library material by its id, in a request of its own. */
const own = (id: string): Material => libraryMaterial(id)!;

function bar(lines: ShortLine[], more: object = {}) {
  const ids = [...new Set(lines.map(([, material]) => material))];
  const asked = request(
    lines,
    {},
    {
      rules: null,
      materials: ids.map(own),
      markets: ['EU', 'UK', 'CA'],
      onDate: TODAY,
      ...more,
    },
  );
  return assessed(asked, shippedStore(TODAY));
}

describe('the editions of the rulebook', () => {
  it('keep what shipped as it shipped, to the byte', () => {
    const digest = (name: string) =>
      createHash('sha256')
        .update(readFileSync(`src/rulebook/editions/${name}.json`))
        .digest('hex')
        .slice(0, 16);
    expect(digest('2026-11')).to.equal('c66a818cdc2fb17f');
    expect(digest('craft')).to.equal('6a40ba67991491e1');
    expect(digest('2026-11b')).to.equal('ebef2113d3fffee7');
    expect(digest('craft-2026-11b')).to.equal('1ce8b049b1d20872');
    expect(digest('2026-11c')).to.equal('d9f3100e98f07292');
    expect(rulebook('2026-11b').title).to.equal('Second edition');
    expect(rulebook('2026-11').declarables.every(({ per }) => per === 'product')).to.equal(true);
  });

  it('count the EU’s second list by the unit and every other list by the product', () => {
    const { allergenLists } = rulebook();
    const byUnit = allergenLists.filter(({ per }) => per === 'unit');
    expect(byUnit.map(({ market, list }) => `${market} ${list}`)).to.deep.equal(['EU second']);
  });

  it('hold the limits that were missing, each with the standing of what is known', () => {
    const known = new Map(rulebook().limits.map((limit) => [limit.id, limit]));
    const wanted: [id: string, maxPct: number, standing: string][] = [
      ['eu-isoeugenol', 0.02, 'published'],
      ['uk-isoeugenol', 0.02, 'published'],
      ['eu-hydroxycitronellal', 1, 'published'],
      ['eu-methyl-n-methylanthranilate', 0.2, 'published'],
      ['eu-styrax', 0.6, 'published'],
      ['uk-opoponax', 0.6, 'published'],
      ['eu-tagetes-together', 0.1, 'published'],
      ['eu-musk-ketone', 0.042, 'typical'],
      ['eu-musk-xylene', 0.03, 'typical'],
      ['eu-hexyl-salicylate', 0.5, 'typical'],
      ['eu-no-laurus-nobilis-seed-oil', 0, 'published'],
      ['uk-no-savin-oil', 0, 'published'],
      ['ca-methyl-salicylate', 1, 'typical'],
      ['ca-camphor', 3, 'typical'],
      ['ca-no-costus-root-oil', 0, 'typical'],
      ['uk-methyl-salicylate', 0.06, 'typical'],
    ];
    for (const [id, maxPct, standing] of wanted)
      expect(known.get(id), id).to.deep.include({ maxPct, standing, force: 'law' });
    expect(known.get('uk-no-butylphenyl-methylpropional')!.source).to.contain(
      'its own statutory instruments',
    );
  });
});

describe('the differences of two editions', () => {
  const differences = editionDifferences(rulebook('2026-11'), rulebook('2026-11b'));
  const of = (kind: string, change: string) =>
    differences.filter((one) => one.kind === kind && one.change === change).map(({ id }) => id);

  it('list what was added and changed, take nothing away unsaid, and are none of an edition with itself', () => {
    expect(of('limit', 'added')).to.include.members(['eu-isoeugenol', 'ca-camphor', 'eu-no-borates']);
    expect(of('limit', 'changed')).to.deep.equal([
      'uk-methyl-salicylate',
      'uk-no-butylphenyl-methylpropional',
    ]);
    expect(of('allergenList', 'changed')).to.have.length(6);
    expect(of('advice', 'added')).to.include('orient-citral');
    expect(of('colour', 'added')).to.include('CI 77742');
    expect(differences.filter(({ change }) => change === 'removed')).to.deep.equal([]);
    expect(editionDifferences(rulebook(), rulebook())).to.deep.equal([]);
  });

  it('of the third from the second are what is held to one figure together', () => {
    const third = editionDifferences(rulebook('2026-11b'), rulebook('2026-11c'));
    expect(third).to.deep.equal([
      { kind: 'limit', id: 'eu-tagetes-together', change: 'changed', fields: ['subject'] },
      { kind: 'limit', id: 'uk-tagetes-together', change: 'changed', fields: ['subject'] },
      { kind: 'limit', id: 'eu-methyl-2-alkynoates-together', change: 'added', fields: [] },
      { kind: 'limit', id: 'uk-methyl-2-alkynoates-together', change: 'added', fields: [] },
    ]);
  });
});

describe('an allergen list by unit', () => {
  const list: Declarable = {
    id: 'a',
    name: 'A',
    markets: ['EU'],
    thresholdPct: 0.01,
    newFrom: '2026-07-31',
    allFrom: '2028-07-31',
    per: 'unit',
  };
  const applies = (onDate: string, firstPlaced: string, placed: string, per: Declarable['per'] = 'unit') =>
    declarableApplies({ ...list, per }, { onDate, firstPlaced, placed });

  it('applies to units placed from its first day on, however old the bar, and to all at its end', () => {
    expect(applies('2026-11-24', '2020-01-01', '2026-11-24')).to.equal(true);
    expect(applies('2026-11-24', '2020-01-01', '2026-07-30')).to.equal(false);
    expect(applies('2026-11-24', '2026-11-01', '2026-07-30')).to.equal(false);
    expect(applies('2028-07-31', '2020-01-01', '2026-07-30')).to.equal(true);
    expect(applies('2026-07-30', '2026-07-30', '2026-07-30')).to.equal(false);
    expect(applies('2026-11-24', '2020-01-01', '2026-11-24', 'product')).to.equal(false);
    expect(applies('2026-11-24', '2020-01-01', '2026-11-24', null)).to.equal(false);
  });

  it('names what an old bar holds today, and not what was placed before', () => {
    const lines: ShortLine[] = [
      ['f', 'olive', 'fats', 1000, 'g'],
      ['w', 'water', 'liquid', 330, 'g'],
      ['s', 'fennel-oil', 'trace', 6, 'g'],
    ];
    const names = (more: object) =>
      bar(lines, { firstPlacedOn: { EU: '2020-01-01', CA: '2020-01-01' }, ...more })
        .declarables.filter(({ id, declare }) => id === 'anethole' && declare)
        .map(({ market }) => market);
    expect(names({})).to.deep.equal(['EU']);
    expect(names({ placedOn: { EU: '2026-07-30' } })).to.deep.equal([]);
  });
});

describe('a scent without a certificate', () => {
  const lines: ShortLine[] = [
    ['f', 'olive', 'fats', 1000, 'g'],
    ['w', 'water', 'liquid', 330, 'g'],
    ['s', 'lemongrass-oil', 'trace', 40, 'g'],
  ];

  it('stays unproven, with the orientation beside it as advice', () => {
    const found = bar(lines);
    expect(found.verdict).to.equal('unproven');
    const row = found.limits.find(({ id, market }) => id === 'orient-citral' && market === 'EU')!;
    expect(row.force).to.equal('craft');
    expect(row.verdict).to.equal('over');
    expect(found.lines.find(({ id }) => id === 's')!.maxG).to.equal(null);
    expect(found.lines.find(({ id }) => id === 's')!.advised!.boundBy).to.not.equal('orient-citral');
  });

  it('shows none once a certificate speaks of it', () => {
    const certified: Material = {
      ...own('lemongrass-oil'),
      limits: [
        {
          id: 'cert',
          subject: { type: 'material', id: 'lemongrass-oil' },
          maxPct: 6,
          basis: 'cured',
          force: 'certificate',
        },
      ],
    };
    const found = bar(lines, { materials: [own('olive'), own('water'), certified] });
    expect(found.limits.some(({ id }) => id.startsWith('orient-'))).to.equal(false);
    expect(found.unproven).to.deep.equal([]);
  });
});

describe('every material of the library', () => {
  /** What contradicts each claim, by material: everything else must leave it standing or open. */
  const AGAINST: Partial<Record<FactId, readonly string[]>> = {
    milkFree: [
      'goat-milk ewe-milk cow-milk donkey-milk cream buttermilk yoghurt goat-milk-powder cow-milk-powder',
      'buttermilk-powder butter-ghee kefir',
    ],
    nutFree: ['almond-drink sweet-almond hazelnut macadamia walnut peanut almond-meal walnut-shell'],
    glutenFree: [
      'oat-drink beer-flat oat-flour rolled-oats rye-bran colloidal-oatmeal oat-protein wheat-protein wheatgerm',
    ],
    palmFree: ['palm palm-stearin palm-kernel red-palm'],
    vegan: [
      'goat-milk ewe-milk cow-milk donkey-milk cream buttermilk yoghurt goat-milk-powder cow-milk-powder',
      'buttermilk-powder butter-ghee lard beef-tallow mutton-tallow goose-fat duck-fat beeswax lanolin honey',
      'tussah-silk silk-powder silk-hydrolysed collagen-hydrolysed keratin-hydrolysed wool-fibre carmine egg-yolk',
      'kefir propolis emu deer-tallow horse-fat',
    ],
  };

  for (const [fact, ids] of Object.entries(AGAINST)) {
    it(`is judged by its origin: ${fact}`, () => {
      const against = LIBRARY.filter((material) =>
        formulaFacts([{ material }]).some(({ id, standing }) => id === fact && standing === 'contradicted'),
      ).map(({ id }) => id);
      expect(against.sort()).to.deep.equal(ids.join(' ').split(' ').sort());
    });
  }

  it('goes by the name each market asks for', () => {
    const shown = (id: string, market: Market) => {
      const [part] = own(id).inci!;
      return part!.names?.[market] ?? part!.name;
    };
    const rows: [id: string, eu: string, us: string][] = [
      ['beeswax', 'Cera Alba', 'Beeswax'],
      ['goat-milk', 'Caprae Lac', 'Goat Milk'],
      ['butter-ghee', 'Butyrum', 'Butter'],
      ['honey', 'Mel', 'Honey'],
      ['sea-salt-fine', 'Maris Sal', 'Sea Salt'],
      ['sea-water', 'Maris Aqua', 'Sea Water'],
      ['dead-sea-mud', 'Maris Limus', 'Sea Silt'],
      ['lard', 'Adeps Suillus', 'Lard'],
      ['beef-tallow', 'Adeps Bovis', 'Tallow'],
      ['diatomaceous-earth', 'Solum Diatomeae', 'Diatomaceous Earth'],
      ['tussah-silk', 'Serica', 'Silk'],
    ];
    for (const [id, eu, us] of rows) {
      expect([shown(id, 'EU'), shown(id, 'UK'), shown(id, 'US')], id).to.deep.equal([eu, eu, us]);
    }
  });
});

describe('edition 2026-12', () => {
  const fourth = editionDifferences(rulebook('2026-11c'), rulebook('2026-12'));
  const ids = (kind: string, change: string) =>
    fourth.filter((one) => one.kind === kind && one.change === change).map(({ id }) => id);

  it('adds what a second reading found, corrects what it read otherwise, and takes nothing away unsaid', () => {
    expect(fourth.filter(({ change }) => change === 'removed')).to.deep.equal([]);
    expect(ids('limit', 'added')).to.deep.equal([
      'eu-salicylic-acid',
      'eu-etidronic-acid',
      'uk-salicylic-acid',
      'uk-etidronic-acid',
      'eu-bht',
      'eu-kojic-acid',
      'uk-methyl-n-methylanthranilate',
    ]);
    expect(ids('limit', 'changed')).to.include.members(['eu-isoeugenol', 'eu-hexyl-salicylate']);
    expect(ids('colour', 'added')).to.include.members(['CI 15850:1', 'CI 73000', 'CI 77266']);
    expect(ids('colour', 'changed')).to.include.members(['CI 15850', 'CI 77861']);
    expect(ids('allergen', 'changed')).to.include('lavandula-oil-extract');
    expect(ids('peroxides', 'added')).to.deep.equal(['peroxides-linalool']);
  });

  it('asks for little peroxide of pines, turpentine and thuja, and not of citrus for what it holds of a substance', () => {
    const { peroxides } = rulebook('2026-12');
    const most = (name: string, constituents: [string, number][] = []) =>
      peroxideCondition(
        {
          inci: [{ name, sharePct: 100 }],
          constituents: constituents.map(([id, pct]) => ({ id, lowPct: pct, typicalPct: pct, highPct: pct })),
        },
        peroxides,
      )?.mostMmolPerL ?? null;
    expect(most('Turpentine')).to.equal(10);
    expect(most('Thuja Occidentalis Leaf Oil')).to.equal(10);
    expect(
      most('Citrus Limon (Lemon) Peel Oil', [
        ['terpinolene', 0.4],
        ['limonene', 68],
      ]),
    ).to.equal(20);
    expect(most('Terpinolene', [['terpinolene', 98]])).to.equal(10);
  });

  it('holds salicylic acid and etidronates, by whatever name they come', () => {
    const acid = bar(
      [
        ['f', 'olive', 'fats', 1000, 'g'],
        ['w', 'water', 'liquid', 330, 'g'],
        ['x', 'salicylic-acid', 'liquid', 40, 'g'],
      ],
      { markets: ['EU'] },
    );
    expect(acid.limits.find(({ id }) => id === 'eu-salicylic-acid')?.verdict).to.equal('over');
    const moss = bar(
      [
        ['f', 'olive', 'fats', 1000, 'g'],
        ['w', 'water', 'liquid', 330, 'g'],
        ['x', 'oakmoss-absolute', 'trace', 1, 'g'],
      ],
      { markets: ['EU'] },
    );
    expect(moss.limits.find(({ id }) => id === 'eu-no-atranol')?.verdict).to.equal('atRisk');
  });

  it('says with the source what is open about a figure, and what to mind with it', () => {
    const source = (id: string) => rulebook('2026-12').limits.find((limit) => limit.id === id)!.source;
    expect(source('eu-hexyl-salicylate')).to.contain('From which day it counts is open');
    expect(source('eu-methyl-salicylate')).to.contain('hand wash the figure is perhaps 0.6 %');
    expect(source('eu-methyl-n-methylanthranilate')).to.contain('nitrosating agents');
    expect(source('eu-safrole')).to.match(/natural oils$/);
  });
});
