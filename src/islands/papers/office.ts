/** Papers sent as a spreadsheet (.xlsx) or as a word processor's document (.docx): their lines of cells. */
import type { Cell } from 'exceljs';
import { linesFromRows, type PaperLine } from '../../core/paperwork/page';
import { PaperFault } from './fault';

const DAMAGED = 'It may be damaged; save it anew, or paste its text.';

/** Digits kept of a share, so that a fraction times a hundred shows no noise of the machine. */
const SHARE_DIGITS = 10;

/** A cell as its sheet shows it: a share formatted in percent is said in percent, a day as a day. */
function cellText({ value, text, numFmt }: Cell): string {
  const plain = value !== null && typeof value === 'object' && 'result' in value ? value.result : value;
  if (plain instanceof Date) return plain.toISOString().slice(0, 10);
  if (typeof plain !== 'number') return text.replace(/\s+/g, ' ');
  return numFmt?.includes('%') ? `${Number((plain * 100).toPrecision(SHARE_DIGITS))} %` : String(plain);
}

/**
 * The rows of every sheet of a workbook, one below the other.
 * @throws PaperFault where it cannot be opened.
 */
export async function rowsFromWorkbook(bytes: Uint8Array): Promise<string[][]> {
  const { default: excel } = await import('exceljs');
  const workbook = new excel.Workbook();
  await workbook.xlsx.load(bytes.slice().buffer).catch(() => {
    throw new PaperFault(`This workbook cannot be opened. ${DAMAGED}`);
  });
  const rows: string[][] = [];
  for (const sheet of workbook.worksheets)
    sheet.eachRow((row) => {
      const cells: string[] = [];
      row.eachCell(
        (cell, column) => (cells[column - 1] = cell.isMerged && cell.master !== cell ? '' : cellText(cell)),
      );
      rows.push(Array.from(cells, (cell) => cell ?? ''));
    });
  return rows;
}

/** The lines of a workbook that is a paper. */
export const linesFromWorkbook = async (bytes: Uint8Array): Promise<PaperLine[]> =>
  linesFromRows(await rowsFromWorkbook(bytes));

/** The rows of a document: a table's as they are, everything else a row of one cell. */
function rowsOf(html: string): string[][] {
  const text = ({ textContent }: Element) => (textContent ?? '').replace(/\s+/g, ' ');
  const document = new DOMParser().parseFromString(html, 'text/html');
  return [...document.querySelectorAll('h1,h2,h3,h4,h5,h6,p,li,tr')]
    .filter((element) => element.tagName === 'TR' || element.closest('tr') === null)
    .map((element) => (element.tagName === 'TR' ? [...element.children].map(text) : [text(element)]));
}

/**
 * The paragraphs and tables of a document, in their order.
 * @throws PaperFault where it cannot be opened.
 */
export async function linesFromDocument(bytes: Uint8Array): Promise<PaperLine[]> {
  const { default: mammoth } = await import('mammoth');
  const { value } = await mammoth.convertToHtml({ arrayBuffer: bytes.slice().buffer }).catch(() => {
    throw new PaperFault(`This document cannot be opened. ${DAMAGED}`);
  });
  return linesFromRows(rowsOf(value));
}
