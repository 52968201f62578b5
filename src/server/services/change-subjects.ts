/** What a change may touch: bars, kept versions, batches and issued labels, read piece by piece. */
import { setImmediate as soon } from 'node:timers/promises';
import type { Knex } from 'knex';
import type { Change, Hands, Subject } from '../../core/change/types';
import type { Market } from '../../core/formula/types';
import { groupBy } from '../../core/group';
import type { IssuedLabel } from '../../core/records/wrap';
import type { Product } from '../../core/records/product';
import type { ChangeSubject } from '../../workers/change-job';
import type { House } from '../house';
import { traceLot } from './trace';

/** Values in one statement. */
const AT_ONCE = 400;

interface BatchRow {
  id: string;
  code: string;
  product_id: string;
  name: string;
  state: string;
  left: number;
  sold: number;
  buyers: readonly string[];
  released: NonNullable<Subject['placedOn']>;
  version: number | null;
}

/** Of what was weighed all but the formula, read in one go: what is weighed may be long. */
type Facts = [number | null, string[] | null, Subject['placedOn'] | null, number | null];

/** Rows read at once: none keeps others waiting for long. */
const ROWS_AT_ONCE = 2000;

/** Every batch that was poured and not given up, without its formula. */
async function batchRows(db: Knex, onRead: () => void): Promise<BatchRow[]> {
  const ids: { id: string }[] = await db('batches')
    .whereNotNull('weighed')
    .whereNotIn('state', ['stopped', 'discarded'])
    .orderBy(['started_at', 'id'])
    .select('id');
  const all: BatchRow[] = [];
  for (let at = 0; at < ids.length; at += ROWS_AT_ONCE) {
    const some = JSON.stringify(ids.slice(at, at + ROWS_AT_ONCE).map(({ id }) => id));
    const rows = await db.raw<(BatchRow & { facts: string })[]>(
      `select b.id, b.code, b.product_id, p.name, b.state, json_extract(b.summary, '$.bars.left') as left,
              json_extract(b.weighed, '$.sold', '$.buyers', '$.releasedOn', '$.version') as facts
       from json_each(?) as wanted join batches as b on b.id = wanted.value join products as p on p.id = b.product_id
       order by wanted.key`,
      [some],
    );
    for (const { facts, ...row } of rows) {
      const [sold, buyers, released, version] = JSON.parse(facts) as Facts;
      all.push({ ...row, sold: sold ?? 0, buyers: buyers ?? [], released: released ?? {}, version });
    }
    onRead();
    await soon();
  }
  return all;
}

const CURING = ['poured', 'cut', 'curing'];

function handsOf(rows: readonly BatchRow[]): Hands {
  const sum = (of: (row: BatchRow) => number) => rows.reduce((total, row) => total + of(row), 0);
  const buyers = rows.flatMap((row) => row.buyers);
  return {
    curing: sum(({ state, left }) => (CURING.includes(state) ? left : 0)),
    inStock: sum(({ state, left }) => (CURING.includes(state) ? 0 : left)),
    sold: sum(({ sold }) => sold),
    buyers: new Set(buyers).size,
  };
}

interface Bar {
  id: string;
  product: Product;
  /** Put away, it is not made any more; what was poured and printed of it is still out there. */
  isAway: boolean;
}

async function bars(db: Knex): Promise<Map<string, Bar>> {
  const rows: { id: string; body: string; put_away_on: string | null }[] = await db('products')
    .select('id', 'body', 'put_away_on')
    .orderBy('position');
  return new Map(
    rows.map(({ id, body, put_away_on }) => [
      id,
      { id, product: JSON.parse(body) as Product, isAway: put_away_on !== null },
    ]),
  );
}

/** A subject whose formula is still to be read, and where it stands. */
interface Place {
  subject: Subject;
  from: 'working' | 'version' | 'batch' | 'issued';
  key: string;
}

const subjectOf = (
  { id, product }: Bar,
  more: Pick<Subject, 'what' | 'id' | 'name' | 'hands'> & Partial<Subject>,
): Subject => ({
  product: id,
  markets: product.markets,
  firstPlacedOn: product.firstPlacedOn,
  ...more,
});

/** Batches by product. */
type Batches = ReadonlyMap<string, BatchRow[]>;

function barPlaces(known: Map<string, Bar>, batches: Batches): Place[] {
  const made = [...known.values()].filter(({ isAway }) => !isAway);
  return made.map((bar) => ({
    from: 'working' as const,
    key: bar.id,
    subject: subjectOf(bar, {
      what: 'bar',
      id: bar.id,
      name: bar.product.name,
      hands: handsOf(batches.get(bar.id) ?? []),
    }),
  }));
}

async function versionPlaces(db: Knex, known: Map<string, Bar>, batches: Batches): Promise<Place[]> {
  const rows: { id: number; product_id: string; number: number; name: string }[] = await db(
    'formula_versions',
  )
    .whereNotNull('name')
    .orderBy(['product_id', 'number'])
    .select('id', 'product_id', 'number', 'name');
  return rows.flatMap(({ id: row, product_id, number, name }): Place[] => {
    const bar = known.get(product_id);
    if (!bar || bar.isAway) return [];
    const made = (batches.get(product_id) ?? []).filter(({ version }) => version === number);
    const id = `${product_id}/${number}`;
    const said = `${bar.product.name}, version ${number} “${name}”`;
    return [
      {
        from: 'version',
        key: String(row),
        subject: subjectOf(bar, { what: 'version', id, name: said, hands: handsOf(made) }),
      },
    ];
  });
}

