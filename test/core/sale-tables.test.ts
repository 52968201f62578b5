/** Lists of tills and shops as they come out of them, written down before the reading of any was tried. */
import { expect } from 'chai';
import { dayOrderOf, readDay, withoutTime } from '../../src/core/sheets/days';
import { guessColumns, readSales } from '../../src/core/stock/sale-columns';
import { saleTable } from '../../src/core/stock/sale-table';

const NAMES = ['Night Mail', 'Signal Red', 'Ticket Office', 'Total Eclipse'];
const isBar = (text: string) => NAMES.includes(text);

/** The rows of a file of semicolons, as they are read. */
function read(text: string) {
  const data = text.split('\n').map((line) => line.split(';').map((cell) => cell.trim()));
  const table = saleTable(data, isBar)!;
  const mapping = guessColumns(table.heads, table.rows, isBar);
  const { rows, faults } = readSales(table.rows, mapping, { to: '', market: null });
  return {
    sales: rows.map(({ day, what, bars }) => `${day} ${what} ${bars}`),
    faults: faults.map(({ row, message }) => [table.numbers[row], message]),
    aside: table.aside.map(({ row, why }) => [row, why]),
    table,
  };
}

describe('a till’s list', () => {
  it('has its heads under a title and days in words, and its total is no sale', () => {
    const { sales, faults, aside } = read(
      `Takings of the stall;;;
Printed 5 October 2026;;;
;;;
Date;Item;Qty;Total
Saturday 3 October 2026;Night Mail;4;26.00
Sunday 4 October 2026;Signal Red;2;13.00
Total;;6;39.00`,
    );
    expect(sales).to.deep.equal(['2026-10-03 Night Mail 4', '2026-10-04 Signal Red 2']);
    expect(faults).to.deep.equal([]);
    expect(aside).to.deep.equal([[7, 'a total']]);
  });

  it('has its counts beside the names, one or several in a cell', () => {
    const { sales, faults } = read(
      `Order;Date;Lines
#1;2026-10-05;2 x Night Mail, 1x Signal Red
#2;2026-10-06;Signal Red x3
#3;2026-10-07;Ticket Office
#4;2026-10-08;2 x Gift box`,
    );
    expect(sales).to.deep.equal([
      '2026-10-05 Night Mail 2',
      '2026-10-05 Signal Red 1',
      '2026-10-06 Signal Red 3',
      '2026-10-07 Ticket Office 0',
      '2026-10-08 2 x Gift box 0',
    ]);
    // What says no count, or names no bar, waits for an answer in its row of the file.
    expect(faults.map(([row]) => row)).to.deep.equal([4, 5]);
  });

  it('is read though some of its days and names are none, and asks about those', () => {
    const { sales, faults } = read(
      `Order;Date;Lines
#1;2026-11-05;2 x Night Mail, 1x Signal Red
#2;5 Nov - 11 Nov;Signal Red x3
#3;2026-11-07;Ticket Office
#4;2026-11-07;(1)`,
    );
    expect(sales.slice(0, 2)).to.deep.equal(['2026-11-05 Night Mail 2', '2026-11-05 Signal Red 1']);
    expect(faults.map(([row]) => row)).to.deep.equal([3, 4, 5]);
  });

  it('puts returns aside, however they are written', () => {
    const { sales, faults, aside } = read(
      'Date;Item;Qty\n2026-10-03;Night Mail;3\n2026-10-04;Night Mail;(1)\n2026-10-05;Signal Red;1-\n2026-10-06;Signal Red;-2',
    );
    expect([sales, faults]).to.deep.equal([['2026-10-03 Night Mail 3'], []]);
    expect(aside.map(([row]) => row)).to.deep.equal([3, 4, 5]);
  });

  it('has a day as a heading, its sales below', () => {
    const { sales, aside } = read(
      `Artikel;Anzahl;Betrag
Samstag, 3. Oktober 2026;;
Night Mail;3;19,50
Ticket Office;1;6,50
Zwischensumme;4;26,00
Sonntag, 4. Oktober 2026;;
Night Mail;2;13,00
Gesamt;6;39,00`,
    );
    expect(sales).to.deep.equal([
      '2026-10-03 Night Mail 3',
      '2026-10-03 Ticket Office 1',
      '2026-10-04 Night Mail 2',
    ]);
    expect(aside.map(([row]) => row)).to.deep.equal([5, 8]);
  });

  it('has days along the top: each cell with a number is a sale', () => {
    const { sales, faults, table } = read(
      `Produit;3 octobre 2026;10 octobre 2026;Total
Night Mail;4;0;4
Signal Red;;5;5
Total;4;5;9`,
    );
    expect(sales).to.deep.equal(['2026-10-03 Night Mail 4', '2026-10-10 Signal Red 5']);
    expect(faults).to.deep.equal([]);
    expect(table.numbers).to.deep.equal([2, 3]);
  });

  it('says a day once for the rows below it', () => {
    expect(
      read(`Day;Product;Sold
Sat 3 Oct 2026;Night Mail;4
;Signal Red;2
Sun 4 Oct 2026;Night Mail;1`).sales,
    ).to.deep.equal(['2026-10-03 Night Mail 4', '2026-10-03 Signal Red 2', '2026-10-04 Night Mail 1']);
  });

  it('puts aside what was taken back or never paid, and what is sold or written down beside bars', () => {
    const { sales, aside } = read(
      `Date;Item;Qty;Status
2026-10-03;Night Mail;2;Paid
2026-10-03;Signal Red;1;Voided
2026-10-03;Ticket Office;1;Storniert
2026-10-03;Discount;1;
2026-10-03;Versandkosten;1;Paid`,
    );
    expect(sales).to.deep.equal(['2026-10-03 Night Mail 2']);
    expect(aside.map(([row, why]) => [row, String(why).slice(0, 13)])).to.deep.equal([
      [3, '“Voided” (wha'],
      [4, '“Storniert” ('],
      [5, 'no bar'],
      [6, 'no bar'],
    ]);
  });

  it('has bars along the top and days down: a bar that nobody knows comes with the others', () => {
    const { sales, table } = read(
      `Day;Night Mail;Signal Red;Something New;Takings
2026-10-03;4;2;;39,00
2026-10-10;0;3;1;26,00
Total;4;5;1;65,00`,
    );
    expect(sales).to.deep.equal([
      '2026-10-03 Night Mail 4',
      '2026-10-03 Signal Red 2',
      '2026-10-10 Signal Red 3',
      '2026-10-10 Something New 1',
    ]);
    expect([table.numbers, table.aside.map(({ row }) => row)]).to.deep.equal([[2, 2, 3, 3], [4]]);
  });

  it('puts returns aside, and says which', () => {
    const { sales, aside } = read(`Date;Product;Quantity
2026-10-03;Night Mail;4
2026-10-04;Night Mail;-1
2026-10-04;Signal Red;0`);
    expect(sales).to.deep.equal(['2026-10-03 Night Mail 4']);
    expect(aside).to.deep.equal([
      [3, 'a return: what came back is written down at its batch'],
      [4, 'none sold'],
    ]);
  });

  it('takes no numbers of receipts for days, whatever day they would be', () => {
    expect(
      read(`Nr;Article;Qty
Saturday, 3 October 2026;;
40012;Night Mail;3
40013;Signal Red;2`).sales,
    ).to.deep.equal(['2026-10-03 Night Mail 3', '2026-10-03 Signal Red 2']);
  });

  it('tells which rows have no day of their own, and totals across as well', () => {
    const { table } = read(`Day;Product;Sold
Sat 3 Oct 2026;Night Mail;4
;Signal Red;2`);
    expect(table.carried).to.deep.equal([3]);
    const { aside } = read(`Produit;3 octobre 2026;10 octobre 2026
Night Mail;4;1
Total;4;1`);
    expect(aside).to.deep.equal([[3, 'a total']]);
  });

  it('keeps a bar whose name begins as a total does', () => {
    expect(
      read(`Date;Item;Qty
2026-10-03;Total Eclipse;4
2026-10-03;Totals;4`).sales,
    ).to.deep.equal(['2026-10-03 Total Eclipse 4']);
  });

  it('has its heads again on every page', () => {
    expect(
      read(`Date;Item;Qty
2026-10-03;Night Mail;4
Date;Item;Qty
2026-10-04;Signal Red;2`).sales,
    ).to.deep.equal(['2026-10-03 Night Mail 4', '2026-10-04 Signal Red 2']);
  });

  it('is none where no heads and no days are found', () => {
    expect(saleTable([['a letter'], ['about soap']])).to.equal(null);
    expect(saleTable([])).to.equal(null);
  });
});

