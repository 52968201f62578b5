/** Opens a paper in whatever form it comes: PDF, table file or text; gives its lines and, for a PDF, its pages. */
import type { TextItem as PdfText } from 'pdfjs-dist/types/src/display/api';
import workerUrl from 'pdfjs-dist/build/pdf.worker.min.mjs?url';
import {
  linesFromItems,
  linesFromRows,
  linesFromText,
  type PaperLine,
  type TextItem,
} from '../../core/paperwork/page';

export interface PagePicture {
  number: number;
  widthPt: number;
  heightPt: number;
  /** The page drawn, as a data address. */
  picture: string;
}

export interface OpenPaper {
  fileName: string;
  /** The inbox's id, where it came from there. */
  inbox: string | null;
  lines: PaperLine[];
  /** Empty where the paper is text without pages. */
  pages: PagePicture[];
}

/** Pages are drawn this many times their size in points, so that they stay sharp. */
const DRAWN_SCALE = 1.6;
const MOST_PAGES = 30;
const LARGEST_BYTES = 15 * 1024 * 1024;

/** Why a paper could not be opened, in words for the maker. */
export class PaperFault extends Error {}

async function openPdf(bytes: Uint8Array, signal: AbortSignal): Promise<Pick<OpenPaper, 'lines' | 'pages'>> {
  const pdfjs = await import('pdfjs-dist');
  pdfjs.GlobalWorkerOptions.workerSrc = workerUrl;
  const document = await pdfjs
    .getDocument({ data: bytes, isEvalSupported: false, verbosity: 0 })
    .promise.catch(() => {
      throw new PaperFault('This PDF cannot be opened. It may be damaged or locked; paste its text instead.');
    });
  const lines: PaperLine[] = [];
  const pages: PagePicture[] = [];
  for (let number = 1; number <= Math.min(document.numPages, MOST_PAGES); number++) {
    if (signal.aborted) throw new PaperFault('Given up. Nothing was filed.');
    const page = await document.getPage(number);
    const { width, height } = page.getViewport({ scale: 1 });
    const { items } = await page.getTextContent();
    const texts = items.filter((item): item is PdfText => 'str' in item);
    lines.push(
      ...linesFromItems(
        number,
        texts.map((item): TextItem => ({
          text: item.str,
          xPt: item.transform[4] as number,
          yPt: height - (item.transform[5] as number),
          widthPt: item.width,
          heightPt: item.height,
        })),
      ),
    );
    const canvas = globalThis.document.createElement('canvas');
    const viewport = page.getViewport({ scale: DRAWN_SCALE });
    canvas.width = viewport.width;
    canvas.height = viewport.height;
    await page.render({ canvas, viewport }).promise;
    pages.push({ number, widthPt: width, heightPt: height, picture: canvas.toDataURL('image/png') });
  }
  if (lines.length === 0) {
    throw new PaperFault(
      'This PDF holds pictures of text only, which cannot be read here. Type in what it says.',
    );
  }
  return { lines, pages };
}

async function openTable(text: string): Promise<PaperLine[]> {
  const { default: Papa } = await import('papaparse');
  return linesFromRows(Papa.parse<string[]>(text, { skipEmptyLines: false }).data);
}

/** Opens a file's bytes by its name and type. Throws a PaperFault that says what to do. */
export async function openBytes(
  fileName: string,
  mime: string,
  bytes: Uint8Array,
  inbox: string | null,
  signal: AbortSignal,
): Promise<OpenPaper> {
  if (bytes.byteLength > LARGEST_BYTES) throw new PaperFault('This file is over 15 MB. Send a smaller one.');
  const isPdf = mime === 'application/pdf' || /\.pdf$/i.test(fileName);
  if (isPdf) return { fileName, inbox, ...(await openPdf(bytes, signal)) };
  if (bytes.includes(0)) {
    throw new PaperFault('This file is neither a PDF nor text. Save it as PDF or CSV, or paste its text.');
  }
  const text = new TextDecoder('utf-8').decode(bytes);
  const isTable = mime === 'text/csv' || /\.(csv|tsv)$/i.test(fileName);
  const lines = isTable ? await openTable(text) : linesFromText(text);
  if (lines.length === 0) throw new PaperFault('There is nothing in this file.');
  return { fileName, inbox, lines, pages: [] };
}
