/** A rule is reached by whatever name a material comes in, and colours stand in the verdict. */
import { expect } from 'chai';
import { assess } from '../../src/core/assess';
import { membersOf } from '../../src/core/formula/subject';
import { MARKETS, REQUEST_FORMAT, type Kind, type Market, type Material } from '../../src/core/formula/types';
import { constituent, everyConstituent, knownConstituents } from '../../src/library/constituents';
import { LIBRARY, libraryMaterial } from '../../src/library';
import { colourNamed, constituentsNamed, withReached } from '../../src/library/reach';
import { rulebook } from '../../src/rulebook';
import { shippedStore } from '../../src/server/store/snapshot';
import { matchName, namedMaterials } from '../../src/core/sheets/match';
import { searchMaterials } from '../../src/server/services/cupboard/cupboard';
import { assessValue } from '../../src/server/services/worktable/assessment';

const TODAY = '2026-11-30';
const STORE = shippedStore(TODAY);

const request = (material: Material, markets: readonly Market[] = MARKETS, g = 10) => ({
  format: REQUEST_FORMAT,
  formula: {
    alkali: { superfatPct: 5 },
    liquid: { basis: 'ofFats' as const, value: 33 },
    lines: [
      { id: 'f', material: 'olive', stage: 'fats' as const, amount: { value: 1000, unit: 'g' as const } },
      { id: 'w', material: 'water', stage: 'liquid' as const, amount: { value: 330, unit: 'g' as const } },
      { id: 'x', material: 'x', stage: 'trace' as const, amount: { value: g, unit: 'g' as const } },
    ],
  },
  materials: [material],
  markets: [...markets],
  onDate: TODAY,
});

function assessed(material: Material, markets?: readonly Market[], g?: number) {
  const result = assessValue(request(material, markets, g), STORE);
  if (!result.ok) throw new Error(JSON.stringify(result.errors));
  return result.assessment;
}

const own = (more: Partial<Material>): Material => ({
  id: 'x',
  name: 'Something of mine',
  kind: 'other',
  ...more,
});
const named = (name: string, kind: Kind = 'essentialOil') =>
  own({ kind, inci: [{ name, sharePct: 100, role: 'ingredient' }] });

