/** Backups of a living database: whole, looked over, kept by age, taken back; and migrations that put back what they could not do. */
import { createHash } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { expect } from 'chai';
import fc from 'fast-check';
import { isBackupOld, keptByAge, overRoom } from '../../src/core/archive/keep';
import type { Attention } from '../../src/core/hands/hand';
import type { Backup, BackupsData } from '../../src/core/records/house';
import type { RangeData } from '../../src/core/records/range';
import { backUp, faultOf } from '../../src/server/archive/backup-job';
import { noteBackup } from '../../src/server/archive/backup-files';
import { lastGoodBackup, restoreAtStart } from '../../src/server/archive/restore';
import { DATABASE_FILE, openDatabase } from '../../src/server/database';
import { createProduct } from '../../src/server/services/worktable/products';
import { caller } from './call';
import { useDemo } from './database';
import { many } from '../support/many';

const go = caller({
  backups: () => import('../../src/pages/api/v1/backups'),
  file: () => import('../../src/pages/api/v1/backups/[id]'),
  restore: () => import('../../src/pages/api/v1/backups/[id]/restore'),
  attention: () => import('../../src/pages/api/v1/attention'),
  range: () => import('../../src/pages/api/v1/range'),
  products: () => import('../../src/pages/api/v1/products'),
});
const HOUR = 3_600_000;

describe('backups kept by age', () => {
  const now = '2026-11-24T09:30:00.000Z';
  const ago = (hours: number) => new Date(Date.parse(now) - hours * HOUR).toISOString();

  it('thin out with age: one an hour, a day, a week, a month', () => {
    const everyHalfHour = Array.from({ length: 2 * 24 * 800 }, (_, at) => ago(at / 2));
    const kept = [...keptByAge(everyHalfHour, now)];
    const within = (from: number, to: number) => kept.filter((at) => at > ago(to) && at <= ago(from)).length;
    expect(within(0, 24)).to.be.within(24, 26);
    expect(within(24, 14 * 24)).to.be.within(13, 15);
    expect(within(14 * 24, 70 * 24)).to.be.within(8, 11);
    expect(within(70 * 24, 800 * 24)).to.be.within(24, 26);
  });

  it('never let the newest go, keep the same however often they are thinned, and never keep what was not there', () => {
    const hours = fc.array(fc.double({ min: 0, max: 30_000, noNaN: true }), { minLength: 1, maxLength: 60 });
    fc.assert(
      fc.property(hours, (all) => {
        const moments = all.map(ago);
        const kept = [...keptByAge(moments, now)];
        expect(kept).to.include([...moments].sort().at(-1));
        expect([...keptByAge(kept, now)].sort()).to.deep.equal([...kept].sort());
        for (const one of kept) expect(moments).to.include(one);
      }),
      { numRuns: 200 },
    );
  });

  it('give way where the room is short: never the newest three, the oldest last where those between are near', () => {
    const kept = [
      ...keptByAge(
        Array.from({ length: 24 * 400 }, (_, at) => ago(at)),
        now,
      ),
    ];
    const backups = kept.map((at) => ({ at, bytes: 100 }));
    expect(overRoom(backups, 100 * backups.length, now)).to.deep.equal([]);
    for (const most of [2000, 1000, 450, 0]) {
      const gone = new Set(overRoom(backups, most, now));
      const rest = backups
        .filter((one) => !gone.has(one))
        .map(({ at }) => at)
        .sort();
      expect(rest.length).to.equal(Math.max(3, Math.floor(most / 100)));
      expect(rest.slice(-3)).to.deep.equal([...kept].sort().slice(-3));
      if (most >= 1000) expect(Date.parse(rest[0]!)).to.be.below(Date.parse(ago(24 * 200)));
    }
  });

  it('are called old after two days without a good one', () => {
    expect([null, ago(49), ago(47)].map((at) => isBackupOld(at, now))).to.deep.equal([true, true, false]);
  });
});

