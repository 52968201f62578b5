/** Kinds of files: OpenDocument, units and marks that a sheet only shows, wide text, and what is said of others. */
import { expect } from 'chai';
import excel from 'exceljs';
import { strToU8, zipSync } from 'fflate';
import { remedyFor } from '../../src/core/file-kinds';
import { mailOf } from '../../src/core/paperwork/mail';
import { typeOfPaper } from '../../src/core/records/papers';
import { guessLayout } from '../../src/core/sheets/layout';
import { makeBars, openSheet } from '../../src/islands/house/sheet';
import { openMail } from '../../src/islands/papers/mail';
import { readFile } from '../../src/islands/rack/till-file';
import { isText, textOfBytes } from '../../src/ui/file-text';
import { rowsOfTable } from '../../src/ui/table-text';
import { workbookSheets } from '../../src/workers/workbook';
import { makeSheet } from '../support/sheets';

const STYLES = `<office:automatic-styles>
 <style:style style:name="T1" style:family="text"><style:text-properties style:text-position="super 58%"/></style:style>
 <style:style style:name="T9" style:family="text"><style:text-properties style:text-line-through-style="solid"/></style:style>
 <style:style style:name="ce9" style:family="table-cell"><style:text-properties style:text-line-through-style="solid" style:text-line-through-type="single"/></style:style>
 <style:style style:name="ce1" style:family="table-cell"><style:text-properties style:text-line-through-style="none"/></style:style>
 <style:style style:name="ta2" style:family="table"><style:table-properties table:display="false"/></style:style>
</office:automatic-styles>`;

const packed = (kind: string, body: string) =>
  zipSync({
    mimetype: strToU8(`application/vnd.oasis.opendocument.${kind}`),
    'content.xml': strToU8(
      `<?xml version="1.0" encoding="UTF-8"?>\n<office:document-content xmlns:office="o" xmlns:table="t" xmlns:text="x" xmlns:style="s" office:version="1.3">${STYLES}<office:body><office:${kind}>${body}</office:${kind}></office:body></office:document-content>`,
    ),
    'Pictures/1.png': new Uint8Array(100),
  });

const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');
const cell = (type: string, value: string, shown: string, more = '') =>
  `<table:table-cell office:value-type="${type}" ${value} ${more}><text:p>${shown}</text:p></table:table-cell>`;
const words = (text: string) => cell('string', '', escaped(text));
const number = (value: number, shown = String(value)) => cell('float', `office:value="${value}"`, shown);
const row = (...cells: string[]) =>
  `<table:table-row table:style-name="ro1">${cells.join('')}</table:table-row>`;
const table = (name: string, style: string, ...rows: string[]) =>
  `<table:table table:name="${name}" table:style-name="${style}"><table:table-column table:number-columns-repeated="3"/>${rows.join('\n')}<table:table-row table:number-rows-repeated="1048544"><table:table-cell table:number-columns-repeated="16384"/></table:table-row></table:table>`;

const file = (name: string, content: string | Uint8Array) => new File([content as BlobPart], name);
const why = (opened: Promise<unknown>) => opened.then(String, (error: Error) => error.message);

const said = { percentOf: 'fats' as const, batchG: 1000, superfatPct: 5, chosen: {} };

