/**
 * How a maker's spreadsheet is laid out, and what each bar in it holds. Five ways are known: a row an ingredient with
 * the bar beside it (`list`), the same with the bar named once above its rows (`blocks`), a row a bar with a column an
 * ingredient (`rows`), a column a bar with a row an ingredient (`columns`), and one bar alone (`single`). Pure.
 */
import { folded } from '../folded';
import { unitIn } from './amounts';
import {
  cellAt,
  filled,
  HEADS,
  isAlone,
  isNumeric,
  pairedColumns,
  parted,
  stageIn,
  unitOfHead,
  type Layout,
  type SheetColumns,
} from './cells';
import { isOfBatches } from './logged';
import { isInParts } from './parts';
import { plannedIn } from './planned';
import { isNaming, readSheet } from './read';
import { isFatName, isSection } from './words';

const NONE: SheetColumns = { bar: null, what: null, amount: null, unit: null, note: null };

/** Which column says what by the words of a row of heads. */
function columnsBy(rows: readonly (readonly string[])[], head: number): SheetColumns {
  const row = rows[head] ?? [];
  const columns = { ...NONE };
  const both = plannedIn(row, rows.slice(head + 1));
  if (both) [columns.amount, columns.weighed] = [both.planned, both.weighed];
  for (const [at, cell] of row.entries())
    for (const key of ['what', 'unit', 'amount', 'note', 'stage', 'portion', 'bar'] as const)
      if (
        columns[key] == null &&
        HEADS[key].test(folded(cell)) &&
        !Object.values(columns).includes(at) &&
        (key !== 'stage' || rows.slice(head + 1).some((below) => stageIn(cellAt(below, at))))
      )
        columns[key] = at;
  return columns;
}

function headOf(rows: readonly (readonly string[])[]): { head: number; columns: SheetColumns } {
  let best = { head: -1, columns: NONE, score: 0 };
  rows.slice(0, 15).forEach((row, head) => {
    if (row.some(isNumeric)) return;
    const { stage, portion, ...columns } = columnsBy(rows, head);
    const score =
      Object.values(columns).filter((one) => one != null).length + (columns.what !== null ? 1 : 0);
    if (score > best.score)
      best = {
        head,
        columns: {
          ...columns,
          ...(stage == null ? {} : { stage }),
          ...(portion == null ? {} : { portion }),
        },
        score,
      };
  });
  if (best.score < 2) return { head: -1, columns: NONE };
  return { head: best.head, columns: { ...best.columns, amount: fullest(rows, best.head, best.columns) } };
}

/** Of columns that could hold the amounts, percents beside ounces, the one in which most rows say one. */
function fullest(
  rows: readonly (readonly string[])[],
  head: number,
  { amount, ...others }: SheetColumns,
): number | null {
  if (others.weighed != null) return amount;
  const count = (column: number) => rows.slice(head + 1).filter((row) => isNumeric(row[column] ?? '')).length;
  const open = [...(rows[head] ?? []).keys()].filter((at) => !Object.values(others).includes(at));
  const named = open.filter((at) => HEADS.amount.test(folded(rows[head]![at]!)));
  // Where no head says so, the one column of numbers does; several are a table.
  const counted = others.what === null ? [] : open.filter((at) => count(at) > 0);
  const among = named.length === 0 && counted.length === 1 ? counted : named;
  return among.reduce((best: number | null, at) => {
    return best === null || count(at) > count(best) ? at : best;
  }, amount);
}

/** Sums of fats within so many percent of a hundred count as a hundred. */
const ABOUT = 1.5;
/** Of a sheet's bars so many at least, 0 to 1, have to be so. */
const MOST = 0.8;

/** Whether bare numbers are percents: the fats of most bars add up to a hundred. */
function isInPercent(rows: readonly (readonly string[])[], layout: Layout): boolean {
  const sums = readSheet(rows, { ...layout, unit: '%' }).bars.flatMap(({ lines }) => {
    const fats = lines.filter(({ name, amount }) => amount.unit === '%' && isFatName(name));
    return fats.length > 0 ? [fats.reduce((sum, { amount }) => sum + amount.value, 0)] : [];
  });
  const whole = sums.filter((sum) => Math.abs(sum - 100) <= ABOUT);
  return sums.length > 0 && whole.length >= MOST * sums.length;
}

/** How a sheet is most likely laid out; the maker may say otherwise. */
export function guessLayout(rows: readonly (readonly string[])[]): Layout {
  const layout = guessPlaces(parted(rows));
  return layout.unit === null && isInPercent(rows, layout) ? { ...layout, unit: '%' } : layout;
}

