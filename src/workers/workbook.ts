/** Reading a workbook (.xlsx) within bounds: what only looks takes no time, and what is too much is refused before it is built. */
import excel, { type Cell, type Worksheet } from 'exceljs';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { WorkbookSheet } from '../core/sheets/workbook';

/** Why a workbook is not read. */
export class WorkbookFault extends Error {}

const DAMAGED = 'This workbook cannot be opened. It may be damaged; save it anew, or paste its text.';
const TOO_LARGE =
  'This workbook holds more than is read at once. Save the sheet that matters alone, or paste it.';

/** Bytes once unpacked, and cells with something in them. */
const MOST_BYTES = 80_000_000;
const MOST_CELLS = 300_000;
/**
 * What a sheet says of its looks: merged cells, lists to choose from, colours by rule. Spread over a whole sheet they cost
 * a reader seconds and hundreds of megabytes, and say nothing that is read here.
 */
const LOOKS =
  /<(?:\w+:)?(mergeCells|dataValidations|conditionalFormatting|cols|hyperlinks|extLst)\b[^>]*(?:\/>|>[\s\S]*?<\/(?:\w+:)?\1>)/g;
const SHEET = /^xl\/worksheets\/[^/]+\.xml$/;
const CELL = /<(?:\w+:)?c[\s>]/g;

/** A workbook without its looks; a WorkbookFault where it is none or too large. */
function lean(bytes: Uint8Array): Uint8Array {
  let unpacked = 0;
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        unpacked += originalSize;
        if (unpacked > MOST_BYTES) throw new WorkbookFault(TOO_LARGE);
        return !/^xl\/(?:media|drawings|charts|printerSettings)\//.test(name);
      },
    });
  } catch (error) {
    throw error instanceof WorkbookFault ? error : new WorkbookFault(DAMAGED);
  }
  let cells = 0;
  for (const [name, content] of Object.entries(files)) {
    if (!SHEET.test(name)) continue;
    const xml = strFromU8(content);
    cells += xml.match(CELL)?.length ?? 0;
    if (cells > MOST_CELLS) throw new WorkbookFault(TOO_LARGE);
    files[name] = strToU8(
      xml.replace(LOOKS, '').replace(/<(?:\w+:)?(?:drawing|legacyDrawing|picture)\b[^>]*\/>/g, ''),
    );
  }
  return zipSync(files, { level: 0 });
}

/** Digits kept of a share, so that a fraction times a hundred shows no noise of the machine. */
const SHARE_DIGITS = 10;

/** A cell as its sheet shows it: a share formatted in percent is said in percent, a day as a day. */
function cellText({ value, text, numFmt }: Cell): string {
  const plain = value !== null && typeof value === 'object' && 'result' in value ? value.result : value;
  if (plain instanceof Date) return plain.toISOString().slice(0, 10);
  if (typeof plain !== 'number') return text.replace(/\s+/g, ' ');
  return numFmt?.includes('%') ? `${Number((plain * 100).toPrecision(SHARE_DIGITS))} %` : String(plain);
}

/** Blank rows kept between others, so that rows are numbered as their sheet numbers them. */
const MOST_BLANK = 1000;

function rowsOf(sheet: Worksheet): string[][] {
  const rows: string[][] = [];
  sheet.eachRow((row, number) => {
    if (number - rows.length <= MOST_BLANK) while (rows.length < number - 1) rows.push([]);
    const cells: string[] = [];
    row.eachCell((cell, column) => (cells[column - 1] = cellText(cell)));
    rows.push(Array.from(cells, (cell) => cell ?? ''));
  });
  return rows;
}

/**
 * The sheets of a workbook, each with its rows.
 * @throws WorkbookFault where it cannot be opened or holds too much.
 */
export async function workbookSheets(bytes: Uint8Array): Promise<WorkbookSheet[]> {
  const workbook = new excel.Workbook();
  await workbook.xlsx.load(lean(bytes).slice().buffer).catch((error: unknown) => {
    throw error instanceof WorkbookFault ? error : new WorkbookFault(DAMAGED);
  });
  return workbook.worksheets.map((sheet) => ({
    name: sheet.name,
    isHidden: sheet.state !== 'visible',
    rows: rowsOf(sheet),
  }));
}
