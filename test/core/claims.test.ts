/** Claims: a table of phrases with the class each falls in, what is left alone, and what the formula says. */
import { expect } from 'chai';
import { findClaims } from '../../src/core/claims/read';
import { formulaFacts, takenApart, type FactLine } from '../../src/core/claims/facts';
import type { ClaimClass, FactId } from '../../src/core/claims/types';
import { MARKETS, type Market } from '../../src/core/formula/types';
import { mixMaterial } from '../../src/core/formula/mix';
import { libraryMaterial } from '../../src/library';
import { CLAIM_PHRASES, claimReader } from '../../src/rulebook/claims';
import { gravest } from '../support/claims';

type Expected = ClaimClass | `${ClaimClass}:${FactId}` | Partial<Record<Market | 'other', ClaimClass>>;

/** Every phrase with the gravest class it falls in; made up for this table. */
const TABLE: Record<string, Expected> = {
  // Medicine, in English.
  'Heals cracked hands': 'medicine',
  'A healing bar for winter': 'medicine',
  'Cures eczema in a week': 'medicine',
  'Treats dry, flaky patches': 'medicine',
  'An old remedy from the signal box': 'medicine',
  'Therapeutic lavender': 'medicine',
  'Medicated wash': 'medicine',
  'Helps acne': 'medicine',
  'For acne-prone teenagers': 'medicine',
  'Good against pimples': 'medicine',
  'Say goodbye to blemishes': { EU: 'cosmetic', UK: 'cosmetic', other: 'medicine' },
  'For psoriasis and rosacea': 'medicine',
  'Loved by people with eczema': 'medicine',
  'Antibacterial tea tree': 'medicine',
  'Anti-bacterial tea tree': 'medicine',
  'Anti bacterial tea tree': 'medicine',
  'With antimicrobial clove': 'medicine',
  'A natural antiseptic': 'medicine',
  'Kills germs on contact': 'medicine',
  'Kills 99% of bacteria': 'medicine',
  'Disinfects as it cleans': 'medicine',
  'Sanitising kitchen bar': 'medicine',
  'Anti-fungal neem': 'medicine',
  'Anti-inflammatory turmeric': 'medicine',
  'Reduces inflammation': 'medicine',
  'Relieves sore muscles': 'medicine',
  'For aching joints after a shift': 'medicine',
  'Pain relief in a bar': 'medicine',
  'For arthritis sufferers': 'medicine',
  'Stops itching at once': 'medicine',
  'Improves circulation': 'medicine',
  'Detoxifies the skin': 'medicine',
  'A detox bar with charcoal': 'medicine',
  'Draws out toxins': 'medicine',
  'Draws impurities from deep down': 'medicine',
  'Boosts cell turnover': 'medicine',
  'Boosts collagen': 'medicine',
  'Regenerating sea mud': 'medicine',
  'Calms sunburn': 'medicine',
  'Repels mosquitoes': 'medicine',
  'Boosts your immune system': 'medicine',
  'Balances hormones': 'medicine',
  'Fights yeast infections': 'medicine',
  'Prevents breakouts': 'medicine',
  'Repairs damaged skin': { EU: 'cosmetic', UK: 'cosmetic', other: 'medicine' },
  'Restores the skin barrier': 'medicine',
  // Where markets part.
  'Fades scars': { EU: 'cosmetic', UK: 'cosmetic', other: 'medicine' },
  'With SPF 15': { EU: 'cosmetic', UK: 'cosmetic', other: 'medicine' },
  'Against dandruff': { EU: 'cosmetic', UK: 'cosmetic', AU: 'cosmetic', other: 'medicine' },
  'An antiperspirant bar': { EU: 'cosmetic', UK: 'cosmetic', AU: 'cosmetic', other: 'medicine' },
  // Cosmetic, in English.
  'Moisturising shea bar': 'cosmetic',
  'Moisturizes as you wash': 'cosmetic',
  'Deeply hydrating': 'cosmetic',
  'Softens hands': 'cosmetic',
  'Leaves your skin soft': 'cosmetic',
  'Leaves skin silky': 'cosmetic',
  'Nourishing oils': 'cosmetic',
  'Conditions while it cleans': 'cosmetic',
  'Soothing oats': 'cosmetic',
  'Calming chamomile': 'cosmetic',
  'Gently exfoliates': 'cosmetic',
  'Polishes away the day': 'cosmetic',
  'Scrub away dead skin': 'cosmetic',
  'Brightening citrus': 'cosmetic',
  'For a radiant look': 'cosmetic',
  'Glowing skin': 'cosmetic',
  'Purifying clay': 'cosmetic',
  'Clarifying charcoal': 'cosmetic',
  'Anti-aging rose': 'cosmetic',
  'Smooths fine lines and wrinkles': 'cosmetic',
  'Firming seaweed': 'cosmetic',
  'Toning clay': 'cosmetic',
  'Tightens the pores': 'cosmetic',
  'Protects your skin': 'cosmetic',
  'A deodorising bar': 'cosmetic',
  'Refreshing mint': 'cosmetic',
  'Invigorating rosemary': 'cosmetic',
  'Uplifting orange': 'cosmetic',
  'Relaxing lavender': 'cosmetic',
  'For sensitive skin': 'cosmetic',
  'For dry skin': 'cosmetic',
  'For mature skin': 'cosmetic',
  'Part of your skincare': 'cosmetic',
  'Pamper yourself': 'cosmetic',
  // Absolute.
  'Safe for babies': 'absolute',
  'Completely safe': 'absolute',
  'Non-toxic': 'absolute',
  'Nontoxic and mild': 'absolute',
  'Chemical-free': 'absolute',
  'No chemicals': 'absolute',
  'Free from harsh chemicals': 'absolute',
  'Without added chemicals': 'absolute',
  Hypoallergenic: 'absolute',
  'Hypo-allergenic': 'absolute',
  'Dermatologist tested': 'absolute',
  'Dermatologically tested': 'absolute',
  'Clinically proven': 'absolute',
  'The best soap in the county': 'absolute',
  'Better than any shop bar': 'absolute',
  'Suits all skin types': 'absolute',
  'Paraben free': 'absolute',
  'No sulphates': 'absolute',
  'pH balanced': 'absolute',
  'Eco-friendly': 'absolute',
  'Sustainably made': 'absolute',
  'Guaranteed to please': 'absolute',
  // Composition.
  '100% natural': 'composition:natural',
  'All natural': 'composition:natural',
  'Naturally coloured': 'composition:natural',
  'Certified organic': 'composition:organic',
  'Organic olive oil': 'composition:organic',
  Vegan: 'composition:vegan',
  'Plant-based': 'composition:vegan',
  'No animal fats': 'composition:vegan',
  'Palm free': 'composition:palmFree',
  'Palm-oil-free': 'composition:palmFree',
  'No palm oil': 'composition:palmFree',
  'Contains no palm': 'composition:palmFree',
  Unscented: 'composition:unscented',
  'Fragrance-free': 'composition:unscented',
  'No added fragrance': 'composition:unscented',
  'Without perfume': 'composition:unscented',
  'Cruelty-free': 'composition:crueltyFree',
  'Not tested on animals': 'composition:crueltyFree',
  'Never tested on animals': 'composition:crueltyFree',
  'Handmade at Tollen Halt': 'composition:handmade',
  'Poured in small batches, hand cut': 'composition:handmade',
  'Dairy free': 'composition:milkFree',
  'Nut-free': 'composition:nutFree',
  'Gluten free': 'composition:glutenFree',
  // French.
  'Soigne les mains abîmées': 'medicine',
  'Un remède d’antan': 'medicine',
  'Traite les peaux à problèmes': 'medicine',
  'Contre l’acné': 'medicine',
  'Idéal en cas d’eczéma': 'medicine',
  Antibactérien: 'medicine',
  'Savon anti-bactérien': 'medicine',
  'Élimine les bactéries': 'medicine',
  'Anti-inflammatoire': 'medicine',
  'Soulage les courbatures': 'medicine',
  'Élimine les toxines': 'medicine',
  'Hydrate et nourrit la peau': 'cosmetic',
  'Une peau douce': 'cosmetic',
  'Apaisant à l’avoine': 'cosmetic',
  'Exfoliant doux': 'cosmetic',
  'Pour peaux sensibles': 'cosmetic',
  'Pour un teint plein d’éclat': 'cosmetic',
  'Sans danger pour bébé': 'absolute',
  Hypoallergénique: 'absolute',
  'Sans produits chimiques': 'absolute',
  'Testé dermatologiquement': 'absolute',
  'Convient à tous types de peau': 'absolute',
  '100 % naturel': 'composition:natural',
  'Huile d’olive bio': 'composition:organic',
  Végane: 'composition:vegan',
  'Sans huile de palme': 'composition:palmFree',
  'Sans parfum': 'composition:unscented',
  'Non testé sur les animaux': 'composition:crueltyFree',
  'Fait main': 'composition:handmade',
  'Sans lait': 'composition:milkFree',
};

