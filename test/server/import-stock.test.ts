/** Materials and lots of a spreadsheet at their door: looked at without a trace, all taken or none, nothing twice. */
import { expect } from 'chai';
import type { ImportedStock, StockResult } from '../../src/core/records/import';
import { caller } from './call';
import { useDemo } from './database';

const go = caller({ stock: () => import('../../src/pages/api/v1/import/stock') });

const lot = (code: string, more: object = {}) => ({
  ...{ supplier: 'Tollen Mill', code, receivedOn: '2026-03-01', openedOn: null, bestBefore: '2027-12-31' },
  ...{ quantityG: 5000, leftG: 3800, price: 40 },
  ...more,
});
const row = (number: number, material: string | null, more: Partial<ImportedStock> = {}) => ({
  ...{ row: number, name: `Row ${number}`, material, own: null, supplier: 'Tollen Mill', lot: null },
  ...more,
});
const own = { name: 'Zzyx seed oil', kind: 'fat' as const, inci: 'Zzyx Oil', naohPerGram: 0.1354 };

describe('materials and lots of a spreadsheet', () => {
  const test = useDemo();
  const send = (rows: object[], preview = false) =>
    go<StockResult & { errors: { path: string; message: string }[] }>('stock', 'POST', {
      body: { preview, rows },
    });
  const counts = async () => [
    ((await test.db('materials').pluck('id')) as string[]).length,
    ((await test.db('lots').pluck('id')) as string[]).length,
  ];
  const good = () => [
    row(2, 'olive', { lot: lot('OL-1') }),
    row(3, 'babassu', { lot: lot('BA-1') }),
    row(4, null, { own, lot: lot('ZZ-1') }),
    row(5, null, { own, lot: lot('ZZ-2', { leftG: 5000 }) }),
    row(6, 'yellow-clay'),
  ];

  it('are looked at without a trace, then taken as they stand, a new material once for all its lots', async () => {
    const before = await counts();
    const looked = await send(good(), true);
    expect([looked.status, looked.body.taken]).to.deep.equal([200, 0]);
    expect(looked.body.rows.map(({ what, fault }) => [what, fault])).to.deep.equal([
      ['there', null],
      ['library', null],
      ['new', null],
      ['new', null],
      ['library', null],
    ]);
    expect(await counts()).to.deep.equal(before);
    const taken = await send(good());
    expect([taken.status, taken.body.taken]).to.deep.equal([201, 5]);
    expect(await counts()).to.deep.equal([before[0]! + 3, before[1]! + 4]);
    const { db } = test;
    const made = await db('lots').whereLike('id', 'zzyx%').orderBy('id').pluck('id');
    expect(made).to.deep.equal(['zzyx-seed-oil-zz-1', 'zzyx-seed-oil-zz-2']);
    const [spent] = await db('stock_movements').where('lot_id', 'zzyx-seed-oil-zz-1').pluck('mass_g');
    expect(spent).to.equal(1200);
  });

  it('that stand there already, or are wrong, are refused row by row, and nothing is taken', async () => {
    const before = await counts();
    const again = await send(good());
    expect(again.status).to.equal(422);
    expect(again.body.errors.map(({ path }) => path)).to.deep.equal(['rows.0', 'rows.1', 'rows.2', 'rows.3']);
    const wrong = await send([
      row(2, 'cocoa-butter', { lot: lot('C-1') }),
      row(3, 'cocoa-butter', { lot: lot('C-1') }),
      row(4, 'stardust'),
      row(5, null),
      row(6, 'olive', { own }),
      row(7, null, { own: { ...own, name: 'Wwww', naohPerGram: null } }),
      row(8, 'cocoa-butter', { lot: lot('C-2', { leftG: 6000 }) }),
    ]);
    expect(wrong.status).to.equal(422);
    expect(wrong.body.errors.map(({ path }) => path)).to.deep.equal(
      [1, 2, 3, 4, 5, 6].map((at) => `rows.${at}`),
    );
    expect((await send([row(2, 'olive', { lot: lot('X', { quantityG: -1 }) })])).status).to.equal(422);
    expect((await send([])).body.taken).to.equal(0);
    expect(await counts()).to.deep.equal(before);
  });
});
