/** Sheets that say beside what was planned what was weighed, and which batch it was: one bar, not two. Pure. */
import { folded } from '../folded';
import type { SheetBar } from './cells';

const PLANNED =
  /^(?:planned|plan|target|targets|recipe|should(?: be)?|theoretical|theory|calculated|required|soll|geplant|rezept|prevue?|theorique|cible|previsto|teorico|objetivo|gepland|berekend)\b|\b(?:planned|target|required|soll|prevue?|theorique|previsto|teorico|gepland)(?:\s*[([].*)?$/;
const WEIGHED =
  /^(?:actual|actually|weighed|was|used|real|poured|measured|added|ist|gewogen|eingewogen|tatsachlich|reele?|pesee?|effettivo|pesato|usato|pesado|usado|werkelijk|gebruikt)\b|\b(?:actual|weighed|used|poured|ist|gewogen|reele?|pesee?|effettivo|pesado|usado|werkelijk)(?:\s*[([].*)?$/;
const BATCH = /^(?:batch|charge|partie|partij|version|fassung|versie)(?: (?:no|nr|code|number|id))?[.:]*$/;

/** Which columns say what was planned, what was weighed, and of which batch. */
export interface PlannedColumns {
  planned: number;
  weighed: number;
}

/** A cell that begins with a figure. */
const isFigure = (cell = '') => /^[~≈]?\s*\d/.test(cell.trim());

/** Whether a column holds figures, in most rows that say anything there. */
function isOfFigures(rows: readonly (readonly string[])[], column: number): boolean {
  const said = rows.filter((row) => (row[column] ?? '').trim() !== '');
  return said.length > 0 && said.filter((row) => isFigure(row[column])).length > said.length / 2;
}

/**
 * The columns of heads in which what was planned stands beside what was weighed, both in figures in the rows below; null
 * where not both are there.
 *
 * @example plannedIn(['Ingredient', 'Planned (g)', 'Actual (g)'], [['Olive', '500', '501']]) // { planned: 1, weighed: 2 }
 */
export function plannedIn(
  heads: readonly string[],
  below: readonly (readonly string[])[],
): PlannedColumns | null {
  const fits = (pattern: RegExp) => (head: string, at: number) =>
    pattern.test(folded(head)) && isOfFigures(below, at);
  const weighed = heads.findIndex(fits(WEIGHED));
  const planned = heads.findIndex((head, at) => at !== weighed && fits(PLANNED)(head, at));
  return planned < 0 || weighed < 0 ? null : { planned, weighed };
}

/** Rows of a batch on average before a column is one of batches: the lot of each ingredient is another one in every row. */
const LEAST_ROWS = 2;

/**
 * Which batch of its bar each row below the heads belongs to, by a column that says so, in its first row alone or in every
 * one; null where there is none, or where it says something of each ingredient.
 */
export function batchesOf(
  heads: readonly string[],
  bar: number | null,
  below: readonly (readonly string[])[],
): string[] | null {
  const column = heads.findIndex((head, at) => at !== bar && BATCH.test(folded(head)));
  if (bar === null || column < 0) return null;
  const cell = (row: readonly string[], at: number) => (row[at] ?? '').trim();
  let last = { bar: '', batch: '' };
  const rows = below.map((row) => {
    const said = { bar: cell(row, bar), batch: cell(row, column) };
    // Where neither is said, a row goes on with what stands above it.
    if (said.bar !== '' || said.batch !== '') last = { bar: said.bar || last.bar, batch: said.batch };
    return last;
  });
  const batches = new Set(rows.map((row) => `${row.bar} ${row.batch}`));
  const isOfBatches = rows.some(({ batch }) => batch !== '') && rows.length >= LEAST_ROWS * batches.size;
  return isOfBatches ? rows.map(({ batch }) => batch) : null;
}

const written = ({ lines }: SheetBar) =>
  lines.map(({ name, amount: { value, unit } }) => `${folded(name)} ${value} ${unit}`).join('\n');

/** Batches of a bar by one plan are one bar; where plans differ, each stays with its batch in its name. */
export function withoutRepeats(bars: readonly SheetBar[]): SheetBar[] {
  const kept: SheetBar[] = [];
  for (const bar of bars) {
    const same = kept.find(
      (one) => one.of === bar.of && bar.of !== undefined && written(one) === written(bar),
    );
    if (!same) kept.push({ ...bar, weighed: [...(bar.weighed ?? [])] });
    else same.weighed!.push(...(bar.weighed ?? []));
  }
  const named = (bar: SheetBar) => {
    const isAlone = bar.of !== undefined && kept.filter(({ of }) => of === bar.of).length === 1;
    return isAlone ? { ...bar, name: bar.of! } : bar;
  };
  return kept.map(named);
}

/** Letters of a bar's note. */
export const LONGEST_NOTE = 390;

/**
 * What was weighed, for the note of its bar: of each batch its rows, as far as there is room, and that there are more;
 * empty where nothing was weighed, or where the note has no room for any of it.
 *
 * @example
 * weighedNote(bar); // 'Weighed, T1: Olive oil 501.2 g (planned 500 g); …'
 */
export function weighedNote({ weighed = [], note }: SheetBar): string {
  if (weighed.length === 0) return '';
  const batches = [...new Set(weighed.map(({ batch }) => batch))];
  const told = batches.map((batch) => {
    const rows = weighed.filter((one) => one.batch === batch);
    const said = rows.map(({ name, was, planned }) => `${name} ${was} (planned ${planned})`);
    return `Weighed${batch === '' ? '' : `, ${batch}`}: ${said.join('; ')}.`;
  });
  const whole = told.join(' ');
  const room = Math.max(0, LONGEST_NOTE - note.length);
  if (whole.length <= room) return whole;
  const rest = ' … and more in the sheet.';
  const cut = whole.slice(0, Math.max(0, room - rest.length));
  return cut.includes(';') ? cut.slice(0, cut.lastIndexOf(';')) + rest : '';
}
