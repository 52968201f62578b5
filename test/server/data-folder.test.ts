/** The data folder and its database: whose it is, what is refused in words, and what a fault on the disk leaves. */
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import {
  closeDatabase,
  database,
  DATABASE_FILE,
  openDatabase,
  replaceDatabase,
} from '../../src/server/database';
import { lockFolder } from '../../src/server/front/lock';
import { endpoint } from '../../src/server/http';
import { lookedOver, lookOverWhole } from '../../src/server/services/house/look-over';
import { StoreFault } from '../../src/server/store/faults';
import { writing } from '../../src/server/store/writing';

describe('the data folder', () => {
  const folders: string[] = [];
  const folder = () => {
    const made = mkdtempSync(join(tmpdir(), 'proportia-'));
    folders.push(made);
    return made;
  };
  after(() => folders.forEach((one) => rmSync(one, { recursive: true, force: true })));
  const kindOf = (work: Promise<unknown>) =>
    work.then(
      () => 'opened',
      (error: StoreFault) => error.kind,
    );

  it('serves one program at a time, and the next as soon as that has ended', () => {
    const at = folder();
    const release = lockFolder(at);
    expect(() => lockFolder(at))
      .to.throw(StoreFault)
      .with.property('kind', 'in-use');
    release();
    lockFolder(at)();
  });

  it('is the maker’s own: nobody else reads it', async () => {
    const at = join(folder(), 'new');
    await (await openDatabase(at)).destroy();
    expect(statSync(at).mode & 0o077).to.equal(0);
    expect(statSync(join(at, DATABASE_FILE)).mode & 0o077).to.equal(0);
  });

  it('with an empty, damaged or newer database, or one of another kind, is told in words and left as it is', async () => {
    const empty = folder();
    writeFileSync(join(empty, DATABASE_FILE), '');
    expect(await kindOf(openDatabase(empty))).to.equal('empty');
    expect(readFileSync(join(empty, DATABASE_FILE)).length).to.equal(0);

    const other = folder();
    writeFileSync(join(other, DATABASE_FILE), 'This is no database.'.repeat(100));
    expect(await kindOf(openDatabase(other))).to.equal('damaged');

    const newer = folder();
    const db = await openDatabase(newer);
    await db('knex_migrations').insert({ name: '999-later', batch: 9, migration_time: 1 });
    await db.destroy();
    expect(await kindOf(openDatabase(newer))).to.equal('newer');

    const damaged = folder();
    await (await openDatabase(damaged)).destroy();
    const file = join(damaged, DATABASE_FILE);
    const bytes = readFileSync(file);
    bytes.fill(0x5a, 4096 * 2, 4096 * 6);
    writeFileSync(file, bytes);
    expect(await kindOf(openDatabase(damaged))).to.equal('damaged');
  });

  it('with a large database is opened at once and looked over aside: found damaged, it is worked with no more', async () => {
    const at = folder();
    const made = await openDatabase(at);
    await made.raw('create table padding (bytes blob)');
    await made.raw('insert into padding values (zeroblob(?))', [40 * 1024 * 1024]);
    await made.raw('pragma wal_checkpoint(truncate)');
    await made.destroy();
    const file = join(at, DATABASE_FILE);
    const before = process.env.PROPORTIA_DATA;
    await closeDatabase();
    process.env.PROPORTIA_DATA = at;
    try {
      expect((await lookedOver()).lookedAt).to.equal(null);
      await lookOverWhole(file);
      expect(await lookedOver()).to.deep.include({ fault: null });
      expect(await kindOf(database())).to.equal('opened');
      await closeDatabase();
      const bytes = readFileSync(file);
      const good = Buffer.from(bytes);
      bytes.fill(0x5a, 20_000_000, 20_100_000);
      writeFileSync(file, bytes);
      expect(await kindOf(database())).to.equal('opened');
      await lookOverWhole(file);
      expect(await kindOf(database())).to.equal('damaged');
      // The next start knows, and names the backup to go back to.
      expect(await kindOf(openDatabase(at))).to.equal('damaged');
      await replaceDatabase(() => writeFileSync(file, good));
      expect(await kindOf(database())).to.equal('opened');
    } finally {
      await closeDatabase();
      process.env.PROPORTIA_DATA = before;
    }
  });

  it('with a migration that was cut off goes on where it was, and says so', async () => {
    const at = folder();
    const db = await openDatabase(at);
    await db('knex_migrations_lock').update({ is_locked: 1 });
    await db.destroy();
    const again = await openDatabase(at);
    expect(await again('knex_migrations_lock').first()).to.include({ is_locked: 0 });
    await again.destroy();
  });

  it('that is full says so, and loses nothing that was kept', async () => {
    const db = await openDatabase(folder());
    const [{ page_count: pages }] = (await db.raw('pragma page_count')) as [{ page_count: number }];
    await db.raw(`pragma max_page_count = ${pages + 2}`);
    const route = endpoint(async () => {
      await writing(db, (trx) => trx('settings').insert({ key: 'big', value: `"${'x'.repeat(200_000)}"` }));
      return new Response();
    });
    const answer = (await route({} as never)) as Response;
    expect(answer.status).to.equal(507);
    expect(((await answer.json()) as { errors: { message: string }[] }).errors[0]!.message).to.contain(
      'disk is full',
    );
    expect(await db('settings').where('key', 'big').first()).to.equal(undefined);
    await writing(db, (trx) => trx('settings').insert({ key: 'small', value: '1' }));
    await db.destroy();
  });
});
