/**
 * Lists as tills and shops write them, made up here without regard to how they are read: other tongues, orders of
 * columns, days, and columns that mean nothing to us.
 */
import { expect } from 'chai';
import Papa from 'papaparse';
import { isOrderOpen } from '../../src/core/sheets/days';
import { dayCells, guessColumns, readSales, type Column } from '../../src/core/stock/sale-columns';
import { textOfBytes } from '../../src/ui/file-text';

interface Till {
  name: string;
  text: string;
  columns: Partial<Record<Column, string>>;
  first: { day: string; what: string; bars: number; market?: string; how?: string };
}

const TILLS: readonly Till[] = [
  {
    name: 'a shop’s export of order lines',
    text: 'Order ID,Created at,Customer name,Lineitem name,Lineitem quantity,Lineitem price,Shipping country,Currency\n1041,2026-11-20 18:02:11 +0100,Mo Quist,Night Mail,2,7.50,Germany,EUR\n1042,2026-11-21 09:12:00 +0100,Ida Rask,First Light,1,6.50,Ireland,EUR',
    columns: {
      day: 'Created at',
      what: 'Lineitem name',
      bars: 'Lineitem quantity',
      to: 'Customer name',
      market: 'Shipping country',
      ref: 'Order ID',
    },
    first: { day: '2026-11-20', what: 'Night Mail', bars: 2, market: 'EU' },
  },
  {
    name: 'a stall’s till by receipt',
    text: 'Receipt no.;Time;Item;Unit price;Pieces;Total\nA-17;21/11/2026 11:04;Goods Yard;6,00;3;18,00\nA-18;21/11/2026 11:20;Signal Red;6,00;1;6,00',
    columns: { day: 'Time', what: 'Item', bars: 'Pieces', ref: 'Receipt no.' },
    first: { day: '2026-11-21', what: 'Goods Yard', bars: 3 },
  },
  {
    name: 'a German cash book',
    text: 'Datum;Beleg;Artikel;Menge;Betrag;Kunde\n20.11.2026;221;Waiting Room;4;24,00;Hofladen Nord\n21.11.2026;222;Night Mail;1;7,50;',
    columns: { day: 'Datum', what: 'Artikel', bars: 'Menge', to: 'Kunde', ref: 'Beleg' },
    first: { day: '2026-11-20', what: 'Waiting Room', bars: 4 },
  },
  {
    name: 'a French one',
    text: 'Date de vente;Produit;Quantité;Prix;Client;Pays\n19/11/2026;Level Crossing;2;14,00;Épicerie du Quai;France\n20/11/2026;First Light;1;6,50;;Belgique',
    columns: { day: 'Date de vente', what: 'Produit', bars: 'Quantité', to: 'Client', market: 'Pays' },
    first: { day: '2026-11-19', what: 'Level Crossing', bars: 2, market: 'EU' },
  },
  {
    name: 'a Spanish one',
    text: 'Fecha,Producto,Cantidad,Importe,Cliente\n2026-11-18,Snow Plough,1,7.50,Tienda Azul\n2026-11-19,Night Mail,2,15.00,',
    columns: { day: 'Fecha', what: 'Producto', bars: 'Cantidad', to: 'Cliente' },
    first: { day: '2026-11-18', what: 'Snow Plough', bars: 1 },
  },
  {
    name: 'an Italian one',
    text: 'Data;Articolo;Quantità;Totale\n18/11/2026;Ticket Office;3;21,00\n19/11/2026;Night Mail;1;7,00',
    columns: { day: 'Data', what: 'Articolo', bars: 'Quantità' },
    first: { day: '2026-11-18', what: 'Ticket Office', bars: 3 },
  },
  {
    name: 'a Dutch one',
    text: 'Verkoopdatum;Omschrijving;Aantal;Prijs\n17-11-2026;First Light;5;32,50\n18-11-2026;Night Mail;1;7,00',
    columns: { day: 'Verkoopdatum', what: 'Omschrijving', bars: 'Aantal' },
    first: { day: '2026-11-17', what: 'First Light', bars: 5 },
  },
  {
    name: 'a notebook’s sheet with batch codes',
    text: 'when\twhich bar (code)\thow many sold\twho\tremark\n24 Nov 2026\tFL-260915\t2\tHalt tea room\tpaid later\n24 Nov 2026\tNM-260930/4\t1\tMarit\t',
    columns: { day: 'when', what: 'which bar (code)', bars: 'how many sold', to: 'who', note: 'remark' },
    first: { day: '2026-11-24', what: 'FL-260915', bars: 2 },
  },
  {
    name: 'a stock list with kinds of leaving',
    text: 'Day,Batch,Qty,Type,Comment\n2026-11-22,GY-260901,1,gift,for the printer\n2026-11-22,GY-260901,2,damaged,fell\n2026-11-22,GY-260901,3,sale,',
    columns: { day: 'Day', what: 'Batch', bars: 'Qty', how: 'Type', note: 'Comment' },
    first: { day: '2026-11-22', what: 'GY-260901', bars: 1, how: 'sample' },
  },
  {
    name: 'columns without a word we know',
    text: 'A,B,C\n2026-11-22,Night Mail,3\n2026-11-23,First Light,1',
    columns: { day: 'A', what: 'B', bars: 'C' },
    first: { day: '2026-11-22', what: 'Night Mail', bars: 3 },
  },
  {
    name: 'a shop’s export with a SKU, a product and a price beside the number',
    text: 'Sale date,SKU,Product,Net sales,Items sold,Location\n"Nov 20, 2026",SB-02,Night Mail,22.50,3,Harbour market\n"Nov 20, 2026",SB-05,First Light,6.50,1,Harbour market',
    columns: { day: 'Sale date', what: 'Product', bars: 'Items sold', to: 'Location' },
    first: { day: '2026-11-20', what: 'Night Mail', bars: 3 },
  },
  {
    name: 'one that names the channel and sells abroad',
    text: 'Transaction,Date sold,Channel,Bar,Number,Country code\nT1,2026-11-20,web,First Light,2,GB\nT2,2026-11-20,web,Night Mail,1,CA',
    columns: {
      day: 'Date sold',
      what: 'Bar',
      bars: 'Number',
      to: 'Channel',
      market: 'Country code',
      ref: 'Transaction',
    },
    first: { day: '2026-11-20', what: 'First Light', bars: 2, market: 'UK' },
  },
];

