/** Papers sent as a spreadsheet (.xlsx) or as a word processor's document (.docx): their lines of cells. */
import { linesFromRows, type PaperLine } from '../../core/paperwork/page';
import type { WorkbookSheet } from '../../core/sheets/workbook';
import type { WorkbookAnswer } from '../../workers/workbook-worker';
import { PaperFault } from './fault';

const DAMAGED = 'It may be damaged; save it anew, or paste its text.';

/** Far longer than any workbook within the bounds takes. */
const LIMIT_MS = 20_000;

/**
 * The sheets of a workbook; read in a worker that is ended where it takes too long.
 * @throws PaperFault where it cannot be opened.
 */
export async function sheetsFromWorkbook(bytes: Uint8Array): Promise<WorkbookSheet[]> {
  const worker = new Worker(new URL('../../workers/workbook-worker.ts', import.meta.url), { type: 'module' });
  let limit: ReturnType<typeof setTimeout> | undefined;
  return new Promise<WorkbookSheet[]>((resolve, reject) => {
    const fail = (why: string | null) =>
      reject(new PaperFault(why ?? `This workbook cannot be opened. ${DAMAGED}`));
    const late = 'This workbook takes too long to read. Save the sheet that matters alone, or paste it.';
    limit = setTimeout(() => fail(late), LIMIT_MS);
    worker.addEventListener('error', () => fail(null));
    worker.addEventListener('message', ({ data }: MessageEvent<WorkbookAnswer>) =>
      'sheets' in data ? resolve(data.sheets) : fail(data.fault),
    );
    worker.postMessage(bytes);
  }).finally(() => {
    clearTimeout(limit);
    worker.terminate();
  });
}

/** The lines of a workbook that is a paper, its sheets one below the other. */
export const linesFromWorkbook = async (bytes: Uint8Array): Promise<PaperLine[]> =>
  linesFromRows((await sheetsFromWorkbook(bytes)).flatMap(({ rows }) => rows));

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