/** Plain words, negations and disclaimers that must raise nothing. */
const PLAIN = [
  'Soap with clove and petitgrain',
  'Cleans hands after the garden',
  'A rich, creamy lather',
  'With oats from the next farm',
  'Cut into bars of ninety grams',
  'Cured for six weeks on the rack',
  'Smells of wet slate and coal',
  'With white clay and marigold petals',
  'Keep dry between uses',
  'Avoid contact with eyes',
  'This soap does not treat acne or eczema',
  'Not intended to cure or prevent anything',
  'It does not heal, it cleans',
  'We never call it antibacterial',
  'Not a medicine: it will not relieve pain',
  'Not dermatologist tested',
  'A hard bar for hard water',
  'The night train left at nine',
  'Savon à l’orange et au fenouil',
  'Lave les mains en douceur',
  'Ne soigne pas l’eczéma',
  'Ce savon n’est pas antibactérien',
  'Éviter le contact avec les yeux',
  'Olive oil, coconut oil, shea butter',
  'Made by two sisters in a signal box',
];

describe('claims', () => {
  it('are tried on more than a hundred and fifty phrases', () => {
    expect(Object.keys(TABLE).length + PLAIN.length).to.be.at.least(150);
  });

  for (const [text, expected] of Object.entries(TABLE)) {
    it(`“${text}”`, () => {
      const found = findClaims(text, claimReader());
      for (const market of MARKETS) {
        const wanted =
          typeof expected === 'string' ? expected.split(':')[0] : (expected[market] ?? expected.other);
        expect(gravest(text, market), market).to.equal(wanted);
      }
      const fact = typeof expected === 'string' ? expected.split(':')[1] : undefined;
      if (fact) expect(found.map((finding) => finding.fact)).to.include(fact);
      for (const { from, to, words } of found) expect(text.slice(from, to)).to.equal(words);
    });
  }

  it('raises no false alarm on plain words, negations and disclaimers', () => {
    const alarms = PLAIN.flatMap((text) =>
      findClaims(text, claimReader()).map(({ words }) => `${text}: ${words}`),
    );
    expect(alarms).to.deep.equal([]);
  });

  it('reads the same in capitals, with typographic marks, and amid plain words', () => {
    const classesOf = (text: string) =>
      findClaims(text, claimReader()).map(({ phrase, class: of }) => `${phrase} ${JSON.stringify(of)}`);
    for (const text of Object.keys(TABLE)) {
      const plain = classesOf(text);
      expect(classesOf(text.toUpperCase()), text).to.deep.equal(plain);
      expect(classesOf(text.replace(/-/g, '\u2011')), text).to.deep.equal(plain);
      expect(classesOf(`${text}!!`), text).to.deep.equal(plain);
      expect(classesOf(`Made at the halt. ${text}. Cut by hand the day after.`), text).to.include.members(
        plain,
      );
    }
  });

  it('is undone by a plain denial, unless the denial is the claim', () => {
    for (const { id, say, language, class: of, ignoresNegation } of CLAIM_PHRASES) {
      const words = say[0]!
        .split(' ')
        .filter((part) => part !== '..' && !part.startsWith('('))
        .map((part) => part.split('|')[0]!.replace('*', ''))
        .join(' ');
      const denied = language === 'en' ? `It does not ${words}` : `Il ne ${words}`;
      const found = findClaims(denied, claimReader()).some(({ phrase }) => phrase === id);
      if (!ignoresNegation) expect(found, `${id}: ${denied} (${of})`).to.equal(false);
    }
  });

  it('ends a negation with its sentence and tells every claim of a text in order', () => {
    const text = 'Not sold with anything odd. Heals hands; moisturises, 100% natural.';
    expect(findClaims(text, claimReader()).map(({ words }) => words)).to.deep.equal([
      'Heals',
      'moisturises',
      '100% natural',
    ]);
  });

  it('takes the maker’s own phrases before those that ship', () => {
    const own = [{ say: 'signal glow*', class: 'plain' as const, language: 'en' as const }];
    const found = findClaims('With a signal glow', claimReader(own));
    expect(found.map(({ class: of }) => of.EU)).to.deep.equal(['plain']);
    expect(findClaims('With a signal glow', claimReader()).map(({ class: of }) => of.EU)).to.deep.equal([
      'cosmetic',
    ]);
  });

  it('bears any text: empty, emoji, other scripts, very long', () => {
    for (const text of ['', '🧼🧼', 'صابون طبيعي', '石鹸', '…', 'heal '.repeat(5000)])
      expect(() => findClaims(text, claimReader())).to.not.throw();
  });

  it('rest on more than a little word that any sentence has', () => {
    const little = [
      ...[
        'no',
        'not',
        'without',
        'never',
        'for',
        'of',
        'with',
        'all',
        'only',
        'free',
        'from',
        'kind',
        'good',
      ],
      ...['sans', 'aucun', 'aucune', 'pas', 'contre', 'pour', 'avec', 'tout', 'la', 'le', 'de'],
      ...['ohne', 'kein', 'keine', 'gegen', 'mit', 'nur', 'ganz', 'frei', 'und'],
      ...['sin', 'contra', 'con', 'solo', 'nada', 'el', 'los', 'libre'],
    ];
    const found = little.flatMap((word) => findClaims(`${word} zug zug zug`, claimReader()));
    expect(found.map(({ words, phrase }) => `${phrase}: ${words}`)).to.deep.equal([]);
  });

  it('are data that says why, in a language, with a class', () => {
    for (const phrase of CLAIM_PHRASES) {
      expect(phrase.why.length, phrase.id).to.be.above(10);
      if (phrase.class === 'composition') expect(phrase.fact, phrase.id).to.be.a('string');
    }
    const ids = CLAIM_PHRASES.map(({ id }) => id);
    expect(new Set(ids).size).to.equal(ids.length);
  });
});

