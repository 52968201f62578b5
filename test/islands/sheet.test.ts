/** A maker's spreadsheet as a file: CSV of any make and XLSX opened, names put right, bars made. */
import { expect } from 'chai';
import excel from 'exceljs';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { Layout } from '../../src/core/sheets/cells';
import { guessLayout } from '../../src/core/sheets/layout';
import { lessonFor, lessonOf, saidOf, withLesson, type Said } from '../../src/core/sheets/sheet-lessons';
import { matchName, namedMaterials, type Match } from '../../src/core/sheets/match';
import { makeBars, openSheet, partsOfText } from '../../src/islands/house/sheet';
import { workbookSheets } from '../../src/workers/workbook';
import { LIBRARY } from '../../src/library';
import { makeSheet } from '../support/sheets';

const MATERIALS = namedMaterials(LIBRARY);
const USUAL: Said = { percentOf: 'fats', batchG: 1000, superfatPct: 5, chosen: {} };
const file = (name: string, content: string | Uint8Array) => new File([content as BlobPart], name);
const matched = (rows: string[][], layout: Layout) => {
  const { names } = makeBars(rows, layout, 'x.csv', new Map(), USUAL);
  return new Map<string, Match | null>(names.map((name) => [name, matchName(name, MATERIALS)]));
};

async function workbook(sheets: Record<string, (string | number | Date)[][]>): Promise<Uint8Array> {
  const book = new excel.Workbook();
  for (const [name, rows] of Object.entries(sheets)) book.addWorksheet(name).addRows(rows);
  return new Uint8Array(await book.xlsx.writeBuffer());
}

/** The rows of the one part that a file holds. */
const rowsIn = async (opened: Promise<{ rows: string[][] }[]>) => (await opened)[0]!.rows;

