/** A till's or shop's list: which of its columns says what, by their heads and by what stands in them. */
import type { DayOrder } from '../paperwork/dates';
import { dayOrderOf, readDay, withoutTime } from '../sheets/days';
import { countIn, countsIn } from './sale-counts';
import { MARKETS, type Market } from '../formula/types';
import { MOVED_HOW } from '../batch/types';
import type { SaleRow } from './sales';

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

type Heads = readonly [strong: RegExp, weak: RegExp];
const NEVER = /(?!)/;

/** Heads by column, in the tongues tills speak; held against text without accents. */
const HEADS: Record<Column, Heads> = {
  day: [
    /\b(?:day|date|datum|data|fecha|tag|jour|verkoopdatum|verkaufsdatum)\b/,
    /\b(?:sold on|when|created|time|zeit|heure)\b/,
  ],
  what: [
    /\b(?:product|produkt|produit|producto|prodotto|bar|article|artikel|articulo|articolo|item|lineitem name|batch|charge|lot)\b/,
    /\b(?:sku|name|description|omschrijving|bezeichnung|what)\b/,
  ],
  bars: [
    /\b(?:qty|quantity|quantite|quantita|cantidad|menge|anzahl|aantal|pieces|pcs|stuck|units|how many|(?:items|number|units|bars) sold)\b/,
    /\b(?:count|sold|bars|number)\b/,
  ],
  to: [
    /\b(?:customer|buyer|client|cliente|kunde|klant|channel|location|place|stall|shop|store|where|kanal|ort)\b/,
    /\b(?:to|who|whom)\b/,
  ],
  market: [/\b(?:market|country|pays|pais|paese|land|staat)\b/, /\bregion\b/],
  how: [/\b(?:how it went|type|kind|art|tipo)\b/, /\b(?:how|reason|grund)\b/],
  ref: [
    /\b(?:order|receipt|transaction|invoice|beleg|bon|ticket|factura|facture)\b/,
    /\b(?:ref|reference|no|nr|id)\b/,
  ],
  note: [/\b(?:note|remark|comment|memo|bemerkung|notiz|nota)\b/, NEVER],
};
/** Heads that name money, or a person where a bar is looked for, are never what a column seems to be. */
const MONEY =
  /\b(?:price|preis|prix|prezzo|prijs|precio|total|totale|amount|betrag|importe|net sales|takings|umsatz|recette|incasso|tax|currency)\b/;
export const namesMoney = (head: string): boolean => MONEY.test(bare(head));
const PERSON = /\b(?:customer|client|cliente|kunde|klant|buyer)\b/;

const STRONG = 3;
const WEAK = 1.5;
const LEAST_SCORE = 1;
/** Rows that are looked at to tell what a column holds. */
const LOOKED_AT = 50;

export type Mapping = Partial<Record<Column, number>>;

const bare = (text: string) => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().trim();

function headScore(column: Column, head: string): number {
  if (MONEY.test(head) || (column === 'what' && PERSON.test(head))) return -STRONG;
  const [strong, weak] = HEADS[column];
  return strong.test(head) ? STRONG : weak.test(head) ? WEAK : 0;
}

/** Whether a head says what a column holds, whatever stands below it. */
export const headSays = (column: Column, head: string): boolean =>
  head.trim() !== '' && headScore(column, bare(head)) > 0;

const isReadAsDay = (text: string) => typeof readDay(withoutTime(text), 'dayFirst', 'first') === 'string';

/** Figures alone are as well the number of a receipt: they are a day only where a head says so. */
const isFigures = (text: string) => /^[\d.]*\d$/.test(text) && !/\d\.\d+\./.test(text);

/** Whether a cell says a day by itself. */
export const isDay = (text: string): boolean => /\d/.test(text) && !isFigures(text) && isReadAsDay(text);

