/** Houses as they grow: the demo, copied on into years of bars, lots, batches, sales, labels, photographs and tasks. */
import { randomBytes } from 'node:crypto';
import type { Knex } from 'knex';
import { foldBatch } from '../../src/core/batch/fold';
import type { BatchEvent, EventOf } from '../../src/core/batch/types';
import { addEvents, allBatches, allEvents } from '../../src/server/repositories/batches';
import { addNewBatch, keepBatch } from '../../src/server/store/batches';
import type { House } from '../../src/server/house';
import { makeTask } from '../../src/server/services/watch/tasks';
import { issueLabel } from '../../src/server/services/wrap/labels';
import { writing } from '../../src/server/store/writing';
import { seeded } from './generate';

/** How large a house is. */
export interface HouseSize {
  bars: number;
  batches: number;
  materials: number;
  lots: number;
  /** Rows of what was sold, over all batches. */
  sales: number;
  labels: number;
  photos: number;
  photoBytes: number;
  tasks: number;
}

/** A maker after five years, and a workshop (issue's own counts; photographs smaller, as they weigh on the disk alone). */
export const FIVE_YEARS: HouseSize = {
  bars: 60,
  batches: 600,
  materials: 400,
  lots: 1500,
  sales: 5600,
  labels: 3000,
  photos: 2000,
  photoBytes: 20_000,
  tasks: 400,
};
/** A little more than the demo, for what only has to run. */
export const TWICE: HouseSize = {
  bars: 20,
  batches: 40,
  materials: 90,
  lots: 70,
  sales: 200,
  labels: 40,
  photos: 4,
  photoBytes: 100,
  tasks: 40,
};
export const WORKSHOP: HouseSize = {
  bars: 500,
  batches: 5000,
  materials: 1500,
  lots: 10_000,
  sales: 57_000,
  labels: 6000,
  photos: 2000,
  photoBytes: 2000,
  tasks: 2000,
};

const MS_PER_DAY = 86_400_000;
const DAYS_BACK = 5 * 365;
/** Of the batches, so many are still here, as the demo's are: on the rack, or with bars left. */
const HERE = { share: 0.05, least: 20 } as const;
const ROWS_AT_ONCE = 60;

type Row = Record<string, unknown>;

async function insertAll(trx: Knex, table: string, rows: readonly Row[]): Promise<void> {
  for (let at = 0; at < rows.length; at += ROWS_AT_ONCE)
    await trx(table).insert(rows.slice(at, at + ROWS_AT_ONCE));
}

const idsOf = async (trx: Knex, table: string): Promise<string[]> =>
  (await trx(table).select<{ id: string }[]>('id').orderBy('rowid')).map(({ id }) => id);

const named = (body: unknown, more: Row): string =>
  JSON.stringify({ ...(JSON.parse(String(body)) as Row), ...more });

async function growBars(trx: Knex, count: number): Promise<void> {
  const bars: Row[] = await trx('products').orderBy('position');
  for (let at = bars.length; at < count; at++) {
    const bar = bars[at % bars.length]!;
    const [id, name] = [`${String(bar.id)}-${at}`, `${String(bar.name)} ${at}`];
    await trx('products').insert({ ...bar, id, name, position: at, body: named(bar.body, { id, name }) });
    for (const table of ['formula_versions', 'product_materials', 'wraps']) {
      const rows: Row[] = await trx(table).where('product_id', bar.id as string);
      await insertAll(
        trx,
        table,
        rows.map(({ id: _own, ...row }) => ({ ...row, product_id: id })),
      );
    }
  }
}

async function growMaterials(trx: Knex, count: number): Promise<void> {
  const known: Row[] = await trx('materials').whereNull('mix');
  for (let at = known.length; at < count; at++) {
    const one = known[at % known.length]!;
    const [id, name] = [`${String(one.id)}-${at}`, `${String(one.name)} ${at}`];
    await trx('materials').insert({ ...one, id, name, body: named(one.body, { id, name }) });
    const papers: Row[] = await trx('documents').where('material_id', one.id as string);
    await insertAll(
      trx,
      'documents',
      papers.map((paper) => {
        const own = { id: `${String(paper.id)}-${at}`, material: id };
        return { ...paper, id: own.id, material_id: id, body: named(paper.body, own) };
      }),
    );
  }
}

