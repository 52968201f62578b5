/** A database of an earlier make is brought up without losing what its maker stated. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import knex from 'knex';
import * as firstTables from '../../src/server/migrations/001-first-tables';
import { changeResult, findChange } from '../../src/server/repositories/changes';
import * as changeCounts from '../../src/server/migrations/009-change-counts';
import * as cupboard from '../../src/server/migrations/002-cupboard';
import * as wraps from '../../src/server/migrations/003-wraps';
import * as firmGround from '../../src/server/migrations/004-firm-ground';
import { findLot, movementsOf } from '../../src/server/repositories/lots';
import { DATABASE_FILE, openDatabase } from '../../src/server/database';
import { findProduct } from '../../src/server/repositories/products';

describe('a database of the first make', () => {
  it('keeps its bars to a batch, in the formula and in every version of it', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'proportia-'));
    const old = knex({
      client: 'better-sqlite3',
      connection: { filename: join(folder, DATABASE_FILE) },
      useNullAsDefault: true,
    });
    const source: knex.Knex.MigrationSource<string> = {
      getMigrations: () => Promise.resolve(['001-first-tables']),
      getMigrationName: (name) => name,
      getMigration: () => Promise.resolve(firstTables),
    };
    await old.migrate.latest({ migrationSource: source });
    const body = {
      id: 'a',
      name: 'A',
      identity: 'Soap',
      note: '',
      markets: ['EU'],
      bars: 18,
      netMassG: 90,
      batchCode: '',
      firstPlacedOn: {},
    };
    await old('products').insert({ id: 'a', name: 'A', position: 0, body: JSON.stringify(body) });
    const formula = { alkali: { superfatPct: 5 }, lines: [] };
    for (const number of [1, 2]) {
      await old('formula_versions').insert({
        product_id: 'a',
        number,
        name: number === 1 ? 'first' : null,
        revision: 1,
        saved_at: '2026-01-01',
        formula: JSON.stringify(formula),
      });
    }
    await old.destroy();

    const db = await openDatabase(folder);
    const { product, version } = (await findProduct(db, 'a'))!;
    expect(version.formula).to.deep.equal({ bars: 18, ...formula });
    expect(product).to.not.have.property('bars');
    expect(product.netMassG).to.equal(90);
    const all: { formula: string }[] = await db('formula_versions').select('formula');
    expect(all.every((row) => (JSON.parse(row.formula) as { bars: number }).bars === 18)).to.equal(true);
    await db.destroy();
    rmSync(folder, { recursive: true, force: true });
  });
});

describe('a database from before there was a ledger', () => {
  it('keeps what was left of every lot, as its first movement', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'proportia-'));
    const old = knex({
      client: 'better-sqlite3',
      connection: { filename: join(folder, DATABASE_FILE) },
      useNullAsDefault: true,
    });
    const known: Record<string, knex.Knex.Migration> = {
      '001-first-tables': firstTables,
      '002-cupboard': cupboard,
      '003-wraps': wraps,
      '004-firm-ground': firmGround,
    };
    await old.migrate.latest({
      migrationSource: {
        getMigrations: () => Promise.resolve(Object.keys(known)),
        getMigrationName: (name: string) => name,
        getMigration: (name: string) => Promise.resolve(known[name]!),
      },
    });
    await old('materials').insert({
      id: 'olive',
      name: 'Olive',
      kind: 'fat',
      body: JSON.stringify({ id: 'olive', name: 'Olive', kind: 'fat' }),
    });
    for (const [id, leftG] of [
      ['some', 350],
      ['whole', 1000],
      ['gone', 0],
    ] as const) {
      const body = {
        id,
        material: 'olive',
        supplier: '',
        code: id,
        receivedOn: '2026-01-02',
        openedOn: null,
        bestBefore: null,
        quantityG: 1000,
        leftG,
        price: 4,
      };
      await old('lots').insert({
        id,
        material_id: 'olive',
        received_on: '2026-01-02',
        revision: 1,
        body: JSON.stringify(body),
      });
    }
    await old.destroy();

    const db = await openDatabase(folder);
    const left = async (id: string) => (await findLot(db, id))!.leftG;
    expect([await left('some'), await left('whole'), await left('gone')]).to.deep.equal([350, 1000, 0]);
    expect((await movementsOf(db, 'some')).map(({ massG }) => massG)).to.deep.equal([650]);
    expect(await movementsOf(db, 'whole')).to.deep.equal([]);
    await db.destroy();
    rmSync(folder, { recursive: true, force: true });
  });
});

describe('a change that was looked at before its rows were counted beside it', () => {
  it('is counted once, and read as it was written', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'proportia-'));
    const db = await openDatabase(folder);
    await changeCounts.down(db);
    const stand = {
      ...{ verdict: 'clear', headroomPct: 4, boundBy: null },
      ...{ declares: ['linalool'], listAdded: 'Aqua', listFormed: '' },
    };
    const effects = [{ what: 'bar', id: 'b', before: stand, after: null, worse: true }];
    const row = { at: '2026-11-01', body: '{}', words: 'w', state: 'done', stamp: '' };
    await db('changes').insert({
      ...row,
      id: 'old',
      result: JSON.stringify({ effects, unchanged: 3, worse: 1 }),
    });
    await db('changes').insert({ ...row, id: 'open', state: 'running' });
    await changeCounts.up(db);
    expect(await findChange(db, 'old')).to.include({ touched: 1, worse: 1 });
    expect(await findChange(db, 'open')).to.include({ touched: null, worse: null });
    expect(await changeResult(db, 'old')).to.deep.equal({ effects, unchanged: 3 });
    await db.destroy();
    rmSync(folder, { recursive: true, force: true });
  });
});
