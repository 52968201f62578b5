/** A till's or shop's list: which of its columns says what, by their heads and by what stands in them. */
import { findDay } from '../../core/paperwork/dates';
import { readNumberOrNull } from '../../core/quantities/number';
import { MARKETS, type Market } from '../../core/formula/types';
import { MOVED_HOW } from '../../core/batch/types';
import type { SaleRow } from '../../core/stock/sales';

export const COLUMNS = ['day', 'what', 'bars', 'to', 'market', 'how', 'ref', 'note'] as const;
export type Column = (typeof COLUMNS)[number];

export const COLUMN_WORDS: Record<Column, string> = {
  day: 'Day',
  what: 'Bar or batch code',
  bars: 'How many',
  to: 'Where, to whom',
  market: 'Market',
  how: 'How it went',
  ref: 'Number of the sale',
  note: 'Note',
};
/** Without these a row says nothing. */
export const NEEDED: readonly Column[] = ['day', 'what', 'bars'];

const HEADS: Record<Column, RegExp> = {
  day: /\b(?:day|date|datum|sold on|when|created|fecha)\b/i,
  what: /\b(?:product|bar|item|article|artikel|sku|batch|name|description|lot|what)\b/i,
  bars: /\b(?:qty|quantity|count|bars|units|anzahl|menge|pieces|pcs|number sold|sold|how many)\b/i,
  to: /\b(?:customer|buyer|to|place|channel|location|shop|where|kunde|stall|store)\b/i,
  market: /\b(?:market|country|land|region)\b/i,
  how: /\b(?:how|type|kind|reason)\b/i,
  ref: /\b(?:order|receipt|ref|reference|number|no|id|invoice|transaction)\b/i,
  note: /\b(?:note|remark|comment|memo)\b/i,
};

export type Mapping = Partial<Record<Column, number>>;

/** The columns by guess: heads first, then what the cells hold. Every column is taken once. */
export function guessColumns(heads: readonly string[], rows: readonly (readonly string[])[]): Mapping {
  const mapping: Mapping = {};
  const taken = new Set<number>();
  const give = (column: Column, at: number) => {
    if (at < 0 || taken.has(at) || mapping[column] !== undefined) return;
    mapping[column] = at;
    taken.add(at);
  };
  for (const column of COLUMNS)
    give(
      column,
      heads.findIndex((head, at) => !taken.has(at) && HEADS[column].test(head)),
    );
  const share = (at: number, test: (text: string) => boolean) => {
    const cells = rows.slice(0, 50).map((row) => row[at] ?? '');
    return cells.filter(test).length / Math.max(1, cells.length);
  };
  const best = (test: (text: string) => boolean) =>
    heads.findIndex((_, at) => !taken.has(at) && share(at, test) > 0.8);
  if (mapping.day === undefined)
    give(
      'day',
      best((text) => findDay(text) !== null),
    );
  if (mapping.bars === undefined)
    give(
      'bars',
      best((text) => /^\s*\d{1,4}(?:[.,]0+)?\s*$/.test(text)),
    );
  if (mapping.what === undefined)
    give(
      'what',
      best((text) => /\p{L}{3}/u.test(text)),
    );
  return mapping;
}

const COUNTRIES: readonly (readonly [RegExp, Market])[] = [
  [/^(?:gb|uk|united kingdom|great britain|england|scotland|wales)$/i, 'UK'],
  [/^(?:us|usa|united states.*)$/i, 'US'],
  [/^(?:ca|canada)$/i, 'CA'],
  [/^(?:au|australia)$/i, 'AU'],
  [
    /^(?:eu|at|be|bg|hr|cy|cz|dk|ee|fi|fr|de|gr|hu|ie|it|lv|lt|lu|mt|nl|pl|pt|ro|sk|si|es|se|germany|france|ireland|italy|spain|netherlands|austria|belgium|denmark|sweden|finland|portugal|poland|deutschland)$/i,
    'EU',
  ],
];

const marketOf = (text: string): Market | null =>
  MARKETS.find((market) => market === text.toUpperCase()) ??
  COUNTRIES.find(([pattern]) => pattern.test(text))?.[1] ??
  null;

const HOWS: readonly (readonly [RegExp, SaleRow['how']])[] = [
  [/sample|gift|free|muster/i, 'sample'],
  [/loss|lost|waste|broken|damaged/i, 'loss'],
  [/own|kept|personal/i, 'own'],
];

export interface RowFault {
  row: number;
  column: Column;
  message: string;
}

/** The rows of a list as sales, with the faults of those that cannot be read. Places of rows count from 0. */
export function readSales(
  rows: readonly (readonly string[])[],
  mapping: Mapping,
  usual: { to: string; market: Market | null },
): { rows: SaleRow[]; faults: RowFault[] } {
  const faults: RowFault[] = [];
  const sales = rows.map((row, at): SaleRow => {
    const cell = (column: Column) =>
      mapping[column] === undefined ? '' : (row[mapping[column]] ?? '').trim();
    const wrong = (column: Column, message: string) => faults.push({ row: at, column, message });
    const day = findDay(cell('day'))?.day ?? '';
    if (!day) wrong('day', `“${cell('day')}” is no day. Write it as 2026-11-24.`);
    const count = readNumberOrNull(cell('bars'));
    if (count === null || !Number.isInteger(count) || count < 1)
      wrong('bars', `“${cell('bars')}” is no number of bars. Write a whole number from 1.`);
    if (!cell('what')) wrong('what', 'No bar is named.');
    const said = cell('market');
    const market = said ? marketOf(said) : usual.market;
    if (said && !market)
      wrong('market', `“${said}” is no market on file. Use ${MARKETS.join(', ')}, or a country of one.`);
    const how =
      MOVED_HOW.find((one) => one === cell('how').toLowerCase()) ??
      HOWS.find(([pattern]) => pattern.test(cell('how')))?.[1] ??
      'sale';
    return {
      day,
      what: cell('what'),
      bars: count ?? 0,
      how,
      to: cell('to') || usual.to || null,
      market,
      ref: cell('ref') || null,
      note: cell('note') || null,
    };
  });
  return { rows: sales, faults };
}