describe('backups', () => {
  const test = useDemo();
  const trouble = async () => (await go<Attention>('attention', 'GET')).body.House?.words ?? null;

  it('of a live database under writes hold together and hold a state that was, over and over', async () => {
    const file = join(test.folder, DATABASE_FILE);
    const writer = new Database(file);
    writer.exec('create table counted (a integer, b integer)');
    const add = writer.prepare('insert into counted values (?, ?)');
    let count = 0;
    let isOn = true;
    const write = () => {
      // Two rows in one transaction: a state that was holds both or neither.
      writer.transaction(() => {
        add.run(count, 1);
        add.run(count, 2);
      })();
      count++;
      if (isOn) setImmediate(write);
    };
    write();
    const into = join(test.folder, 'copy.sqlite');
    for (let round = 0; round < many(25, 100); round++) {
      const before = count;
      const { fault, bytes } = await backUp({ file, into });
      expect(fault).to.equal(null);
      expect(bytes).to.be.above(0);
      const copy = new Database(into, { readonly: true });
      const { rows, groups } = copy
        .prepare('select count(*) as rows, count(distinct a) as groups from counted')
        .get() as { rows: number; groups: number };
      copy.close();
      expect(rows).to.equal(2 * groups);
      expect(groups).to.be.within(before, count);
    }
    isOn = false;
    await new Promise((resolve) => setTimeout(resolve, 20));
    writer.exec('drop table counted');
    writer.close();
  });

  it('are made, listed, taken along and taken back from the screen, with one more made before', async () => {
    const made = (await go<Backup>('backups', 'POST')).body;
    expect(made).to.include({ reason: 'byHand', fault: null });
    await createProduct(test.house, { name: 'After the backup' });
    const names = async () => (await go<RangeData>('range', 'GET')).body.rows.map(({ name }) => name);
    expect(await names()).to.include('After the backup');
    const back = await go<Backup>('restore', 'POST', { params: { id: made.id } });
    expect([back.status, back.body.reason]).to.deep.equal([200, 'beforeRestore']);
    expect(await names()).to.not.include('After the backup');
    await go('restore', 'POST', { params: { id: back.body.id } });
    expect(await names()).to.include('After the backup');
    const { backups, lastGood, isOld } = (await go<BackupsData>('backups', 'GET')).body;
    expect(backups.map(({ reason }) => reason)).to.include.members(['byHand', 'beforeRestore']);
    expect([isOld, lastGood]).to.deep.equal([false, backups[0]!.at]);
    const bytes = (await go<ArrayBuffer>('file', 'GET', { params: { id: made.id } })).body;
    expect(Buffer.from(bytes).subarray(0, 15).toString()).to.equal('SQLite format 3');
    for (const id of ['none', '../proportia', '..%2fproportia'])
      expect((await go('restore', 'POST', { params: { id } })).status).to.equal(404);
  });

  it('are copied into another folder, and what goes wrong there is told and stops nothing', async () => {
    const copyTo = join(test.folder, 'stick');
    const { revision } = (await go<BackupsData>('backups', 'GET')).body;
    const body = { revision, everyHours: 2, copyTo };
    // Folders are never made anywhere else.
    for (const wrong of [copyTo, 'stick', join(test.folder, DATABASE_FILE)])
      expect((await go('backups', 'PUT', { body: { ...body, copyTo: wrong } })).status).to.equal(422);
    mkdirSync(copyTo);
    const put = await go('backups', 'PUT', { body });
    expect(put.status).to.equal(200);
    const made = (await go<Backup>('backups', 'POST')).body;
    expect(readdirSync(copyTo)).to.deep.equal([`proportia-${made.id}.sqlite`]);
    expect(faultOf(join(copyTo, `proportia-${made.id}.sqlite`))).to.equal(null);
    rmSync(copyTo, { recursive: true });
    expect((await go<Backup>('backups', 'POST')).status).to.equal(201);
    expect((await go<BackupsData>('backups', 'GET')).body.copyFault).to.contain('did not succeed');
    expect(await trouble()).to.contain('did not succeed');
    mkdirSync(copyTo);
    await go('backups', 'POST');
    expect(await trouble()).to.equal(null);
    expect((await go('backups', 'PUT', { body: { ...body, everyHours: 0 } })).status).to.equal(422);
  });

  it('that cannot be made are told of until one can', async () => {
    const right = process.env.PROPORTIA_DATA;
    const empty = mkdtempSync(join(tmpdir(), 'proportia-'));
    process.env.PROPORTIA_DATA = empty;
    const made = (await import('../../src/server/services/house/backups')).makeBackup(test.db, 'byHand');
    expect(await made.catch(() => null)).to.equal(null);
    process.env.PROPORTIA_DATA = right;
    expect(readdirSync(join(empty, 'backups'))).to.deep.equal([]);
    rmSync(empty, { recursive: true });
    expect(await trouble()).to.contain('could not be made');
    expect((await go<Backup>('backups', 'POST')).status).to.equal(201);
    expect(await trouble()).to.equal(null);
  });

  it('that were damaged since are refused, and the last good one is known to whoever cannot start', async () => {
    const { backups } = (await go<BackupsData>('backups', 'GET')).body;
    const [newest, next] = backups;
    const folder = join(test.folder, 'backups');
    noteBackup(folder, { ...newest!, fault: 'Torn.' });
    expect(await trouble()).to.contain('does not hold together');
    for (const one of backups) noteBackup(folder, { ...one, at: '2026-11-20T08:00:00.000Z' });
    expect(await trouble()).to.contain('2026-11-20');
    for (const one of backups) noteBackup(folder, one);
    const file = join(folder, `${newest!.id}.sqlite`);
    truncateSync(file, 5000);
    const refused = await go<{ errors: { code: string }[] }>('restore', 'POST', {
      params: { id: newest!.id },
    });
    expect([refused.status, refused.body.errors[0]!.code]).to.deep.equal([422, 'damaged']);
    expect(await lastGoodBackup(test.folder)).to.not.equal(newest!.id);
    const empty = mkdtempSync(join(tmpdir(), 'proportia-'));
    expect(await restoreAtStart(empty, next!.id)).to.contain('no backup');
    expect(await lastGoodBackup(empty)).to.equal(null);
    rmSync(empty, { recursive: true });
  });
});

