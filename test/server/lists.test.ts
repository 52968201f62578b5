/** Lists out: typed cells in a workbook that reads back the same, CSV plain and with commas, JSON. */
import { expect } from 'chai';
import excel from 'exceljs';
import Papa from 'papaparse';
import { LIST_NAMES } from '../../src/server/archive/lists';
import { allLots } from '../../src/server/repositories/lots';
import { caller } from './call';
import { useDemo } from './database';

const go = caller({ lists: () => import('../../src/pages/api/v1/lists') });
type Row = Record<string, string | number | null>;

describe('lists of what is on file', () => {
  const demo = useDemo();
  const ask = async (query: string) => {
    const { status, body } = await go<ArrayBuffer>('lists', 'GET', { query });
    return {
      status,
      bytes: Buffer.from(
        body instanceof ArrayBuffer ? new Uint8Array(body) : new TextEncoder().encode(JSON.stringify(body)),
      ),
    };
  };
  const json = async () => JSON.parse((await ask('?as=json')).bytes.toString()) as Record<string, Row[]>;

  it('go out as one workbook of typed cells, heads frozen, and read back the same', async () => {
    const all = await json();
    const { status, bytes } = await ask('?as=xlsx');
    expect(status).to.equal(200);
    const workbook = new excel.Workbook();
    await workbook.xlsx.load(bytes as never);
    expect(workbook.worksheets.map(({ name }) => name)).to.deep.equal(LIST_NAMES);
    for (const sheet of workbook.worksheets) {
      expect(sheet.views[0], sheet.name).to.include({ state: 'frozen', ySplit: 1 });
      const heads = (sheet.getRow(1).values as string[]).slice(1);
      const rows: Row[] = [];
      for (let at = 2; at <= sheet.rowCount; at++)
        rows.push(
          Object.fromEntries(
            heads.map((head, column) => {
              const { value } = sheet.getRow(at).getCell(column + 1);
              return [
                head,
                value instanceof Date ? value.toISOString().slice(0, 10) : (value as string | number | null),
              ];
            }),
          ),
        );
      expect(rows, sheet.name).to.deep.equal(all[sheet.name]);
      expect(rows.length, sheet.name).to.be.above(3);
    }
  });

  it('say what is left of each lot, and are the same as CSV, plain and with commas', async () => {
    const { id } = (await allLots(demo.db))[0]!;
    await demo.db('stock_movements').insert({
      lot_id: id,
      mass_g: 0.25,
      reason: 'weighed',
      at: '2026-11-23T10:00:00.000Z',
    });
    const kept = await allLots(demo.db);
    const { lots } = await json();
    expect(lots).to.have.length(kept.length);
    for (const { code, leftG } of kept)
      expect(lots!.find(({ lot }) => lot === code)!.left, code).to.be.closeTo(leftG, 0.001);
    const plain = (await ask('?list=lots&as=csv')).bytes.toString();
    const commas = (await ask('?list=lots&as=csv-comma')).bytes.toString();
    expect(commas.startsWith('\ufeff')).to.equal(true);
    const read = (text: string, delimiter: string) =>
      Papa.parse<Row>(text.replace(/^\ufeff/, ''), { header: true, delimiter, skipEmptyLines: true }).data;
    const [one, other] = [read(plain, ','), read(commas, ';')];
    expect(
      other.map((row) => ({
        ...row,
        left: String(row.left).replace(',', '.'),
        price: String(row.price).replace(',', '.'),
        grams: String(row.grams).replace(',', '.'),
      })),
    ).to.deep.equal(one);
    expect(commas).to.match(/\d,\d/);
  });

  it('are refused in words where one asks for what there is not', async () => {
    expect((await ask('?as=csv')).status).to.equal(422);
    expect((await ask('?as=doc')).status).to.equal(422);
    expect((await ask('?list=secrets&as=csv')).status).to.equal(422);
  });
});