describe('days in words, as tills write them', () => {
  const CASES: Record<string, string> = {
    'Sat 3 Oct 2026': '2026-10-03',
    'Saturday, October 3, 2026': '2026-10-03',
    'Oct 3, 2026 at 10:42 AM': '2026-10-03',
    '3rd October 2026': '2026-10-03',
    '3-Oct-26': '2026-10-03',
    '03/Oct/2026': '2026-10-03',
    'Sa., 3. Okt. 2026': '2026-10-03',
    'Samstag, 03. Oktober 2026, 10:42 Uhr': '2026-10-03',
    'samedi 3 octobre 2026': '2026-10-03',
    '1er octobre 2026': '2026-10-01',
    '3 oct. 2026 à 10:42': '2026-10-03',
    '3 de octubre de 2026': '2026-10-03',
    'sáb, 3 oct 2026': '2026-10-03',
    'sabato 3 ottobre 2026': '2026-10-03',
    'za 3 okt. 2026 10:42': '2026-10-03',
    '3 października 2026': '2026-10-03',
    '2026-10-03T10:42:00Z': '2026-10-03',
    '2026/10/03 10:42': '2026-10-03',
    '20261003': '2026-10-03',
    '2026. 10. 03.': '2026-10-03',
    '03.10.26 10:42': '2026-10-03',
    '5 março 2026': '2026-03-05',
    '46298': '2026-10-03',
  };
  for (const [cell, day] of Object.entries(CASES))
    it(cell, () => expect(readDay(withoutTime(cell), 'dayFirst', 'first')).to.equal(day));

  it('without a year, or of no day, are asked about', () => {
    for (const cell of ['Oct 3', 'Saturday', '20261341', '4629', '2026. 13. 03.'])
      expect(readDay(cell, 'dayFirst', 'first'), cell).to.have.property('error');
    expect(dayOrderOf(['46298', '20261003'])).to.equal(null);
  });

  it('more than one are asked about, never read as one', () => {
    for (const cell of ['5 Oct - 11 Oct', '28 Sep – 4 Oct 2026', '5-11 October', '3. bis 9. Oktober 2026'])
      expect(readDay(cell, 'dayFirst', 'first'), cell)
        .to.have.property('error')
        .that.includes('more than one');
    for (const cell of ['2026-10-03 – Saturday', '3-Oct-2026', '3. Oct 2026'])
      expect(readDay(cell, 'dayFirst', 'first'), cell).to.not.have.property('error');
  });
});