describe('a spreadsheet’s file', () => {
  it('opens as CSV with commas, semicolons or tabs, quotes, a mark at its beginning', async () => {
    const rows = [
      ['Recipe', 'Ingredient', 'Amount'],
      ['Harbour', 'Olive oil', '500,5 g'],
    ];
    expect(
      await rowsIn(
        openSheet(file('a.csv', '\uFEFFRecipe,Ingredient,Amount\r\nHarbour,Olive oil,"500,5 g"\r\n')),
      ),
    ).to.deep.include.members(rows);
    expect(
      await rowsIn(openSheet(file('a.csv', 'Recipe;Ingredient;Amount\nHarbour;Olive oil;500,5 g'))),
    ).to.deep.equal(rows);
    const older = new Uint8Array([0x4f, 0x6c, 0x69, 0x76, 0x65, 0x6e, 0xf6, 0x6c, 0x3b, 0x33, 0x30, 0x30]);
    expect(
      await rowsIn(partsOfText('Recipe\tIngredient\tAmount\nHarbour\tOlive oil, pure\t500,5 g\n')),
    ).to.deep.equal([
      ['Recipe', 'Ingredient', 'Amount'],
      ['Harbour', 'Olive oil, pure', '500,5 g'],
    ]);
    expect(await rowsIn(partsOfText('Bar;Olive oil\nSlate;700'))).to.deep.equal([
      ['Bar', 'Olive oil'],
      ['Slate', '700'],
    ]);
    const refused = await partsOfText('a letter about soap').catch((error: Error) => error.message);
    expect(refused).to.contain('These are no cells');
    expect(await rowsIn(openSheet(file('a.csv', older)))).to.deep.equal([['Olivenöl', '300']]);
    expect(
      await rowsIn(openSheet(file('a.tsv', 'Recipe\tIngredient\tAmount\nHarbour\tOlive oil\t500,5 g'))),
    ).to.deep.equal(rows);
  });

  it('opens as XLSX: numbers, texts, formulas and percents as the sheet shows them', async () => {
    const book = new excel.Workbook();
    const sheet = book.addWorksheet('Soaps');
    sheet.addRows([
      ['Recipe', 'Ingredient', 'Amount'],
      ['Harbour', 'Olive oil', 500],
    ]);
    sheet.addRow(['', 'Coconut oil', { formula: 'C2/2', result: 250 }]);
    sheet.addRow(['', 'Lavender EO', 0.03]);
    sheet.getCell('C4').numFmt = '0.0%';
    const rows = await rowsIn(
      openSheet(file('a.xlsx', new Uint8Array(await book.xlsx.writeBuffer())), workbookSheets),
    );
    expect(rows.map((row) => row[2])).to.deep.equal(['Amount', '500', '250', '3 %']);
  });

  it('opens without what only looks, however far that is spread, and is refused where it holds too much', async () => {
    const book = new excel.Workbook();
    const sheet = book.addWorksheet('One');
    sheet.addRows([
      ['Harbour', '', 'x'],
      ['Olive oil', 500, ''],
    ]);
    sheet.mergeCells('A1:B1');
    const files = unzipSync(new Uint8Array(await book.xlsx.writeBuffer()));
    const path = 'xl/worksheets/sheet1.xml';
    const xml = strFromU8(files[path]!);
    const spread = xml
      .replace('A1:B1', 'A1:B1048576')
      .replace(
        '</mergeCells>',
        '</mergeCells><dataValidations count="1"><dataValidation type="list" sqref="A1:XFD1048576"><formula1>"a,b"</formula1></dataValidation></dataValidations>',
      );
    expect(spread.length).to.be.above(xml.length + 100);
    // Read as it stands, its merged column alone takes seconds and most of a gigabyte.
    const wide = zipSync({ ...files, [path]: strToU8(spread) });
    expect((await workbookSheets(wide))[0]!.rows.map((row) => row.slice(0, 2))).to.deep.equal([
      ['Harbour', ''],
      ['Olive oil', '500'],
    ]);
    const cells = '<row r="9">' + '<c r="A9"><v>1</v></c>'.repeat(300_001) + '</row></sheetData>';
    const large = zipSync({ ...files, [path]: strToU8(xml.replace('</sheetData>', cells)) });
    const why = (bytes: Uint8Array) =>
      workbookSheets(bytes).then(
        () => '',
        (error: Error) => error.message,
      );
    expect(await why(large)).to.contain('more than is read at once');
    const texts = zipSync({ ...files, 'xl/sharedStrings.xml': new Uint8Array(90_000_000) });
    expect(await why(texts)).to.contain('more than is read at once');
  });

  it('is refused in words where it is too large, damaged, or something else', async () => {
    const why = (one: File) =>
      openSheet(one, workbookSheets).then(
        () => '',
        (error: Error) => error.message,
      );
    expect(await why(file('a.xlsx', 'no workbook'))).to.contain('cannot be opened');
    expect(await why(file('a.csv', new Uint8Array([0, 1, 2])))).to.contain('neither a spreadsheet nor CSV');
    expect(await why(file('a.csv', new Uint8Array(5 * 1024 * 1024 + 1)))).to.contain('over 5 MB');
  });

  it('gives the same bars as XLSX as it gives as rows', async () => {
    for (let seed = 300; seed < 306; seed++) {
      const { rows } = makeSheet(seed, 4);
      const opened = await rowsIn(openSheet(file('a.xlsx', await workbook({ One: rows })), workbookSheets));
      const [plain, read] = [rows, opened].map((one) => {
        const layout = guessLayout(one);
        return makeBars(one, layout, 'a.xlsx', matched(one, layout), USUAL);
      });
      expect(read!.bars.map(({ name, formula }) => [name, formula.lines])).to.deep.equal(
        plain!.bars.map(({ name, formula }) => [name, formula.lines]),
      );
    }
  });

  it('takes what the maker chooses before what was guessed, and says what is still not known', () => {
    const rows = [
      ['Recipe', 'Ingredient', 'Amount'],
      ['Harbour', 'Olive oil', '500 g'],
      ['', 'Gran’s mix', '20 g'],
    ];
    const layout = guessLayout(rows);
    const matches = matched(rows, layout);
    const open = makeBars(rows, layout, 'x.csv', matches, USUAL);
    expect(open.names).to.deep.equal(['Olive oil', 'Gran’s mix']);
    expect(open.faults).to.deep.equal([
      { row: 3, message: '“Gran’s mix” is not known. Choose the material it is.' },
    ]);
    expect(open.bars).to.deep.equal([]);
    const chosen = { 'Gran’s mix': { id: 'kaolin', title: 'Kaolin', kind: 'clay' as const } };
    const made = makeBars(rows, layout, 'x.csv', matches, { ...USUAL, chosen });
    expect(made.faults).to.deep.equal([]);
    expect(made.bars[0]!.formula.lines.map(({ material }) => material)).to.deep.equal(['olive', 'kaolin']);
    expect(made.bars[0]!.notes[0]).to.contain('5 % superfat');
  });

  it('names a bar that stands alone after its sheet', () => {
    const rows = [
      ['Ingredient', 'Weight (g)'],
      ['Olive oil', '700'],
      ['Water', '230'],
      ['NaOH', '90'],
    ];
    const layout = guessLayout(rows);
    const { bars } = makeBars(rows, layout, 'Old Harbour', matched(rows, layout), USUAL);
    expect(bars.map(({ name }) => name)).to.deep.equal(['Old Harbour']);
    expect(bars[0]!.formula.alkali.massG).to.equal(90);
  });

  it('reads percents of the fats or of everything as the maker says where they do not add up', () => {
    const rows = [
      ['Ingredient', 'Percent (%)'],
      ['Olive oil', '40'],
      ['Water', '20'],
    ];
    const layout = guessLayout(rows);
    const matches = matched(rows, layout);
    const [fats, whole] = (['fats', 'whole'] as const).map((percentOf) =>
      makeBars(rows, layout, 'x.csv', matches, { ...USUAL, percentOf, batchG: 2000 }),
    );
    expect(fats!.bars[0]!.formula).to.deep.include({ fatsMassG: 2000 });
    expect(fats!.bars[0]!.formula.lines[0]!.amount).to.deep.equal({ value: 40, unit: '%fats' });
    expect(whole!.bars[0]!.formula.lines[0]!.amount).to.deep.equal({ value: 800, unit: 'g' });
  });

  it('says each line beside what its cell says, in the sheet’s order, with grams where they follow', () => {
    const rows = [
      ['Recipe', 'Ingredient', 'Amount', 'Remark'],
      ['Harbour', 'Olive oil', '70 %', ''],
      ['', 'Coconut oil', '30 %', 'soft'],
      ['', 'NaOH', '140 g', ''],
      ['', 'Water', '250 g', ''],
      ['', 'Lavender oil', '0.5 oz ppo', ''],
      ['', '', '', 'sold out'],
    ];
    const layout = guessLayout(rows);
    const { bars, cells } = makeBars(rows, layout, 'x.csv', matched(rows, layout), USUAL);
    expect(bars[0]!.account.map(({ row, name, said, role }) => [row, name, said, role])).to.deep.equal([
      [2, 'Olive oil', '70 %', 'material'],
      [3, 'Coconut oil', '30 %', 'material'],
      [4, 'NaOH', '140 g', 'lye'],
      [5, 'Water', '250 g', 'material'],
      [6, 'Lavender oil', '0.5 oz ppo', 'material'],
    ]);
    const masses = bars[0]!.account.map(({ massG }) => massG && Number(massG.toFixed(2)));
    expect(masses).to.deep.equal([700, 300, 140, 250, 31.25]);
    // Every amount that counts is the formula's own.
    expect(bars[0]!.account.flatMap(({ line }) => line ?? [])).to.deep.equal(bars[0]!.formula.lines);
    expect([cells.get('0 1'), cells.get('1 0'), cells.get('4 1'), cells.get('4 2')]).to.deep.equal([
      'head',
      'bar',
      'name',
      'amount',
    ]);
    expect(cells.has('6 3')).to.equal(false);
    const across = [
      ['Soap', 'Olive oil (g)', 'Coconut oil (g)', 'Shelf'],
      ['Slip', '700', '300', 'upper'],
    ];
    const table = guessLayout(across);
    const drawn = makeBars(across, table, 'x.csv', matched(across, table), USUAL).cells;
    expect([drawn.get('1 0'), drawn.get('0 1'), drawn.get('1 2'), drawn.get('1 3')]).to.deep.equal([
      'bar',
      'name',
      'amount',
      undefined,
    ]);
  });

  it('is read as one laid out alike was, and by that alone', () => {
    const rows = [
      ['Soap', 'Stuff', 'How much'],
      ['Slip', 'Stardust', '3'],
    ];
    const chosen = { Stardust: { id: 'lavender', title: 'Lavender oil', kind: 'essentialOil' as const } };
    const said = { ...USUAL, batchG: 2000, chosen, roles: { 'Batch of oils': 'fats' as const } };
    const layout: Layout = { ...guessLayout(rows), head: 0, kind: 'list', unit: 'oz' };
    const first = lessonOf(rows, layout, said, { name: 'a.csv', day: '2026-11-03' })!;
    const known = withLesson([], first);
    const alike = [
      ['SOAP ', 'stuff', 'How  much'],
      ['Winch', 'Olive oil', '500'],
    ];
    expect(lessonFor(alike, known)).to.deep.equal(first);
    expect(saidOf(first)).to.deep.equal(said);
    // Which rows name bars is this sheet's alone.
    const pointed = { ...layout, named: [{ row: 1, column: 0 }], unnamed: [4] };
    expect(lessonOf(rows, pointed, said, { name: 'a.csv', day: '2026-11-03' })!.layout).to.deep.equal(layout);
    expect(lessonFor([['Soap', 'Stuff', 'Grams'], ...rows.slice(1)], known)).to.equal(null);
    expect(lessonFor([], known)).to.equal(null);
    const later = { ...first, learntOn: '2026-11-20' };
    expect(withLesson(known, later)).to.deep.equal([later]);
    // A sheet without heads teaches nothing: any other would be taken for it.
    expect(lessonOf(rows.slice(1), { ...layout, head: -1 }, said, { name: 'a', day: '2026-11-03' })).to.equal(
      null,
    );
  });
});
