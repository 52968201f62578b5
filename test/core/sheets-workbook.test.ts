/** Workbooks of several sheets: which are read as what, and what each is called. Written before any was tried. */
import { expect } from 'chai';
import { partsOf, type WorkbookSheet } from '../../src/core/sheets/workbook';
import { cellRoles } from '../../src/core/sheets/account';
import type { Layout } from '../../src/core/sheets/cells';
import { guessLayout, withHeads } from '../../src/core/sheets/layout';
import { readSheet } from '../../src/core/sheets/read';

const HEADS = ['Ingredient', 'Grams'];
const lavender = [HEADS, ['Olive oil', '700'], ['Coconut oil', '300'], ['Lavender oil', '25']];
const charcoal = [HEADS, ['Olive oil', '650'], ['Lard', '350'], ['Charcoal', '10']];
const stock = [
  ['Material', 'Supplier', 'Lot', 'Left', 'Price'],
  ['Olive oil', 'Mill', 'OL1', '4.2 kg', '30'],
  ['Lard', 'Butcher', 'LA1', '2 kg', '8'],
];

/** What each part is called and holds, its bars with the names of their rows. */
const read = (sheets: readonly WorkbookSheet[]) =>
  partsOf(sheets).map(({ name, holds, rows }) => ({
    name,
    holds,
    bars:
      holds === 'bars'
        ? Object.fromEntries(
            readSheet(rows, guessLayout(rows), name).bars.map((bar) => [
              bar.name,
              bar.lines.map(({ name: what, said }) => `${what} ${said}`),
            ]),
          )
        : {},
  }));

describe('a workbook of several sheets', () => {
  it('has a bar a sheet, called as the sheet is, where the sheets are laid out alike', () => {
    expect(
      read([
        { name: 'Lavender', rows: lavender },
        { name: 'Charcoal', rows: charcoal },
      ]),
    ).to.deep.equal([
      {
        name: 'Lavender, Charcoal',
        holds: 'bars',
        bars: {
          Lavender: ['Olive oil 700', 'Coconut oil 300', 'Lavender oil 25'],
          Charcoal: ['Olive oil 650', 'Lard 350', 'Charcoal 10'],
        },
      },
    ]);
  });

  it('calls a bar by its title where the sheet has one, and keeps sheets apart whose columns stand otherwise', () => {
    const turned = charcoal.map(([name, grams]) => [grams!, name!]);
    const parts = read([
      { name: 'Sheet1', rows: [['Lavender Fields'], [], ...lavender] },
      { name: 'Sheet2', rows: [['Recipe', 'Night Charcoal'], ...turned] },
    ]);
    expect(parts.map(({ name }) => name)).to.deep.equal(['Sheet1', 'Sheet2']);
    expect(parts[0]!.bars).to.have.all.keys('Lavender Fields');
    expect(parts[1]!.bars).to.deep.equal({
      'Night Charcoal': ['Olive oil 650', 'Lard 350', 'Charcoal 10'],
    });
  });

  it('calls bars as their sheets are where all bear the title of one pattern', () => {
    const made = (name: string, rows: string[][]) => ({ name, rows: [['Soap recipe'], ...rows] });
    expect(
      read([made('Lavender', lavender), made('Charcoal', charcoal)]).map(({ bars }) => Object.keys(bars)),
    ).to.deep.equal([['Lavender', 'Charcoal']]);
    expect(read([made('Lavender', lavender)]).map(({ bars }) => Object.keys(bars))).to.deep.equal([
      ['Soap recipe'],
    ]);
  });

  it('says what stands above the heads of sheets that are read together, and is not read', () => {
    const made = (name: string, rows: string[][]) => ({
      name,
      rows: [[`${name} bar`], ['Yield', '10'], ...rows],
    });
    const parts = partsOf([made('Lavender', lavender), made('Charcoal', charcoal)]);
    expect(parts.map(({ above }) => above)).to.deep.equal([['Lavender: Yield 10', 'Charcoal: Yield 10']]);
  });

  it('tells stock from bars, and what is neither is no part that is read', () => {
    const parts = read([
      { name: 'Read me', rows: [['My soaps'], ['Change only the yellow cells.']] },
      {
        name: 'Recipes',
        rows: [['Recipe', ...HEADS], ...lavender.slice(1).map((row) => ['Lavender', ...row])],
      },
      { name: 'Cupboard', rows: stock },
      {
        name: 'Sales',
        rows: [
          ['Date', 'Soap', 'Sold', 'Takings'],
          ['2026-10-01', 'Lavender', '12', '72.00'],
          ['2026-10-08', 'Lavender', '9', '54.00'],
        ],
      },
      { name: 'Empty', rows: [] },
    ]);
    expect(parts.map(({ name, holds }) => [name, holds])).to.deep.equal([
      ['Recipes', 'bars'],
      ['Cupboard', 'stock'],
      ['Read me', 'nothing'],
      ['Sales', 'nothing'],
    ]);
  });

  it('puts lists with the same heads one below the other, and bars of one name do not run together', () => {
    const year = (name: string, rows: string[][]) => ({
      name,
      rows: [['Recipe', ...HEADS], ...rows],
    });
    const parts = read([
      year('2025', [
        ['Lavender', 'Olive oil', '700'],
        ['', 'Coconut oil', '300'],
      ]),
      year('2026', [
        ['Lavender', 'Olive oil', '720'],
        ['', 'Coconut oil', '280'],
      ]),
    ]);
    expect(parts.map(({ name }) => name)).to.deep.equal(['2025', '2026']);
    expect(parts.map(({ bars }) => bars)).to.deep.equal([
      { Lavender: ['Olive oil 700', 'Coconut oil 300'] },
      { Lavender: ['Olive oil 720', 'Coconut oil 280'] },
    ]);
    expect(
      read([
        year('A to M', [['Lavender', 'Olive oil', '700']]),
        year('N to Z', [['Wood', 'Lard', '500']]),
      ]).map(({ name, bars }) => [name, Object.keys(bars)]),
    ).to.deep.equal([['A to M, N to Z', ['Lavender', 'Wood']]]);
  });

  it('reads what stands right under the heads as the sheet’s own, whatever heads a part of it further down', () => {
    const rows = [...lavender, ['TOP SWIRL'], ['White kaolin', '5']];
    expect(read([{ name: 'Fair', rows }])).to.deep.equal([
      {
        name: 'Fair',
        holds: 'bars',
        bars: {
          Fair: ['Olive oil 700', 'Coconut oil 300', 'Lavender oil 25'],
          'TOP SWIRL': ['White kaolin 5'],
        },
      },
    ]);
  });

  it('of one sheet alone is that sheet, and of none nothing', () => {
    expect(read([{ name: 'Tabelle1', rows: lavender }])).to.deep.equal([
      {
        name: 'Tabelle1',
        holds: 'bars',
        bars: { Tabelle1: ['Olive oil 700', 'Coconut oil 300', 'Lavender oil 25'] },
      },
    ]);
    expect(read([])).to.deep.equal([]);
  });
});

