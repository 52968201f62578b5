/** What went out, row by row: all of a list or none of it; a row that is known changes nothing. */
import { createHash, randomUUID } from 'node:crypto';
import { setImmediate as breath } from 'node:timers/promises';
import type { Knex } from 'knex';
import { refusalOf } from '../../../core/batch/admit';
import { extendBatch, foldBatch } from '../../../core/batch/fold';
import type { Batch, BatchEvent, EventOf } from '../../../core/batch/types';
import type { RequestError } from '../../../core/formula/types';
import {
  allocateSale,
  batchesByName,
  type SaleName,
  type SalePart,
  type SaleRow,
  type SaleSource,
} from '../../../core/stock/sales';
import { laterOf, momentOn } from '../../../core/quantities/day';
import { tellBatch } from '../../events/feed';
import type { House } from '../../house';
import { HttpFault } from '../../http';
import {
  addEvents as addStored,
  allEvents,
  eventBatches,
  saleNames,
  soldBefore,
} from '../../repositories/batches';
import { writing } from '../../store/writing';
import { keepBatch } from '../../store/batches';
import { standingsOf } from '../../repositories/standings';

export interface SalesAnswer {
  /** Rows written down now, rows known from before, and bars that went. */
  rows: number;
  known: number;
  bars: number;
  /** Which batches every row takes its bars from. */
  parts: SalePart[][];
}

interface Source extends SaleSource {
  seq: number;
  productName: string;
  /** Folded once bars of it go. */
  whole: Batch | null;
  fresh: { seq: number; event: BatchEvent }[];
}

/** Batches by what rows call them, and those that any of the rows names. */
interface Sources {
  find: (what: string) => readonly SaleName[];
  named: ReadonlyMap<string, Source>;
}

async function sourcesOf(db: Knex, rows: readonly SaleRow[]): Promise<Sources> {
  const find = batchesByName(await saleNames(db));
  const names = new Map(rows.flatMap(({ what }) => find(what).map((one) => [one.id, one])));
  const standings = await standingsOf(db, [...names.keys()]);
  const named = [...names.values()].map(({ id, seq, productName }): [string, Source] => [
    id,
    { id, seq, productName, batch: standings.get(id)!, whole: null, fresh: [] },
  ]);
  return { find, named: new Map(named) };
}

/** The batch of a source with all its events. */
async function wholeOf(db: Knex, source: Source, now: string): Promise<Batch> {
  source.whole ??= foldBatch(await allEvents(db, source.id), now)!;
  source.batch = source.whole;
  return source.whole;
}

/** Ids of rows: the same row, the same id; rows that read alike are counted. */
function rowIds(rows: readonly SaleRow[]): string[] {
  const seen = new Map<string, number>();
  return rows.map(({ day, what, bars, how, to, market, note, ref }) => {
    const text = JSON.stringify([day, what.trim(), bars, how, to ?? '', market ?? '', note ?? '', ref ?? '']);
    const count = (seen.get(text) ?? 0) + 1;
    seen.set(text, count);
    return `sale:${createHash('sha256').update(`${text} ${count}`).digest('hex').slice(0, 32)}`;
  });
}

function eventOf(
  id: string,
  row: SaleRow,
  { bars }: SalePart,
  { by, zone }: { by: string | null; zone: string },
): EventOf<'moved'> {
  const { day, how, to, market, note, despite } = row;
  return {
    id,
    type: 'moved',
    at: momentOn(day, zone),
    by,
    bars,
    how,
    ...(to ? { to } : {}),
    ...(market ? { market } : {}),
    ...(note ? { note } : {}),
    ...(despite ? { despite } : {}),
  };
}

