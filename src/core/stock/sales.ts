/** Bars that leave, as told from a stall's evening or a till's list: which batch each row takes them from. */
import type { BatchStanding, MOVED_HOW } from '../batch/types';
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

/** What a batch goes by in a list of what went out. */
export interface SaleName {
  id: string;
  code: string;
  product: string;
  productName: string;
}

/** A batch that bars can be taken from. */
export interface SaleSource {
  id: string;
  batch: Pick<BatchStanding, 'cut' | 'state' | 'isQuarantined' | 'released' | 'moved' | 'bars'>;
}

export interface SalePart {
  batch: string;
  bars: number;
}

export type Allocated =
  { ok: true; parts: SalePart[] } | { ok: false; path: string; code: string; message: string };

const plain = (text: string) => text.trim().toLowerCase().replace(/\s+/g, ' ');

/**
 * Finds batches by what a row says: the batch of that code, with or without a bar's number behind it, else all of the bar
 * of that name or id, in the order they are given.
 *
 * @example
 * const find = batchesByName(names);
 * find('NM-261107/3'); // [{ id: 'nm-261107', … }]
 */
export function batchesByName<T extends SaleName>(all: readonly T[]): (what: string) => readonly T[] {
  const byCode = new Map<string, T>();
  const ofBar = new Map<string, T[]>();
  for (const one of all) {
    const code = plain(one.code);
    if (!byCode.has(code)) byCode.set(code, one);
    for (const name of new Set([one.product, plain(one.productName)])) {
      const known = ofBar.get(name);
      if (known) known.push(one);
      else ofBar.set(name, [one]);
    }
  }
  return (what) => {
    const wanted = plain(what);
    for (let end = wanted.length; end > 0; end = wanted.lastIndexOf('/', end - 1)) {
      const found = byCode.get(wanted.slice(0, end));
      if (found) return [found];
    }
    return ofBar.get(wanted) ?? [];
  };
}

const soldOf = ({ moved }: SaleSource['batch']) =>
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
 * The batches a row takes its bars from. `found` are those that it names, oldest first, as left by the rows before; days
 * are those of the house's zone.
 */
export function allocateSale(row: SaleRow, found: readonly SaleSource[], zone: string): Allocated {
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
