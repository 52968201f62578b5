/** Reading suppliers' papers: figures, days, layouts, and every doubt asked about. */
import { expect } from 'chai';
import { isCasNumber, readFigure, type FigureUnit } from '../../src/core/paperwork/figures';
import { findDay } from '../../src/core/paperwork/dates';
import { governingPaper, type PaperOnFile } from '../../src/core/paperwork/governing';
import { linesFromItems, linesFromRows, linesFromText, lineText } from '../../src/core/paperwork/page';
import { readPaper } from '../../src/core/paperwork/read';
import { knownConstituents } from '../../src/library/constituents';

const read = (text: string) => readPaper({ lines: linesFromText(text) }, knownConstituents);

describe('figures on papers', () => {
  const cases: [string, FigureUnit, [number, number, number] | null, boolean][] = [
    ['3.5', '%', [3.5, 3.5, 3.5], false],
    ['3,5 %', '%', [3.5, 3.5, 3.5], false],
    ['<0.1', '%', [0, 0.1, 0.1], false],
    ['≤ 0,5%', '%', [0, 0.5, 0.5], false],
    ['max. 2', '%', [0, 2, 2], false],
    ['0.1 - 1', '%', [0.1, 0.55, 1], false],
    ['10–20 %', '%', [10, 15, 20], false],
    ['2 % - 4 %', '%', [2, 3, 4], false],
    ['48 to 58', '%', [48, 53, 58], false],
    ['n.d.', '%', [0, 0, 0], false],
    ['Not detected', '%', [0, 0, 0], false],
    ['-', '%', [0, 0, 0], true],
    ['traces', '%', [0, 0, 0], true],
    ['ca. 2', '%', [2, 2, 2], true],
    ['> 40', '%', [40, 40, 40], true],
    ['4 - 2', '%', [2, 3, 4], true],
    ['350', 'ppm', [0.035, 0.035, 0.035], false],
    ['350 ppm', '%', [0.035, 0.035, 0.035], false],
    ['1,250', 'ppm', [0.125, 0.125, 0.125], true],
    ['120', '%', [120, 120, 120], true],
    ['Linalool', '%', null, false],
    ['', '%', null, false],
    ['78-70-6', '%', null, false],
  ];
  for (const [text, unit, wanted, asks] of cases) {
    it(`reads “${text}” in a column of ${unit}`, () => {
      const figure = readFigure(text, unit);
      expect(figure && [figure.lowPct, figure.typicalPct, figure.highPct]).to.deep.equal(wanted);
      expect(figure?.question != null).to.equal(asks);
    });
  }

  it('reads days however they are written, and asks where they read two ways', () => {
    const days = (text: string) => {
      const found = findDay(text);
      return found && `${found.day}${found.question ? ' ?' : ''}`;
    };
    expect(days('Issued 2026-03-09')).to.equal('2026-03-09');
    expect(days('9 March 2026')).to.equal('2026-03-09');
    expect(days('March 9th, 2026')).to.equal('2026-03-09');
    expect(days('09.03.2026')).to.equal('2026-03-09');
    expect(days('25/03/2026')).to.equal('2026-03-25');
    expect(days('03/25/2026')).to.equal('2026-03-25');
    expect(days('04/05/2026')).to.equal('2026-05-04 ?');
    expect(days('05/05/2026')).to.equal('2026-05-05');
    expect(days('31 February 2026')).to.equal(null);
    expect(days('no day here')).to.equal(null);
  });

  it('checks a CAS number by its last digit', () => {
    expect(['78-70-6', '5989-27-5', '121-33-5'].every(isCasNumber)).to.equal(true);
    expect(['78-70-7', '5989-27-6', '1-2-3', '', '201-134-4'].some(isCasNumber)).to.equal(false);
  });
});

describe('lines of a paper', () => {
  it('puts runs on one baseline together, parts cells at gaps and keeps words whole', () => {
    const at = (text: string, xPt: number, yPt: number, widthPt: number) => ({
      text,
      xPt,
      yPt,
      widthPt,
      heightPt: 10,
    });
    const lines = linesFromItems(2, [
      at('3.5', 300, 100.4, 15),
      at('Linal', 50, 100, 20),
      at('ool', 70, 100, 14),
      at('oxide', 88, 100, 24),
      at('  ', 200, 100, 6),
      at('below', 50, 118, 20),
    ]);
    expect(lines.map(lineText)).to.deep.equal(['Linalool oxide  3.5', 'below']);
    expect(lines[0]).to.include({ page: 2 });
    expect(lines[0]!.cells[1]!.xPt).to.equal(300);
  });

  it('parts pasted text at tabs, bars and wide blanks, and table rows at their columns', () => {
    expect(linesFromText('a b\tc  d | e')[0]!.cells.map(({ text }) => text)).to.deep.equal([
      'a b',
      'c',
      'd',
      'e',
    ]);
    expect(linesFromText('\n  \n')).to.deep.equal([]);
    const [row] = linesFromRows([['Name', '', ' 3 ']]);
    expect(row!.cells.map(({ text, xPt }) => [text, xPt])).to.deep.equal([
      ['Name', 0],
      ['3', 240],
    ]);
  });
});