/** Copies lots into the years before. Answers the copies of every lot, oldest first. */
async function growLots(trx: Knex, count: number, today: string): Promise<Map<string, string[]>> {
  const known: Row[] = await trx('lots');
  const copies = new Map<string, string[]>(known.map(({ id }) => [String(id), []]));
  const rows: Row[] = [];
  const more = count - known.length;
  for (let at = 0; at < more; at++) {
    const lot = known[at % known.length]!;
    const id = `${String(lot.id)}-${at}`;
    const receivedOn = new Date(Date.parse(today) - (DAYS_BACK * (1 - at / more) + 30) * MS_PER_DAY)
      .toISOString()
      .slice(0, 10);
    const body = { ...(JSON.parse(String(lot.body)) as Row), id, receivedOn, code: `L${at}` };
    rows.push({ ...lot, id, received_on: receivedOn, body: JSON.stringify(body) });
    copies.get(String(lot.id))!.push(id);
  }
  await insertAll(trx, 'lots', rows);
  return copies;
}

/** Takes what is left out of every copied lot but the last of each. */
async function useUp(trx: Knex, copies: ReadonlyMap<string, string[]>): Promise<void> {
  const old = [...copies.values()].flatMap((ids) => ids.slice(0, -1));
  for (const id of old)
    await trx.raw(
      `insert into stock_movements (lot_id, mass_g, at, reason)
       select id, json_extract(body, '$.quantityG') - coalesce((select sum(mass_g) from stock_movements where lot_id = lots.id), 0),
              received_on || 'T10:00:00.000Z', 'Used up' from lots where id = ?`,
      [id],
    );
}

/** The sales of a batch over some market days until all is gone. */
function soldOut(events: readonly BatchEvent[], rows: number): BatchEvent[] {
  const kept = events.filter(({ type }) => type !== 'moved');
  const batch = foldBatch(kept)!;
  const last = kept.at(-1)!;
  const from = Date.parse(last.at);
  const parts = Math.max(1, Math.min(rows, batch.bars.left));
  const sales = Array.from({ length: parts }, (_, at) => {
    const bars =
      Math.floor((batch.bars.left * (at + 1)) / parts) - Math.floor((batch.bars.left * at) / parts);
    const day = new Date(from + (at + 1) * 7 * MS_PER_DAY).toISOString();
    const to = `Market day ${at % 9}`;
    return {
      id: `${last.id}:sold${at}`,
      type: 'moved',
      at: day,
      by: null,
      bars,
      how: 'sale',
      to,
    } as EventOf<'moved'>;
  });
  return [...kept, ...sales];
}

/** The events of a batch as another's, days earlier, from other lots. */
function copied(
  events: readonly BatchEvent[],
  own: { id: string; code: string; product: string; days: number },
  lotOf: (lot: string) => string,
): BatchEvent[] {
  const moment = (at: string) => new Date(Date.parse(at) - own.days * MS_PER_DAY).toISOString();
  return events.map((event, at) => {
    const next = { ...event, id: `${own.id}:${at}`, at: moment(event.at) } as BatchEvent;
    if (next.type === 'started') Object.assign(next, { code: own.code, product: own.product });
    if ('lot' in next && next.lot) next.lot = lotOf(next.lot);
    return next;
  });
}

