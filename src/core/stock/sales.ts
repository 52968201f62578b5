/** Bars that leave, as told from a stall's evening or a till's list: which batch each row takes them from. */
import type { Batch, MOVED_HOW } from '../batch/types';
import type { Market } from '../formula/types';
import { dayOf } from '../quantities/day';

export interface SaleRow {
  /** The day it went, YYYY-MM-DD. */
  day: string;
  /** A batch's code, with or without a bar's number, or the bar's name or id. */
  what: string;
  bars: number;
  how: (typeof MOVED_HOW)[number];
  to?: string | null;
  market?: Market | null;
  note?: string | null;
  /** The till's own number of the sale; tells sales apart that read alike. */
  ref?: string | null;
  despite?: string | null;
}

/** A batch that bars can be taken from. */
export interface SaleSource {
  id: string;
  product: string;
  productName: string;
  batch: Batch;
}

export interface SalePart {
  batch: string;
  bars: number;
}

export type Allocated =
  { ok: true; parts: SalePart[] } | { ok: false; path: string; code: string; message: string };

const plain = (text: string) => text.trim().toLowerCase().replace(/\s+/g, ' ');

function named(
  { what }: SaleRow,
  sources: readonly SaleSource[],
): { sources: SaleSource[]; isBatch: boolean } {
  const wanted = plain(what);
  const byCode = sources.find(
    ({ batch }) => wanted === plain(batch.code) || wanted.startsWith(`${plain(batch.code)}/`),
  );
  if (byCode) return { sources: [byCode], isBatch: true };
  const ofBar = sources.filter(
    ({ product, productName }) => wanted === product || wanted === plain(productName),
  );
  return { sources: ofBar, isBatch: false };
}

const soldOf = ({ moved }: Batch) =>
  moved.reduce((sum, { how, bars }) => sum + (how === 'sale' ? bars : 0), 0);

/** Bars of a batch that can still go this way. */
function freeOf({ batch }: SaleSource, how: SaleRow['how']): number {
  const { left, released } = batch.bars;
  return how === 'sale' ? Math.max(0, Math.min(left, released - soldOf(batch))) : Math.max(0, left);
}

function fits({ batch }: SaleSource, { how, day, market, despite }: SaleRow, zone: string): boolean {
  if (!batch.cut || batch.state === 'discarded') return false;
  if (how !== 'sale') return true;
  if (batch.isQuarantined) return false;
  const released = batch.released.filter(({ at }) => dayOf(at, zone) <= day);
  if (released.length === 0) return false;
  return !market || Boolean(despite) || released.some(({ markets }) => markets.includes(market));
}

/**
 * The batches a row takes its bars from: the batch it names, else the oldest of the bar first. `sources` are oldest
 * first and stand as left by the rows before; days are those of the house's zone.
 */
export function allocateSale(row: SaleRow, sources: readonly SaleSource[], zone: string): Allocated {
  const { sources: found } = named(row, sources);
  const fault = (path: string, code: string, message: string): Allocated => ({
    ok: false,
    path,
    code,
    message,
  });
  if (found.length === 0)
    return fault(
      'what',
      'unknown-bar',
      `“${row.what}” is no bar and no batch here. Write its name or its code.`,
    );
  const able = found.filter((source) => fits(source, row, zone));
  if (able.length === 0)
    return fault(
      row.market ? 'market' : 'what',
      'not-released',
      `Nothing of “${row.what}” was released${row.market ? ` for ${row.market}` : ''} by ${row.day}. Release it first, or correct the day.`,
    );
  const parts: SalePart[] = [];
  let open = row.bars;
  for (const source of able) {
    const bars = Math.min(open, freeOf(source, row.how));
    if (bars > 0) parts.push({ batch: source.id, bars });
    open -= bars;
    if (open <= 0) return { ok: true, parts };
  }
  return fault(
    'bars',
    'not-enough-bars',
    `Only ${row.bars - open} bars of “${row.what}” are left to go this way, not ${row.bars}.`,
  );
}
