/**
 * A till's or shop's file as a plain list: its heads under whatever stands above them, a day that heads the sales below it
 * or stands once for several, days along the top, totals and returns put aside. Pure.
 */
import { folded } from '../folded';
import { readNumberOrNull } from '../quantities/number';
import { COLUMNS, guessColumns, headSays, isDay } from './sale-columns';

export interface SaleTable {
  heads: string[];
  rows: string[][];
  /** The row of the file, from 1, that each comes from. */
  numbers: number[];
  /** Rows of the file that have no day of their own: the one above them is taken. */
  carried: number[];
  /** Rows that are no sale, each with why. */
  aside: { row: number; said: string; why: string }[];
}

interface Row {
  cells: string[];
  number: number;
}

/** Rows above the heads at most: titles, addresses, when it was printed. */
const MOST_ABOVE = 20;

const filledOf = (cells: readonly string[]) => cells.filter((cell) => cell !== '');
const TOTAL =
  /^(?:(?:grand |sub ?|day |daily )?totals?|sum|summe|(?:gesamt|zwischen|end|tages)(?:summe|betrag)?|sous-total|total general|totale|subtotale|somma|totaal|subtotaal|razem)\b/;
/** Whether a text names a bar or a batch there is. */
type IsBar = (text: string) => boolean;

const isTotal = (cells: readonly string[], isBar: IsBar) => {
  const [first = ''] = filledOf(cells);
  return TOTAL.test(folded(first)) && !isBar(first);
};

/** Heads of a list say two things at least. */
const LEAST_SAID = 2;

function headsAt(rows: readonly Row[]): { at: number; isAcross: boolean } | null {
  let best: { at: number; isAcross: boolean; said: number } | null = null;
  rows.slice(0, MOST_ABOVE).forEach(({ cells }, at) => {
    const days = cells.slice(1).filter(isDay).length;
    const said = COLUMNS.filter((column) => cells.some((cell) => headSays(column, cell))).length;
    const isAcross = days >= LEAST_SAID && !isDay(cells[0] ?? '');
    const score = isAcross ? days + LEAST_SAID : said;
    const isNumbers = !isAcross && cells.some((cell) => cell !== '' && /^[\d.,\s]+$/.test(cell));
    if (!isNumbers && score >= LEAST_SAID && score > (best?.said ?? 0)) best = { at, isAcross, said: score };
  });
  return best;
}

/** A row of counts under days as one row a day. */
function acrossRows(heads: readonly string[], rows: readonly Row[]): Row[] {
  return rows.flatMap(({ cells, number }) =>
    heads.flatMap((head, at) => {
      const count = cells[at] ?? '';
      if (at === 0 || !isDay(head) || count === '' || readNumberOrNull(count) === 0) return [];
      return [{ cells: [head, cells[0] ?? '', count], number }];
    }),
  );
}

/** Rows with the day that heads them, or that stands once above them; heads that come again are left out. */
function withDays(
  heads: readonly string[],
  rows: readonly Row[],
): { heads: string[]; rows: Row[]; carried: number[] } {
  const day = guessColumns(
    heads,
    rows.map(({ cells }) => cells),
  ).day;
  const again = heads.join('\n');
  let current = '';
  const carried: number[] = [];
  const kept = rows.flatMap(({ cells, number }) => {
    const [first = '', ...others] = filledOf(cells);
    if (cells.slice(0, heads.length).join('\n') === again) return [];
    if (others.length === 0 && isDay(first)) {
      current = first;
      return [];
    }
    if (day === undefined) return [{ cells: [current, ...cells], number }];
    const own = cells[day] ?? '';
    if (own !== '') current = own;
    else if (current !== '') carried.push(number);
    return [{ cells: cells.map((cell, at) => (at === day ? current : cell)), number }];
  });
  return day === undefined && current !== ''
    ? { heads: ['Day', ...heads], rows: kept, carried: [] }
    : {
        heads: [...heads],
        carried,
        rows: day === undefined ? kept.map(({ cells, number }) => ({ cells: cells.slice(1), number })) : kept,
      };
}

/** Why a row is no sale; null where it is one, as far as its number tells. */
function asideFor(cells: readonly string[], bars: number | undefined): string | null {
  const count = bars === undefined ? null : readNumberOrNull(cells[bars] ?? '');
  if (count === null) return null;
  if (count < 0) return 'a return: what came back is written down at its batch';
  return count === 0 ? 'none sold' : null;
}

/**
 * A file's rows as a list of sales; null where neither heads nor days are found.
 *
 * @example
 * saleTable([['Takings'], ['Date', 'Item', 'Qty'], ['3 Oct 2026', 'Night Mail', '4']])?.rows; // [['3 Oct 2026', 'Night Mail', '4']]
 */
export function saleTable(
  data: readonly (readonly string[])[],
  isBar: IsBar = () => false,
): SaleTable | null {
  const all = data
    .map((cells, at) => ({ cells: cells.map((cell) => cell.trim()), number: at + 1 }))
    .filter(({ cells }) => filledOf(cells).length > 0);
  const found = headsAt(all);
  if (!found) return null;
  const { cells: heads } = all[found.at]!;
  const below = all.slice(found.at + 1);
  const aside: SaleTable['aside'] = [];
  const putAside = ({ cells, number }: Row, why: string) =>
    aside.push({ row: number, said: filledOf(cells).join(', '), why });
  if (found.isAcross)
    for (const row of below.filter(({ cells }) => isTotal(cells, isBar))) putAside(row, 'a total');
  const list = found.isAcross
    ? {
        heads: ['Day', heads[0] === '' ? 'Bar' : heads[0]!, 'How many'],
        carried: [],
        rows: acrossRows(
          heads,
          below.filter(({ cells }) => !isTotal(cells, isBar)),
        ),
      }
    : withDays(
        heads,
        below.map(({ cells, number }) => ({ cells: heads.map((_, at) => cells[at] ?? ''), number })),
      );
  const { day, bars } = guessColumns(
    list.heads,
    list.rows.map(({ cells }) => cells),
  );
  const rows = list.rows.filter(({ cells, number }) => {
    const isSum = isTotal(
      cells.filter((_, at) => at !== day),
      isBar,
    );
    const why = isSum ? 'a total' : asideFor(cells, bars);
    if (why !== null) putAside({ cells, number }, why);
    return why === null;
  });
  if (rows.length === 0) return null;
  return {
    heads: list.heads,
    carried: list.carried.filter((row) => rows.some(({ number }) => number === row)),
    rows: rows.map(({ cells }) => cells),
    numbers: rows.map(({ number }) => number),
    aside,
  };
}
