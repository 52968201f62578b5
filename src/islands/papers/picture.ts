/** Reading the text of a picture: straightened and cleaned here, read by a worker that ships with the application. */
import { createWorker, PSM, type Line, type Page, type Word, type Worker as Reader } from 'tesseract.js';
import readerUrl from 'tesseract.js/dist/worker.min.js?url';
import engineUrl from 'tesseract.js-core/tesseract-core-simd-lstm.wasm.js?url';
import { groupBy } from '../../core/group';
import { cellGapOf, linesFromItems, type PaperLine, type TextItem } from '../../core/paperwork/page';
import { PAGE_LANGUAGE_NAMES, pageLanguage, type PageLanguage } from '../../core/paperwork/page-language';
import { partOf, pointIn, startsEarlier } from '../../core/paperwork/points';
import type { GreyPicture } from '../../core/paperwork/straighten';
import { PaperFault } from './fault';
import { canvasOf, straightened, type PictureOfPage } from './flat-picture';

/** Where the build lays out the letters it knows. */
const LETTERS_URL = '/reader';
const MOST_PIXELS = 40_000_000;
/** Width of the page that lines are placed on, points. */
const PAGE_WIDTH_PT = 595;
/** Height of the letters within that of their row. */
const LETTER_SHARE = 0.9;
/** Words that are read with less certainty than this are no words, percent. */
const LEAST_CONFIDENCE = 20;
/** Words less sure than this are compared letter by letter, percent. */
const CERTAIN_CONFIDENCE = 80;
/** Lines a picture of a page has at least, and how sure they are together, percent. */
const LEAST_LINES = 3;
const LEAST_MEAN_CONFIDENCE = 45;
/** Words less sure than this together may stand on their side or on their head: quarter turns are tried, in this order. */
const SURE_CONFIDENCE = 70;
const QUARTERS = [1, 3, 2];

export interface Progress {
  (done: number, words: string): void;
}

/** A figure as levels and shares are written; without a point or comma where it was lost. */
const FIGURE = /^[<≤]?\d{1,3}(?:[.,]\d{1,4})?%?$/;
const BARE = /^[<≤]?\d{2,5}%?$/;
const ALONE_FIGURES = '0123456789.,%<';
/** Paper around a figure that is looked at alone, in its heights; and how high it is made for that, pixels. */
const AROUND = 0.25;
const ALONE_HIGH_PX = 72;
/** Figures looked at once more on one page: more stand on no certificate. */
const MOST_ALONE = 90;

/** How a figure reads besides as it was read on the page. */
interface Seen {
  text: string;
  other: string;
  isClear: boolean;
}

function boxOf({ bbox: { x0, x1, y0, y1 } }: Word) {
  const around = AROUND * (y1 - y0);
  return {
    left: Math.max(0, Math.floor(x0 - around)),
    top: Math.max(0, Math.floor(y0 - around)),
    right: x1 + around,
    bottom: y1 + around,
  };
}

/** Whether a figure's own pixels show its point where it was read, and nothing before it that could be one more digit. */
function isBorneOut(word: Word, plain: GreyPicture): boolean {
  const at = word.symbols.findIndex(({ text }) => /[.,]/.test(text));
  const [before, after] = [word.symbols[at - 1], word.symbols[at + 1]];
  if (!before || !after) return false;
  const box = boxOf(word);
  const part = partOf(plain, box);
  const point = pointIn(part);
  if (!point?.isClear || startsEarlier(part, word.bbox.x0 - box.left)) return false;
  const x = box.left + point.x;
  return x > (before.bbox.x0 + before.bbox.x1) / 2 && x < (after.bbox.x0 + after.bbox.x1) / 2;
}

/** A figure with the point that its own pixels show; null where they show none. */
function withPoint(word: Word, plain: GreyPicture): Seen | null {
  const text = word.text.trim();
  if (!BARE.test(text)) return null;
  const box = boxOf(word);
  const point = pointIn(partOf(plain, box));
  if (!point) return null;
  const isBefore = ({ bbox }: { bbox: { x0: number; x1: number } }) =>
    (bbox.x0 + bbox.x1) / 2 < box.left + point.x;
  const after = word.symbols.filter(isBefore).length;
  const isWithin = /\d$/.test(text.slice(0, after)) && /^\d/.test(text.slice(after));
  if (!isWithin) return null;
  return {
    text: `${text.slice(0, after)}.${text.slice(after)}`,
    other: text,
    isClear: point.isClear,
  };
}

