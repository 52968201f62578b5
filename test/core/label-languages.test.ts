/** Languages of labels: whole, drawn by what ships, asked for by country, with the maker's own in their place. */
import { expect } from 'chai';
import { labelContent, type LabelInput } from '../../src/core/labels/content';
import { fittingFormats } from '../../src/core/labels/fit';
import { USUAL_FORMATS } from '../../src/core/labels/formats';
import { layoutLabel, type LabelLook } from '../../src/core/labels/label';
import {
  bestBefore,
  COUNTRY_CODES,
  countryAsks,
  isTold,
  LABEL_LANGUAGES,
  LABEL_WORDS,
  languagesOf,
  monthIn,
} from '../../src/core/labels/languages';
import { fontMetrics, runsOf } from '../../src/server/labels/fonts';

const INPUT: LabelInput = {
  market: 'EU',
  regime: 'cosmetic',
  name: 'Night Mail',
  identity: {},
  use: {},
  cautions: {},
  text: '',
  ingredients: 'Sodium Olivate, Aqua, Glycerin, Sodium Cocoate, Parfum, Linalool, Limonene',
  netMassG: 98,
  responsible: ['Signalbox Soap', 'Tollen Halt'],
  batchCode: 'NM-260930',
  durability: { months: 24, endsOn: '2028-11' },
};
const LOOK: LabelLook = { paper: '#ffffff', ink: '#000000', nameFace: 'display', logo: null, barcode: null };

const speaking = (languages: LabelInput['languages']): LabelInput => {
  const of = (words: (language: (typeof LABEL_LANGUAGES)[number]) => string) =>
    Object.fromEntries(LABEL_LANGUAGES.map((language) => [language, words(language)]));
  return {
    ...INPUT,
    languages,
    identity: of((language) => LABEL_WORDS[language].soap),
    cautions: of((language) => Object.values(LABEL_WORDS[language].usual).join(' ')),
  };
};

describe('languages of labels', () => {
  it('are whole: the month once in its sentence, no words left out, none twice', () => {
    expect(LABEL_LANGUAGES).to.have.length(27);
    expect([...LABEL_LANGUAGES].sort()).to.deep.equal(Object.keys(LABEL_WORDS).sort());
    const bests = new Set<string>();
    for (const language of LABEL_LANGUAGES) {
      const words = LABEL_WORDS[language];
      expect(words.best.split('{date}'), language).to.have.length(2);
      bests.add(words.best);
      const texts = [words.soap, words.batch, words.use, words.cautions, ...Object.values(words.usual)];
      expect(texts.every((text) => text.trim() === text && text !== '')).to.equal(true);
      expect(new Set(Object.values(words.usual)).size, language).to.equal(8);
      expect(monthIn(language, '2028-11')).to.match(/^(?:11[/.]2028|2028[-.]11)$/);
    }
    expect(bests.size).to.equal(27);
  });

  it('are drawn by the faces that ship, no letter lower than the house’s own', () => {
    const x = fontMetrics.xHeight('text');
    for (const language of LABEL_LANGUAGES) {
      expect(fontMetrics.missing(JSON.stringify(LABEL_WORDS[language])), language).to.deep.equal([]);
      for (const run of runsOf(LABEL_WORDS[language].usual.eyes, 'text')) {
        const { font } = run.file;
        const low = [...run.text].filter((letter) => 'xοохвпаеνυ'.includes(letter));
        for (const letter of low)
          expect(font.glyphsForString(letter)[0]!.bbox.maxY / font.unitsPerEm, letter).to.be.at.least(
            x - 1e-9,
          );
      }
    }
  });

  it('say the month behind all where they write it alike, and in each where they do not', () => {
    expect(bestBefore(['en', 'fr'], '2028-11')).to.equal(
      'Best used before the end of / À utiliser de préférence avant fin 11/2028',
    );
    expect(bestBefore(['fi', 'sv'], '2028-11')).to.equal(
      'Parasta ennen 11/2028 loppua / Bäst före utgången av 2028-11',
    );
    expect(bestBefore(['tr'], '2028-11')).to.equal('11.2028 sonundan önce kullanılması tercih edilir');
    expect(bestBefore(['hu'], '2028-11', { hu: { best: 'Felhasználható {date} végéig' } })).to.equal(
      'Felhasználható 2028.11 végéig',
    );
  });

  it('are those that a country asks for', () => {
    for (const code of COUNTRY_CODES)
      for (const language of countryAsks(code).languages) expect(LABEL_LANGUAGES).to.include(language);
    expect(languagesOf(['BE', 'FR', 'FI'])).to.deep.equal(['nl', 'fr', 'de', 'fi', 'sv']);
    const belgian = labelContent(speaking(countryAsks('BE').languages));
    expect(belgian.front.identity).to.equal('Zeep / Savon / Seife');
    expect(belgian.info.find(({ id }) => id === 'cautions')!.text).to.match(
      /^Voorzorgsmaatregelen \/ Précautions/,
    );
    expect(belgian.info.find(({ id }) => id === 'ingredients')!.text).to.match(/^Ingredients:/);
    expect(belgian.findings).to.deep.equal([]);
    // One language that no words are given in is told by its name.
    const lacking = labelContent({ ...speaking(['pl']), cautions: { en: 'Mind your eyes.' } }).findings;
    expect(lacking[0]!.message).to.include('Polish');
    expect(['pl', 'el'].every((one) => isTold(one as never))).to.equal(true);
    expect(isTold('nl')).to.equal(false);
  });

  it('take the maker’s own in the place of fixed words, of that language alone', () => {
    const own = { ...speaking(['pl', 'de']), ownWords: { pl: { batch: 'Nr partii', best: ' ' } } };
    const { info } = labelContent(own);
    expect(info.find(({ id }) => id === 'batch')!.text).to.equal('Nr partii / Charge NM-260930');
    expect(info.find(({ id }) => id === 'durability')!.text).to.include('Najlepiej zużyć przed końcem');
  });

  it('of five that do not fit a band are offered shapes in which they do, the smallest of each kind', () => {
    const content = labelContent(speaking(['en', 'fr', 'de', 'el', 'bg']));
    const band = USUAL_FORMATS.band;
    const fits = (format: typeof band) =>
      !layoutLabel(content, format, LOOK, 98, fontMetrics).findings.some(
        ({ code }) => code === 'does-not-fit',
      );
    expect(fits(band)).to.equal(false);
    const offered = fittingFormats(content, band, LOOK, 98, fontMetrics);
    expect(offered.map(({ format }) => format.shape)).to.include('leaflet');
    for (const { format, words } of offered) {
      expect(fits(format), words).to.equal(true);
      expect(words).to.include(`${format.widthMm} × ${format.heightMm} mm`);
      if (format.shape === 'leaflet' && format.panels! > 2)
        expect(fits({ ...format, panels: format.panels! - 1 })).to.equal(false);
      if (format.shape === 'band') expect(fits({ ...format, heightMm: format.heightMm - 5 })).to.equal(false);
    }
  });
});
