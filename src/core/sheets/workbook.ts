/**
 * Workbooks of several sheets: a bar a sheet, a list over several, stock beside bars, and sheets of which nothing is
 * read. Sheets that are laid out alike are read together; others one at a time. Pure.
 */
import { folded } from '../folded';
import { besideApart } from './beside';
import { filled, type Layout } from './cells';
import { guessLayout } from './layout';
import { readSheet, titleOf } from './read';
import { isStock } from './stock-layout';
import { isFatName } from './words';

export interface WorkbookSheet {
  name: string;
  /** Hidden sheets are what others reckon with: nothing of them is read unless it is asked for. */
  isHidden?: boolean;
  rows: string[][];
}

export const PART_HOLDS = ['bars', 'stock', 'nothing'] as const;

/** Sheets that are read together: their rows, one sheet below the other. */
export interface WorkbookPart {
  /** The names of its sheets. */
  name: string;
  holds: (typeof PART_HOLDS)[number];
  rows: string[][];
  /** What stands above the heads of sheets that are read together, and is not read; each with its sheet. */
  above: string[];
}

interface Looked extends WorkbookSheet {
  holds: WorkbookPart['holds'];
  layout: Layout;
  /** Names of the bars it holds. */
  bars: string[];
}

function look({ name, rows, isHidden }: WorkbookSheet): Looked {
  const layout = guessLayout(rows);
  if (isHidden) return { name: `${name} (hidden)`, rows, layout, holds: 'nothing', bars: [] };
  if (isStock(rows)) return { name, rows, layout, holds: 'stock', bars: [] };
  // A bar has a fat: a diary or a list of sales has names and numbers as well.
  const bars = readSheet(rows, layout, name).bars.filter(({ lines }) =>
    lines.some((line) => isFatName(line.name)),
  );
  return {
    ...{ name, rows, layout },
    holds: bars.length > 0 ? 'bars' : 'nothing',
    bars: bars.map((bar) => bar.name),
  };
}

/** What sheets that may be read together have in common; null where one is read alone. */
function alike({ holds, layout: { kind, columns, head, unit }, rows }: Looked): string | null {
  if (holds !== 'bars' || head < 0 || !['single', 'list', 'blocks'].includes(kind)) return null;
  const heads = rows[head]!.map((cell) => folded(cell).trim());
  return JSON.stringify([kind, columns, unit, heads]);
}

/** Rows above the heads of a sheet that name nothing, in words. */
function aboveHeads({ name, rows, layout: { head } }: Looked): string[] {
  const title = titleOf(rows, head);
  const said = rows.slice(0, Math.max(0, head)).map((row) => row.filter((cell) => cell.trim() !== ''));
  return said
    .filter((cells, at) => cells.length > 0 && at + 1 !== title?.row)
    .map((cells) => `${name}: ${cells.join(' ')}`);
}

/** A sheet of one bar alone, under its own title or the sheet's name, so that others may follow it. */
function underTitle({ name, rows, layout: { head } }: Looked): string[][] {
  const title = titleOf(rows, head);
  // The cell as it stands: it may say more than the name.
  return [[title ? rows[title.row - 1]![title.column!]! : name], ...rows.slice(head)];
}

/** A title that several sheets bear is the pattern's that they were made from: their bars are called as they are. */
function ownTitles(sheets: readonly WorkbookSheet[]): WorkbookSheet[] {
  const titled = sheets.map((sheet) => {
    const { rows } = sheet;
    const { kind, head } = guessLayout(rows);
    return { sheet, head, title: kind === 'single' ? titleOf(rows, head) : null };
  });
  return titled.map(({ sheet, head, title }, at) => {
    const isShared =
      title !== null && titled.some((one, other) => other !== at && one.title?.name === title.name);
    if (!isShared) return sheet;
    const above = sheet.rows.slice(0, head).map((row, number) => (number + 1 === title.row ? [] : row));
    const says = (title.says ?? []).map(({ name, said }) => `${said} ${name}`);
    return { ...sheet, rows: [[[sheet.name, ...says].join(' - ')], ...above, ...sheet.rows.slice(head)] };
  });
}

/** Sheets named at most; of more they are counted. */
const MOST_NAMED = 4;

function namesOf(sheets: readonly WorkbookSheet[]): string {
  const names = sheets.slice(0, MOST_NAMED).map(({ name }) => name);
  const more = sheets.length - names.length;
  return names.join(', ') + (more > 0 ? ` and ${more} more` : '');
}

function together(sheets: readonly Looked[]): WorkbookPart {
  const [{ layout, rows, holds, name }] = sheets as [Looked];
  if (sheets.length === 1) return { name, holds, rows, above: [] };
  const stacked = sheets.flatMap((sheet) => (layout.kind === 'single' ? underTitle(sheet) : sheet.rows));
  const above = layout.kind === 'single' ? sheets.flatMap(aboveHeads) : [];
  return { name: namesOf(sheets), holds, rows: stacked, above };
}

/**
 * The sheets of a workbook as they are best read: bars first, then stock, then what holds neither, each in the workbook's
 * order. Sheets laid out alike are one part, unless a bar's name would come twice in it; empty ones are left out.
 *
 * @example
 * partsOf([{ name: 'Lavender', rows }, { name: 'Charcoal', rows: others }])[0].name; // 'Lavender, Charcoal'
 */
export function partsOf(sheets: readonly WorkbookSheet[]): WorkbookPart[] {
  const groups: { key: string | null; sheets: Looked[] }[] = [];
  const written = sheets.filter(({ rows }) => rows.some((row) => filled(row) > 0));
  for (const sheet of ownTitles(written.flatMap(besideApart)).map(look)) {
    const key = alike(sheet);
    const isNew = ({ bars }: Looked) => !bars.some((bar) => sheet.bars.includes(bar));
    const group = groups.find((one) => key !== null && one.key === key && one.sheets.every(isNew));
    if (group) group.sheets.push(sheet);
    else groups.push({ key, sheets: [sheet] });
  }
  const parts = groups.map((group) => together(group.sheets));
  return PART_HOLDS.flatMap((holds) => parts.filter((part) => part.holds === holds));
}
