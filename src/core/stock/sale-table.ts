/**
 * A till's or shop's file as a plain list: its heads under whatever stands above them, a day that heads the sales below it
 * or stands once for several, days along the top, totals and returns put aside. Pure.
 */
import { folded } from '../folded';
import { readNumberOrNull } from '../quantities/number';
import { countIn, countsIn } from './sale-counts';
import { COLUMNS, guessColumns, headSays, isDay, namesMoney, type Mapping } from './sale-columns';

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

/** What lies along the top of a table of counts, if it is one. */
type Along = 'days' | 'bars' | null;

/** Whether what stands along the top are names of which nothing but counts stands below: bars, known or not. */
function isCounts(heads: readonly string[], { cells: below }: Row): boolean {
  const named = heads.flatMap((head, at) =>
    at > 0 && head !== '' && !namesMoney(head) ? [{ head, at }] : [],
  );
  const isName = (head: string) => !COLUMNS.some((column) => headSays(column, head));
  return (
    named.length >= LEAST_SAID &&
    named.every(({ head, at }) => isName(head) && /^\d{0,4}$/.test(below[at] ?? ''))
  );
}

function headsAt(rows: readonly Row[], isBar: IsBar): { at: number; along: Along } | null {
  let best: { at: number; along: Along; said: number } | null = null;
  rows.slice(0, MOST_ABOVE).forEach(({ cells }, at) => {
    const days = cells.slice(1).filter(isDay).length;
    const bars = cells.slice(1).filter(isBar).length;
    const said = COLUMNS.filter((column) => cells.some((cell) => headSays(column, cell))).length;
    const isUnderDays = days >= LEAST_SAID && !isDay(cells[0] ?? '');
    const isUnderBars =
      isDay(rows[at + 1]?.cells[0] ?? '') && (bars >= LEAST_SAID || isCounts(cells, rows[at + 1]!));
    const along = isUnderDays ? 'days' : isUnderBars ? 'bars' : null;
    const score = along ? Math.max(days, bars) + LEAST_SAID : said;
    const isNumbers = !along && cells.some((cell) => cell !== '' && /^[\d.,\s]+$/.test(cell));
    if (!isNumbers && score >= LEAST_SAID && score > (best?.said ?? 0)) best = { at, along, said: score };
  });
  return best;
}

/** A row of counts under days, or under bars, as one row for each count. */
function acrossRows(heads: readonly string[], rows: readonly Row[], along: 'days' | 'bars'): Row[] {
  const isCounted = (head: string) =>
    along === 'days' ? isDay(head) : head !== '' && !namesMoney(head) && !TOTAL.test(folded(head));
  return rows.flatMap(({ cells, number }) =>
    heads.flatMap((head, at) => {
      const count = cells[at] ?? '';
      if (at === 0 || !isCounted(head) || count === '' || readNumberOrNull(count) === 0) return [];
      const [day, bar] = along === 'days' ? [head, cells[0] ?? ''] : [cells[0] ?? '', head];
      return [{ cells: [day, bar, count], number }];
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

/** What says of a row that it was taken back or never paid. */
const UNDONE =
  /^(?:void(?:ed)?|cancel(?:l?ed)?|(?:partial(?:ly)? )?refund(?:ed)?|returned|declined|failed|storno|storniert|erstattet|annulee?|rembourse|annullato|rimborsato|anulad[oa]|reembolsad[oa]|geannuleerd|terugbetaald|anulowan[aey]|zwrot)$/;
/** What a till sells or writes down beside bars. */
const NO_BAR =
  /^(?:discount|rabatt|nachlass|remise|reduction|sconto|descuento|korting|rabat|shipping|postage|delivery|versand(?:kosten)?|porto|livraison|frais de port|spedizione|envio|verzend(?:ing|kosten)|tip|trinkgeld|pourboire|gift (?:card|voucher)|voucher|gutschein|bon cadeau|tax|vat|mwst|tva|rounding|rundung|carrier bag|deposit)\b/;

/** Why a row is no sale; null where it is one, as far as its number and its words tell. */
function asideFor(cells: readonly string[], { what, bars }: Mapping, isBar: IsBar): string | null {
  const undone = cells.find((cell, at) => at !== what && UNDONE.test(folded(cell)));
  if (undone !== undefined) return `“${undone}” (what came back is written down at its batch)`;
  const name = what === undefined ? '' : (cells[what] ?? '');
  if (NO_BAR.test(folded(name)) && !isBar(name)) return 'no bar';
  const count = bars === undefined ? null : countIn(cells[bars] ?? '');
  if (count === null) return null;
  if (count < 0) return 'a return: what came back is written down at its batch';
  return count === 0 ? 'none sold' : null;
}

interface List {
  heads: string[];
  rows: Row[];
  carried: number[];
}

const countsOf = (cells: readonly string[], what: number, isBar: IsBar) => countsIn(cells[what] ?? '', isBar);

/** A list without a column of counts, whose names say them: a row for each. Others stay, and are asked about. */
function withCounts(list: List, isBar: IsBar): List {
  const { what, bars } = guessColumns(
    list.heads,
    list.rows.map(({ cells }) => cells),
    isBar,
  );
  if (what === undefined || bars !== undefined) return list;
  if (!list.rows.some(({ cells }) => countsOf(cells, what, isBar))) return list;
  const rows = list.rows.flatMap(({ cells, number }) => {
    const counts = countsOf(cells, what, isBar) ?? [{ name: cells[what] ?? '', count: '' }];
    return counts.map(({ name, count }) => ({
      cells: [...cells.map((cell, at) => (at === what ? name : cell)), count],
      number,
    }));
  });
  return { ...list, heads: [...list.heads, 'How many'], rows };
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
  const found = headsAt(all, isBar);
  if (!found) return null;
  const { along } = found;
  const { cells: heads } = all[found.at]!;
  const below = all.slice(found.at + 1);
  const aside: SaleTable['aside'] = [];
  const putAside = ({ cells, number }: Row, why: string) =>
    aside.push({ row: number, said: filledOf(cells).join(', '), why });
  if (along) for (const row of below.filter(({ cells }) => isTotal(cells, isBar))) putAside(row, 'a total');
  const bar = heads[0] === '' || along === 'bars' ? 'Bar' : heads[0]!;
  const plain: List = along
    ? {
        heads: ['Day', bar, 'How many'],
        carried: [],
        rows: acrossRows(
          heads,
          below.filter(({ cells }) => !isTotal(cells, isBar)),
          along,
        ),
      }
    : withDays(
        heads,
        below.map(({ cells, number }) => ({ cells: heads.map((_, at) => cells[at] ?? ''), number })),
      );
  const list = along ? plain : withCounts(plain, isBar);
  const mapping = guessColumns(
    list.heads,
    list.rows.map(({ cells }) => cells),
    isBar,
  );
  const rows = list.rows.filter(({ cells, number }) => {
    const beside = cells.filter((_, at) => at !== mapping.day);
    const isSum = isTotal(cells, isBar) || isTotal(beside, isBar);
    const why = isSum ? 'a total' : asideFor(cells, mapping, isBar);
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
