/** What must not be lost, done twice, or broken for good: creations, keys, nulls, mixes, phrases. */
import type { APIRoute } from 'astro';
import { expect } from 'chai';
import { findClaims } from '../../src/core/claims/read';
import { claimReader } from '../../src/rulebook/claims';
import { isLoopback, refusal } from '../../src/server/front/origin';
import { cupboardEntry } from '../../src/server/store/materials';
import { rangeData } from '../../src/server/services/range/range';
import { createProduct, putAway, discardProduct } from '../../src/server/services/worktable/products';
import { snapshotOf } from '../../src/server/store/snapshot';
import { call, sending } from './call';
import { DAY, useDemo } from './database';

type Routes = Promise<{ [method: string]: APIRoute }>;
const ROUTES = {
  products: () => import('../../src/pages/api/v1/products/index') as never as Routes,
  duplicate: () => import('../../src/pages/api/v1/products/[id]/duplicate') as never as Routes,
  issued: () => import('../../src/pages/api/v1/products/[id]/issued') as never as Routes,
  wrap: () => import('../../src/pages/api/v1/products/[id]/wrap') as never as Routes,
  materials: () => import('../../src/pages/api/v1/materials/index') as never as Routes,
  lots: () => import('../../src/pages/api/v1/materials/[id]/lots/index') as never as Routes,
  papers: () => import('../../src/pages/api/v1/materials/[id]/papers') as never as Routes,
  mixes: () => import('../../src/pages/api/v1/mixes/index') as never as Routes,
  phrases: () => import('../../src/pages/api/v1/phrases') as never as Routes,
  maker: () => import('../../src/pages/api/v1/maker') as never as Routes,
};

interface Answered {
  id?: string;
  material?: { id: string };
  lots?: { id: string }[];
  errors?: { path: string; code: string }[];
  stale?: { revision: number };
  revision?: number;
}

async function ask(
  route: keyof typeof ROUTES,
  method: string,
  body: unknown,
  { params = {}, key }: { params?: Record<string, string>; key?: string } = {},
) {
  const init = sending(JSON.stringify(body));
  const headers = { ...init.headers, ...(key === undefined ? {} : { 'idempotency-key': key }) };
  const { status, body: told } = await call(ROUTES[route](), method, '/', { ...init, headers }, params);
  return { status, body: told as unknown as Answered };
}

const read = async (route: keyof typeof ROUTES, params: Record<string, string>) =>
  (await call(ROUTES[route](), 'GET', '/', {}, params)).body as Record<string, unknown>;

const CERTIFICATE = {
  type: 'certificate',
  number: 'X-1',
  issuedOn: '2026-01-01',
  issuer: 'X',
  category: '9',
};
const LOT = { supplier: '', code: 'A 1', receivedOn: '2026-01-01', quantityG: 10, leftG: 5 };