/** What the cells of a column add to a guess: shares are of the cells that hold something. */
function cellScore(
  column: Column,
  cells: readonly string[],
  isBar: (text: string) => boolean,
  saysDay: boolean,
): number {
  const share = (test: (text: string) => boolean) => cells.filter(test).length / Math.max(1, cells.length);
  const isCount = (text: string) =>
    /^(?:\d{1,4}(?:[.,]0+)?|\(\d{1,4}\)|[-–−]\s*\d{1,4}|\d{1,4}\s*[-–−])$/.test(text);
  switch (column) {
    case 'day':
      // Under a head that says so a few that are no day are asked about.
      return (saysDay ? share(isReadAsDay) > 0.5 : share(isDay) > 0.8) ? 2 : -STRONG * 2;
    case 'bars':
      return share(isCount) > 0.5 ? 1.2 : -STRONG * 2;
    case 'what': {
      const known = share((text) => isBar(text) || countsIn(text, isBar) !== null);
      const isNamed = known > 0.5 || share((text) => /\p{L}{2}/u.test(text)) > 0.8;
      return 4 * known + (isNamed ? LEAST_SCORE : -STRONG);
    }
    case 'market':
      return share((text) => marketOf(text) !== null) > 0.5 ? 2 : -STRONG;
    case 'to':
    case 'how':
    case 'note':
    case 'ref':
      return 0;
  }
}

/**
 * The columns by guess: by their heads, and by what stands in them. Every column is taken once, the surest first.
 * `isBar` knows the names and codes there are.
 */
export function guessColumns(
  heads: readonly string[],
  rows: readonly (readonly string[])[],
  isBar: (text: string) => boolean = () => false,
): Mapping {
  const scores = heads.flatMap((head, at) => {
    const cells = rows
      .slice(0, LOOKED_AT)
      .map((row) => (row[at] ?? '').trim())
      .filter(Boolean);
    return COLUMNS.map((column) => ({
      column,
      at,
      score: headScore(column, bare(head)) + cellScore(column, cells, isBar, headSays('day', head)),
    }));
  });
  const mapping: Mapping = {};
  const taken = new Set<number>();
  for (const { column, at, score } of scores.sort((a, b) => b.score - a.score)) {
    if (score < LEAST_SCORE || mapping[column] !== undefined || taken.has(at)) continue;
    mapping[column] = at;
    taken.add(at);
  }
  return mapping;
}

const COUNTRIES: readonly (readonly [RegExp, Market])[] = [
  [/^(?:gb|uk|united kingdom|great britain|england|scotland|wales)$/i, 'UK'],
  [/^(?:us|usa|united states.*)$/i, 'US'],
  [/^(?:ca|canada)$/i, 'CA'],
  [/^(?:au|australia)$/i, 'AU'],
  [
    /^(?:eu|at|be|bg|hr|cy|cz|dk|ee|fi|fr|de|gr|hu|ie|it|lv|lt|lu|mt|nl|pl|pt|ro|sk|si|es|se|germany|france|ireland|italy|spain|netherlands|austria|belgium|denmark|sweden|finland|portugal|poland|greece|czechia|deutschland|frankreich|osterreich|italien|spanien|niederlande|belgien|allemagne|belgique|espagne|italie|irlande|pays-bas|autriche|espana|francia|alemania|italia|germania|duitsland|frankrijk|nederland|belgie|oostenrijk)$/i,
    'EU',
  ],
];

function marketOf(text: string): Market | null {
  const found = COUNTRIES.find(([pattern]) => pattern.test(bare(text)));
  return MARKETS.find((market) => market === text.toUpperCase()) ?? found?.[1] ?? null;
}

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

/** The days of a list as they stand, without times. */
export const dayCells = (rows: readonly (readonly string[])[], mapping: Mapping): string[] =>
  rows.map((row) => withoutTime(mapping.day === undefined ? '' : (row[mapping.day] ?? '')));

/** The rows of a list as sales, with the faults of those that cannot be read. Places of rows count from 0. */
export function readSales(
  rows: readonly (readonly string[])[],
  mapping: Mapping,
  usual: { to: string; market: Market | null; order?: DayOrder | null },
): { rows: SaleRow[]; faults: RowFault[] } {
  const faults: RowFault[] = [];
  const days = dayCells(rows, mapping);
  // One order for the whole column, told by those that read one way only.
  const order = usual.order ?? dayOrderOf(days) ?? 'dayFirst';
  const sales = rows.map((row, at): SaleRow => {
    const cell = (column: Column) =>
      mapping[column] === undefined ? '' : (row[mapping[column]] ?? '').trim();
    const wrong = (column: Column, message: string) => faults.push({ row: at, column, message });
    const read = readDay(days[at]!, order, 'first');
    const day = typeof read === 'string' ? read : '';
    if (!day) wrong('day', `“${cell('day')}” is no day. Write it as 2026-11-24.`);
    const count = countIn(cell('bars'));
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
