/** Reading a workbook (.xlsx or OpenDocument) within bounds: what only looks takes no time, and what is too much is refused before it is built. */
import excel, { type Cell, type Worksheet } from 'exceljs';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { asMark } from '../core/paperwork/raised';
import { struckOut } from '../core/sheets/struck';
import type { WorkbookSheet } from '../core/sheets/workbook';
import { openDocumentSheets } from './opendocument';
import {
  damaged,
  MOST_BLANK,
  MOST_BYTES,
  MOST_CELLS,
  percentOf,
  tooLarge,
  withUnit,
  WorkbookFault,
} from './workbook-bounds';

/**
 * What a sheet says of its looks: merged cells, lists to choose from, colours by rule. Spread over a whole sheet they cost
 * a reader seconds and hundreds of megabytes, and say nothing that is read here.
 */
const LOOKS =
  /<(?:\w+:)?(mergeCells|dataValidations|conditionalFormatting|cols|hyperlinks|extLst)\b[^>]*(?:\/>|>[\s\S]*?<\/(?:\w+:)?\1>)/g;
const SHEET = /^xl\/worksheets\/[^/]+\.xml$/;
const CELL = /<(?:\w+:)?c[\s>]/g;

type Files = Record<string, Uint8Array>;

/** What a workbook's file holds, but for pictures and drawings; a WorkbookFault where it is none or too large. */
function unpack(bytes: Uint8Array): Files {
  let unpacked = 0;
  try {
    return unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        unpacked += originalSize;
        if (unpacked > MOST_BYTES) throw tooLarge();
        return !/^(?:xl\/(?:media|drawings|charts|printerSettings)|Pictures|Thumbnails|Object \d+)\//.test(
          name,
        );
      },
    });
  } catch (error) {
    throw error instanceof WorkbookFault ? error : damaged();
  }
}

/** A workbook without its looks; a WorkbookFault where it is too large. */
function lean(files: Files): Uint8Array {
  let cells = 0;
  for (const [name, content] of Object.entries(files)) {
    if (!SHEET.test(name)) continue;
    const xml = strFromU8(content);
    cells += xml.match(CELL)?.length ?? 0;
    if (cells > MOST_CELLS) throw tooLarge();
    files[name] = strToU8(
      xml.replace(LOOKS, '').replace(/<(?:\w+:)?(?:drawing|legacyDrawing|picture)\b[^>]*\/>/g, ''),
    );
  }
  return zipSync(files, { level: 0 });
}

/** What a format says as it stands. */
const LITERAL = /"[^"]*"|\\./g;
/** The same behind its figure: the unit of `0.0" g"`. */
const BEHIND = /(?:"[^"]*"|\\.|[\s\p{L}])+$/u;

/** A cell's words; what is set small and high in them leads to a note, and what is struck out is gone. */
function richText({ value, text }: Cell): string {
  if (value === null || typeof value !== 'object' || !('richText' in value)) return text;
  return value.richText
    .filter(({ font }) => font?.strike !== true)
    .map((run) => (run.font?.vertAlign === 'superscript' ? asMark(run.text) : run.text))
    .join('');
}

/** A cell as its sheet shows it: a share formatted in percent is said in percent, a day as a day, a unit with its figure. */
function cellText(cell: Cell): string {
  const { value, numFmt = '' } = cell;
  const plain = value !== null && typeof value === 'object' && 'result' in value ? value.result : value;
  if (plain instanceof Date) return plain.toISOString().slice(0, 10);
  if (typeof plain !== 'number') return richText(cell).replace(/\s+/g, ' ');
  const [format = ''] = numFmt.split(';');
  if (format.replace(LITERAL, '').includes('%')) return percentOf(plain);
  return withUnit(plain, BEHIND.exec(format)?.[0].replace(/["\\]/g, '').trim());
}

function rowsOf(sheet: Worksheet): string[][] {
  const rows: string[][] = [];
  sheet.eachRow((row, number) => {
    if (number - rows.length <= MOST_BLANK) while (rows.length < number - 1) rows.push([]);
    const cells: string[] = [];
    row.eachCell((cell, column) => {
      const text = cellText(cell);
      cells[column - 1] = cell.font?.strike === true ? struckOut(text) : text;
    });
    rows.push(Array.from(cells, (cell) => cell ?? ''));
  });
  return rows;
}

async function excelSheets(bytes: Uint8Array): Promise<WorkbookSheet[]> {
  const workbook = new excel.Workbook();
  await workbook.xlsx.load(bytes.slice().buffer);
  return workbook.worksheets.map((sheet) => ({
    name: sheet.name,
    isHidden: sheet.state !== 'visible',
    rows: rowsOf(sheet),
  }));
}

/**
 * The sheets of a workbook, each with its rows.
 * @throws WorkbookFault where it cannot be opened or holds too much.
 */
export async function workbookSheets(bytes: Uint8Array): Promise<WorkbookSheet[]> {
  const files = unpack(bytes);
  const content = files['content.xml'];
  try {
    if (content) return openDocumentSheets(strFromU8(content));
    return await excelSheets(lean(files));
  } catch (error) {
    throw error instanceof WorkbookFault ? error : damaged();
  }
}
