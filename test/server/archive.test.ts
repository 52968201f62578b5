/** Everything out and in again: equal on an empty folder, previewed elsewhere, refused where it does not hold together. */
import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Ajv } from 'ajv';
import Database from 'better-sqlite3';
import { expect } from 'chai';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { Knex } from 'knex';
import type { ArchivePreview } from '../../src/core/records/house';
import { TABLES, type Manifest } from '../../src/server/archive/tables';
import { openDatabase } from '../../src/server/database';
import { addToInbox } from '../../src/server/repositories/inbox';
import { call, caller } from './call';
import { closeServed, useDemo } from './database';

const ROUTES = {
  archive: () => import('../../src/pages/api/v1/archive'),
  waiting: () => import('../../src/pages/api/v1/archive/incoming/[id]'),
  take: () => import('../../src/pages/api/v1/archive/incoming/[id]/take'),
  bar: () => import('../../src/pages/api/v1/products/[id]/archive'),
  issued: () => import('../../src/pages/api/v1/products/[id]/issued'),
  product: () => import('../../src/pages/api/v1/products/[id]'),
};
const go = caller(ROUTES);
const send = async (zip: Uint8Array) => {
  const route = import('../../src/pages/api/v1/archive/incoming');
  const { status, body } = await call(route as never, 'POST', '/x', { body: zip as BodyInit });
  return {
    status,
    body: body as unknown as ArchivePreview & { errors: { code: string; message: string }[] },
  };
};
const out = async (route: 'archive' | 'bar', params = {}) =>
  new Uint8Array((await go<ArrayBuffer>(route, 'GET', { params })).body);
const states = ({ things }: ArchivePreview) => {
  const count = { new: 0, same: 0, different: 0 };
  for (const { state } of things) count[state]++;
  return count;
};

/** Every row of every table that an archive holds. */
async function everything(db: Knex): Promise<Record<string, unknown[]>> {
  const rows: Record<string, unknown[]> = {};
  for (const { name } of TABLES) rows[name] = (await db(name).orderBy('rowid')) as unknown[];
  rows.settings = (rows.settings as { key: string }[]).filter(
    ({ key }) => !['calendarKey', 'backups', 'demo'].includes(key),
  );
  return rows;
}

/** An archive with some of its files changed, its sums set right again where wanted. */
function altered(
  zip: Uint8Array,
  change: (files: Record<string, Uint8Array>) => void,
  isHonest = true,
): Uint8Array {
  const files = unzipSync(zip);
  change(files);
  if (isHonest) {
    const manifest = JSON.parse(strFromU8(files['manifest.json']!)) as Manifest;
    for (const one of manifest.files)
      if (files[one.path]) one.sha256 = createHash('sha256').update(files[one.path]!).digest('hex');
    files['manifest.json'] = strToU8(JSON.stringify(manifest));
  }
  return zipSync(files);
}