/** The picture of one figure, large and alone on paper. */
function alone(word: Word, from: HTMLCanvasElement): HTMLCanvasElement {
  const { left, top, right, bottom } = boxOf(word);
  const scale = ALONE_HIGH_PX / Math.max(1, bottom - top);
  const [width, height] = [Math.ceil((right - left) * scale), Math.ceil((bottom - top) * scale)];
  const [canvas, context] = canvasOf(width + ALONE_HIGH_PX, height + ALONE_HIGH_PX / 2);
  context.imageSmoothingQuality = 'high';
  context.drawImage(
    from,
    left,
    top,
    right - left,
    bottom - top,
    ALONE_HIGH_PX / 2,
    ALONE_HIGH_PX / 4,
    width,
    height,
  );
  return canvas;
}

const figuresOf = (text: string) => text.replace(/\D/g, '');
const digitsOf = (text: string) => text.replace(/[^\d.,]/g, '').replace(',', '.');

/** Every figure of a page looked at once more, large and alone; those that read otherwise there, by their word. */
async function lookAgain(
  reader: Reader,
  words: readonly Word[],
  { canvas, plain }: { canvas: HTMLCanvasElement; plain: GreyPicture },
  tell: (share: number) => void,
): Promise<ReadonlyMap<Word, Seen>> {
  const seen = new Map<Word, Seen>();
  const figures = words.filter(({ text }) => FIGURE.test(text.trim()) || BARE.test(text.trim()));
  await reader.setParameters({
    tessedit_char_whitelist: ALONE_FIGURES,
    tessedit_pageseg_mode: PSM.SINGLE_WORD,
  });
  const looked = figures.slice(0, MOST_ALONE);
  for (const [at, word] of looked.entries()) {
    tell(at / looked.length);
    const pointed = withPoint(word, plain);
    const { data } = await reader.recognize(alone(word, canvas));
    const again = digitsOf(data.text);
    const known = pointed ?? { text: word.text.trim(), other: word.text.trim(), isClear: false };
    const isSame = again === digitsOf(known.text);
    // A point that is read and seen in the pixels is one; alone it is lost now and then, its digits rarely.
    const [digits, others] = [figuresOf(known.text), figuresOf(again)];
    if (isBorneOut(word, plain) && (digits === others || digits.length !== others.length)) continue;
    // Read alike twice and by its pixels, the first look at the page was wrong; else both readings fit.
    if (pointed) seen.set(word, { ...pointed, isClear: pointed.isClear && isSame });
    else if (!isSame && /^\d+(?:\.\d+)?$/.test(again)) seen.set(word, { ...known, other: again });
  }
  await reader.setParameters({ tessedit_char_whitelist: '', tessedit_pageseg_mode: PSM.AUTO });
  return seen;
}

interface LinedWord {
  word: Word;
  line: Line;
}

/** The words of a page that are read with some certainty, with their lines. */
function wordsOf(page: Page): LinedWord[] {
  const lines = (page.blocks ?? []).flatMap((block) =>
    block.paragraphs.flatMap((paragraph) => paragraph.lines),
  );
  return lines.flatMap((line) =>
    line.words
      .filter(({ confidence, text }) => confidence >= LEAST_CONFIDENCE && text.trim() !== '')
      .map((word) => ({ word, line })),
  );
}

/** The words of a page as runs of text, placed on a page of usual width. */
function itemsOf(words: readonly LinedWord[], scale: number, seen: ReadonlyMap<Word, Seen>): TextItem[] {
  return words.map(({ word, line }) => ({
    text: word.text,
    ...seen.get(word),
    isUnsure: word.confidence < CERTAIN_CONFIDENCE,
    xPt: word.bbox.x0 * scale,
    yPt: line.baseline.y1 * scale,
    widthPt: (word.bbox.x1 - word.bbox.x0) * scale,
    heightPt: line.rowAttributes.rowHeight * scale * LETTER_SHARE,
  }));
}

/** Of reading a page, the first look at all of it takes about so much; looking at its figures the rest. */
const FIRST_LOOK = 0.6;

function openReader(language: PageLanguage, onProgress: (share: number) => void): Promise<Reader> {
  return createWorker(language, 1, {
    langPath: LETTERS_URL,
    gzip: true,
    workerPath: readerUrl,
    corePath: engineUrl,
    workerBlobURL: false,
    cacheMethod: 'none',
    logger: ({ status, progress }) => status === 'recognizing text' && onProgress(FIRST_LOOK * progress),
  });
}