describe('files of other kinds', () => {
  it('open as OpenDocument: as shown, with units, days, percents, groups, repeats; hidden sheets told', async () => {
    const book = packed(
      'spreadsheet',
      table(
        'Recipes',
        'ta1',
        row(
          cell('string', '', 'Night &amp; Mail', 'table:number-columns-spanned="2"'),
          '<table:covered-table-cell/>',
          words('Amount'),
        ),
        '<table:table-row table:number-rows-repeated="2"><table:table-cell/></table:table-row>',
        '<table:table-header-rows>',
        row(
          words('Olive oil'),
          '<table:table-cell table:number-columns-repeated="2"/>',
          number(465.3, '465,3 g'),
        ),
        '</table:table-header-rows>',
        '<table:table-row-group>',
        row(
          words('Lavender'),
          cell('percentage', 'office:value="0.07"', '7%'),
          cell('date', 'office:date-value="2026-10-04T00:00:00"', '04.10.26'),
          cell('currency', 'office:value="12.5"', '12,50 €'),
          cell('float', '', '7 g'),
        ),
        '</table:table-row-group>',
        row(
          `<table:table-cell office:value-type="string"><office:annotation><text:p>ask Mara</text:p></office:annotation><text:p>two<text:s text:c="2"/>words</text:p><text:p>0.5<text:span text:style-name="T1">1</text:span></text:p></table:table-cell>`,
          cell('float', 'office:value="3"', '3', 'table:number-columns-repeated="2"'),
          '<table:table-cell table:number-columns-repeated="16381"/>',
        ),
      ) + table('Prices', 'ta2', row(words('secret'))),
    );
    const sheets = await workbookSheets(book);
    expect(sheets.map(({ name, isHidden }) => [name, isHidden])).to.deep.equal([
      ['Recipes', false],
      ['Prices', true],
    ]);
    expect(sheets[0]!.rows).to.deep.equal([
      ['Night & Mail', '', 'Amount'],
      [],
      [],
      ['Olive oil', '', '', '465.3 g'],
      ['Lavender', '7 %', '2026-10-04', '12.5', '7 g'],
      ['two words 0.5¹', '3', '3'],
    ]);
  });

  it('give the same rows as OpenDocument as the sheet has', async () => {
    for (let seed = 400; seed < 404; seed++) {
      const { rows } = makeSheet(seed, 3);
      const book = packed('spreadsheet', table('One', 'ta1', ...rows.map((one) => row(...one.map(words)))));
      const [part] = await openSheet(file('a.ods', book), workbookSheets);
      const line = (one: string[]) => one.map((text) => text.replace(/\s+/g, ' ').trim()).join('|');
      const trimmed = (all: string[][]) =>
        all
          .map((one) => line(one).replace(/\|+$/, ''))
          .join('\n')
          .trimEnd();
      expect(trimmed(part!.rows)).to.deep.equal(trimmed(rows));
    }
  });

  it('are a document’s paragraphs and tables, without what was struck or noted', async () => {
    const text = packed(
      'text',
      `<text:tracked-changes><text:p>Category 9: 7 %</text:p></text:tracked-changes>
       <text:h text:outline-level="1">Certificate of <text:span>conformity</text:span></text:h>
       <text:list><text:list-item><text:p>Product:<text:tab/>Salt Meadow<text:note><text:note-citation>1</text:note-citation></text:note></text:p></text:list-item></text:list>
       <text:p/>
       <table:table table:name="T">${row(words('Category 9'), words('2.5'))}</table:table>`,
    );
    expect((await workbookSheets(text))[0]!.rows).to.deep.equal([
      ['Certificate of conformity'],
      ['Product: Salt Meadow'],
      ['Category 9', '2.5'],
    ]);
  });

  it('are refused where a few letters would make a sheet of millions of cells, or they are none', async () => {
    const wide = packed(
      'spreadsheet',
      table('One', 'ta1', row('<table:table-cell table:number-columns-repeated="999999999"/>', words('x'))),
    );
    const deep = packed(
      'spreadsheet',
      table(
        'One',
        'ta1',
        `<table:table-row table:number-rows-repeated="999999999">${words('x')}</table:table-row>`,
      ),
    );
    for (const book of [wide, deep])
      expect(await why(workbookSheets(book))).to.contain('more than is read at once');
    expect(await why(workbookSheets(packed('drawing', '')))).to.contain('cannot be opened');
    expect(await why(workbookSheets(zipSync({ 'content.xml': strToU8('<a><b') })))).to.contain(
      'cannot be opened',
    );
  });

  it('say the unit that a workbook only shows, a percent that is none, and marks of notes', async () => {
    const book = new excel.Workbook();
    const sheet = book.addWorksheet('One');
    const formats = [
      '0.0" g"',
      '#,##0\\ \\o\\z',
      '0"%"',
      '0.0%',
      '0.00 "EUR"',
      '0.0',
      '#,##0.00" ml";-0" ml"',
    ];
    sheet.addRow(formats.map(() => 12.5));
    formats.forEach((format, at) => (sheet.getCell(1, at + 1).numFmt = format));
    sheet.getCell('A2').value = {
      richText: [{ text: '0.5' }, { text: '2', font: { vertAlign: 'superscript' } }, { text: ' %' }],
    };
    const [one] = await workbookSheets(new Uint8Array(await book.xlsx.writeBuffer()));
    expect(one!.rows).to.deep.equal([
      ['12.5 g', '12.5 oz', '12.5 %', '1250 %', '12.5', '12.5', '12.5 ml'],
      ['0.5² %'],
    ]);
  });

  it('hold nothing that was struck out: a part of a cell is gone, a whole one says so and is no amount', async () => {
    const book = new excel.Workbook();
    const sheet = book.addWorksheet('One');
    sheet.addRows([
      ['Olive oil', 500],
      ['Coconut oil', 300],
    ]);
    for (const at of ['A2', 'B2']) sheet.getCell(at).font = { strike: true };
    sheet.getCell('A3').value = { richText: [{ text: '3.1 %', font: { strike: true } }, { text: ' 2.6 %' }] };
    const [one] = await workbookSheets(new Uint8Array(await book.xlsx.writeBuffer()));
    const rows = [['Olive oil', '500'], ['struck out: Coconut oil', 'struck out: 300'], ['2.6 %']];
    expect(one!.rows.map((cells) => cells.map((text) => text.trim()))).to.deep.equal(rows);
    const slate = [['Slate', ''], ...rows.slice(0, 2).map(([name, amount]) => [name!, `${amount} g`])];
    expect(makeBars(slate, guessLayout(slate), 'x.xlsx', new Map(), said).faults).to.deep.include({
      row: 3,
      message:
        '“struck out: 300 g”: press the row’s number to leave it out, or take the line through it away in the file.',
    });
    const struck = (text: string) =>
      cell('string', 'table:style-name="ce9"', `<text:span>${text}</text:span>`);
    const open = packed(
      'spreadsheet',
      table(
        'One',
        'ta1',
        row(words('Olive oil'), number(500)),
        row(struck('Coconut oil'), cell('float', 'office:value="300" table:style-name="ce9"', '300')),
        row(cell('string', '', '<text:span text:style-name="T9">3.1 %</text:span> 2.6 %')),
      ),
    );
    expect((await workbookSheets(open))[0]!.rows).to.deep.equal(rows);
  });

  it('are text of two bytes a letter, too', async () => {
    const wide = new Uint8Array([0xff, 0xfe, ...Buffer.from('Bar\tOlivenöl\nSlate\t700\n', 'utf16le')]);
    expect([isText(wide), isText(new Uint8Array([0, 1]))]).to.deep.equal([true, false]);
    expect(textOfBytes(wide.slice(0, 12))).to.equal('Bar\tO');
    // One tab in a note parts no cells of a file; of pasted cells, which may hold lines of a note, every tab does.
    expect(await rowsOfTable('Bar,Note\nSlate,"a\tb"\nOak,')).to.deep.equal([
      ['Bar', 'Note'],
      ['Slate', 'a\tb'],
      ['Oak', ''],
    ]);
    expect(await rowsOfTable('Slate\t"one\ntwo\nthree, four"', true)).to.deep.equal([
      ['Slate', 'one\ntwo\nthree, four'],
    ]);
    const [part] = await openSheet(file('a.txt', wide));
    expect(part!.rows.slice(0, 2)).to.deep.equal([
      ['Bar', 'Olivenöl'],
      ['Slate', '700'],
    ]);
  });

  it('are a mail’s own words as a page where it has a table, or nothing else', () => {
    const of = (text: string, html: string) => mailOf({ attachments: [], text, html }, 'a.eml').papers;
    const table = '<table><tr><td>Category 9</td></tr><tr><td>2.5</td></tr></table>';
    expect(of('Category 9 2.5', table).map(({ fileName }) => fileName)).to.deep.equal(['a.eml.html']);
    expect(of('', '<p>Dear maker</p>').map(({ fileName }) => fileName)).to.deep.equal(['a.eml.html']);
    expect(of('Dear maker', '<p>Dear maker</p>')[0]!.fileName).to.equal('a.eml.txt');
    expect(of('', '')).to.deep.equal([]);
  });

  it('are a mail’s table though what is attached cannot be read, which is told; where it only sends one, it is refused', async () => {
    const mail = (type: string, words: string) =>
      new TextEncoder().encode(
        `MIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n--b\r\nContent-Type: ${type}\r\n\r\n${words}\r\n--b\r\nContent-Type: application/msword\r\nContent-Disposition: attachment; filename="terms.doc"\r\n\r\nTerms.\r\n--b--\r\n`,
      );
    const nobody = () => Promise.resolve(null);
    const rows = '<table><tr><td>Category 9</td></tr><tr><td>2.5</td></tr></table>';
    const { paper, together } = await openMail(mail('text/html', rows), 'a.eml', nobody);
    expect([paper.fileName, together.unread]).to.deep.equal(['a.eml.html', ['terms.doc']]);
    expect(await why(openMail(mail('text/plain', 'See attached.'), 'a.eml', nobody))).to.contain(
      'What is attached (terms.doc)',
    );
  });

  it('say what to do where they are not read', async () => {
    expect(await why(openSheet(file('a.xls', 'x')))).to.contain('older kind');
    expect(await readFile(file('a.NUMBERS', 'x'), () => false)).to.contain('Export it');
    expect(remedyFor('photo.HEIC')).to.contain('JPEG');
    expect([remedyFor('a.pdf'), remedyFor('constructor'), remedyFor('')]).to.deep.equal([null, null, null]);
    // Whatever a page holds, it is given out as its text.
    expect([typeOfPaper('a.html'), typeOfPaper('a.ods'), typeOfPaper('a.xls')]).to.deep.equal([
      'text/plain',
      'application/vnd.oasis.opendocument.spreadsheet',
      null,
    ]);
  });
});