describe('lists of tills made up by another hand', () => {
  for (const { name, text, columns, first } of TILLS) {
    it(`have their columns found: ${name}`, () => {
      const [heads, ...rows] = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' }).data;
      const mapping = guessColumns(heads!, rows);
      const found = Object.fromEntries(
        (['day', 'what', 'bars', 'to', 'market', 'how', 'ref', 'note'] as const).flatMap((column) =>
          columns[column] === undefined ? [] : [[column, heads![mapping[column] ?? -1]]],
        ),
      );
      expect(found).to.deep.equal(columns);
      const { rows: sales, faults } = readSales(rows, mapping, { to: '', market: null });
      expect(faults).to.deep.equal([]);
      const { day, what, bars, market, how } = sales[0]!;
      expect({ day, what, bars }).to.deep.equal({ day: first.day, what: first.what, bars: first.bars });
      if (first.market) expect(market).to.equal(first.market);
      expect(how).to.equal(first.how ?? 'sale');
    });
  }

  it('says by row and column what cannot be read', () => {
    const rows = [
      ['32.13.2026', 'Night Mail', '1'],
      ['2026-11-20', '', '2.5'],
      ['2026-11-20', 'Night Mail', '-1'],
    ];
    const { faults } = readSales(rows, { day: 0, what: 1, bars: 2 }, { to: '', market: null });
    expect(faults.map(({ row, column }) => [row, column])).to.deep.equal([
      [0, 'day'],
      [1, 'bars'],
      [1, 'what'],
      [2, 'bars'],
    ]);
  });

  it('reads a column of days in one order, told by those that read one way only; else it is asked', () => {
    const list = (days: string[]) => days.map((day) => [day, 'Night Mail', '1']);
    const mapping = { day: 0, what: 1, bars: 2 };
    const read = (days: string[], order?: 'dayFirst' | 'monthFirst') =>
      readSales(list(days), mapping, { to: '', market: null, order }).rows.map(({ day }) => day);
    expect(read(['11/03/2026', '11/25/2026'])).to.deep.equal(['2026-11-03', '2026-11-25']);
    expect(read(['11/03/2026 10:12', '25/03/2026 11:00'])).to.deep.equal(['2026-03-11', '2026-03-25']);
    const open = list(['11/03/2026', '05/04/2026']);
    expect(isOrderOpen(dayCells(open, mapping))).to.equal(true);
    expect(isOrderOpen(['11/03/2026', '11/25/2026'])).to.equal(false);
    expect(isOrderOpen(['2026-11-03', '04/04/2026'])).to.equal(false);
    expect(read(['11/03/2026'], 'monthFirst')).to.deep.equal(['2026-11-03']);
    expect(read(['11/03/2026'], 'dayFirst')).to.deep.equal(['2026-03-11']);
  });

  it('is read as older systems save it, too', () => {
    const bytes = new Uint8Array([0x4f, 0x6c, 0x69, 0x76, 0x65, 0x6e, 0xf6, 0x6c]);
    expect(textOfBytes(bytes)).to.equal('Olivenöl');
    expect(textOfBytes(new TextEncoder().encode('\uFEFFÖl'))).to.equal('Öl');
  });
});
