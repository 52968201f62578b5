/** Opens a paper in whatever form it comes: PDF, picture, workbook, document, table file or text; gives its lines and, for a PDF, its pages. */
import type {
  PDFDocumentLoadingTask,
  PDFPageProxy,
  TextItem as PdfText,
} from 'pdfjs-dist/types/src/display/api';
import workerUrl from 'pdfjs-dist/build/pdf.worker.min.mjs?url';
import {
  linesFromItems,
  linesFromRows,
  linesFromText,
  type PaperLine,
  type TextItem,
} from '../../core/paperwork/page';
import { LARGEST_PAPER_BYTES } from '../../core/records/papers';
import { PaperFault } from './fault';
import { linesFromDocument, linesFromWorkbook } from './office';
import type { PictureOfPage, Progress } from './picture';

export interface PagePicture {
  number: number;
  widthPt: number;
  heightPt: number;
  /** The page drawn, as a data address. */
  picture: string;
}

export interface OpenPaper {
  /** Read from a picture, so that more is asked about it. */
  isPicture: boolean;
  fileName: string;
  /** The inbox's id, where it came from there. */
  inbox: string | null;
  lines: PaperLine[];
  /** Empty where the paper is text without pages. */
  pages: PagePicture[];
}

/** Pages are drawn this many times their size in points, so that they stay sharp; pictures of text larger. */
const DRAWN_SCALE = 1.6;
const SCANNED_SCALE = 3;
/** A drawn page has at most so many pixels to a side, whatever size it says it is. */
const MOST_DRAWN_PX = 5000;
const MOST_PAGES = 30;
/** Far more than any paper has; all of them are shown beside what was read. */
const MOST_LINES = 20_000;
const MOST_TEXT_BYTES = 2_000_000;
const LONG =
  'This file holds far more than a supplier’s paper. Paste the part that speaks of the material as text.';
const GIVEN_UP = 'Given up. Nothing was filed.';
/** Pages of a scan that are read: each takes some seconds. */
const MOST_SCANNED = 4;

type Pages = Pick<OpenPaper, 'lines' | 'pages' | 'isPicture'>;

/** What opening a file may use: a way to be given up, and a place to tell how far it is. */
export interface Opening {
  signal: AbortSignal;
  onProgress: Progress;
}

interface PdfPage {
  lines: PaperLine[];
  canvas: HTMLCanvasElement;
  widthPt: number;
  heightPt: number;
}

async function drawn(page: PDFPageProxy, wanted: number): Promise<HTMLCanvasElement> {
  const canvas = globalThis.document.createElement('canvas');
  const { width, height } = page.getViewport({ scale: 1 });
  const viewport = page.getViewport({ scale: Math.min(wanted, MOST_DRAWN_PX / Math.max(width, height)) });
  canvas.width = Math.max(1, viewport.width);
  canvas.height = Math.max(1, viewport.height);
  await page.render({ canvas, viewport }).promise;
  return canvas;
}

async function readPdfPage(page: PDFPageProxy, number: number): Promise<PdfPage> {
  const { width, height } = page.getViewport({ scale: 1 });
  const { items } = await page.getTextContent();
  const texts = items.filter((item): item is PdfText => 'str' in item);
  const lines = linesFromItems(
    number,
    texts.map((item): TextItem => ({
      text: item.str,
      xPt: item.transform[4] as number,
      yPt: height - (item.transform[5] as number),
      widthPt: item.width,
      heightPt: item.height,
    })),
  );
  const canvas = await drawn(page, lines.length > 0 ? DRAWN_SCALE : SCANNED_SCALE);
  return { lines, canvas, widthPt: width, heightPt: height };
}

async function readPictures(sources: readonly PictureOfPage[], opening: Opening): Promise<Pages> {
  const { readPictures: read } = await import('./picture');
  const pages = await read(sources, opening.signal, opening.onProgress);
  return {
    isPicture: true,
    lines: pages.flatMap(({ lines }) => lines),
    pages: pages.map(({ widthPt, heightPt, picture }, at) => ({
      number: at + 1,
      widthPt,
      heightPt,
      picture,
    })),
  };
}

const LOCKED = 'This PDF is locked with a password. Ask for an open one, or paste its text.';
const DAMAGED = 'This PDF cannot be opened. It may be damaged; ask for another, or paste its text.';

async function openPdf(bytes: Uint8Array, opening: Opening): Promise<Pages> {
  const pdfjs = await import('pdfjs-dist');
  pdfjs.GlobalWorkerOptions.workerSrc = workerUrl;
  const loading = pdfjs.getDocument({ data: bytes, isEvalSupported: false, verbosity: 0 });
  // One page may take long: giving up ends it there and then.
  opening.signal.addEventListener('abort', () => void loading.destroy(), { once: true });
  try {
    return await readPdf(loading, opening);
  } catch (error) {
    if (opening.signal.aborted) throw new PaperFault(GIVEN_UP);
    throw error;
  } finally {
    await loading.destroy();
  }
}