describe('an archive', () => {
  const test = useDemo();
  const empty: string[] = [];
  let zip: Uint8Array;

  /** The endpoints work with another, empty folder from here on. */
  const elsewhere = async () => {
    await closeServed();
    const folder = mkdtempSync(join(tmpdir(), 'proportia-'));
    empty.push(folder);
    process.env.PROPORTIA_DATA = folder;
    return openDatabase(folder);
  };
  before(async () => {
    const letter = { id: 'letter', fileName: '=cmd|letter.pdf', mime: 'application/pdf' };
    const entry = { ...letter, receivedOn: '2026-11-24', filedOn: null };
    await addToInbox(test.db, entry, new Uint8Array([1, 2, 3, 255]));
    await go('issued', 'POST', { params: { id: 'first-light' }, body: { market: 'EU' } });
    zip = await out('archive');
  });
  after(() => empty.forEach((folder) => rmSync(folder, { recursive: true })));

  it('holds JSON against its schemas, lists for a spreadsheet, papers, labels and the database, each with its sum', () => {
    const files = unzipSync(zip);
    const manifest = JSON.parse(strFromU8(files['manifest.json']!)) as Manifest;
    expect(Object.keys(files).sort()).to.deep.equal(
      ['manifest.json', ...manifest.files.map(({ path }) => path)].sort(),
    );
    for (const { path, bytes, sha256 } of manifest.files) {
      expect(files[path]!.byteLength, path).to.equal(bytes);
      expect(createHash('sha256').update(files[path]!).digest('hex')).to.equal(sha256);
      expect(path).to.match(/^(?:[\w-]+\/)?[\w.-]+$/);
    }
    const ajv = new Ajv({ strict: false });
    for (const name of manifest.tables) {
      const { $schema: _, ...schema } = JSON.parse(
        strFromU8(files[`schema/${name}.schema.json`]!),
      ) as object & { $schema: string };
      const isValid = ajv.compile(schema);
      expect(
        isValid(JSON.parse(strFromU8(files[`data/${name}.json`]!))),
        JSON.stringify(isValid.errors),
      ).to.equal(true);
    }
    expect(Object.keys(files)).to.include.members([
      'papers/00001.pdf',
      'labels/00001.pdf',
      'proportia.sqlite',
    ]);
    const papers = Object.keys(files).filter((path) => path.startsWith('papers/'));
    expect(papers.some((path) => String(files[path]) === '1,2,3,255')).to.equal(true);
    expect(strFromU8(files['lists/bars.csv']!)).to.contain('Lamp Room');
    // Whatever lies beside the database as a file is not in it a second time.
    const folder = mkdtempSync(join(tmpdir(), 'proportia-'));
    empty.push(folder);
    writeFileSync(join(folder, 'out.sqlite'), files['proportia.sqlite']!);
    const within = new Database(join(folder, 'out.sqlite'), { readonly: true });
    const bytesIn = (query: string) => within.prepare(query).pluck().get();
    expect(bytesIn('select sum(length(bytes)) from inbox')).to.equal(0);
    expect(bytesIn('select sum(length(pdf)) from issued_labels')).to.equal(0);
    expect(bytesIn('select count(*) from inbox')).to.equal(papers.length);
    expect(within.pragma('integrity_check', { simple: true })).to.equal('ok');
    within.close();
    for (const own of ['calendarKey', '"backups"', '"demo"'])
      expect(strFromU8(files['data/settings.json']!)).to.not.contain(own);
  });

  it('taken in on the folder it came from is the same throughout, and changes nothing', async () => {
    const { status, body } = await send(zip);
    expect(status).to.equal(201);
    expect(states(body)).to.deep.include({ new: 0, different: 0 });
    await go('waiting', 'DELETE', { params: { id: body.id } });
    expect((await go('waiting', 'GET', { params: { id: body.id } })).status).to.equal(404);
  });

  it('taken in on an empty folder is equal, row by row and byte by byte', async () => {
    const wanted = await everything(test.db);
    const db = await elsewhere();
    const { body } = await send(zip);
    expect(states(body)).to.deep.include({ same: 0 });
    const { body: taken } = await go<{ taken: number; left: number }>('take', 'POST', {
      params: { id: body.id },
      body: { which: 'new' },
    });
    expect(taken, JSON.stringify(taken)).to.include({ taken: states(body).new });
    const found = await everything(db);
    for (const name of Object.keys(wanted)) expect(found[name], name).to.deep.equal(wanted[name]);
    expect((await db.raw('pragma foreign_key_check')) as unknown[]).to.deep.equal([]);
    // What was taken stands for itself: the same goes out again.
    const again = unzipSync(await out('archive'));
    for (const [path, bytes] of Object.entries(unzipSync(zip)))
      if (path.startsWith('data/')) expect(strFromU8(again[path]!), path).to.equal(strFromU8(bytes));
    await db.destroy();
  });

  it('of a house that went on shows what differs, takes the new alone, or all but what was really made', async () => {
    const db = await elsewhere();
    await go('take', 'POST', { params: { id: (await send(zip)).body.id }, body: { which: 'new' } });
    await db('products').where('id', 'lamp-room').update({ name: 'Lamp Room, mine' });
    await db('materials').insert({
      id: 'mine',
      name: 'Mine',
      kind: 'other',
      body: '{"id":"mine","name":"Mine","kind":"other"}',
    });
    await db('batches').where('id', 'wr-261103').update({ code: 'WR-MINE' });
    await db('tasks').delete();
    await db('formula_versions').where('product_id', 'branch-line').delete();
    const { body } = await send(zip);
    const differing = body.things.filter(({ state }) => state === 'different').map(({ id }) => id);
    expect(differing).to.have.members(['lamp-room', 'wr-261103', 'branch-line']);
    const take = async (which: string) =>
      (
        await go<{ taken: number; left: number }>('take', 'POST', {
          params: { id: (await send(zip)).body.id },
          body: { which },
        })
      ).body;
    expect(await take('new')).to.include({ left: 3 });
    const name = async () =>
      ((await db('products').where('id', 'lamp-room').first('name')) as { name: string }).name;
    expect(await name()).to.equal('Lamp Room, mine');
    expect(await take('all')).to.deep.equal({ taken: 2, left: 1 });
    expect(await name()).to.equal('Lamp Room');
    expect(await db('materials').where('id', 'mine').first()).to.not.equal(undefined);
    expect((await db('batches').where('id', 'wr-261103').first('code')) as unknown).to.deep.equal({
      code: 'WR-MINE',
    });
    expect(await db('formula_versions').where('product_id', 'branch-line').first()).to.not.equal(undefined);
    await db.destroy();
  });

  it('of one bar brings the materials and papers it needs, and nothing else', async () => {
    process.env.PROPORTIA_DATA = test.folder;
    await closeServed();
    const one = await out('bar', { id: 'night-mail' });
    expect((await go('bar', 'GET', { params: { id: 'none' } })).status).to.equal(404);
    const db = await elsewhere();
    const { body } = await send(one);
    expect([body.of, body.title]).to.deep.equal(['bar', 'Night Mail']);
    await go('take', 'POST', { params: { id: body.id }, body: { which: 'new' } });
    expect((await db('products').select('id')) as unknown).to.deep.equal([{ id: 'night-mail' }]);
    expect(await db('documents').where('number', 'BA-1407').first()).to.not.equal(undefined);
    for (const table of ['lots', 'batches', 'settings', 'inbox', 'issued_labels'])
      expect(await db(table).first(), table).to.equal(undefined);
    expect((await go('product', 'GET', { params: { id: 'night-mail' } })).status).to.equal(200);
    expect(states((await send(one)).body)).to.deep.include({ new: 0, different: 0 });
    await db.destroy();
  });

  it('that does not hold together is refused in words, and nothing is taken', async () => {
    const db = await elsewhere();
    const put = (path: string, text: string) => (files: Record<string, Uint8Array>) => {
      files[path] = strToU8(text);
    };
    const edit = (path: string, from: RegExp, to: string) => (files: Record<string, Uint8Array>) => {
      files[path] = strToU8(strFromU8(files[path]!).replace(from, to));
    };
    const wrong: [Uint8Array, RegExp][] = [
      [strToU8('no zip'), /no ZIP/],
      [zip.slice(0, 5000), /no ZIP/],
      [zipSync({ 'a.txt': strToU8('x') }), /manifest/],
      [altered(zip, put('data/products.json', '[]'), false), /changed since/],
      [altered(zip, put('../evil', 'x')), /by the name/],
      [altered(zip, (files) => delete files['papers/00001.pdf']), /missing/],
      [altered(zip, put('data/products.json', '{}')), /no list/],
      [altered(zip, put('data/products.json', '[{"id":1}]')), /products/],
      [altered(zip, edit('data/products.json', /"id"/, '"evil"')), /not one of products/],
      [altered(zip, put('data/materials.json', '[]')), /refers to one that is missing/],
      [
        altered(zip, edit('data/formula_versions.json', /"lines":\s*\[/, '"lines": [7,')),
        /formula_versions.json, .*lines/,
      ],
      [
        altered(zip, edit('data/batch_events.json', /"type":\s*"started"/g, '"type": "nonsense"')),
        /cannot be followed|hold together|batch_events.json/,
      ],
      [altered(zip, edit('manifest.json', /"001-first-tables"/, '"099-later"')), /newer/],
    ];
    for (const [bytes, message] of wrong) {
      const { status, body } = await send(bytes);
      expect([status, body.errors?.[0]?.code], String(message)).to.deep.equal([422, 'no-archive']);
      expect(body.errors[0]!.message).to.match(message);
    }
    expect(await db('products').first()).to.equal(undefined);
    await db.destroy();
  });

  describe('of a stranger', () => {
    let one: Uint8Array;
    before(async () => {
      process.env.PROPORTIA_DATA = test.folder;
      await closeServed();
      one = await out('bar', { id: 'night-mail' });
    });
    const json = (files: Record<string, Uint8Array>, path: string) =>
      JSON.parse(strFromU8(files[path]!)) as Record<string, unknown>[];
    /** An archive with its manifest made to name everything that is in it. */
    const made = (of: Uint8Array, change: (files: Record<string, Uint8Array>) => void) => {
      const files = unzipSync(of);
      change(files);
      const manifest = JSON.parse(strFromU8(files['manifest.json']!)) as Manifest;
      delete files['manifest.json'];
      manifest.tables = Object.keys(files).flatMap((path) => /^data\/(.*)\.json$/.exec(path)?.[1] ?? []);
      manifest.files = Object.entries(files).map(([path, bytes]) => ({
        ...{ path, bytes: bytes.byteLength },
        sha256: createHash('sha256').update(bytes).digest('hex'),
      }));
      files['manifest.json'] = strToU8(JSON.stringify(manifest));
      return zipSync(files);
    };
    const refused = async (zipped: Uint8Array, words: RegExp) => {
      const { status, body } = await send(zipped);
      expect([status, body.errors?.[0]?.message], String(words)).to.satisfy(
        ([code, message]: [number, string]) => code === 422 && words.test(message),
      );
    };

    it('of one bar brings the tables of a bar alone', async () => {
      const settings = [
        { key: 'backups', value: { everyHours: 1, copyTo: '/tmp' }, revision: 1 },
        { key: 'demo', value: { bars: ['lamp-room'], materials: [], batches: [], papers: [] }, revision: 1 },
      ];
      const put = (files: Record<string, Uint8Array>) =>
        (files['data/settings.json'] = strToU8(JSON.stringify(settings)));
      await refused(made(one, put), /of one bar and brings settings/);
      const logos = (files: Record<string, Uint8Array>) => (files['data/logos.json'] = strToU8('[]'));
      await refused(made(one, logos), /brings logos/);
    });

    it('of a whole house changes nothing of how this one keeps itself', async () => {
      const db = await elsewhere();
      const attack = made(zip, (files) => {
        const rows = json(files, 'data/settings.json');
        rows.push(
          { key: 'backups', value: { everyHours: 1, copyTo: tmpdir() }, revision: 9 },
          { key: 'demo', value: { bars: ['lamp-room'] }, revision: 9 },
          { key: 'calendarKey', value: 'mine', revision: 9 },
        );
        files['data/settings.json'] = strToU8(JSON.stringify(rows));
      });
      const { status, body } = await send(attack);
      expect(status).to.equal(201);
      await go('take', 'POST', { params: { id: body.id }, body: { which: 'all' } });
      for (const key of ['backups', 'demo', 'calendarKey'])
        expect(await db('settings').where('key', key).first(), key).to.equal(undefined);
      await db.destroy();
    });

    it('is refused, with the row named, where any JSON of it is not what its door takes', async () => {
      const bent: [string, string, unknown][] = [
        ['settings', 'value', 7],
        ['settings', 'value', { markets: 'EU' }],
        ['products', 'body', { id: 'night-mail', name: 'Night Mail' }],
        ['products', 'body', []],
        ['wraps', 'body', {}],
        ['wraps', 'body', null],
        ['materials', 'mix', [{ material: 1 }]],
        ['documents', 'body', { type: 'certificate' }],
        ['lots', 'body', { quantityG: 'much' }],
        ['issued_labels', 'body', { content: {} }],
        ['batches', 'summary', { bars: 'many' }],
        ['batch_events', 'body', { type: 'weighed' }],
        ['tasks', 'body', { words: 5 }],
        ['changes', 'body', { kind: 'none' }],
        ['inbox', 'mime', 'text/html'],
        ['batch_photos', 'mime', 'text/html'],
      ];
      for (const [table, column, value] of bent) {
        let isThere = false;
        const bytes = made(zip, (files) => {
          const rows = json(files, `data/${table}.json`);
          isThere = rows.length > 0;
          if (isThere) rows.at(-1)![column] = value;
          files[`data/${table}.json`] = strToU8(JSON.stringify(rows));
        });
        if (isThere) await refused(bytes, new RegExp(`data/${table}\\.json, |${table}: `));
      }
    });

    it('that lies about its sizes, or holds too many files, is refused early', async () => {
      const lying = zipSync({ 'manifest.json': strToU8('x'.repeat(5_000_000)) });
      // The size stands at 22 of the local header and at 24 of the one in the table of contents.
      const view = new DataView(lying.buffer, lying.byteOffset);
      view.setUint32(22, 10, true);
      for (let at = 0; at < lying.length - 4; at++)
        if (view.getUint32(at, true) === 0x02014b50) view.setUint32(at + 24, 10, true);
      await refused(lying, /manifest/);
      const many = Object.fromEntries(
        Array.from({ length: 50_001 }, (_, at) => [`papers/${at}.txt`, strToU8('')]),
      );
      await refused(zipSync(many, { level: 0 }), /more than are taken/);
      const listed = made(one, () => undefined);
      const files = unzipSync(listed);
      const manifest = JSON.parse(strFromU8(files['manifest.json']!)) as Manifest;
      manifest.files = Array.from({ length: 100_000 }, () => manifest.files[0]!);
      files['manifest.json'] = strToU8(JSON.stringify(manifest));
      await refused(zipSync(files), /manifest/);
    });
  });

  it('of an earlier make, written in another way, comes in as well', async () => {
    const db = await elsewhere();
    const pretty = altered(zip, (files) => {
      for (const path of Object.keys(files).filter((one) => one.startsWith('data/')))
        files[path] = strToU8(JSON.stringify(JSON.parse(strFromU8(files[path]!)), null, 1));
    });
    const { status, body } = await send(pretty);
    expect([status, states(body).same]).to.deep.equal([201, 0]);
    await db.destroy();
  });
});
