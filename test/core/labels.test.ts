/** Labels: content by market, the layout in millimetres, heights as asked, and what does not fit and by how much. */
import { expect } from 'chai';
import fc from 'fast-check';
import type { ClaimFinding } from '../../src/core/claims/types';
import { MARKETS, type Market } from '../../src/core/formula/types';
import { checkItems, colourFindings } from '../../src/core/labels/checklist';
import { labelContent, type LabelInput } from '../../src/core/labels/content';
import { SHAPES, USUAL_FORMATS, type LabelFormat } from '../../src/core/labels/formats';
import { contrast, netFromBars, netText } from '../../src/core/labels/heights';
import { layoutLabel, type LabelLook } from '../../src/core/labels/label';
import { breakLines, type Layout, type Metrics } from '../../src/core/labels/layout';
import { soapSharePct, standingIn } from '../../src/core/labels/standing';
import { libraryMaterial } from '../../src/library';
import { colourKnown, rulebook } from '../../src/rulebook';
import { marketRules } from '../../src/rulebook/markets';
import { assessed, near, request } from '../support/request';

/** Every letter half as wide as it is high: widths can be reckoned by hand. */
const METRICS: Metrics = {
  width: (text, _face, sizeMm) => [...text].length * sizeMm * 0.5,
  xHeight: () => 0.5,
  digitHeight: () => 0.7,
  missing: (text) => [...new Set(text)].filter((letter) => letter > '\u024f' && !'’“”…'.includes(letter)),
};
const LOOK: LabelLook = { paper: '#ffffff', ink: '#000000', nameFace: 'display', logo: null, barcode: null };

const INPUT: LabelInput = {
  market: 'EU',
  regime: 'cosmetic',
  name: 'Night Mail',
  identity: { en: 'Soap with grey clay', fr: 'Savon à l’argile' },
  use: {},
  cautions: { en: 'Avoid contact with eyes.', fr: 'Éviter le contact avec les yeux.' },
  text: '',
  ingredients: 'Sodium Olivate, Aqua, Glycerin, Parfum, Linalool',
  netMassG: 86,
  responsible: ['Signalbox Soap', 'Tollen Halt'],
  batchCode: 'NM-1',
  durability: { months: 24, endsOn: '2028-11' },
};

function label(
  input: Partial<LabelInput> = {},
  format: Partial<LabelFormat> = {},
  look: Partial<LabelLook> = {},
): Layout {
  const content = labelContent({ ...INPUT, ...input });
  const net = input.netMassG === undefined ? INPUT.netMassG : input.netMassG;
  return layoutLabel(content, { ...USUAL_FORMATS.band, ...format }, { ...LOOK, ...look }, net ?? 0, METRICS);
}

const textOf = (layout: Layout, element: string) =>
  layout.texts
    .filter((one) => one.element === element)
    .map(({ text }) => text)
    .join(' ');
const codes = (layout: Layout) => layout.findings.map(({ element, code }) => `${element} ${code}`);