function batchPlaces(known: Map<string, Bar>, rows: readonly BatchRow[]): Place[] {
  return rows.flatMap((row): Place[] => {
    const bar = known.get(row.product_id);
    if (!bar) return [];
    const placedOn = row.released;
    const sold = Object.keys(placedOn) as Market[];
    const markets = [...new Set([...bar.product.markets, ...sold])];
    const name = `${row.name} ${row.code}`;
    const subject = subjectOf(bar, { what: 'batch', id: row.id, name, hands: handsOf([row]), markets });
    return [{ from: 'batch', key: row.id, subject: { ...subject, placedOn } }];
  });
}

async function issuedPlaces(db: Knex, known: Map<string, Bar>, batches: Batches): Promise<Place[]> {
  const rows: {
    id: string;
    product_id: string;
    market: Market;
    issued_on: string;
    school: IssuedLabel['school'];
    code: string;
  }[] = await db.raw(
    `select id, product_id, market, issued_on, json_extract(body, '$.school') as school,
              json_extract(body, '$.batchCode') as code from issued_labels order by rowid`,
  );
  return rows.flatMap(({ id, product_id, market, issued_on, school, code }): Place[] => {
    const bar = known.get(product_id);
    if (!bar) return [];
    const made = (batches.get(product_id) ?? []).filter((row) => row.code === code);
    const released = made[0]?.released ?? {};
    const name = `${bar.product.name}, label of ${issued_on}`;
    const subject = subjectOf(bar, {
      what: 'issued',
      id,
      name,
      hands: handsOf(made),
      markets: [market],
      school,
    });
    const placedOn = released[market] ? { [market]: released[market] } : undefined;
    return [{ from: 'issued', key: id, subject: placedOn ? { ...subject, placedOn } : subject }];
  });
}

/** What a change may touch, before any formula is read; `onRead` hears that it goes on. */
export async function placesOf(
  house: House,
  change: Change,
  onRead: () => void = () => undefined,
): Promise<Place[]> {
  const { db } = house;
  const known = await bars(db);
  onRead();
  const rows = await batchRows(db, onRead);
  const batches = groupBy(rows, ({ product_id }) => product_id);
  if (change.kind === 'lot') {
    const traced = new Set((await traceLot(house, change.lot)).batches.map(({ id }) => id));
    return batchPlaces(
      known,
      rows.filter(({ id }) => traced.has(id)),
    );
  }
  const working = barPlaces(known, batches);
  if (change.kind === 'market')
    return working
      .filter(({ key }) => key === change.product)
      .map((place) => ({ ...place, subject: { ...place.subject, markets: [change.market] } }));
  if (change.kind === 'swap') {
    const holders: { product_id: string }[] = await db('product_materials')
      .where('material_id', change.from)
      .select('product_id');
    const holding = new Set(holders.map(({ product_id }) => product_id));
    return working.filter(
      ({ key }) => holding.has(key) && (!change.products || change.products.includes(key)),
    );
  }
  const all = [
    ...working,
    ...(await versionPlaces(db, known, batches)),
    ...batchPlaces(known, rows),
    ...(await issuedPlaces(db, known, batches)),
  ];
  // What is of one bar stands together: much of it has the same formula.
  return [...groupBy(all, ({ subject }) => subject.product).values()].flat();
}

type Texts = { key: string; formula: string }[];

/** The JSON texts of formulas, by where they stand. */
async function textsFrom(db: Knex, from: Place['from'], keys: readonly string[]): Promise<Texts> {
  switch (from) {
    case 'working':
      return db('formula_versions as v')
        .whereIn('v.product_id', keys)
        .whereRaw('v.number = (select max(number) from formula_versions where product_id = v.product_id)')
        .select({ key: 'v.product_id', formula: 'v.formula' });
    case 'version':
      return db('formula_versions').whereIn('id', keys.map(Number)).select({ key: 'id', formula: 'formula' });
    case 'batch':
      return db('batches')
        .whereIn('id', keys)
        .select({ key: 'id', formula: db.raw("json_extract(weighed, '$.formula')") });
    case 'issued':
      return db('issued_labels')
        .whereIn('id', keys)
        .select({ key: 'id', formula: db.raw("json_extract(body, '$.formula')") });
  }
}

/** Reads the formulas of some places; one that went since is left out. */
export async function readPlaces(db: Knex, places: readonly Place[]): Promise<ChangeSubject[]> {
  const texts = new Map<string, string>();
  for (const [from, some] of groupBy(places, (one) => one.from)) {
    const keys = some.map(({ key }) => key);
    for (let at = 0; at < keys.length; at += AT_ONCE)
      for (const { key, formula } of await textsFrom(db, from, keys.slice(at, at + AT_ONCE)))
        texts.set(`${from} ${key}`, formula);
  }
  return places.flatMap(({ from, key, subject }) => {
    const formulaText = texts.get(`${from} ${key}`);
    return formulaText === undefined ? [] : [{ subject, formulaText }];
  });
}