describe('what is made', () => {
  const test = useDemo();
  const counted = async (table: string) =>
    ((await test.db(table).count({ count: '*' })) as [{ count: number }])[0].count;

  it('under one name at the same moment is all there, each under an id of its own', async () => {
    const twenty = Array.from({ length: 20 }, (_, index) => index);
    const [bars, mixes, materials, lots] = await Promise.all([
      Promise.all(twenty.map(() => ask('products', 'POST', { name: 'Same' }))),
      Promise.all(
        twenty.map(() => ask('mixes', 'POST', { name: 'Same', parts: [{ material: 'olive', parts: 1 }] })),
      ),
      Promise.all(twenty.map(() => ask('materials', 'POST', { material: { name: 'Same', kind: 'clay' } }))),
      Promise.all(twenty.map(() => ask('lots', 'POST', LOT, { params: { id: 'kaolin' } }))),
    ]);
    const ids = [
      ...bars.map(({ body }) => body.id),
      ...[...mixes, ...materials].map(({ body }) => body.material!.id),
    ];
    expect([...bars, ...mixes, ...materials, ...lots].map(({ status }) => status)).to.deep.equal(
      Array(80).fill(201),
    );
    expect(new Set(ids.slice(0, 20)).size).to.equal(20);
    expect(new Set(ids.slice(20)).size).to.equal(40);
    const found = await test.db('materials').where('name', 'Same');
    expect(found).to.have.length(40);
    expect(
      (await cupboardEntry(test.house, 'kaolin')).lots.filter(({ code }) => code === 'A 1'),
    ).to.have.length(20);
  });

  it('by a request that comes twice under one key is made once and answered the same', async () => {
    const params = { id: 'night-mail' };
    const cases = [
      ['products', { name: 'Twice' }, {}, 'products'],
      ['duplicate', { name: 'Twice over' }, params, 'products'],
      ['issued', { market: 'EU' }, params, 'issued_labels'],
      ['papers', { papers: [CERTIFICATE] }, { id: 'kaolin' }, 'documents'],
      ['materials', { material: { name: 'Twice', kind: 'clay' } }, {}, 'materials'],
      ['mixes', { name: 'Twice', parts: [{ material: 'olive', parts: 1 }] }, {}, 'materials'],
      ['lots', LOT, { id: 'olive' }, 'lots'],
    ] as const;
    for (const [route, body, at, table] of cases) {
      const before = await counted(table);
      const send = () => ask(route, 'POST', body, { params: at, key: `key-${route}` });
      const [one, two] = await Promise.all([send(), send()]);
      expect([one.status, two.status], route).to.deep.equal([201, 201]);
      expect(two.body, route).to.deep.equal(one.body);
      expect(await counted(table), route).to.equal(before + 1);
      const other = await ask(
        route === 'lots' ? 'mixes' : 'lots',
        'POST',
        route === 'lots' ? cases[5][1] : LOT,
        {
          params: { id: 'olive' },
          key: `key-${route}`,
        },
      );
      expect(other.status, route).to.equal(409);
    }
    expect((await ask('products', 'POST', { name: 'x' }, { key: 'no key' })).status).to.equal(422);
  });

  it('belongs to what is there: an unknown paper of the inbox, a revision that does not exist', async () => {
    const before = await counted('documents');
    const body = { papers: [CERTIFICATE], inbox: 'no-such-paper' };
    const filed = await ask('papers', 'POST', body, { params: { id: 'kaolin' } });
    expect([filed.status, filed.body.errors![0]!.path]).to.deep.equal([404, 'inbox']);
    expect(await counted('documents')).to.equal(before);
    const bar = await createProduct(test.house, { name: 'Unwrapped' });
    const { wrap } = (await read('wrap', { id: bar.id })).stored as {
      wrap: object;
    };
    const params = { id: bar.id };
    const ahead = await ask('wrap', 'PUT', { revision: 7, wrap }, { params });
    expect([ahead.status, ahead.body.stale!.revision]).to.deep.equal([409, 0]);
    expect((await ask('wrap', 'PUT', { revision: 0, wrap }, { params })).status).to.equal(200);
    expect((await ask('wrap', 'PUT', { revision: 0, wrap }, { params })).status).to.equal(409);
    const maker = { name: 'Signalbox Soap', addressLines: ['The Box'] };
    expect((await ask('maker', 'PUT', { ...maker, revision: 1 })).body.revision).to.equal(2);
    expect((await ask('maker', 'PUT', { ...maker, revision: 1 })).status).to.equal(409);
  });

  it('can be put away and brought back; a bar that was sold or labelled is never deleted', async () => {
    const names = async (putAway: boolean) =>
      (await rangeData(test.house)).rows
        .filter(({ name, putAwayOn }) => name.startsWith('Branch') && (putAwayOn !== null) === putAway)
        .map(({ id }) => id);
    await putAway(test.house, 'branch-line', true);
    expect([await names(false), await names(true)]).to.deep.equal([[], ['branch-line']]);
    await putAway(test.house, 'branch-line', false);
    expect(await names(false)).to.deep.equal(['branch-line']);
    const refused = await discardProduct(test.house, 'waiting-room').catch(
      (fault: { status: number }) => fault.status,
    );
    expect(refused).to.equal(422);
    const bar = await createProduct(test.house, { name: 'Never sold' });
    await discardProduct(test.house, bar.id);
    expect(await test.db('products').where('id', bar.id).first()).to.equal(undefined);
    expect(await test.db('product_materials').where('product_id', bar.id).first()).to.equal(undefined);
  });
});