async function growBatches(
  trx: Knex,
  { batches: count, sales }: HouseSize,
  house: House,
  copies: ReadonlyMap<string, string[]>,
): Promise<void> {
  const random = seeded(77);
  const known = await allBatches(trx);
  const bars = await idsOf(trx, 'products');
  const whole = await Promise.all(known.map(async ({ id }) => [...(await allEvents(trx, id))]));
  const gone = whole.filter((_, at) => ['released', 'soldOut'].includes(known[at]!.state));
  const here = Math.max(HERE.least, Math.round(count * HERE.share));
  const rows = Math.ceil(sales / count);
  const used = new Set<string>();
  for (let at = known.length; at < count; at++) {
    const isHere = at < here;
    const source = isHere ? whole[at % whole.length]! : gone[at % gone.length]!;
    const [started] = source as [EventOf<'started'>];
    const all = isHere ? source : soldOut(source, rows);
    const days = isHere ? at % 5 : Math.round(DAYS_BACK * (1 - at / count));
    const product = bars[Math.floor(random() * bars.length)]!;
    const lotOf = (lot: string) => {
      const found = copies.get(lot) ?? [];
      return isHere ? lot : (found[Math.floor(((at - here) / (count - here)) * found.length)] ?? lot);
    };
    let code = `${started.code.split('-')[0]}-${at}`;
    while (used.has(code)) code += 'x';
    used.add(code);
    const own = { id: code.toLowerCase(), code, product, days };
    await addWhole(trx, own.id, copied(all, own, lotOf), house);
  }
}

/** A batch written down from its events, with what it took from its lots. */
async function addWhole(trx: Knex, id: string, events: readonly BatchEvent[], house: House): Promise<void> {
  const batch = foldBatch(events, house.now)!;
  const [{ name }] = (await trx('products').where('id', batch.product).select('name')) as [{ name: string }];
  const own = { id, seq: events.length, productName: name };
  await addNewBatch(trx, own, batch);
  await addEvents(
    trx,
    id,
    events.map((event, at) => ({ seq: at + 1, event })),
    house.now,
  );
  await keepBatch(trx, own, batch, house.zone);
  const taken = events.flatMap((event) =>
    'lot' in event && event.lot
      ? [{ lot_id: event.lot, mass_g: event.massG, at: event.at, batch_id: id, event_id: event.id }]
      : [],
  );
  await insertAll(trx, 'stock_movements', taken);
}

async function growLabels(house: House, count: number): Promise<void> {
  const bars = await idsOf(house.db, 'products');
  const [bar] = bars;
  const { id } = await issueLabel(house, bar!, 'EU');
  const row: Row = await house.db('issued_labels').where('id', id).first();
  const codes = (await allBatches(house.db)).map(({ code, product }) => ({ code, product }));
  await writing(house.db, (trx) =>
    insertAll(
      trx,
      'issued_labels',
      Array.from({ length: Math.max(0, count - 1) }, (_, at) => {
        const { code, product } = codes[at % codes.length]!;
        const own = { id: `${id}-${at}`, productId: product, batchCode: code };
        return { ...row, id: own.id, product_id: product, body: named(row.body, own) };
      }),
    ),
  );
}

async function growPhotos(trx: Knex, { photos, photoBytes }: HouseSize): Promise<void> {
  const batches = await idsOf(trx, 'batches');
  const at = '2026-11-01T10:00:00.000Z';
  for (let one = 0; one < photos; one++)
    await trx('batch_photos').insert({
      id: `photo-${one}`,
      batch_id: batches[one % batches.length],
      at,
      mime: 'image/jpeg',
      note: '',
      bytes: randomBytes(photoBytes),
    });
}

/** Grows a seeded demo to a size, in place. */
export async function growHouse(house: House, size: HouseSize): Promise<void> {
  await writing(house.db, async (trx) => {
    await growBars(trx, size.bars);
    await growMaterials(trx, size.materials);
    const copies = await growLots(trx, size.lots, house.today);
    await growBatches(trx, size, house, copies);
    await useUp(trx, copies);
    await growPhotos(trx, size);
    for (let at = 0; at < size.tasks; at++)
      await makeTask({ ...house, db: trx }, `Look at ${at}.`, house.today);
  });
  await growLabels(house, size.labels);
}