describe('a rule is reached by name', () => {
  /** Every way in which a material may be called that is all of a constituent. */
  function waysOf(id: string): [string, Material][] {
    const { name, names, cas, ec } = constituent(id)!;
    const all = [name, ...names];
    return [
      ...all.map((one): [string, Material] => [one, named(one)]),
      ...all.map((one): [string, Material] => [`called ${one}`, own({ name: one })]),
      ...[...cas, ...ec].map((one): [string, Material] => [one, own({ numbers: [one] })]),
    ];
  }
  const RULES = rulebook().limits.filter(({ subject }) => subject.type === 'constituent');

  it('for every rule and every name and number on file of its subject', () => {
    const missed: string[] = [];
    for (const { id: rule, subject } of RULES)
      for (const id of membersOf(subject))
        for (const [way, material] of waysOf(id)) {
          const share = withReached(material).constituents?.find((one) => one.id === id);
          if (share?.typicalPct !== 100) missed.push(`${rule}: ${way}`);
        }
    expect(missed).to.deep.equal([]);
  });

  it('so that the rule stands in the answer: one way of each, in turn', () => {
    RULES.forEach((limit, at) => {
      const [member] = membersOf(limit.subject);
      const ways = waysOf(member!);
      const [way, material] = ways[at % ways.length]!;
      const { limits } = assessed(material, limit.markets ?? MARKETS);
      expect(
        limits.some(({ id }) => id === limit.id),
        `${limit.id}: ${way}`,
      ).to.equal(true);
    });
  });

  it('whatever the spelling: small letters, marks, brackets', () => {
    for (const name of ['sodium BORATE', 'Borax', 'ACIDE BORIQUE', 'Ácido bórico', 'acido borico'])
      expect(assessed(named(name, 'salt')).verdict, name).to.equal('over');
    expect(
      assessed(own({ name: 'Musk-Xylol', kind: 'isolate' }), ['EU']).limits.map(({ id }) => id),
    ).to.include('eu-musk-xylene');
    expect(assessed(named('Laurus Nobilis Seed Oil')).verdict).to.equal('over');
    expect(assessed(named('Myroxylon Pereirae Resin')).verdict).to.equal('over');
  });

  it('in a part of a material by its share, and never against what is on file of it', () => {
    const blend = own({
      inci: [
        { name: 'Talc', sharePct: 98 },
        { name: 'Boric Acid', sharePct: 2 },
      ],
    });
    const row = assessed(blend, ['EU'], 100).limits.find(({ id }) => id === 'eu-no-borates')!;
    const whole = assessed(named('Boric Acid', 'salt'), ['EU'], 100).limits.find(
      ({ id }) => id === 'eu-no-borates',
    )!;
    expect(row.nominalPct / whole.nominalPct).to.be.closeTo(0.02, 1e-9);
    const onFile = withReached({
      ...named('Styrax Resinoid'),
      constituents: [{ id: 'liquidambar-extracts', lowPct: 30, typicalPct: 40, highPct: 50 }],
    });
    expect(onFile.constituents).to.deep.equal([
      { id: 'liquidambar-extracts', lowPct: 30, typicalPct: 40, highPct: 50 },
    ]);
  });

  it('but a scent of a generic name, a blossom water or other parts of a plant are not the oil', () => {
    expect(withReached(named('Parfum', 'fragrance')).constituents).to.equal(undefined);
    // A fragrance called like an oil is made to smell of it; what is not to be used is asked about all the same.
    const scent = (name: string) =>
      withReached(own({ name, kind: 'fragrance' })).constituents?.map(({ id }) => id);
    expect(scent('Lavender oil')).to.equal(undefined);
    expect(scent('Fig leaf absolute')).to.deep.equal(['fig-leaf-absolute']);
    expect(withReached(named('Rosa Damascena Flower Water')).constituents).to.equal(undefined);
    expect(withReached(named('Lavandula Angustifolia (Lavender) Flower')).constituents).to.equal(undefined);
    expect(withReached(named('Laurus Nobilis Fruit Oil')).constituents).to.equal(undefined);
    // Known by an ingredient name, it is not what its maker calls it.
    const called = withReached(own({ name: 'Musk xylene', inci: [{ name: 'Talc', sharePct: 100 }] }));
    expect(called.constituents).to.equal(undefined);
  });

  it('leaves the arithmetic of a request that brings its own rules alone', () => {
    const asked = { ...request(named('Linalool')), rules: { replace: true, limits: [], declarables: [] } };
    const withOwn = assessValue(
      {
        ...asked,
        rules: {
          ...asked.rules,
          declarables: [{ id: 'linalool', name: 'Linalool', markets: ['EU'], thresholdPct: 0.01 }],
        },
      },
      STORE,
    );
    expect(withOwn.ok && withOwn.assessment.declarables).to.deep.equal([]);
  });

  it('has numbers whose check digits hold, and ids that are on file', () => {
    const isEc = (number: string) => {
      const digits = [...number.replaceAll('-', '')].map(Number);
      const sum = digits.slice(0, -1).reduce((total, digit, at) => total + (at + 1) * digit, 0);
      return /^\d{3}-\d{3}-\d$/.test(number) && sum % 11 === digits.at(-1);
    };
    for (const { id, ec, names } of everyConstituent()) {
      for (const number of ec) expect(isEc(number), `${id} ${number}`).to.equal(true);
      for (const name of names) expect(constituentsNamed(name), name).to.include(id);
    }
    expect(isEc('201-329-5')).to.equal(false);
    expect(knownConstituents.byName('Oakmoss absolute')?.id).to.equal('evernia-prunastri-extract');
    // One number stands for two: the extract that is limited and the oil that is not to be used.
    expect(constituentsNamed('8024-12-2').sort()).to.deep.equal([
      'lippia-citriodora-absolute',
      'lippia-citriodora-oil',
    ]);
  });

  it('leaves every scent of the library where it was, but for what its own name says', () => {
    const added = LIBRARY.filter(({ kind }) => kind === 'essentialOil').filter(
      (material) =>
        withReached(material) !== material && !material.inci!.some(({ role }) => role === 'colourant'),
    );
    expect(added.map(({ id }) => id)).to.deep.equal([]);
  });
});