/** Phrases classed by reading before they were tried: what makers write, and ordinary sentences that promise nothing. */
describe('what the formula says', () => {
  const of = (...ids: string[]): FactLine[] => ids.map((id) => ({ material: libraryMaterial(id)! }));
  const fact = (id: FactId, lines: FactLine[]) => {
    const { standing, because } = formulaFacts(lines).find((one) => one.id === id)!;
    return [standing, ...because].join(' / ');
  };

  it('breaks vegan over milk, honey and beeswax, palm free over palm, unscented over any scent', () => {
    expect(fact('vegan', of('olive', 'water'))).to.equal('holds');
    expect(fact('vegan', of('olive', 'honey', 'beeswax'))).to.equal('contradicted / Honey / Beeswax');
    expect(fact('palmFree', of('olive', 'palm-kernel'))).to.equal('contradicted / Palm kernel oil');
    expect(fact('palmFree', of('olive', 'coconut'))).to.equal('holds');
    expect(fact('unscented', of('olive', 'lavender-oil'))).to.contain('contradicted');
    expect(fact('unscented', of('olive', 'kaolin'))).to.equal('holds');
  });

  it('takes mixes apart: what stands in one counts, and is said by name', () => {
    const mixedLine = (name: string, ...ids: string[]) => {
      const mix = { id: 'mix', name, parts: ids.map((material) => ({ material, parts: 1 })) };
      const result = mixMaterial(mix, libraryMaterial);
      if (!result.ok) expect.fail(JSON.stringify(result.errors));
      return takenApart([libraryMaterial('olive')!, result.material], libraryMaterial);
    };
    const scentedClay = mixedLine('Scented clay', 'kaolin', 'kaolin', 'lavender-oil');
    expect(fact('unscented', scentedClay)).to.equal('contradicted / Lavender oil in Scented clay');
    expect(fact('vegan', mixedLine('Balm', 'shea', 'beeswax'))).to.equal('contradicted / Beeswax in Balm');
    expect(fact('vegan', mixedLine('Butters', 'shea', 'cocoa-butter'))).to.equal('holds');
    // A part that nobody knows any more keeps its kind, and leaves the rest open.
    const [, lost] = takenApart(
      [
        libraryMaterial('olive')!,
        {
          ...libraryMaterial('kaolin')!,
          origin: undefined,
          madeOf: [{ material: 'gone', kind: 'essentialOil', sharePct: 100 }],
        },
      ],
      libraryMaterial,
    );
    expect(fact('unscented', [lost!])).to.contain('contradicted');
    expect(fact('vegan', [lost!])).to.contain('open');
  });

  it('breaks all natural over a mica, and never takes natural, organic or cruelty free for granted', () => {
    expect(fact('natural', of('olive', 'mica-red'))).to.contain('contradicted / Mica, red');
    expect(fact('natural', of('olive'))).to.contain('open');
    expect(fact('organic', of('olive'))).to.contain('open');
    expect(fact('crueltyFree', of('olive'))).to.contain('open');
  });

  it('knows milk, nuts and gluten by their ingredient names, and plant drinks are no milk', () => {
    expect(fact('milkFree', of('olive', 'goat-milk'))).to.contain('contradicted');
    expect(fact('milkFree', of('olive', 'oat-drink'))).to.equal('holds');
    expect(fact('nutFree', of('olive', 'almond-meal'))).to.contain('contradicted');
    expect(fact('glutenFree', of('olive', 'rye-bran'))).to.contain('contradicted');
    expect(fact('glutenFree', of('olive', 'rice-flour'))).to.equal('holds');
  });
});
