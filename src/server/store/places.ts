/** What a change may touch: bars, kept versions, batches and issued labels, read piece by piece. */
import { setImmediate as soon } from 'node:timers/promises';
import type { Knex } from 'knex';
import type { Change, Hands, Subject } from '../../core/change/types';
import type { Market } from '../../core/formula/types';
import { groupBy } from '../../core/group';
import type { ChangeSubject } from '../jobs/change-job';
import type { House } from '../house';
import {
  barRows,
  batchRowsOf,
  formulaTexts,
  issuedRows,
  namedVersionRows,
  pouredIds,
  type BarRow,
  type BatchRow,
  type FormulaPlace,
} from '../repositories/change-rows';
import { holdersOf } from '../repositories/products';
import { traceLot } from './trace';

/** Values in one statement. */
const AT_ONCE = 400;

/** Rows read at once: none keeps others waiting for long. */
const ROWS_AT_ONCE = 2000;

/** Every batch that was poured and not given up, without its formula; `onRead` hears that it goes on. */
async function batchRows(db: Knex, onRead: () => void): Promise<BatchRow[]> {
  const ids = await pouredIds(db);
  const all: BatchRow[] = [];
  for (let at = 0; at < ids.length; at += ROWS_AT_ONCE) {
    all.push(...(await batchRowsOf(db, ids.slice(at, at + ROWS_AT_ONCE))));
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

/** A subject whose formula is still to be read, and where it stands. */
interface Place {
  subject: Subject;
  from: FormulaPlace;
  key: string;
}

const subjectOf = (
  { id, product }: BarRow,
  more: Pick<Subject, 'what' | 'id' | 'name' | 'hands'> & Partial<Subject>,
): Subject => ({
  product: id,
  markets: product.markets,
  firstPlacedOn: product.firstPlacedOn,
  ...more,
});

/** Batches by product. */
type Batches = ReadonlyMap<string, BatchRow[]>;

function barPlaces(known: Map<string, BarRow>, batches: Batches): Place[] {
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

async function versionPlaces(db: Knex, known: Map<string, BarRow>, batches: Batches): Promise<Place[]> {
  const rows = await namedVersionRows(db);
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

function batchPlaces(known: Map<string, BarRow>, rows: readonly BatchRow[]): Place[] {
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

async function issuedPlaces(db: Knex, known: Map<string, BarRow>, batches: Batches): Promise<Place[]> {
  const rows = await issuedRows(db);
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
  const known = new Map((await barRows(db)).map((row) => [row.id, row]));
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
    const holding = new Set(await holdersOf(db, change.from));
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

/** Reads the formulas of some places; one that went since is left out. */
export async function readPlaces(db: Knex, places: readonly Place[]): Promise<ChangeSubject[]> {
  const texts = new Map<string, string>();
  for (const [from, some] of groupBy(places, (one) => one.from)) {
    const keys = some.map(({ key }) => key);
    for (let at = 0; at < keys.length; at += AT_ONCE)
      for (const { key, formula } of await formulaTexts(db, from, keys.slice(at, at + AT_ONCE)))
        texts.set(`${from} ${key}`, formula);
  }
  return places.flatMap(({ from, key, subject }) => {
    const formulaText = texts.get(`${from} ${key}`);
    return formulaText === undefined ? [] : [{ subject, formulaText }];
  });
}