describe('going back to a backup', () => {
  const test = useDemo();
  const folder = () => join(test.folder, 'backups');
  const make = async () => (await go<Backup>('backups', 'POST')).body;
  const restore = (id: string) =>
    go<Backup & { errors: { code: string; message: string }[] }>('restore', 'POST', { params: { id } });
  const reasons = async () => (await go<BackupsData>('backups', 'GET')).body.backups;
  const names = async () => (await go<RangeData>('range', 'GET')).body.rows.map(({ name }) => name);
  /** A backup whose file was changed by another program, with a note that says so of it. */
  const changed = async (change: (db: Database.Database) => void) => {
    const made = await make();
    const file = join(folder(), `${made.id}.sqlite`);
    const db = new Database(file);
    change(db);
    db.close();
    const sha256 = createHash('sha256').update(readFileSync(file)).digest('hex');
    noteBackup(folder(), { ...made, sha256 });
    return made.id;
  };

  it('made before an earlier going back keeps that backup, though the newest five alone are kept of its kind', async () => {
    const first = await make();
    const before: string[] = [];
    for (let round = 0; round < 5; round++) before.push((await restore(first.id)).body.id);
    const oldest = before[0]!;
    expect((await restore(oldest)).status).to.equal(200);
    expect((await reasons()).map(({ id }) => id)).to.include(oldest);
  });

  it('of a newer make, without a table, or with something that runs, is refused, and nothing is touched', async () => {
    // The house as it is now: an earlier going back put another file in its place.
    await go('products', 'POST', { body: { name: 'Still here' } });
    const cases: [(db: Database.Database) => void, RegExp][] = [
      [
        (db) =>
          db.exec("insert into knex_migrations (name, batch, migration_time) values ('099-later', 9, 0)"),
        /newer/,
      ],
      [(db) => db.exec('drop table store'), /store|refer|no such/],
      [(db) => db.exec('drop table tasks'), /tasks/],
      [
        (db) => db.exec('create trigger evil after insert on settings begin delete from products; end'),
        /trigger evil/,
      ],
      [(db) => db.exec('create view evil as select * from products'), /view evil/],
    ];
    for (const [change, words] of cases) {
      const { status, body } = await restore(await changed(change));
      expect([status, body.errors?.[0]?.code], String(words)).to.deep.equal([422, 'damaged']);
      expect(body.errors[0]!.message).to.match(words);
    }
    expect(await names()).to.include('Still here');
    expect(existsSync(join(test.folder, 'restoring'))).to.equal(false);
  });

  it('is done one at a time, and says so', async () => {
    const made = await make();
    const answers = await Promise.all([restore(made.id), restore(made.id), restore(made.id)]);
    expect(answers.map(({ status }) => status).sort()).to.deep.equal([200, 429, 429]);
    expect(answers.find(({ status }) => status === 429)!.body.errors[0]!.code).to.equal('busy');
    expect((await restore(made.id)).status).to.equal(200);
  });

  it('leaves the one or the other, whole, beside what was there; a folder with traces begins no empty house', async () => {
    const alone = mkdtempSync(join(tmpdir(), 'proportia-'));
    await (await openDatabase(alone)).destroy();
    const live = join(alone, DATABASE_FILE);
    const mark = (file: string, text: string) => {
      const db = new Database(file);
      db.prepare(
        "insert into settings (key, value, revision) values ('currency', ?, 1) on conflict (key) do update set value = excluded.value",
      ).run(text);
      db.close();
    };
    mark(live, '"CHF"');
    const at = join(alone, 'backups');
    mkdirSync(at, { recursive: true });
    const id = '2026-11-20T08-00-00-000Z-byHand';
    const { bytes, sha256 } = await backUp({ file: live, into: join(at, `${id}.sqlite`) });
    noteBackup(at, { id, at: '2026-11-20T08:00:00.000Z', reason: 'byHand', bytes, sha256, fault: null });
    mark(live, '"SEK"');
    const currency = (file: string) => {
      const db = new Database(file, { readonly: true });
      const value = db.prepare("select value from settings where key = 'currency'").pluck().get();
      db.close();
      return value;
    };
    expect(await restoreAtStart(alone, id)).to.equal(null);
    expect([currency(live), currency(`${live}.before`)]).to.deep.equal(['"CHF"', '"SEK"']);
    rmSync(live);
    const fault = await openDatabase(alone).catch((error: { kind: string }) => error);
    expect(fault).to.include({ kind: 'missing' });
    expect(existsSync(live)).to.equal(false);
    expect(await restoreAtStart(alone, id)).to.equal(null);
    expect(currency(live)).to.equal('"CHF"');
    rmSync(alone, { recursive: true });
  });

  it('keeps copies in the other folder by age and by reason, and leaves other files there alone', async () => {
    const copyTo = join(test.folder, 'stick');
    mkdirSync(copyTo);
    const old = (day: number, hour: number) =>
      `proportia-2026-10-${String(day).padStart(2, '0')}T${String(hour).padStart(2, '0')}-00-00-000Z-byTime.sqlite`;
    for (let day = 1; day <= 9; day++)
      for (const hour of [8, 9, 10]) writeFileSync(join(copyTo, old(day, hour)), 'x');
    for (const name of ['my own.sqlite', 'proportia-notes.txt']) writeFileSync(join(copyTo, name), 'mine');
    const { revision } = (await go<BackupsData>('backups', 'GET')).body;
    await go('backups', 'PUT', { body: { revision, everyHours: 1, copyTo } });
    await make();
    const left = readdirSync(copyTo);
    expect(left).to.include.members(['my own.sqlite', 'proportia-notes.txt']);
    // One a week is left of what is over two weeks old.
    expect(left.filter((name) => name.includes('2026-10')).length).to.be.within(1, 3);
  });
});

describe('a migration that does not succeed', () => {
  it('leaves the database as it was, with a backup made before', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'proportia-'));
    await (await openDatabase(folder)).destroy();
    const file = join(folder, DATABASE_FILE);
    const raw = new Database(file);
    // As the make before the last left it, but with something in the way of the last.
    raw.exec("delete from knex_migrations where name = '009-change-counts'");
    raw.exec("insert into settings (key, value, revision) values ('currency', '\"CHF\"', 1)");
    raw.close();
    const fault = await openDatabase(folder).catch((error: { kind: string }) => error);
    expect(fault).to.include({ kind: 'migration' });
    const after = new Database(file, { readonly: true });
    expect(after.prepare("select value from settings where key = 'currency'").get()).to.deep.equal({
      value: '"CHF"',
    });
    after.close();
    expect(readdirSync(join(folder, 'backups')).some((name) => name.includes('beforeMigration'))).to.equal(
      true,
    );
    expect(existsSync(`${file}.part`)).to.equal(false);
    rmSync(folder, { recursive: true });
  });
});