describe('what stands on a label', () => {
  it('leaves out marks of no width and of direction, which no font draws', () => {
    const { front, info } = labelContent({
      ...INPUT,
      name: '\u202eSoft\u00adwood\u200f ',
      text: 'Made by\ufeff hand\n',
    });
    expect(front.name).to.equal('Softwood');
    expect(info.find(({ id }) => id === 'text')!.text).to.equal('Made by hand\n');
  });

  it('is headed, bilingual and dated as the market asks', () => {
    const of = (input: Partial<LabelInput>) =>
      Object.fromEntries(labelContent({ ...INPUT, ...input }).info.map(({ id, text }) => [id, text]));
    expect(of({}).ingredients).to.equal('Ingredients: Sodium Olivate, Aqua, Glycerin, Parfum, Linalool');
    expect(of({}).durability).to.equal('Best used before the end of 11/2028');
    expect(of({ durability: { months: 36, endsOn: null } }).durability).to.equal(undefined);
    expect(of({ durability: { months: 36, endsOn: null, openMonths: 12 } }).durability).to.equal(
      'Opened: 12 M',
    );
    expect(of({ market: 'US' }).durability).to.equal(undefined);
    expect(of({ market: 'CA' }).ingredients).to.match(/^Ingredients \/ Ingrédients\u00a0: /);
    expect(of({ market: 'CA' }).cautions).to.equal(
      'Caution / Précautions d’emploi\u00a0: Avoid contact with eyes. / Éviter le contact avec les yeux.',
    );
    expect(of({ market: 'UK' }).cautions).to.equal('Caution: Avoid contact with eyes.');
    expect(labelContent({ ...INPUT, market: 'US' }).front.identity).to.equal('Soap with grey clay');
  });

  it('speaks the languages of the countries in the EU that the house says, and no other', () => {
    const words = { en: 'Soap', fr: 'Savon', de: 'Seife' };
    const content = (languages: LabelInput['languages'], market: LabelInput['market'] = 'EU') =>
      labelContent({ ...INPUT, market, identity: words, cautions: words, languages });
    const of = (languages: LabelInput['languages'], market?: LabelInput['market']) =>
      Object.fromEntries(content(languages, market).info.map(({ id, text }) => [id, text]));
    expect(content([]).front.identity).to.equal('Seife / Soap / Savon');
    expect(content(['de']).front.identity).to.equal('Seife');
    expect(of(['de', 'fr'])).to.include({
      cautions: 'Warnhinweise / Précautions d’emploi\u00a0: Seife / Savon',
      batch: 'Charge / Lot NM-1',
      durability: 'Mindestens haltbar bis Ende / À utiliser de préférence avant fin 11/2028',
    });
    expect(of(['de']).ingredients).to.match(/^Ingredients: /);
    expect(content(['es']).findings.map(({ element }) => element)).to.deep.equal(['identity', 'cautions']);
    expect(of(['de'], 'UK')).to.deep.equal(of([], 'UK'));
    expect(of(['de'], 'CA')).to.deep.equal(of(undefined, 'CA'));
  });

  it('misses what the market asks for and nothing else', () => {
    const missing = (input: Partial<LabelInput>) =>
      labelContent({ ...INPUT, ...input }).findings.map(({ element }) => element);
    expect(missing({})).to.deep.equal([]);
    expect(
      missing({ responsible: [], batchCode: '', durability: null, ingredients: '', netMassG: null }),
    ).to.deep.equal(['ingredients', 'responsible', 'batch', 'durability', 'net']);
    expect(missing({ market: 'US', batchCode: '', durability: null })).to.deep.equal([]);
    expect(missing({ market: 'US', ingredients: '' })).to.deep.equal(['ingredients']);
    expect(missing({ market: 'US', regime: 'soap', ingredients: '' })).to.deep.equal([]);
    expect(missing({ market: 'CA', identity: { en: 'Soap' } })).to.deep.equal(['identity']);
    expect(missing({ name: '  ' })).to.deep.equal(['name']);
  });

  it('rounds net content down, in grams and ounces, and takes the lightest bar', () => {
    expect(netText('EU', 88.9)).to.equal('88 g');
    expect(netText('US', 88)).to.equal('Net Wt 3.1 oz (88 g)'); // 88 g is 3.104 oz
    expect(netText('US', 90.7)).to.equal('Net Wt 3.1 oz (90 g)'); // 3.199 oz
    expect(netFromBars([91.2, 88.7, 90])).to.equal(88);
    expect(netFromBars([])).to.equal(null);
    expect(netFromBars([0])).to.equal(null);
  });
});