describe('a sheet that is pointed at', () => {
  const rows = [
    ['Lavender', '', 'made for the fair'],
    ['Ingredient', 'Grams', ''],
    ['Olive oil', '700', ''],
    ['Coconut oil', '300', ''],
    ['TOP SWIRL', '', ''],
    ['Charcoal', '5', ''],
    ['No 2', '', 'Charcoal bar'],
    ['Lard', '500', ''],
  ];
  const barsOf = (layout: Layout) =>
    readSheet(rows, layout, 'x').bars.map(({ name, lines }) => [name, lines.map((line) => line.name)]);

  it('has its bars where names are said to be, and none where a row is said to name none', () => {
    const guessed = guessLayout(rows);
    expect(barsOf(guessed).map(([name]) => name)).to.include('TOP SWIRL');
    const pointed: Layout = {
      ...guessed,
      kind: 'blocks',
      named: [
        { row: 0, column: 0 },
        { row: 6, column: 2 },
      ],
      unnamed: [4],
    };
    expect(barsOf(pointed)).to.deep.equal([
      ['Lavender', ['Olive oil', 'Coconut oil', 'Charcoal']],
      ['Charcoal bar', ['Lard']],
    ]);
    // Where nothing names a bar, it is called as its sheet.
    expect(
      barsOf({ ...guessed, kind: 'blocks', unnamed: [0, 4], named: [{ row: 6, column: 2 }] }).map(
        ([name]) => name,
      ),
    ).to.deep.equal(['x', 'Charcoal bar']);
    const { bars } = readSheet(rows, pointed, 'x');
    expect(cellRoles(pointed, bars).get('6 2')).to.equal('bar');
  });

  it('has its heads in the row that is said to hold them, each column by its words', () => {
    const late = [
      ...Array.from({ length: 20 }, () => ['a note', '', '']),
      ['Oil', 'Unit', 'Weight (oz)'],
      ['Lard', 'g', '500'],
    ];
    const layout = withHeads(late, guessLayout(late), 20);
    expect(layout.columns).to.deep.include({ what: 0, unit: 1, amount: 2 });
    expect([layout.head, layout.unit]).to.deep.equal([20, 'oz']);
    expect(readSheet(late, { ...layout, kind: 'single' }, 'Late').bars[0]!.lines[0]).to.deep.include({
      name: 'Lard',
      amount: { value: 500, unit: 'g' },
    });
  });

  it('asks where the heads come again and a fat stands above and below: two bars of no name', () => {
    const twice = [...lavender, ...charcoal];
    const { bars, faults } = readSheet(twice, guessLayout(twice), 'Both');
    expect(bars).to.have.length(1);
    expect(faults.map(({ row }) => row)).to.deep.equal([5]);
    expect(faults[0]!.message).to.contain('Olive oil stands above and below');
    // Parts of one bar may have heads of their own.
    const parts = [...lavender, HEADS, ['Kaolin', '10']];
    expect(readSheet(parts, guessLayout(parts), 'One').faults).to.deep.equal([]);
  });
});