async function readPdf(loading: PDFDocumentLoadingTask, opening: Opening): Promise<Pages> {
  const document = await loading.promise.catch((error: unknown) => {
    const isLocked = error instanceof Error && error.name === 'PasswordException';
    throw new PaperFault(isLocked ? LOCKED : DAMAGED);
  });
  if (document.numPages === 0) throw new PaperFault(EMPTY);
  if (document.numPages > MOST_PAGES) {
    throw new PaperFault(
      `This PDF has ${document.numPages} pages; a supplier’s paper has a few. Send only the pages that matter.`,
    );
  }
  const read: PdfPage[] = [];
  for (let number = 1; number <= document.numPages; number++) {
    opening.onProgress(number / document.numPages, `Opening page ${number} of ${document.numPages}`);
    const page = await document.getPage(number).catch(() => {
      throw new PaperFault(DAMAGED);
    });
    read.push(await readPdfPage(page, number));
  }
  if (read.some(({ lines }) => lines.length > 0)) {
    return {
      isPicture: false,
      lines: filled(read.flatMap(({ lines }) => lines)),
      pages: read.map(({ canvas, widthPt, heightPt }, at) => ({
        number: at + 1,
        widthPt,
        heightPt,
        picture: canvas.toDataURL('image/png'),
      })),
    };
  }
  const scanned = read.slice(0, MOST_SCANNED);
  return readPictures(
    scanned.map(({ canvas }) => ({ source: canvas, width: canvas.width, height: canvas.height })),
    opening,
  );
}

async function openPicture(bytes: Uint8Array, mime: string, opening: Opening): Promise<Pages> {
  const bitmap = await createImageBitmap(new Blob([bytes as BlobPart], { type: mime })).catch(() => {
    throw new PaperFault('This picture cannot be opened. It may be damaged; take another.');
  });
  return readPictures([{ source: bitmap, width: bitmap.width, height: bitmap.height }], opening);
}

async function openTable(text: string): Promise<PaperLine[]> {
  const { default: Papa } = await import('papaparse');
  return linesFromRows(Papa.parse<string[]>(text, { skipEmptyLines: false }).data);
}

const EMPTY = 'There is nothing in this file.';

/** Neither empty nor longer than a paper. */
function filled(lines: PaperLine[]): PaperLine[] {
  if (lines.length === 0) throw new PaperFault(EMPTY);
  if (lines.length > MOST_LINES) throw new PaperFault(LONG);
  return lines;
}

function officeReader(fileName: string): ((bytes: Uint8Array) => Promise<PaperLine[]>) | null {
  if (/\.xlsx$/i.test(fileName)) return linesFromWorkbook;
  return /\.docx$/i.test(fileName) ? linesFromDocument : null;
}

/** Opens a file's bytes by its name and type. Throws a PaperFault that says what to do. */
export async function openBytes(
  { fileName, mime, inbox }: { fileName: string; mime: string; inbox: string | null },
  bytes: Uint8Array,
  opening: Opening,
): Promise<OpenPaper> {
  if (bytes.byteLength > LARGEST_PAPER_BYTES)
    throw new PaperFault('This file is over 15 MB. Send a smaller one.');
  if (mime === 'application/pdf' || /\.pdf$/i.test(fileName))
    return { fileName, inbox, ...(await openPdf(bytes, opening)) };
  if (/^image\/(?:png|jpeg|webp)$/.test(mime) || /\.(?:png|jpe?g|webp)$/i.test(fileName))
    return { fileName, inbox, ...(await openPicture(bytes, mime, opening)) };
  const office = officeReader(fileName);
  if (office) return { fileName, inbox, lines: filled(await office(bytes)), pages: [], isPicture: false };
  if (bytes.includes(0)) {
    throw new PaperFault(
      'This file is neither a PDF, a picture nor text. Save it as PDF, or paste its text.',
    );
  }
  if (bytes.byteLength > MOST_TEXT_BYTES) throw new PaperFault(LONG);
  const text = new TextDecoder('utf-8').decode(bytes);
  const isTable = mime === 'text/csv' || /\.(csv|tsv)$/i.test(fileName);
  if (!isTable) return openText(text, fileName, inbox);
  return { fileName, inbox, lines: filled(await openTable(text)), pages: [], isPicture: false };
}

/** A paper that is text: a file of it, or what was pasted. Throws a PaperFault that says what to do. */
export function openText(text: string, fileName: string, inbox: string | null): OpenPaper {
  if (text.length > MOST_TEXT_BYTES) throw new PaperFault(LONG);
  return { fileName, inbox, lines: filled(linesFromText(text)), pages: [], isPicture: false };
}
