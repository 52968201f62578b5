/** A maker's spreadsheet as it is being brought in: opened, laid out, its names matched, its bars made. */
import type { Formula } from '../../core/formula/types';
import { isWorkbook, remedyFor } from '../../core/file-kinds';
import { accountOf, cellRoles, type AccountRow, type CellRole } from '../../core/sheets/account';
import type { Layout, SheetBar, SheetFault } from '../../core/sheets/cells';
import { readSheet } from '../../core/sheets/read';
import { loggedBatches, type LoggedBatch } from '../../core/sheets/logged';
import type { Match } from '../../core/sheets/match';
import { weighedNote } from '../../core/sheets/planned';
import { ITS_WATER } from '../../core/sheets/lye-solution';
import { formulaOf, roleOf, type Known } from '../../core/sheets/recipe';
import type { PointedRole, Said } from '../../core/sheets/sheet-lessons';
import { partsOf, type WorkbookPart, type WorkbookSheet } from '../../core/sheets/workbook';
import { isText, textOfBytes } from '../../ui/file-text';
import { rowsOfTable } from '../../ui/table-text';
import { PaperFault } from '../papers/fault';

const LARGEST = 5 * 1024 * 1024;

type WorkbookReader = (bytes: Uint8Array) => Promise<WorkbookSheet[]>;

/** In a worker, so that no workbook holds the page. */
const inWorker: WorkbookReader = async (bytes) =>
  (await import('../papers/office')).sheetsFromWorkbook(bytes);

/** The parts of a spreadsheet’s or CSV file that are read on their own. Throws a PaperFault that says what to do. */
export async function openSheet(
  file: File,
  readWorkbook: WorkbookReader = inWorker,
): Promise<WorkbookPart[]> {
  if (file.size > LARGEST) throw new PaperFault('This file is over 5 MB. Send one sheet of it.');
  const bytes = new Uint8Array(await file.arrayBuffer());
  const name = file.name.replace(/\.[^.]+$/, '');
  if (isWorkbook(file.name)) {
    const sheets = await readWorkbook(bytes);
    return partsOf(sheets.length === 1 ? [{ ...sheets[0]!, name }] : sheets);
  }
  const remedy = remedyFor(file.name);
  if (remedy || !isText(bytes))
    throw new PaperFault(remedy ?? 'This is neither a spreadsheet nor CSV. Save it as .xlsx, .ods or CSV.');
  return partsOf([{ name, rows: await rowsOfTable(textOfBytes(bytes)) }]);
}

/** The rows of cells pasted from a spreadsheet, or of text with its own separators. Throws a PaperFault where there are none. */
export async function partsOfText(text: string): Promise<WorkbookPart[]> {
  if (text.length > LARGEST) throw new PaperFault('This is over 5 MB. Paste one sheet of it.');
  const data = await rowsOfTable(text.trim(), true);
  if (data.every((row) => row.length < 2))
    throw new PaperFault('These are no cells: copy them with their columns, or open the file itself.');
  return partsOf([{ name: 'Pasted cells', rows: data }]);
}

/** Said of a bar whose sheet says what was weighed, and where its note has no room for it. */
const WEIGHED_KEPT =
  'What was weighed is no bar of its own: it goes into the note of this one, and makes its batches where you want them.';
const WEIGHED_LEFT = 'The note of this bar has no room for what was weighed: its batches keep it.';

export interface MadeBar {
  name: string;
  note: string;
  formula: Formula;
  notes: string[];
  /** Its rows beside what is taken for each. */
  account: AccountRow[];
  /** What the sheet says was weighed of it, batch by batch. */
  batches: LoggedBatch[];
}

export interface Made {
  bars: MadeBar[];
  faults: SheetFault[];
  /** Names of materials in the sheet. */
  names: string[];
  /** What the cells were read as, by "row column". */
  cells: ReadonlyMap<string, CellRole>;
}

/** Bars whose rows are what they were pointed at as. */
function pointed(bars: readonly SheetBar[], roles: Readonly<Record<string, PointedRole>>): SheetBar[] {
  return bars.map((bar) => ({
    ...bar,
    lines: bar.lines.flatMap((line) => {
      const role = Object.hasOwn(roles, line.name) ? roles[line.name]! : undefined;
      if (role === 'out') return [];
      return [role === undefined ? line : { ...line, role }];
    }),
  }));
}

/** Bars of a sheet as far as they can be made. */
export function makeBars(
  rows: readonly (readonly string[])[],
  layout: Layout,
  sheetName: string,
  matches: ReadonlyMap<string, Match | null>,
  said: Said,
): Made {
  const read = readSheet(rows, layout, sheetName);
  const lined = pointed(read.bars, said.roles ?? {});
  const find = (name: string): Known | null => said.chosen[name] ?? matches.get(name) ?? null;
  const faults = [...read.faults];
  const bars: MadeBar[] = [];
  for (const bar of lined) {
    const taken = formulaOf(bar, { ...said, find });
    if (!taken.ok) {
      faults.push(...taken.faults);
      continue;
    }
    const { formula, notes } = taken;
    const weighed = weighedNote(bar);
    const account = accountOf(bar, formula);
    bars.push({
      name: bar.name,
      note: [bar.note, weighed].filter((one) => one !== '').join('\n'),
      formula,
      notes: bar.weighed?.length ? [...notes, weighed === '' ? WEIGHED_LEFT : WEIGHED_KEPT] : notes,
      account,
      batches: loggedBatches(rows, layout, bar, account),
    });
  }
  const names = lined
    .flatMap(({ lines }) => lines)
    .flatMap((line) => {
      const role = roleOf(line);
      return role === 'material' ? [line.name] : role === 'lyeSolution' ? [ITS_WATER] : [];
    });
  return {
    bars,
    faults: faults.sort((a, b) => a.row - b.row),
    names: [...new Set(names)],
    cells: cellRoles(
      layout,
      lined,
      bars.flatMap(({ batches }) => batches),
    ),
  };
}