describe('what is kept', () => {
  const test = useDemo();

  it('is what the door declares: nothing more, and no null where something has to be', async () => {
    const wrapAsked = (await read('wrap', { id: 'first-light' })).stored as {
      revision: number;
      wrap: Record<string, unknown>;
    };
    const { durability: _, netMassG: __, ...bare } = wrapAsked.wrap;
    const params = { id: 'first-light' };
    const sent = {
      revision: wrapAsked.revision,
      wrap: { ...bare, extra: 'x', identity: { en: 'Soap', xx: 'y' } },
    };
    expect((await ask('wrap', 'PUT', sent, { params })).status).to.equal(200);
    const kept = JSON.parse(
      ((await test.db('wraps').where('product_id', 'first-light').first('body')) as { body: string }).body,
    ) as Record<string, unknown>;
    expect(kept).to.deep.include({ durability: null, netMassG: null, identity: { en: 'Soap' } });
    expect(kept).to.not.have.property('extra');
    const notText = { revision: wrapAsked.revision + 1, wrap: { ...kept, use: { en: 5 } } };
    expect((await ask('wrap', 'PUT', notText, { params })).body.errors![0]!.path).to.equal('wrap.use.en');

    const papers = [{ ...CERTIFICATE, maxPct: null, evil: 1, limits: null }];
    expect((await ask('papers', 'POST', { papers }, { params: { id: 'sweet-orange-oil' } })).status).to.equal(
      201,
    );
    const { body } = (await test.db('documents').where('number', 'X-1').first('body')) as { body: string };
    expect(Object.keys(JSON.parse(body) as object)).to.not.include.members(['maxPct', 'evil', 'limits']);
    const { rows } = await rangeData(test.house);
    expect(rows.find(({ id }) => id === 'first-light')!.verdict).to.be.a('string');
    await test.db('documents').where('number', 'X-1').delete();
  });

  it('holds no control characters, lone halves of letters, endless lists or endless texts', async () => {
    const post = (text: string) => ask('products', 'POST', { name: text });
    const name = async (text: string) => (await post(text)).body.errors?.[0]?.code;
    for (const text of ['a\u0000b', '\ud800', 'a\nb']) expect(await name(text)).to.equal('characters');
    for (const text of ['x'.repeat(121), ' ']) expect(await name(text)).to.equal('length');
    expect(await name('Café 🧼')).to.equal(undefined);
    // Marks that pasting brings and nobody sees are left out.
    const farmer = 'שלום\u200f 👩\u200d🌾';
    const said = await Promise.all(['\u202e\u200b', 'Night\u202e Goods\u2069', farmer].map(name));
    expect(said).to.deep.equal(['length', undefined, undefined]);
    expect(await test.db('products').pluck('name')).to.include.members(['Night Goods', farmer]);
    const inci = Array.from({ length: 501 }, () => ({ name: 'x', sharePct: 0 }));
    const posted = await ask('materials', 'POST', { material: { name: 'x', kind: 'clay', inci } });
    expect(posted.body.errors![0]).to.include({ path: 'material.inci', code: 'too-many' });
    const many = `{"phrases":[${'1,'.repeat(70_000)}1]}`;
    const told = await call(ROUTES.phrases(), 'PUT', '/', sending(many));
    expect(told.status).to.equal(422);
  });

  it('a mix holds every material once; mixes of mixes of mixes are found in no time', async () => {
    const twice = { name: 'Twice', parts: [PART, PART] };
    expect((await ask('mixes', 'POST', twice)).body.errors![0]!.code).to.equal('twice');
    let parts = Array.from({ length: 30 }, (_, index) => index).map(() => 'olive');
    for (let level = 0; level < 4; level++) {
      const made: string[] = [];
      for (let index = 0; index < 12; index++) {
        const mix = {
          name: `Level ${level} ${index}`,
          parts: [...new Set(parts)].map((material, at) => ({ material, parts: at + 1 })),
        };
        made.push((await ask('mixes', 'POST', mix)).body.material!.id);
      }
      parts = made;
    }
    // Without remembering what was found, 12 mixes on 4 levels are 20,000 searches; a fifth level would be 250,000.
    const snapshot = await snapshotOf(test.db, DAY);
    expect(snapshot.material(parts[0]!)!.madeOf).to.deep.equal([
      { material: 'olive', kind: 'fat', sharePct: 100 },
    ]);
  });
  const PART = { material: 'olive', parts: 1 };

  it('a phrase of the maker’s own has words and few gaps, and whatever is kept is found in bounded steps', async () => {
    const phrase = async (say: string) =>
      (await ask('phrases', 'PUT', { revision: 99, phrases: [{ say, class: 'cosmetic', language: 'en' }] }))
        .status;
    expect(await phrase('.. .. .. ..')).to.equal(422);
    expect(await phrase('a .. b .. c .. d .. e')).to.equal(422);
    expect(await phrase('a .. b .. c')).to.equal(409);
    for (const wrong of ['(a) (b) (c) (d) (e) f', '(a) (b)', 'a|b|c|d|e|f|g|h|i|j|k|l|m'])
      expect(await phrase(wrong), wrong).to.equal(422);
    expect(await phrase('(very) glow|shine*')).to.equal(409);
    const say = `glow ${'.. '.repeat(12)}never`;
    const reader = claimReader([{ say, class: 'cosmetic', language: 'en' }]);
    const found = findClaims('glow '.repeat(1500), reader);
    expect(found.filter(({ phrase: id }) => id.startsWith('own'))).to.deep.equal([]);
  });
});