describe('colours in the verdict', () => {
  const colour = (id: string, markets: readonly Market[]) =>
    assessed({ ...libraryMaterial(id)!, id: 'x' } as Material, markets);

  it('say so in every market that does not let one in, and in no other', () => {
    const madder = colour('madder-root', ['EU', 'UK', 'US', 'CA']);
    const rows = madder.limits.filter(({ subject }) => subject.type === 'colour');
    expect(rows.map(({ market }) => market).sort()).to.deep.equal(['EU', 'UK', 'US']);
    expect(madder.markets.map(({ market, verdict }) => [market, verdict])).to.deep.equal([
      ['EU', 'tight'],
      ['UK', 'tight'],
      ['US', 'tight'],
      ['CA', 'clear'],
    ]);
    expect(rows[0]!.source).to.match(/^Not on the list of colours for cosmetics/);
    expect(colour('iron-oxide-red', MARKETS).verdict).to.equal('clear');
    expect(colour('activated-charcoal', ['EU', 'US']).markets.map(({ verdict }) => verdict)).to.deep.equal([
      'clear',
      'tight',
    ]);
  });

  it('under whatever name a colour is bought', () => {
    for (const name of ['Bamboo Charcoal', 'Activated charcoal', 'C.I. 77268:1', 'ci77268:1', 'Turmeric'])
      expect(assessed(named(name, 'colourant'), ['US']).verdict, name).to.equal('tight');
    expect(colourNamed('C.I. 77891')).to.equal('CI 77891');
    expect(colourNamed('Iron Oxides')).to.equal('Iron Oxides');
    // What is in for something else is no colour.
    expect(assessed(named('Charcoal Powder', 'exfoliant'), ['US']).verdict).to.equal('clear');
  });

  it('offer no amount to come down to: none of it is let in', () => {
    const found = colour('madder-root', ['EU']).lines.find(({ id }) => id === 'x')!;
    expect(found.advised?.boundBy ?? null).to.not.match(/-colour-/);
  });

  it('are rows of the edition that judges them alone', () => {
    const rows = (edition: string) =>
      [...rulebook(edition).limits, ...rulebook(edition).craft].filter(
        ({ subject }) => subject.type === 'colour',
      );
    expect(rows('2026-11c')).to.deep.equal([]);
    expect(rows('2026-12').length).to.be.greaterThan(30);
    expect(assess(request(named('Talc')), STORE).ok).to.equal(true);
  });
});

describe('an ingredient list that names scents one by one', () => {
  const list = (oils: [string, number][], markets: readonly Market[] = ['EU']) => {
    const lines = oils.map(([material, g], at) => ({
      id: `o${at}`,
      material,
      stage: 'trace' as const,
      amount: { value: g, unit: 'g' as const },
    }));
    const asked = request(libraryMaterial('kaolin') as Material, markets, 1);
    const formula = {
      ...asked.formula,
      scentNaming: 'named' as const,
      lines: [...asked.formula.lines.slice(0, 2), ...lines],
    };
    const result = assess({ ...asked, formula, firstPlacedOn: { EU: TODAY } }, STORE);
    if (!result.ok) throw new Error(JSON.stringify(result.errors));
    return result.assessment.ingredients.filter(({ school }) => school === 'added');
  };

  it('writes an oil once, by the name that the list of allergens has for it', () => {
    const [eu] = list([['sweet-orange-oil', 20]]);
    expect(eu!.text).to.contain('Citrus Sinensis Peel Oil');
    expect(eu!.text).not.to.contain('(Sweet Orange)');
    expect(eu!.items.find(({ name }) => name === 'Citrus Sinensis Peel Oil')!.massG).to.be.closeTo(20, 1e-9);
    const [, us] = list([['sweet-orange-oil', 20]], ['EU', 'US']);
    expect(us!.text).to.contain('Citrus Sinensis (Sweet Orange) Peel Oil');
  });

  it('and two oils that it names alike as one, of both masses', () => {
    const [eu] = list([
      ['lavender-oil', 10],
      ['lavandin-oil', 5],
    ]);
    const found = eu!.items.filter(({ name }) => /Lavandula/.test(name));
    expect(found.map(({ name, massG }) => [name, massG])).to.deep.equal([['Lavandula Oil/Extract', 15]]);
    expect(found[0]!.pct).to.be.closeTo(
      (100 * 15) / (1000 + 330 + 15 + eu!.items.find(({ role }) => role === 'alkali')!.massG),
      1e-9,
    );
  });
});

describe('materials as suppliers and makers call them', () => {
  const first = (query: string) => searchMaterials(STORE, query)[0]?.material.id;

  it('are found by other names, initials, CAS and EC numbers', () => {
    const asked: [string, string][] = [
      ['canola', 'rapeseed'],
      ['EVOO', 'olive'],
      ['PKO', 'palm-kernel'],
      ['MCT oil', 'fractionated-coconut'],
      ['titanium', 'titanium-dioxide'],
      ['ROE', 'rosemary-extract'],
      ['baking soda', 'sodium-bicarbonate'],
      ['caustic soda', 'sodium-hydroxide'],
      ['suet', 'beef-tallow'],
      ['laurel berry oil', 'laurel-fruit'],
      ['may chang', 'litsea-cubeba-oil'],
      ['78-70-6', 'linalool'],
      ['201-134-4', 'linalool'],
      ['8006-90-4', 'peppermint-oil'],
    ];
    for (const [query, id] of asked) expect(first(query), query).to.equal(id);
    expect(first('99-99-9')).to.equal(undefined);
  });

  it('are taken for what a spreadsheet calls them; initials are asked about', () => {
    const match = (name: string) => matchName(name, namedMaterials(LIBRARY))!;
    expect([match('Canola').id, match('Canola').isSure]).to.deep.equal(['rapeseed', true]);
    expect([match('PKO').id, match('PKO').isSure]).to.deep.equal(['palm-kernel', false]);
    expect(match('Almond oil').isSure).to.equal(false);
  });
});
