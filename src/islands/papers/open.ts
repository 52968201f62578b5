/** Opens a paper in whatever form it comes: PDF, picture, workbook, document, table file or text; gives its lines and, for a PDF, its pages. */
import type {
  PDFDocumentLoadingTask,
  PDFDocumentProxy,
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
import { withMarks } from '../../core/paperwork/raised';
import { pageSays } from '../../core/paperwork/page-matters';
import type { Ask, ProposedPage } from './ask';
import { isWorkbook, remedyFor } from '../../core/file-kinds';
import { isText, textOfBytes } from '../../ui/file-text';
import { rowsOfTable } from '../../ui/table-text';
import { PaperFault, type PagePicture } from './fault';
import { openMail } from './mail';
import type { Together } from './together';
import type { PageLanguage } from '../../core/paperwork/page-language';
import { linesFromDocument, linesFromPage, linesFromWorkbook } from './office';
import type { PictureOfPage } from './flat-picture';
import type { Progress } from './picture';

export interface OpenPaper {
  /** Read from a picture, so that more is asked about it. */
  isPicture: boolean;
  /** Nothing was read of it: somebody keys in what it says. */
  isByHand?: boolean;
  /** The language that a picture was read in; absent where it is none. */
  language?: PageLanguage;
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

type Pages = Pick<OpenPaper, 'lines' | 'pages' | 'isPicture' | 'language'>;

/** What opening a file may use: a way to be given up, and a place to tell how far it is. */
export interface Opening {
  signal: AbortSignal;
  onProgress: Progress;
  /** The language to read pictures in; null for that of the first page. */
  language: PageLanguage | null;
  /** Asks the maker for what has to be known. */
  ask: Ask;
  /** Is told what a mail brings, with the paper that is opened of it. */
  onTogether: (together: Together) => void;
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
    withMarks(
      texts.map((item): TextItem => ({
        text: item.str,
        xPt: item.transform[4] as number,
        yPt: height - (item.transform[5] as number),
        widthPt: item.width,
        heightPt: item.height,
      })),
    ),
  );
  const canvas = await drawn(page, lines.length > 0 ? DRAWN_SCALE : SCANNED_SCALE);
  return { lines, canvas, widthPt: width, heightPt: height };
}

async function readPictures(sources: readonly PictureOfPage[], opening: Opening): Promise<Pages> {
  const { readPictures: read } = await import('./picture');
  const { pages, language } = await read(sources, opening.language, opening.signal, opening.onProgress);
  return {
    isPicture: true,
    language,
    lines: pages.flatMap(({ lines }) => lines),
    pages: pages.map(({ widthPt, heightPt, picture }, at) => ({
      number: at + 1,
      widthPt,
      heightPt,
      picture,
    })),
  };
}

const DAMAGED = 'This PDF cannot be opened. It may be damaged; ask for another, or paste its text.';

async function openPdf(bytes: Uint8Array, fileName: string, opening: Opening): Promise<Pages> {
  const pdfjs = await import('pdfjs-dist');
  if (opening.signal.aborted) throw new PaperFault(GIVEN_UP);
  pdfjs.GlobalWorkerOptions.workerSrc = workerUrl;
  const loading = pdfjs.getDocument({ data: bytes, isEvalSupported: false, verbosity: 0 });
  loading.onPassword = (open: (word: string) => void, reason: number) => {
    void opening.ask({ kind: 'word', fileName, isWrong: reason === WRONG_WORD }).then((word) => {
      if (typeof word === 'string') open(word);
      else void loading.destroy();
    });
  };
  // One page may take long: giving up ends it there and then.
  opening.signal.addEventListener('abort', () => void loading.destroy(), { once: true });
  try {
    return await readPdf(loading, fileName, opening);
  } catch (error) {
    if (opening.signal.aborted || loading.destroyed) throw new PaperFault(GIVEN_UP);
    throw error;
  } finally {
    await loading.destroy();
  }
}

/** What the reader of PDFs says of a word that does not open it. */
const WRONG_WORD = 2;
/** The largest file that is opened here; nothing of it is kept. */
const LARGEST_OPENED_BYTES = 80 * 1024 * 1024;
/** So many pages at most are looked through. */
const MOST_LOOKED = 1200;
const HEAD_LETTERS = 80;

/** The pages of a long paper that are to be read, chosen by somebody from what their words are about. */
async function chosenPages(
  document: PDFDocumentProxy,
  fileName: string,
  opening: Opening,
): Promise<number[]> {
  const pages: ProposedPage[] = [];
  for (let number = 1; number <= document.numPages; number++) {
    opening.onProgress(number / document.numPages, `Looking through page ${number} of ${document.numPages}`);
    const { items } = await (await document.getPage(number)).getTextContent();
    const text = items.map((item) => ('str' in item ? item.str : '')).join(' ');
    pages.push({ number, head: text.trim().slice(0, HEAD_LETTERS), says: pageSays(text) });
  }
  const chosen = await opening.ask({ kind: 'pages', fileName, pages, most: MOST_PAGES });
  if (!Array.isArray(chosen)) throw new PaperFault(GIVEN_UP);
  return chosen;
}

async function readPdf(loading: PDFDocumentLoadingTask, fileName: string, opening: Opening): Promise<Pages> {
  const document = await loading.promise.catch(() => {
    throw new PaperFault(loading.destroyed ? GIVEN_UP : DAMAGED);
  });
  if (document.numPages === 0) throw new PaperFault(EMPTY);
  if (document.numPages > MOST_LOOKED)
    throw new PaperFault(
      `This PDF has ${document.numPages} pages, more than are looked through. Send only the pages that matter.`,
    );
  const numbers =
    document.numPages > MOST_PAGES
      ? await chosenPages(document, fileName, opening)
      : Array.from({ length: document.numPages }, (_, at) => at + 1);
  const read: PdfPage[] = [];
  for (const [at, number] of numbers.entries()) {
    opening.onProgress((at + 1) / numbers.length, `Opening page ${number} of ${document.numPages}`);
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
        number: numbers[at]!,
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

const EMPTY = 'There is nothing in this file.';

/** Neither empty nor longer than a paper. */
function filled(lines: PaperLine[]): PaperLine[] {
  if (lines.length === 0) throw new PaperFault(EMPTY);
  if (lines.length > MOST_LINES) throw new PaperFault(LONG);
  return lines;
}

function officeReader(fileName: string): ((bytes: Uint8Array) => Promise<PaperLine[]>) | null {
  if (isWorkbook(fileName) || /\.odt$/i.test(fileName)) return linesFromWorkbook;
  return /\.docx$/i.test(fileName) ? linesFromDocument : null;
}

/** A file's name and type, and the inbox's id where it came from there. */
interface FileOf {
  fileName: string;
  mime: string;
  inbox: string | null;
}

/** Opens a file's bytes by its name and type. Throws a PaperFault that says what to do. */
export async function openBytes(
  { fileName, mime, inbox }: FileOf,
  bytes: Uint8Array,
  opening: Opening,
): Promise<OpenPaper> {
  if (bytes.byteLength > LARGEST_OPENED_BYTES)
    throw new PaperFault('This file is over 80 MB. Send a smaller one.');
  if (mime === 'message/rfc822' || /\.eml$/i.test(fileName)) {
    const { paper, together } = await openMail(bytes, fileName, opening.ask);
    opening.onTogether(together);
    return openBytes({ ...paper, inbox }, paper.bytes.slice(), opening);
  }
  if (mime === 'application/pdf' || /\.pdf$/i.test(fileName))
    return { fileName, inbox, ...(await openPdf(bytes, fileName, opening)) };
  if (/^image\/(?:png|jpeg|webp)$/.test(mime) || /\.(?:png|jpe?g|webp)$/i.test(fileName))
    return { fileName, inbox, ...(await openPicture(bytes, mime, opening)) };
  const office = officeReader(fileName);
  if (office) return { fileName, inbox, lines: filled(await office(bytes)), pages: [], isPicture: false };
  return openWritten({ fileName, mime, inbox }, bytes);
}

/** A file that holds nothing but letters. Throws a PaperFault where it does not. */
async function openWritten({ fileName, mime, inbox }: FileOf, bytes: Uint8Array): Promise<OpenPaper> {
  const remedy = remedyFor(fileName);
  if (remedy || !isText(bytes))
    throw new PaperFault(
      remedy ?? 'This file is neither a PDF, a picture nor text. Save it as PDF, or paste its text.',
    );
  if (bytes.byteLength > MOST_TEXT_BYTES) throw new PaperFault(LONG);
  const text = textOfBytes(bytes);
  const of = { fileName, inbox, pages: [], isPicture: false };
  if (mime === 'text/html' || /\.html?$/i.test(fileName))
    return { ...of, lines: filled(linesFromPage(text)) };
  if (mime === 'text/csv' || /\.(csv|tsv)$/i.test(fileName))
    return { ...of, lines: filled(linesFromRows(await rowsOfTable(text))) };
  return openText(text, fileName, inbox);
}

/** A paper that is text: a file of it, or what was pasted. Throws a PaperFault that says what to do. */
export function openText(text: string, fileName: string, inbox: string | null): OpenPaper {
  if (text.length > MOST_TEXT_BYTES) throw new PaperFault(LONG);
  return { fileName, inbox, lines: filled(linesFromText(text)), pages: [], isPicture: false };
}

/** A paper that somebody keys in, beside its pages where there are any. */
export function openByHand(pages: readonly PagePicture[]): OpenPaper {
  return {
    ...{ fileName: 'Typed in by hand', inbox: null, lines: [], pages: [...pages] },
    ...{ isPicture: false, isByHand: true },
  };
}
