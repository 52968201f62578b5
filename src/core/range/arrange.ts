/** The range arranged: what needs a hand and why, found, filtered, grouped, written out, and drawn as a map. Pure. */
import { folded } from '../folded';
import { VERDICTS } from '../formula/answer';
import type { Market } from '../formula/types';
import { byGravity, isWaiting, type Hand } from '../hands/hand';
import { handsOfBar } from '../hands/sources';
import type { MarketStand, RangeLook, RangeRow } from '../records/range';

export const EVERYTHING: RangeLook = { find: '', show: 'all', market: null, group: 'none' };

/** What is known of a bar besides its row: what its batches wait for, and when the next pour must start. */
export interface Besides {
  rack?: readonly Hand[];
  startBy?: string | null;
}

/** What a bar needs today, grave first; empty for one that needs nothing, and for one put away. */
export function needsOf(row: RangeRow, today: string, { rack = [], startBy = null }: Besides = {}): Hand[] {
  if (row.putAwayOn !== null) return [];
  return [...rack, ...handsOfBar(row, today, startBy), ...row.tasks].filter(isWaiting).sort(byGravity);
}

const matches = (row: RangeRow, find: string) => {
  const hay = folded([row.name, row.note, row.collection, ...row.scents].join(' '));
  return folded(find)
    .split(/\s+/)
    .every((word) => hay.includes(word));
};

function isShown(row: RangeRow, show: RangeLook['show'], needs: readonly Hand[]): boolean {
  if (show === 'away') return row.putAwayOn !== null;
  if (row.putAwayOn !== null) return false;
  switch (show) {
    case 'needs':
      return needs.length > 0;
    case 'over':
      return row.verdict === 'over' || row.verdict === 'atRisk';
    case 'unproven':
      return row.verdict === 'unproven' || row.fault !== null;
    case 'differs':
      return row.label === 'differs';
    default:
      return true;
  }
}

/**
 * The rows that a look asks for, in the order they came in. A search goes through those put away as well.
 *
 * @example
 * lookedAt(rows, { ...look, find: 'mail' }, (row) => needsOf(row, today)); // the rows that are shown
 */
export function lookedAt(
  rows: readonly RangeRow[],
  look: RangeLook,
  needsOfRow: (row: RangeRow) => readonly Hand[],
): RangeRow[] {
  const find = look.find.trim();
  return rows.filter((row) => {
    if (find && !matches(row, find)) return false;
    if (look.market && !row.markets.some(({ market }) => market === look.market)) return false;
    const isFoundAway = find !== '' && look.show === 'all' && row.putAwayOn !== null;
    return isFoundAway || isShown(row, look.show, needsOfRow(row));
  });
}

/** The market a bar has least room in; null where it is sold nowhere or does not reckon. */
export function tightestMarket({ markets }: Pick<RangeRow, 'markets'>): MarketStand | null {
  const rank = ({ verdict }: MarketStand) => VERDICTS.indexOf(verdict);
  const room = ({ headroomPct }: MarketStand) => headroomPct ?? Infinity;
  return [...markets].sort((a, b) => rank(a) - rank(b) || room(a) - room(b))[0] ?? null;
}

/** What a row stands under in each way of grouping. */
export function groupName(row: RangeRow, group: RangeLook['group']): string {
  switch (group) {
    case 'scent':
      return row.scents.join(', ') || 'Unscented';
    case 'collection':
      return row.collection || 'No collection';
    case 'market':
      return row.markets.map(({ market }) => market).join(', ') || 'Sold nowhere';
    case 'bound':
      return tightestMarket(row)?.boundBy ?? 'Nothing binds';
    default:
      return '';
  }
}

/** Edges of the map's columns, as multiples of a limit; the last takes all beyond. */
export const MAP_STEP = 0.05;
const MAP_END = 1.5;

export interface MapColumn {
  /** The load as a multiple of the limit that the column begins at. */
  from: number;
  bars: string[];
}

export interface MapRow {
  market: Market;
  columns: MapColumn[];
  /** Bars with nothing to draw: unproven, without a limit, or not reckoned. */
  without: string[];
}

/** All bars in all markets by how much of their limit is used: one row a market, a column every twentieth of the limit. */
export function headroomMap(rows: readonly RangeRow[], markets: readonly Market[]): MapRow[] {
  const count = Math.round(MAP_END / MAP_STEP) + 1;
  return markets.flatMap((market) => {
    const columns = Array.from({ length: count }, (_, at): MapColumn => ({ from: at * MAP_STEP, bars: [] }));
    const without: string[] = [];
    for (const row of rows) {
      const stand = row.markets.find((one) => one.market === market);
      if (!stand || row.putAwayOn !== null) continue;
      const { headroomPct, verdict } = stand;
      // A limit of zero that is broken has no ratio: as far past as anything can be.
      const used = headroomPct === null ? (verdict === 'over' ? MAP_END : null) : 1 - headroomPct / 100;
      if (used === null || verdict === 'unproven') without.push(row.id);
      else columns[columnOf(used, count)]!.bars.push(row.id);
    }
    const isEmpty = without.length === 0 && columns.every(({ bars }) => bars.length === 0);
    return isEmpty ? [] : [{ market, columns, without }];
  });
}

/** A load at exactly the limit stands before the rule, not past it. */
function columnOf(used: number, count: number): number {
  const at = used <= 1 ? Math.ceil(used / MAP_STEP - 1e-9) - 1 : Math.floor(used / MAP_STEP + 1e-9);
  return Math.min(count - 1, Math.max(0, at));
}

/** Column heads and rows of the range as a table of texts, for CSV. */
export function rangeTable(
  rows: readonly RangeRow[],
  needsOfRow: (row: RangeRow) => readonly Hand[],
  startBy: (id: string) => string | null,
): { fields: string[]; data: (string | number)[][] } {
  const fields = ['bar', 'collection', 'scents', 'verdict', 'market', 'headroom %', 'bound by', 'label'];
  const more = ['ready', 'curing', 'sold', 'start by', 'needs'];
  const data = rows.flatMap((row) => {
    const stands = row.markets.length > 0 ? row.markets : [null];
    return stands.map((stand) => [
      row.name,
      row.collection,
      row.scents.join(', '),
      stand?.verdict ?? row.verdict ?? '',
      stand?.market ?? '',
      stand?.headroomPct == null ? '' : Number(stand.headroomPct.toFixed(2)),
      stand?.boundBy ?? '',
      row.label,
      row.ready,
      row.curing,
      row.sold,
      startBy(row.id) ?? '',
      needsOfRow(row)
        .map(({ why }) => why)
        .join(' '),
    ]);
  });
  return { fields: [...fields, ...more], data };
}
