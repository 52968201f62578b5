/** Bars of a spreadsheet at their door: names matched, bars looked at, all taken or none. */
import { expect } from 'chai';
import type { Formula } from '../../src/core/formula/types';
import type { ImportResult } from '../../src/core/records/import';
import type { Match } from '../../src/core/sheets/match';
import { findSetting } from '../../src/server/repositories/settings';
import { archiveFault } from '../../src/server/doors/archive';
import { caller } from './call';
import { useDemo } from './database';

const go = caller({
  take: () => import('../../src/pages/api/v1/import'),
  names: () => import('../../src/pages/api/v1/import/names'),
});

const formula = (more: Partial<Formula> = {}): Formula => ({
  alkali: { superfatPct: 5 },
  lines: [
    { id: 'l1', material: 'olive', stage: 'fats', amount: { value: 500, unit: 'g' } },
    { id: 'l2', material: 'water', stage: 'liquid', amount: { value: 170, unit: 'g' } },
  ],
  ...more,
});
const bar = (name: string, more: Partial<Formula> = {}) => ({
  name,
  note: 'from the sheet',
  formula: formula(more),
});

describe('bars of a spreadsheet', () => {
  const test = useDemo();
  const send = (bars: object[], preview = false) =>
    go<ImportResult & { errors: { path: string; message: string }[] }>('take', 'POST', {
      body: { preview, bars },
    });
  const count = async () => ((await test.db('products').pluck('id')) as string[]).length;

  it('have their names matched to materials of one’s own and of the library, sure or not', async () => {
    const names = ['Olive oil', 'coal and violets', 'Stardust'];
    const { matches } = (await go<{ matches: (Match | null)[] }>('names', 'POST', { body: { names } })).body;
    expect(matches.map((match) => match && [match.id, match.isSure])).to.deep.equal([
      ['olive', true],
      ['coal-and-violets', true],
      null,
    ]);
    expect((await go('names', 'POST', { body: { names: [3] } })).status).to.equal(422);
  });

  it('are looked at without a trace, then taken as they stand', async () => {
    const before = await count();
    const looked = await send([bar('Harbour'), bar('Thimble')], true);
    expect([looked.status, looked.body.taken]).to.deep.equal([200, 0]);
    expect(looked.body.bars.map(({ verdict, fault }) => [verdict, fault])).to.deep.equal([
      ['clear', null],
      ['clear', null],
    ]);
    expect(await count()).to.equal(before);
    const taken = await send([bar('Harbour'), bar('Thimble')]);
    expect([taken.status, taken.body.taken, await count()]).to.deep.equal([201, 2, before + 2]);
    const { body } = (await test.db('products').where('name', 'Harbour').first('body')) as { body: string };
    expect(JSON.parse(body)).to.include({ note: 'from the sheet' });
  });

  it('teach how sheets laid out alike are read, once they are taken', async () => {
    const columns = { bar: 0, what: 1, amount: 2, unit: null, note: null };
    const lesson = {
      ...{ heads: ['recipe', 'ingredient', 'amount'], learntFrom: 'soaps.csv', learntOn: '2026-11-24' },
      layout: { kind: 'list', head: 1, columns, unit: 'oz' },
      said: { percentOf: 'fats', batchG: 1000, superfatPct: 5 },
      chosen: [{ name: 'Stardust', id: 'lavender', title: 'Lavender oil', kind: 'essentialOil' }],
    };
    const take = (preview: boolean, name: string, more: object) =>
      go<{ errors: { path: string }[] }>('take', 'POST', {
        body: { preview, bars: [bar(name)], lesson: { ...lesson, ...more } },
      });
    const known = async () => (await findSetting(test.db, 'sheetLessons')).value;
    await take(true, 'Buoy', {});
    expect(await known()).to.deep.equal([]);
    const refused = await take(false, 'Buoy', { layout: { ...lesson.layout, unit: 'stone' } });
    expect([refused.status, refused.body.errors[0]!.path]).to.deep.equal([422, 'lesson.layout.unit']);
    expect((await take(false, 'Buoy', {})).status).to.equal(201);
    expect(await known()).to.deep.equal([lesson]);
    expect(archiveFault('settings', { key: 'sheetLessons', value: await known(), revision: 1 })).to.equal(
      null,
    );
  });

  it('are all refused where one cannot be taken, each with why', async () => {
    const before = await count();
    const wrong = await send([
      bar('Heron'),
      bar('Harbour'),
      bar('Rook', {
        lines: [{ id: 'l1', material: 'stardust', stage: 'fats', amount: { value: 1, unit: 'g' } }],
      }),
    ]);
    expect(wrong.status).to.equal(422);
    expect(wrong.body.errors.map(({ path }) => path)).to.deep.equal(['bars.1', 'bars.2']);
    expect(wrong.body.errors[0]!.message).to.contain('by this name already');
    expect((await send([bar('Twin'), bar('Twin')])).status).to.equal(422);
    expect((await send([{ name: 'X', note: '', formula: { lines: 'none' } }])).status).to.equal(422);
    expect(await count()).to.equal(before);
  });
});