describe('the layout', () => {
  it('breaks lines at words, and words only where they are wider than the line', () => {
    const style = { element: 'x', face: 'text' as const, sizeMm: 2, leading: 1.2 };
    expect(breakLines('one two three', style, 8, METRICS)).to.deep.equal(['one two', 'three']);
    expect(breakLines('abcdefghijk', style, 5, METRICS)).to.deep.equal(['abcde', 'fghij', 'k']);
  });

  it('measures in proportion to the letters there are, however long the text and its words', () => {
    const asked = (text: string, ingredients = 'Aqua') => {
      let letters = 0;
      const counting: Metrics = {
        ...METRICS,
        width: (measured, face, sizeMm) => {
          letters += measured.length;
          return METRICS.width(measured, face, sizeMm);
        },
      };
      const content = labelContent({ ...INPUT, market: 'CA', text, ingredients });
      layoutLabel(content, USUAL_FORMATS.band, LOOK, 90, counting);
      return letters;
    };
    const base = asked('');
    const list = Array.from({ length: 500 }, (_, index) => `Ingredient Number ${index}`).join(', ');
    const cases = {
      prose: 'the quick brown fox '.repeat(100),
      letters: 'a b c d '.repeat(250),
      word: 'x'.repeat(2000),
      words: `${'y'.repeat(600)} `.repeat(3),
    };
    for (const [name, text] of Object.entries(cases))
      // Each word is measured once; a word that has to be broken, once more letter by letter for each size tried.
      expect(asked(text) - base, name).to.be.at.most(10 * text.length);
    expect(asked('', list) - base).to.be.at.most(10 * list.length);
  });

  it('keeps every element within every shape, and every height at or above its least', () => {
    for (const market of MARKETS) {
      for (const shape of SHAPES) {
        const layout = label({ market }, { ...USUAL_FORMATS[shape], face: { widthMm: 80, heightMm: 55 } });
        const blocking = layout.findings.filter(({ code }) => code !== 'net-position');
        expect(blocking, `${market} ${shape}`).to.deep.equal([]);
        for (const { heightMm, leastMm } of layout.heights) expect(heightMm).to.be.at.least(leastMm - 1e-9);
        for (const { text, face, sizeMm, xMm, yMm } of layout.texts) {
          const rightMm = xMm + METRICS.width(text, face, sizeMm);
          expect(xMm, text).to.be.at.least(-1e-6);
          expect(rightMm, text).to.be.at.most(layout.widthMm + 1e-6);
          expect(yMm, text).to.be.within(0, layout.heightMm);
          if (layout.outline === 'disc') {
            for (const [x, y] of [
              [xMm, yMm],
              [rightMm, yMm - sizeMm * 0.7],
            ] as const)
              expect(Math.hypot(x - 40, y - 40), text).to.be.at.most(40);
          }
        }
      }
    }
  });

  it('asks for the face of the package where the digits hang on it and the shape does not tell it', () => {
    const asks = (market: Market, format: LabelFormat) =>
      codes(label({ market }, format)).includes('face missing');
    const band = USUAL_FORMATS.band;
    expect((['US', 'CA'] as const).map((market) => asks(market, band))).to.deep.equal([true, true]);
    expect((['EU', 'UK', 'AU'] as const).some((market) => asks(market, band))).to.equal(false);
    expect(asks('US', USUAL_FORMATS.box)).to.equal(false);
    const layout = label({ market: 'CA' }, { ...band, face: { widthMm: 80, heightMm: 55 } });
    expect(codes(layout)).not.to.include('face missing');
    // 44 cm² of face, not the 30 of the band's front: 3.2 mm, not 1.6.
    expect(layout.heights.find(({ element }) => element === 'net')!.leastMm).to.equal(3.2);
  });

  it('puts the US net weight into the lower 30 % of the front, or says that it cannot', () => {
    const layout = label({ market: 'US' }, USUAL_FORMATS.sticker);
    const top = Math.min(
      ...layout.texts.filter(({ element }) => element === 'net').map(({ yMm, sizeMm }) => yMm - sizeMm * 0.8),
    );
    expect(top).to.be.at.least(60 * 0.7 - 1e-6);
    for (const shape of ['tag', 'round', 'notice'] as const) {
      const stacked = label({ market: 'US' }, USUAL_FORMATS[shape]);
      const net = stacked.texts.filter(({ element }) => element === 'net');
      for (const { yMm } of net) expect(yMm, shape).to.be.above(stacked.heightMm * 0.7);
    }
    const narrow = label({ market: 'US' }, { shape: 'sticker', widthMm: 60, heightMm: 15, marginMm: 1 });
    expect(codes(narrow)).to.include('net net-position');
  });

  it('says by how much text does not fit, loses none of it, and names ways out', () => {
    const long = Array.from({ length: 120 }, (_, index) => `Ingredient ${index}`).join(', ');
    const layout = label({ ingredients: long });
    const finding = layout.findings.find(({ element }) => element === 'ingredients')!;
    expect(finding.code).to.equal('does-not-fit');
    expect(finding.message).to.match(/needs \d+\.\d mm more height/);
    expect(finding.waysOut).to.include('a notice beside small unwrapped bars');
    expect(textOf(layout, 'ingredients')).to.equal(`Ingredients: ${long}`);
    const lacks = Number(/needs ([\d.]+) mm/.exec(finding.message)![1]);
    const over = layout.texts.filter(({ isOver, element }) => isOver && element === 'ingredients');
    near(lacks, over.length * over[0]!.sizeMm * 1.25, 0.05);
  });

  it('bears a 20 mm band, a name of 400 letters, other scripts, emoji and nothing at all', () => {
    const name = 'Signal'.repeat(66);
    expect(codes(label({ name }))).to.include('name does-not-fit');
    const list = 'Sodium Olivate, '.repeat(40);
    expect(codes(label({ ingredients: list }, { heightMm: 20 }))).to.include('ingredients does-not-fit');
    expect(codes(label({ name: '石鹸 🧼' }))).to.include('text cannot-draw');
    expect(codes(label({ name: 'صابون' }))).to.include('text cannot-draw');
    expect(codes(label({}, { heightMm: 5 }))).to.deep.equal(['format format']);
    expect(codes(label({}, { marginMm: 30 }))).to.deep.equal(['format format']);
    expect(codes(label({ name: '', ingredients: '', responsible: [] }))).to.include.members([
      'name missing',
      'ingredients missing',
    ]);
  });

  it('lets only the list run on from one column to the next', () => {
    const list = 'Sodium Olivate, '.repeat(22);
    const layout = label({
      ingredients: list,
      use: { en: 'Wet, lather, rinse.', fr: 'Mouiller, faire mousser, rincer.' },
    });
    expect(layout.findings).to.deep.equal([]);
    const columns = (element: string) =>
      new Set(layout.texts.filter((one) => one.element === element).map(({ xMm }) => xMm.toFixed(3))).size;
    for (const element of ['cautions', 'use', 'responsible', 'batch', 'durability'])
      expect(columns(element), element).to.equal(1);
  });

  it('never throws and never loses a word, whatever the words and the size', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 120 }),
        fc.string({ maxLength: 400 }),
        fc.integer({ min: 15, max: 300 }),
        fc.integer({ min: 15, max: 200 }),
        fc.constantFrom(...SHAPES),
        fc.constantFrom(...MARKETS),
        (name, ingredients, widthMm, heightMm, shape, market) => {
          const layout = label(
            { name, ingredients, market },
            { shape, widthMm, heightMm, depthMm: 30, marginMm: 2 },
          );
          if (layout.findings.some(({ code }) => code === 'format')) return;
          const squeeze = (text: string) => text.replace(/\s+/g, '');
          const heading = market === 'CA' ? 'Ingredients / Ingrédients' : 'Ingredients';
          const wanted = ingredients ? `${heading}: ${ingredients}` : '';
          expect(squeeze(textOf(layout, 'ingredients'))).to.equal(squeeze(wanted.trim() ? wanted : ''));
          expect(squeeze(textOf(layout, 'name'))).to.equal(squeeze(name));
        },
      ),
      { numRuns: 150 },
    );
  });

  it('leaves a foot free for a barcode, and says where there is none', () => {
    const barcode = { modules: new Array<number>(59).fill(1), text: '4006381333931', quietModules: 11 };
    const layout = label({}, { shape: 'sticker', widthMm: 100, heightMm: 90 }, { barcode });
    expect(layout.bars).to.have.length(30);
    expect(layout.findings).to.deep.equal([]);
    const lowest = Math.max(
      ...layout.texts
        .filter(({ element }) => element !== 'barcode' && element !== 'net')
        .map(({ yMm }) => yMm),
    );
    expect(Math.min(...layout.bars.map(({ yMm }) => yMm))).to.be.above(lowest);
    expect(codes(label({}, USUAL_FORMATS.round, { barcode }))).to.include('barcode barcode');
    expect(codes(label({}, { shape: 'tag', widthMm: 25, heightMm: 120 }, { barcode }))).to.include(
      'barcode barcode',
    );
  });
});

