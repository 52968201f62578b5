/** Papers sent as a spreadsheet (.xlsx, .ods), a word processor's document (.docx, .odt) or a page (.html): their lines of cells. */
import { linesFromRows, type PaperLine } from '../../core/paperwork/page';
import { asMark } from '../../core/paperwork/raised';
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

const BLOCK =
  /^(?:ADDRESS|ARTICLE|BLOCKQUOTE|BODY|CAPTION|DD|DIV|DT|FIGCAPTION|FOOTER|H[1-6]|HEADER|LI|MAIN|P|PRE|SECTION|TABLE|TR|TD|TH|UL|OL)$/;
/** What is not shown, and what is struck out. */
const UNSEEN = /^(?:SCRIPT|STYLE|TEMPLATE|NOSCRIPT|TITLE|S|DEL|STRIKE)$/;
const isStruck = (one: Element) => /line-through/.test(one.getAttribute('style') ?? '');

/** The rows of a page of text: a table's as they are, everything else a row of one cell. */
function rowsOf(node: Node): string[][] {
  const rows: string[][] = [];
  let words = '';
  const end = () => {
    const text = words.replace(/\s+/g, ' ').trim();
    if (text !== '') rows.push([text]);
    words = '';
  };
  const walk = (one: Node): void => {
    if (one instanceof Text) words += one.data;
    if (!(one instanceof Element) || UNSEEN.test(one.tagName) || isStruck(one)) return;
    const isBlock = BLOCK.test(one.tagName) || one.tagName === 'BR';
    if (isBlock) end();
    // A table within a table sets out a page: only the inner one holds rows.
    if (one.tagName === 'TR' && !one.querySelector('tr'))
      rows.push([...one.children].map((cell) => rowsOf(cell).flat().join(' ')));
    else if (one.tagName === 'SUP') words += asMark((one.textContent ?? '').replace(/[[\]()]/g, ''));
    else one.childNodes.forEach(walk);
    if (isBlock) end();
  };
  node.childNodes.forEach(walk);
  end();
  return rows;
}

/** The lines of a page as browsers and mail programs keep it. */
export const linesFromPage = (html: string): PaperLine[] =>
  linesFromRows(rowsOf(new DOMParser().parseFromString(html, 'text/html').body));

/**
 * The paragraphs and tables of a document, in their order.
 * @throws PaperFault where it cannot be opened.
 */
export async function linesFromDocument(bytes: Uint8Array): Promise<PaperLine[]> {
  const { default: mammoth } = await import('mammoth');
  const { value } = await mammoth.convertToHtml({ arrayBuffer: bytes.slice().buffer }).catch(() => {
    throw new PaperFault(`This document cannot be opened. ${DAMAGED}`);
  });
  return linesFromPage(value);
}
