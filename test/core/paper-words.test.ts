/** Papers in words, lists and leaders. They were written down before the reader was tried on them. */
import { expect } from 'chai';
import { linesFromText } from '../../src/core/paperwork/page';
import { readPaper } from '../../src/core/paperwork/read';
import { knownConstituents } from '../../src/library/constituents';

const read = (text: string) => readPaper({ lines: linesFromText(text) }, knownConstituents);
const soap = (text: string) => read(text).categories.find(({ value }) => value.category === '9');
const rows = (text: string) =>
  read(text).rows.map(({ name, lowPct, highPct, question }) => [name, lowPct, highPct, question === null]);

describe('a paper in its own words', () => {
  it('is numbered as it says, by whatever name', () => {
    for (const [text, number] of [
      ['Our certificate is PX-311/C of 14 February 2026', 'PX-311/C'],
      ['CERTIFICATE OF CONFORMITY\nCert #: BH-2026-114', 'BH-2026-114'],
      ['Konformitätszertifikat Nr. 4711-26', '4711-26'],
      ['Attestation de conformité n° FR-88', 'FR-88'],
      ['Compliance sheet CS-19', 'CS-19'],
      ['Certificado de conformidad n.º ES-5', 'ES-5'],
      ['Bescheinigung Nr. 2026/31', '2026/31'],
      ['Dichiarazione allergeni n. 77/26 del 5 marzo 2026', '77/26'],
      ['Zertifikatsnummer: Z 2026 / 88', 'Z 2026 / 88'],
      ['Certificate: AL-90 / 11.06.2026', 'AL-90'],
      ['N° CC-2026-45 du 12/08/2026', 'CC-2026-45'],
      ['Issued: 2026-08-19, 51st Amendment, number FV-2026/3', 'FV-2026/3'],
    ] as const)
      expect(read(text).number?.value, text).to.equal(number);
  });

  it('names its material, and not the sentence after it', () => {
    const { material } = read('Product: Verbena Lane. Statement number VL-3, dated 1 July 2026.');
    expect(material?.value).to.equal('Verbena Lane');
    expect(read('Product: St. John’s Wort').material?.value).to.equal('St. John’s Wort');
  });

  it('names its material in its title, and asks where that may be whom it is for', () => {
    const headed = read('Composition (allergens), product Reed Cutter, 14 October 2026').material;
    expect([headed?.value, headed?.question]).to.deep.equal(['Reed Cutter', null]);
    const title = read('Certificate DP-8 for Sedge\nDate: 9 Feb 2026').material;
    expect([title?.value, title?.question === null]).to.deep.equal(['Sedge', false]);
    for (const none of [
      'Our product range, June 2026',
      'Fragrance House Ltd, 3 Mill Row',
      'Material Safety Department, Weir',
    ])
      expect(read(none).material, none).to.equal(null);
  });

  it('writes its days in the order it says, that others of its days show, or that its language has', () => {
    const issued = (text: string) => {
      const { value, question } = read(text).issuedOn!;
      return [value, question === null];
    };
    expect(issued('Issue date: 01/07/2026')).to.deep.equal(['2026-07-01', false]);
    expect(issued('Issue date: 01/07/2026 (dates are day/month/year)')).to.deep.equal(['2026-07-01', true]);
    expect(issued('Issue date: 01/07/2026 (mm/dd/yyyy)')).to.deep.equal(['2026-01-07', true]);
    expect(issued('Issue date: 01/07/2026\nExpiry date: 06/30/2028')).to.deep.equal(['2026-01-07', true]);
    expect(issued('CERTIFICAT DE CONFORMITÉ\nÉtabli le 12/08/2026')).to.deep.equal(['2026-08-12', true]);
    expect(issued('Issue date: 01/07/2026\nLot 45-13-2026')[1]).to.equal(false);
    expect(issued('Issue date: 01/07/2026\nExpiry 13/01/2028, printed 01/13/2026')[1]).to.equal(false);
  });

  it('is dated, and of its edition, in a sentence and in short', () => {
    const signed = read(
      'complies with the 51st Amendment at not more than 1.75 % in Category 9. Signed 21 June 2026.',
    );
    expect(signed.issuedOn?.value).to.equal('2026-06-21');
    expect([read('Amendment: 51st').edition?.value, read('amdt 51').edition?.value]).to.deep.equal([
      '51st',
      '51st',
    ]);
    expect(read('Lot 45-13-2026').issuedOn).to.equal(null);
    expect(read('flash pt 88C').flashPointC?.value).to.equal(88);
  });

  it('gives levels some lines below their categories, and what is not limited in its language', () => {
    const block = (category: string, use: string, level: string) =>
      `${category}\n${use}\nMaximum level\n${level}`;
    const text = `Material: Kelp Store\n${block('Category 9', 'Soap, shampoo', '2.65 %')}\n${block('Category 10A', 'Household', '3.10 %')}`;
    expect(soap(text)).to.include({ question: null });
    expect(soap(text)?.value.maxPct).to.equal(2.65);
    const two = `${block('Category 9', 'Soap', '2.65 %')}\n2.9 %\n${block('Category 10A', 'Household', '3.1 %')}`;
    expect(soap(two)?.question).to.not.equal(null);
    for (const free of ['non limité', 'illimitée', 'pas de limite', 'keine Grenze', 'senza limiti'])
      expect(soap(`Catégorie 4 : 0,8 %\nCatégorie 9 : ${free}`)?.value.maxPct, free).to.equal(100);
  });

  it('gives the level that holds now, and asks where another stands beside it', () => {
    for (const text of [
      'Category 9: 2.6 % (previously 3.1 %)',
      'Category 9: 2.6 % instead of 3.1 %',
      'Kategorie 9: 2,6 % (bisher 3,1 %)',
      'Catégorie 9 : 2,6 % (auparavant 3,1 %)',
    ]) {
      const found = soap(text);
      expect(found?.value.maxPct, text).to.equal(2.6);
      expect(found?.question, text).to.not.equal(null);
    }
    expect(soap('Category 9: soap, shampoo: 2.6 %')?.question).to.equal(null);
    expect(
      soap('Levels are stated in mg per kg of finished product.\nCategory 4: 21 000\nCategory 9: 12 500')
        ?.value.maxPct,
    ).to.equal(1.25);
  });

  it('says its levels before or behind their categories, in lists with or without their unit', () => {
    const levels = (text: string) =>
      Object.fromEntries(read(text).categories.map(({ value }) => [value.category, value.maxPct]));
    expect(
      levels('It may be used at up to 2 % in soap (category 9) and up to 0.7 % in creams (category 5A).'),
    ).to.deep.equal({ '9': 2, '5A': 0.7 });
    expect(levels('In category 9 up to 2 % may be used, in category 5A 0.7 %.')).to.deep.equal({
      '9': 2,
      '5A': 0.7,
    });
    expect(
      levels('Höchstkonzentration im Endprodukt, ppm\nKat. 4: 9.000\nKat. 9: 12.000\nKat. 10A: 15.500'),
    ).to.deep.equal({
      '4': 0.9,
      '9': 1.2,
      '10A': 1.55,
    });
    expect(
      levels('Categorie 9 (zeep): 1,2 %; categorie 6: niet toegestaan; categorie 4: 0,9 %'),
    ).to.deep.equal({ '9': 1.2, '6': 0, '4': 0.9 });
    expect(
      levels(
        'Maximum use level by class (%)\n4 — Fine fragrance: 1.1\n5A — Body cream: 0.9\n9 — Bar soap, bath: 0.85',
      ),
    ).to.deep.equal({ '4': 1.1, '5A': 0.9, '9': 0.85 });
    // What a paper says of a trace in itself is no unit of its levels.
    expect(levels('Peroxides: below 10 ppm\nCategory 9: 2.1')['9']).to.not.equal(0.00021);
  });

  it('has a name, an edition and an issuer in more ways', () => {
    const own = read(
      'Page 1 of 2\nGable End Perfumers Ltd, 4 Mill Row. Registered no. 0448812\nKonformitätserklärung Nr. KE-77/26\nPerfume: Wet Wool (our ref. GE-1)\n51. Ergänzung',
    );
    expect([own.material?.value, own.number?.value, own.edition?.value, own.issuer?.value]).to.deep.equal([
      'Wet Wool',
      'KE-77/26',
      '51st',
      'Gable End Perfumers Ltd',
    ]);
  });

  it('has its constituents read behind leaders, in lists and in sentences; by name alone they are asked about', () => {
    expect(
      rows(
        'Limonene (5989-27-5) ............ 34,2 %\nLinalool (78-70-6) .............. 12,4 %\nGeraniol (106-24-1) ............. < 0,01 %',
      ),
    ).to.deep.equal([
      ['Limonene', 34.2, 34.2, true],
      ['Linalool', 12.4, 12.4, true],
      ['Geraniol', 0, 0.01, true],
    ]);
    expect(rows('Contains linalool 4.1 %, limonene 2.2 % and citral 0.35 %; no other.')).to.deep.equal([
      ['linalool', 4.1, 4.1, false],
      ['limonene', 2.2, 2.2, false],
      ['citral', 0.35, 0.35, false],
    ]);
    expect(rows('Linalool 20 - 28 %\nGeraniol 2 to 4 %\nLimonene up to 1.5 %')).to.deep.equal([
      ['Linalool', 20, 28, false],
      ['Geraniol', 2, 4, false],
      ['Limonene', 0, 1.5, false],
    ]);
    expect(
      rows('Limonen: 4,4 %\nAldéhyde cinnamique : 0,2 %').map(([name, , high]) => [name, high]),
    ).to.deep.equal([
      ['Limonen', 4.4],
      ['Aldéhyde cinnamique', 0.2],
    ]);
    expect(rows('The level of category 9 is 3 % and the flash point 60 °C; purity 99 %.')).to.deep.equal([]);
  });
});