function guessPlaces(rows: readonly (readonly string[])[]): Layout {
  const { head, columns } = headOf(rows);
  const heads = rows[head] ?? [];
  if (head >= 0 && columns.what !== null && columns.amount !== null) {
    const pair = pairedColumns(heads, rows.slice(head + 1));
    if (pair) [columns.larger, columns.amount] = [pair.larger, pair.smaller];
    const said = heads[columns.amount] ?? '';
    const unit = isInParts(said) ? '%' : unitOfHead(said);
    if (columns.bar !== null) return { kind: 'list', head, columns, unit };
    return { kind: hasBlocks(rows, head, columns) ? 'blocks' : 'single', head, columns, unit };
  }
  // A table with numbers on both sides: bars are named along one of them.
  const first = rows.findIndex(
    (row) => filled(row.slice(1)) >= 2 && row.slice(1).every((cell) => !isNumeric(cell)),
  );
  const table = { bar: null, what: 0, amount: null, unit: null, note: null };
  if (first >= 0 && rows.slice(first + 1).some((row) => row.slice(1).filter(isNumeric).length >= 1)) {
    const corner = folded(rows[first]![0] ?? '');
    const isRows =
      rows[first]!.some((head) => HEADS.bar.test(folded(head))) ||
      (!HEADS.what.test(corner) &&
        looksLikeMaterials(rows[first]!.slice(1)) >
          looksLikeMaterials(rows.slice(first + 1).map((row) => row[0] ?? '')));
    const said =
      rows
        .slice(0, first + 1)
        .flat()
        .map(unitOfHead)
        .find((one) => one !== null) ?? null;
    return isRows
      ? {
          kind: 'rows',
          head: first,
          columns: { ...table, bar: nameColumn(rows[first]!), what: null },
          unit: said,
        }
      : { kind: 'columns', head: first, columns: table, unit: said };
  }
  // No heads at all: a name with what follows it, bar by bar.
  const isUnit = (cell = '') => cell.trim() !== '' && unitIn(cell) !== null;
  const what = firstColumn(rows);
  const amount = what + 1;
  const amounts = rows.filter((row) => isNumeric(row[amount] ?? ''));
  const unit = amounts.length > 0 && amounts.every((row) => isUnit(row[amount + 1])) ? amount + 1 : null;
  const down = { ...table, what, amount, unit };
  // Where no row names one, all of it is one bar.
  const isNamed =
    hasBlocks(rows, -1, down) || rows.some((row) => isNaming(cellAt(row, what), cellAt(row, amount)));
  return { kind: isNamed ? 'blocks' : 'single', head: -1, columns: down, unit: null };
}

/** The first column with anything in it, of rows that say more than one thing. */
function firstColumn(rows: readonly (readonly string[])[]): number {
  const said = rows.filter((row) => filled(row) > 1);
  const firsts = said.map((row) => row.findIndex((cell) => cell.trim() !== ''));
  return firsts.length === 0 ? 0 : Math.min(...firsts);
}

/** Which column of a table of bars names them: one whose head says so, else the first. */
function nameColumn(heads: readonly string[]): number {
  const found = heads.findIndex((head) => HEADS.bar.test(folded(head)));
  return Math.max(0, found);
}

const MATERIAL_WORDS =
  /\b(?:oil|butter|water|lye|naoh|hydroxide|clay|wax|milk|salt|eo|fo|fragrance|mica|oxide|ol|wasser|huile|eau|olio|aceite)\b|ol$/;
const looksLikeMaterials = (names: readonly string[]) =>
  names.filter((name) => MATERIAL_WORDS.test(folded(name)) || isFatName(name)).length /
  Math.max(1, filled(names));

/** A name alone in its row that heads rows with amounts: a bar's, where it is no part of one. */
function hasBlocks(
  rows: readonly (readonly string[])[],
  head: number,
  { what, amount }: SheetColumns,
): boolean {
  let isNamed = false;
  return rows.slice(head + 1).some((row) => {
    const [name, said] = [cellAt(row, what), cellAt(row, amount)];
    if (isAlone(row) && name !== '' && !isSection(name)) isNamed = true;
    return isNamed && said !== '' && isNumeric(said);
  });
}

/**
 * A layout whose heads were pointed at: columns that their words say are taken by them, others stay.
 *
 * @example
 * withHeads(rows, layout, 4).head; // 4
 */
export function withHeads(rows: readonly (readonly string[])[], layout: Layout, head: number): Layout {
  const said = columnsBy(rows, head);
  const amount = fullest(rows, head, said);
  const columns = Object.fromEntries(
    Object.entries({ ...said, amount }).map(([key, at]) => [
      key,
      at ?? layout.columns[key as keyof SheetColumns] ?? null,
    ]),
  ) as unknown as SheetColumns;
  const unit = columns.amount === null ? null : unitOfHead(rows[head]?.[columns.amount] ?? '');
  const kind = columns.bar !== null ? 'list' : layout.kind === 'list' ? 'single' : layout.kind;
  return { ...layout, kind, head, columns, unit: unit ?? layout.unit };
}

/** Heads of columns that none of those named is, where rows have anything in them. */
export function unreadHeads(
  rows: readonly (readonly string[])[],
  { head, columns }: { head: number; columns: object & { weighed?: number | null } },
): string[] {
  const read: unknown[] = Object.values(columns);
  // Beside what was weighed it is read of which batch, of which day, and how many bars.
  const isRead = (cell: string, at: number) =>
    read.includes(at) || (columns.weighed != null && isOfBatches(cell));
  return (rows[head] ?? []).filter(
    (cell, at) =>
      cell.trim() !== '' && !isRead(cell, at) && rows.slice(head + 1).some((row) => cellAt(row, at) !== ''),
  );
}