/** Takes one row's bars from its batches; what is wrong with it otherwise. */
async function take(
  row: SaleRow,
  id: string,
  { find, named }: Sources,
  by: string | null,
  { db, now, zone }: House,
): Promise<{ parts: SalePart[] } | { fault: RequestError }> {
  const sources = find(row.what).map((one) => named.get(one.id)!);
  const found = allocateSale(row, sources, zone);
  if (!found.ok) return { fault: { path: found.path, code: found.code, message: found.message } };
  for (const [at, part] of found.parts.entries()) {
    const source = sources.find((one) => one.id === part.batch)!;
    const event = eventOf(at === 0 ? id : `${id}:${at}`, row, part, { by, zone });
    const batch = await wholeOf(db, source, now);
    const refused = refusalOf(batch, event);
    if (refused) return { fault: refused };
    extendBatch(batch, event, laterOf(now, event.at));
    source.fresh.push({ seq: source.seq + source.fresh.length + 1, event });
  }
  return { parts: found.parts };
}

/**
 * Gives parts of a row whose name an event of somebody else has by chance or by will another one; answers what is wrong
 * where that is the row's own name, by which it is known again.
 */
async function nameFreely(
  trx: Knex,
  sources: readonly Source[],
  rowOf: ReadonlyMap<string, number>,
): Promise<RequestError[]> {
  const fresh = sources.flatMap((source) => source.fresh.map(({ event }) => event));
  const taken = await eventBatches(
    trx,
    fresh.map(({ id }) => id),
  );
  const faults: RequestError[] = [];
  for (const event of fresh.filter(({ id }) => taken.has(id))) {
    const row = rowOf.get(event.id);
    if (row === undefined) event.id = `sale:${randomUUID()}`;
    else faults.push({ path: `rows.${row}.what`, code: 'id-taken', message: TAKEN });
  }
  return faults;
}

const TAKEN =
  'Something else stands on file under the name that this row would have. Give the row a number of its own (ref).';

async function write(trx: Knex, sources: readonly Source[], { now, zone }: House): Promise<void> {
  for (const { id, seq, productName, whole, fresh } of sources) {
    if (fresh.length === 0 || !whole) continue;
    await addStored(trx, id, fresh, now);
    await keepBatch(trx, { id, seq: seq + fresh.length, productName }, whole, zone);
  }
}

/** Rows taken between two breaths, so that a long list lets other requests through. */
const ROWS_A_BREATH = 50;

/** Faults told at once; more would not be read. */
const MOST_FAULTS = 200;

/**
 * Writes a list down, all or none: 422 with the fault of every row. With `isPreview`, nothing is written and the
 * answer says what would be.
 */
export async function recordSales(
  house: House,
  rows: readonly SaleRow[],
  { by, isPreview }: { by: string | null; isPreview: boolean },
): Promise<SalesAnswer> {
  const told: string[] = [];
  const action = async (trx: Knex): Promise<SalesAnswer> => {
    const inside = { ...house, db: trx };
    const ids = rowIds(rows);
    const known = await soldBefore(trx, ids);
    const found = await sourcesOf(
      trx,
      rows.filter((_, at) => !known.has(ids[at]!)),
    );
    const sources = [...found.named.values()];
    const faults: RequestError[] = [];
    const parts: SalePart[][] = [];
    let bars = 0;
    for (const [at, row] of rows.entries()) {
      if (at % ROWS_A_BREATH === ROWS_A_BREATH - 1) await breath();
      if (known.has(ids[at]!)) {
        parts.push([]);
        continue;
      }
      const taken = await take(row, ids[at]!, found, by, inside);
      if ('fault' in taken) faults.push({ ...taken.fault, path: `rows.${at}.${taken.fault.path}` });
      parts.push('fault' in taken ? [] : taken.parts);
      if (!('fault' in taken)) bars += row.bars;
    }
    const rowOf = new Map(ids.map((id, at) => [id, at]));
    if (faults.length === 0) faults.push(...(await nameFreely(trx, sources, rowOf)));
    if (faults.length > 0) throw new HttpFault(422, faults.slice(0, MOST_FAULTS));
    if (!isPreview) await write(trx, sources, house);
    for (const { id, seq, fresh } of sources) if (fresh.length > 0) told.push(`${id} ${seq + fresh.length}`);
    return { rows: rows.length - known.size, known: known.size, bars, parts };
  };
  const done = isPreview ? await action(house.db) : await writing(house.db, action);
  if (!isPreview)
    for (const one of told) {
      const [batch, seq] = one.split(' ');
      tellBatch({ batch: batch!, seq: Number(seq) });
    }
  return done;
}