describe('the reader', () => {
  it('finds the number that a title ends in, and takes no year, law or word for one', () => {
    const numberOf = (title: string) => read(`${title}\nIssued 12 March 2026`).number?.value ?? null;
    expect(numberOf('Certificate of conformity SF-977')).to.equal('SF-977');
    expect(numberOf('Certificat de conformité QB-4410-A')).to.equal('QB-4410-A');
    expect(numberOf('Certificate of conformity')).to.equal(null);
    expect(numberOf('Certificate of conformity to EU/2023/1545')).to.equal(null);
    expect(numberOf('Report of the year 2026')).to.equal(null);
  });

  describe('categories on a laid-out page', () => {
    const HEIGHT_PT = 10;
    const WIDE_PT = 5;
    /** Rows of [x, text] at their heights, as a page holds them. */
    const page = (rows: readonly (readonly [yPt: number, cells: readonly (readonly [number, string])[]])[]) =>
      readPaper(
        {
          lines: linesFromItems(
            1,
            rows.flatMap(([yPt, cells]) =>
              cells.map(([xPt, text]) => {
                const widthPt = text.length * WIDE_PT;
                return { text, xPt, yPt, widthPt, heightPt: HEIGHT_PT };
              }),
            ),
          ),
        },
        knownConstituents,
      ).categories.map(({ value }) => [value.category, value.maxPct]);

    it('are parts of one where a head says so in cells that wrap', () => {
      const read = page([
        [
          100,
          [
            [50, 'Category'],
            [150, 'Maximum (1'],
            [300, 'Category'],
            [400, 'Maximum (1'],
          ],
        ],
        [
          111,
          [
            [150, '= 100 %)'],
            [400, '= 100 %)'],
          ],
        ],
        [
          135,
          [
            [50, 'Category 4'],
            [150, '0.0852'],
            [300, 'Category 9'],
            [400, '0.0627'],
          ],
        ],
      ]);
      expect(read).to.deep.equal([
        ['4', 8.52],
        ['9', 6.27],
      ]);
    });

    it('lie across, whatever stands above them; a certificate heads no column of categories', () => {
      const read = page([
        [
          100,
          [
            [50, 'Date d’émission'],
            [215, 'Numéro de certificat'],
            [400, 'Produit'],
          ],
        ],
        [
          112,
          [
            [50, '09/04/2025'],
            [215, '280.528'],
            [400, 'Fleur'],
          ],
        ],
        [140, [[50, 'Classe / Niveau maximal (%)']]],
        [
          160,
          [
            [50, '8'],
            [150, '9'],
            [230, '10A'],
            [280, '10B'],
          ],
        ],
        [
          175,
          [
            [50, '0.2 %'],
            [150, '9.12 %'],
            [230, '0.05 %'],
            [280, '1.75 %'],
          ],
        ],
      ]);
      expect(read).to.deep.equal([
        ['8', 0.2],
        ['9', 9.12],
        ['10A', 0.05],
        ['10B', 1.75],
      ]);
    });
  });

  it('takes rows in any order of name, number and share', () => {
    const rows = (text: string) =>
      read(text).rows.map(({ constituent, typicalPct }) => `${constituent} ${typicalPct}`);
    expect(rows('Name  CAS  %\nLinalool  78-70-6  3.1')).to.deep.equal(['linalool 3.1']);
    expect(rows('CAS  %  Name\n78-70-6  3.1  Linalool')).to.deep.equal(['linalool 3.1']);
    expect(rows('Linalool (CAS 78-70-6): 3,1 %')).to.deep.equal(['linalool 3.1']);
    expect(rows('78-70-6  201-134-4  Linalool  3.1')).to.deep.equal(['linalool 3.1']);
    expect(rows('Pinene  80-56-8 / 127-91-3  0.4 %')).to.deep.equal(['pinene 0.4']);
  });

  it('joins names that wrap, but not a heading that follows', () => {
    const text = [
      'Name                          CAS        %',
      'Tetramethyl Acetyl-           54464-57-2 1.5',
      'octahydronaphthalenes',
      'Linalool                      78-70-6    2',
      'Notes:',
    ].join('\n');
    const { rows } = read(text);
    expect(rows.map(({ name }) => name)).to.deep.equal([
      'Tetramethyl Acetyl-octahydronaphthalenes',
      'Linalool',
    ]);
  });

  it('asks where number and name disagree, digits do not check, a row stands twice or no share stands by', () => {
    const question = (text: string) => read(text).rows.at(-1)!.question;
    expect(question('Limonene  78-70-6  3 %')).to.contain('the name Limonene');
    expect(question('Linalool  78-70-7  3 %')).to.contain('do not check');
    expect(question('Linalool  78-70-6  3 %\nLinalool  78-70-6  3 %')).to.contain('stands twice');
    expect(question('Linalool  78-70-6')).to.contain('No share');
    expect(question('Linalool  78-70-6  3 %')).to.equal(null);
    expect(question('Name  CAS  a  b\nLinalool  78-70-6  3  4')).to.contain('Several figures');
  });

  it('finds the category of bar soap down a page, across it and in a sentence', () => {
    const nine = (text: string) =>
      read(text).categories.find(({ value }) => value.category === '9')?.value.maxPct;
    expect(nine('Category 8  0.5 %\nCategory 9  4.5 %\nCategory 10A  4.5 %')).to.equal(4.5);
    expect(nine('Maximum by category\n5A  Lotion  1.2\n9  Soap  4,5\n12  Air  No restriction')).to.equal(4.5);
    expect(nine('Category\n1    2    9    10A\n0.1  0.2  3.3  3.3')).to.equal(3.3);
    expect(nine('For soap (Category 9) at most 2,9 % may be used.')).to.equal(2.9);
    expect(nine('Category 9: not permitted')).to.equal(0);
    expect(nine('Category 9, no restriction')).to.equal(100);
    expect(nine('Category 9 applies to soap')).to.equal(undefined);
    expect(nine('9 lives')).to.equal(undefined);
  });

  it('takes levels for parts of one only where the paper says so, not wherever a fraction is named', () => {
    const nine = (head: string, level: string) =>
      read(`Certificate C-77\n${head}\nCategory 9    ${level}`).categories.map(({ value }) => value.maxPct);
    expect(nine('Orange oil, light fraction of the distillation', '0.5')).to.deep.equal([0.5]);
    expect(nine('Category    Maximum (mass fraction)', '0.0627')).to.deep.equal([6.27]);
    expect(nine('Category    Maximum (1 = 100 %)', '0.0627')).to.deep.equal([6.27]);
  });

  it('asks which of two figures for one category holds, and takes the lower meanwhile', () => {
    const [nine] = read('Category 9  4.5 %\nsee also: in Category 9 at most 3.9 %').categories;
    expect(nine!.value.maxPct).to.equal(3.9);
    expect(nine!.question).to.contain('both 4.5 % and 3.9 %');
  });

  it('reads what a paper says of itself', () => {
    const reading = read(
      [
        'Supplier: Some House',
        'Product name: Night Train',
        'Certificate no. AB-12/3',
        '49th Amendment, issued on 3 May 2025',
        'Flash point: 197 °F',
        'Vanillin content: < 0,1 %',
      ].join('\n'),
    );
    const { material, number, issuer, edition, issuedOn, flashPointC, vanillinPct } = reading;
    expect([material, number, issuer, edition, issuedOn].map((one) => one?.value)).to.deep.equal([
      'Night Train',
      'AB-12/3',
      'Some House',
      '49th',
      '2025-05-03',
    ]);
    expect(flashPointC!.value).to.equal(91.7);
    expect(vanillinPct!.value).to.equal(0.1);
    expect(number!.line).to.equal(2);
  });

  it('guesses nothing of a paper that says nothing', () => {
    const reading = read('Dear customer,\nthank you for your order.');
    expect(reading.rows).to.deep.equal([]);
    expect(reading.categories).to.deep.equal([]);
    expect(reading.questions.length).to.equal(3);
    expect(read('').questions.length).to.equal(3);
  });

  it('doubts shares without a unit and shares that add up to more than the whole', () => {
    expect(read('Name  CAS  share\nLinalool  78-70-6  3').questions.join()).to.contain('No unit');
    expect(read('Linalool  78-70-6  60 %\nLimonene  5989-27-5  60 %').questions.join()).to.contain('120 %');
  });
});