export interface ReadPicture {
  lines: PaperLine[];
  widthPt: number;
  heightPt: number;
  /** The straightened picture, as a data address. */
  picture: string;
}

export interface ReadPictures {
  pages: ReadPicture[];
  language: PageLanguage;
}

/**
 * Reads pictures of pages one after the other, in a language or in that of the first page. Throws a PaperFault where one
 * holds no page of text.
 */
export async function readPictures(
  pages: readonly PictureOfPage[],
  wanted: PageLanguage | null,
  signal: AbortSignal,
  onProgress: Progress,
): Promise<ReadPictures> {
  let at = 0;
  let language = wanted ?? 'eng';
  const tell = (share: number) =>
    onProgress(
      (at + share) / pages.length,
      `Reading page ${at + 1} of ${pages.length}, in ${PAGE_LANGUAGE_NAMES[language]}`,
    );
  onProgress(0, 'Getting the reader of pictures ready');
  const reader = await openReader(language, tell);
  /** Whether the first page's words are of another language: its letters are taken, and it is looked at anew. */
  const settle = async (text: string) => {
    const found = wanted === null && at === 0 ? pageLanguage(text) : null;
    if (found === null || found === language) return false;
    language = found;
    await reader.reinitialize(language);
    return true;
  };
  const stop = () => void reader.terminate();
  signal.addEventListener('abort', stop, { once: true });
  try {
    const read: ReadPicture[] = [];
    for (const page of pages) {
      if (signal.aborted) throw new PaperFault('Given up. Nothing was filed.');
      if (page.width * page.height > MOST_PIXELS)
        throw new PaperFault('This picture is larger than 40 megapixels. Send a smaller one.');
      const one = await readOne(reader, page, at + 1, { tell, settle });
      read.push(one);
      at++;
    }
    return { pages: read, language };
  } finally {
    signal.removeEventListener('abort', stop);
    await reader.terminate();
  }
}

interface Reading {
  tell: (share: number) => void;
  /** Whether what was read asks for a look with other letters. */
  settle: (text: string) => Promise<boolean>;
}

/** A page looked at once: its words, and how sure they are together. */
interface Look {
  data: Page;
  words: LinedWord[];
  confidence: number;
  straight: ReturnType<typeof straightened>;
}

async function lookAt(reader: Reader, page: PictureOfPage, quarters: number): Promise<Look> {
  const straight = straightened(page, quarters);
  const { data } = await reader.recognize(straight.canvas, {}, { blocks: true });
  const words = wordsOf(data);
  const confidence = words.reduce((sum, { word }) => sum + word.confidence, 0) / (words.length || 1);
  return { data, words, confidence, straight };
}

/** Looks at a page, and where its words make little sense turned by quarters too; the surest look. */
async function bestLook(reader: Reader, page: PictureOfPage): Promise<{ look: Look; quarters: number }> {
  let best = { look: await lookAt(reader, page, 0), quarters: 0 };
  for (const quarters of QUARTERS) {
    if (best.look.confidence >= SURE_CONFIDENCE) break;
    const look = await lookAt(reader, page, quarters);
    if (look.confidence > best.look.confidence) best = { look, quarters };
  }
  return best;
}

async function readOne(
  reader: Reader,
  page: PictureOfPage,
  number: number,
  { tell, settle }: Reading,
): Promise<ReadPicture> {
  const { look: first, quarters } = await bestLook(reader, page);
  let look = first;
  if (await settle(look.data.text)) look = await lookAt(reader, page, quarters);
  const { words, confidence, straight } = look;
  const { canvas } = straight;
  const scale = PAGE_WIDTH_PT / canvas.width;
  const seen = await lookAgain(
    reader,
    words.map(({ word }) => word),
    straight,
    (share) => tell(FIRST_LOOK + (1 - FIRST_LOOK) * share),
  );
  const items = itemsOf(words, scale, seen);
  const byLine = [
    ...groupBy(
      items.map((item, at) => ({ item, line: words[at]!.line })),
      ({ line }) => line,
    ).values(),
  ];
  const lines = linesFromItems(number, items, cellGapOf(byLine.map((line) => line.map(({ item }) => item))));
  const shown = {
    widthPt: PAGE_WIDTH_PT,
    heightPt: canvas.height * scale,
    picture: canvas.toDataURL('image/png'),
  };
  if (lines.length < LEAST_LINES || confidence < LEAST_MEAN_CONFIDENCE)
    throw new PaperFault(
      'There is no page of text in this picture that could be read. Type in what it says.',
      [{ number, ...shown }],
    );
  return { lines, ...shown };
}