const claim = (words: string, one: string): ClaimFinding => ({
  phrase: words,
  language: 'en',
  words,
  from: 0,
  to: words.length,
  class: Object.fromEntries(MARKETS.map((market) => [market, one])) as ClaimFinding['class'],
  fact: null,
  why: '',
  plainer: '',
});

describe('what a bar is in law', () => {
  const plain = assessed(
    request([
      ['o', 'olive', 'fats', 1000, 'g'],
      ['w', 'water', 'liquid', 300, 'g'],
    ]),
  );
  const salted = assessed(
    request([
      ['o', 'coconut', 'fats', 1000, 'g'],
      ['w', 'water', 'liquid', 300, 'g'],
      ['s', 'salt', 'trace', 1000, 'g'],
    ]),
  );

  it('is soap proper in the US only while it is mostly soap and sold only as soap', () => {
    const regime = (market: Market, claims: ClaimFinding[], a = plain) =>
      standingIn(market, claims, a).regime;
    expect(regime('US', [])).to.equal('soap');
    expect(regime('EU', [])).to.equal('cosmetic');
    expect(regime('US', [claim('moisturises', 'cosmetic')])).to.equal('cosmetic');
    for (const market of MARKETS) expect(regime(market, [claim('heals', 'medicine')])).to.equal('medicine');
    expect(soapSharePct(plain)).to.be.above(85);
    const standing = standingIn('US', [], salted);
    expect(soapSharePct(salted)).to.be.within(45, 60);
    expect(standing.regime === 'cosmetic' || standing.assumed.length > 0).to.equal(true);
  });

  it('asks for what each regime asks, with what is seen, missing, or the maker’s to tick', () => {
    const check = (market: Market, more: object = {}) => {
      const standing = standingIn(market, [], plain);
      const seen = {
        market,
        standing,
        assessment: plain,
        claims: [],
        unknown: [],
        evidence: [],
        colours: [],
        responsible: ['Signalbox Soap'],
        netMassG: 88,
        batchCode: 'A',
        durabilityStated: true,
        identity: { en: 'Soap', fr: 'Savon' },
        cautions: {},
        ...more,
      };
      return new Map(checkItems(marketRules(market).items, seen).map(({ item, state }) => [item.id, state]));
    };
    expect(check('EU').get('limits')).to.equal('seen');
    expect(check('EU').get('assessor')).to.equal('yours');
    expect(check('EU', { responsible: [] }).get('responsible')).to.equal('missing');
    expect(check('CA', { identity: { en: 'Soap' } }).get('bilingual')).to.equal('missing');
    const claims = [claim('softens skin', 'cosmetic')];
    const evidence = [{ words: 'Softens  skin', says: 'folder C, 24 people' }];
    expect(check('EU', { claims }).get('evidence')).to.equal('missing');
    expect(check('EU', { claims, evidence }).get('evidence')).to.equal('seen');
    const unbound = [...claims, claim('safe', 'absolute')];
    expect(check('EU', { claims: unbound, evidence }).get('evidence')).to.equal('missing');
    expect(check('US').has('list')).to.equal(false); // soap proper needs none
    expect(check('US').get('soap')).to.equal('seen');
  });

  it('finds a colour let in by one market and not by another', () => {
    const of = (market: Market, ...ids: string[]) =>
      colourFindings(
        ids.map((id) => libraryMaterial(id)!),
        (name) => colourKnown(rulebook(), name, market),
      ).map(({ name, permission }) => `${name} ${permission}`);
    expect(of('EU', 'activated-charcoal')).to.deep.equal(['Charcoal Powder permitted']);
    expect(of('US', 'activated-charcoal')).to.deep.equal(['Charcoal Powder notPermitted']);
    expect(of('US', 'iron-oxide-red')).to.deep.equal(['CI 77491 permitted']);
    expect(of('EU', 'kaolin')).to.deep.equal([]);
    const teal = (market: Market) =>
      colourFindings([libraryMaterial('mica-teal')!], (name) =>
        colourKnown(rulebook(), name, market),
      ).flatMap(({ name, asks }) => (asks ?? []).map((one) => `${name}: ${one}`));
    expect(teal('US')).to.deep.equal([
      'CI 42090: From a batch that was certified',
      'CI 19140: From a batch that was certified',
    ]);
    expect(teal('EU')).to.deep.equal([]);
  });
});

describe('measured heights', () => {
  it('and contrast are told as measured', () => {
    near(contrast('#000000', '#ffffff'), 21);
    near(contrast('#777777', '#ffffff'), 4.478, 1e-3);
    expect(codes(label({}, {}, { ink: '#aaaaaa' }))).to.deep.equal(['look contrast']);
  });
});