describe('the paper that counts', () => {
  const paper = (number: string, issuedOn: string, edition = '51st'): PaperOnFile => ({
    id: number,
    type: 'certificate',
    number,
    edition,
    issuedOn,
    issuer: 'Some House',
  });

  it('is the newest issued by the day; later ones wait, older ones stay', () => {
    const papers = [paper('old', '2024-01-01'), paper('new', '2026-01-01'), paper('next', '2027-01-01')];
    const counting = governingPaper(papers, 'certificate', '2026-11-24', '51st')!;
    expect(counting.paper.number).to.equal('new');
    expect(counting.reasons.join('; '))
      .to.contain('old of 2024-01-01 is kept')
      .and.to.contain('next counts from 2027-01-01');
    expect(counting.ask).to.equal(null);
    expect(governingPaper(papers, 'certificate', '2023-01-01', '51st')).to.equal(null);
    expect(governingPaper(papers, 'allergens', '2026-11-24', '51st')).to.equal(null);
  });

  it('is asked about again where its edition is behind or it is old', () => {
    const ask = (issuedOn: string, edition: string) =>
      governingPaper([paper('a', issuedOn, edition)], 'certificate', '2026-11-24', '51st')!.ask;
    expect(ask('2026-01-01', '49th')).to.contain('newest known is the 51st');
    expect(ask('2022-01-01', '51st')).to.contain('still holds');
    expect(ask('2026-01-01', '51st')).to.equal(null);
  });
});