describe('a snapshot of the store', () => {
  const test = useDemo();

  it('is one object until something it holds changes, and the same content has the same name', async () => {
    const first = await snapshotOf(test.db, DAY);
    await createProduct(test.house, { name: 'Changes no ground' });
    expect(await snapshotOf(test.db, DAY)).to.equal(first);
    const row = (await test.db('materials').where('id', 'olive').first()) as { supplier: string };
    await test.db('materials').where('id', 'olive').update({ supplier: 'Elsewhere' });
    const second = await snapshotOf(test.db, DAY);
    expect(second.id).to.not.equal(first.id);
    await test.db('materials').where('id', 'olive').update({ supplier: row.supplier });
    expect((await snapshotOf(test.db, DAY)).id).to.equal(first.id);
    expect((await snapshotOf(test.db, '2027-01-01')).id).to.not.equal(first.id);
  });

  it('asks for the same handful of statements, however many bars there are', async () => {
    const statements = async (work: () => Promise<unknown>) => {
      let count = 0;
      const note = () => count++;
      test.db.on('query', note);
      await work();
      test.db.removeListener('query', note);
      return count;
    };
    const range = () => statements(() => rangeData(test.house));
    await range();
    const few = await range();
    for (let index = 0; index < 30; index++) await createProduct(test.house, { name: `Bar ${index}` });
    await range();
    expect(await range()).to.equal(few);
    expect(few).to.be.at.most(8);
  });
});

describe('verdicts that cannot be kept', () => {
  const test = useDemo();

  it('are shown all the same: a full disk breaks no page', async () => {
    await test.db.raw(
      "create trigger no_room before insert on overviews begin select raise(abort, 'no room'); end",
    );
    const { rows } = await rangeData(test.house);
    expect(rows.find(({ id }) => id === 'lamp-room')!.verdict).to.equal('over');
    expect(await test.db('overviews').first()).to.equal(undefined);
  });
});

describe('who is answered', () => {
  const asked = {
    host: '127.0.0.1:4321',
    origin: undefined,
    site: undefined,
    mode: undefined,
    method: 'GET',
  };

  it('is this machine by its own names, and names that were set', () => {
    for (const host of ['localhost', 'localhost:80', '127.0.0.1:4321', '[::1]:4321', '127.0.0.2'])
      expect(refusal({ ...asked, host }, []), host).to.equal(null);
    for (const host of [
      'soap.example',
      'localhost.soap.example',
      '127.0.0.1.soap.example',
      '',
      undefined,
      '[::2]',
      'a b',
    ])
      expect(refusal({ ...asked, host }, []), host).to.be.a('string');
    expect(refusal({ ...asked, host: 'box.lan:4321' }, ['box.lan'])).to.equal(null);
    expect(['127.0.0.1', '::1', 'localhost', '127.9.9.9'].every(isLoopback)).to.equal(true);
    expect(['0.0.0.0', '::', '192.168.0.4', 'box.lan'].some(isLoopback)).to.equal(false);
  });

  it('is never a page of another site, also one of this machine on another port', () => {
    for (const origin of ['http://soap.example', 'http://127.0.0.1:1', 'http://localhost:4321', 'null'])
      expect(refusal({ ...asked, origin }, []), origin).to.be.a('string');
    expect(refusal({ ...asked, origin: 'http://127.0.0.1:4321' }, [])).to.equal(null);
    expect(refusal({ ...asked, site: 'same-site', mode: 'cors' }, [])).to.be.a('string');
    expect(refusal({ ...asked, site: 'cross-site', mode: 'navigate', method: 'POST' }, [])).to.be.a('string');
    expect(refusal({ ...asked, site: 'cross-site', mode: 'navigate' }, [])).to.equal(null);
  });
});
