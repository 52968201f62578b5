/**
 * Laying out a label, in millimetres: the one layout that screen and print both draw. Letters are measured by
 * the caller's fonts; nothing is shrunk below its minimum, and what does not fit is told with its measure.
 */

/** Faces a label is set in; the caller maps them to fonts. */
export type Face = 'display' | 'text' | 'strong';

/** What the layout asks of the fonts. All lengths in millimetres, at a font size in millimetres. */
export interface Metrics {
  width(text: string, face: Face, sizeMm: number): number;
  /** Height of the lower-case x for a font size of 1 mm. */
  xHeight(face: Face): number;
  /** Height of a digit for a font size of 1 mm. */
  digitHeight(face: Face): number;
  /** Characters of the text that no shipped font can draw. */
  missing(text: string): string[];
}

/** A line of type: its baseline starts at (xMm, yMm), measured from the top left of the label. */
export interface PlacedText {
  text: string;
  face: Face;
  sizeMm: number;
  xMm: number;
  yMm: number;
  element: string;
  /** Set where it stands past the room there is; such a label is not printed. */
  isOver?: boolean;
}

export interface PlacedRule {
  x1Mm: number;
  y1Mm: number;
  x2Mm: number;
  y2Mm: number;
  weightMm: number;
  /** A fold or a hole is drawn on screen only. */
  isGuide?: boolean;
}

/** A filled bar of a barcode. */
export interface PlacedBar {
  xMm: number;
  yMm: number;
  widthMm: number;
  heightMm: number;
}

export interface PlacedImage extends PlacedBar {
  /** Key under which the caller keeps the picture. */
  key: string;
}

/** What the maker has to see. `blocks` keeps a label from being printed. */
export interface LabelFinding {
  element: string;
  code:
    | 'does-not-fit'
    | 'cannot-draw'
    | 'missing'
    | 'contrast'
    | 'net-position'
    | 'barcode'
    | 'picture'
    | 'format';
  message: string;
  /** What the market allows instead. */
  waysOut?: string[];
}

/** A height as measured against what is asked for. */
export interface MeasuredHeight {
  element: string;
  what: 'x-height' | 'digits';
  heightMm: number;
  leastMm: number;
  source: string;
}

export interface Layout {
  widthMm: number;
  heightMm: number;
  outline: 'rect' | 'disc';
  paper: string;
  ink: string;
  texts: PlacedText[];
  rules: PlacedRule[];
  bars: PlacedBar[];
  images: PlacedImage[];
  findings: LabelFinding[];
  heights: MeasuredHeight[];
}

export interface Box {
  xMm: number;
  yMm: number;
  widthMm: number;
  heightMm: number;
}

export interface TextStyle {
  element: string;
  face: Face;
  sizeMm: number;
  /** Distance of baselines, times the size. */
  leading: number;
}

/** Part of the size from the top of a line to its baseline. */
const ASCENT = 0.8;

/** A place that text flows through: a box, or the part of a disc between two heights. */
export interface Region extends Box {
  /** The disc that bounds the lines, where it is one. */
  disc?: { xMm: number; yMm: number; radiusMm: number };
}

/** The room for a line whose top is at a height: where it may start and how wide it may be. */
export function lineRoom(region: Region, topMm: number, sizeMm: number): { xMm: number; widthMm: number } {
  if (!region.disc) return { xMm: region.xMm, widthMm: region.widthMm };
  const { xMm, yMm, radiusMm } = region.disc;
  const far = Math.max(Math.abs(topMm - yMm), Math.abs(topMm + sizeMm - yMm));
  const half = far < radiusMm ? Math.sqrt(radiusMm * radiusMm - far * far) : 0;
  return { xMm: xMm - half, widthMm: 2 * half };
}

/** Marks that French sets apart and no line begins with, and the one that no line ends with. */
const CLINGS_BACK = /^[;:!?»]+$/;
const CLINGS_ON = /(?:^|\s)«$/;

/**
 * The words of a text: what no line is broken within.
 *
 * @example wordsOf('les yeux ; rincer') // ['les', 'yeux ;', 'rincer']
 */
export function wordsOf(text: string): string[] {
  const words: string[] = [];
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const before = words.at(-1);
    if (before !== undefined && (CLINGS_BACK.test(word) || CLINGS_ON.test(before)))
      words[words.length - 1] = `${before} ${word}`;
    else words.push(word);
  }
  return words;
}

/**
 * A text measured once: its words and how wide each is for a font size of 1 mm. Widths grow with the size, so
 * every size is tried over the same figures.
 */
export interface Measured {
  words: readonly string[];
  /** Width of each word at a size of 1 mm. */
  widths: readonly number[];
  /** Width of the blank between two words at a size of 1 mm. */
  blank: number;
  /** The letters of a word with their widths at a size of 1 mm, for a word that has to be broken. */
  lettersOf(word: number): readonly { letter: string; width: number }[];
}

/** Measures a text; each different word is measured once. */
export function measure(text: string, face: Face, metrics: Metrics): Measured {
  const known = new Map<string, number>();
  const widthOf = (word: string) => {
    const before = known.get(word);
    if (before !== undefined) return before;
    const width = metrics.width(word, face, 1);
    known.set(word, width);
    return width;
  };
  const words = wordsOf(text);
  const broken = new Map<number, { letter: string; width: number }[]>();
  const lettersOf = (word: number) => {
    const before = broken.get(word);
    if (before) return before;
    const letters = [...words[word]!].map((letter) => ({ letter, width: widthOf(letter) }));
    broken.set(word, letters);
    return letters;
  };
  return { words, widths: words.map(widthOf), blank: metrics.width(' ', face, 1), lettersOf };
}

/** Where a text goes on: a word, and how many of its letters stand on lines before. */
export interface Place {
  word: number;
  letter: number;
}

export const START: Place = { word: 0, letter: 0 };

export interface TakenLine {
  text: string;
  widthMm: number;
  next: Place;
}

/** The letters of a word that a width holds, at least one. */
function brokenWord(measured: Measured, { word, letter }: Place, sizeMm: number, roomMm: number): TakenLine {
  const letters = measured.lettersOf(word);
  let widthMm = 0;
  let at = letter;
  while (at < letters.length) {
    const wider = widthMm + letters[at]!.width * sizeMm;
    if (wider > roomMm && at > letter) break;
    widthMm = wider;
    at++;
  }
  const text = letters
    .slice(letter, at)
    .map((one) => one.letter)
    .join('');
  return { text, widthMm, next: at < letters.length ? { word, letter: at } : { word: word + 1, letter: 0 } };
}

/** Rounding that a full line may be wider by, millimetres. */
const HAIR_MM = 1e-9;

/** Takes as many words as a width holds; a word wider than the line is broken between letters. */
export function takeLine(measured: Measured, from: Place, sizeMm: number, widthMm: number): TakenLine {
  const { words, widths } = measured;
  if (from.letter > 0) {
    const rest = brokenWord(measured, from, sizeMm, widthMm);
    if (rest.next.word === from.word) return rest;
    return extended(measured, rest, sizeMm, widthMm);
  }
  if (widths[from.word]! * sizeMm > widthMm + HAIR_MM) return brokenWord(measured, from, sizeMm, widthMm);
  const first = {
    text: words[from.word]!,
    widthMm: widths[from.word]! * sizeMm,
    next: { word: from.word + 1, letter: 0 },
  };
  return extended(measured, first, sizeMm, widthMm);
}

/** A line with as many more whole words as there is room for. */
function extended(
  { words, widths, blank }: Measured,
  line: TakenLine,
  sizeMm: number,
  roomMm: number,
): TakenLine {
  let { widthMm } = line;
  let word = line.next.word;
  while (word < words.length) {
    const wider = widthMm + (blank + widths[word]!) * sizeMm;
    if (wider > roomMm + HAIR_MM) break;
    widthMm = wider;
    word++;
  }
  const more = words.slice(line.next.word, word);
  return { text: [line.text, ...more].join(' '), widthMm, next: { word, letter: 0 } };
}

/** Whether anything of a text is left. */
export function isLeft({ words }: Measured, { word }: Place): boolean {
  return word < words.length;
}

/** Breaks text into lines no wider than the width. */
export function breakLines(text: string, style: TextStyle, widthMm: number, metrics: Metrics): string[] {
  const measured = measure(text, style.face, metrics);
  const lines: string[] = [];
  for (let at = START; isLeft(measured, at);) {
    const line = takeLine(measured, at, style.sizeMm, widthMm);
    lines.push(line.text);
    at = line.next;
  }
  return lines;
}

/** Puts one line of text at a top left. */
export function putLine(
  layout: Layout,
  text: string,
  style: TextStyle,
  xMm: number,
  topMm: number,
  isOver = false,
): void {
  layout.texts.push({
    text,
    face: style.face,
    sizeMm: style.sizeMm,
    xMm,
    yMm: topMm + style.sizeMm * ASCENT,
    element: style.element,
    ...(isOver ? { isOver } : {}),
  });
}

/** An empty label. */
export function emptyLayout(
  widthMm: number,
  heightMm: number,
  look: { paper: string; ink: string; outline?: Layout['outline'] },
): Layout {
  return {
    widthMm,
    heightMm,
    outline: look.outline ?? 'rect',
    paper: look.paper,
    ink: look.ink,
    texts: [],
    rules: [],
    bars: [],
    images: [],
    findings: [],
    heights: [],
  };
}

/** Where a flow stands. */
export interface Flow {
  regions: readonly Region[];
  region: number;
  topMm: number;
  /** Millimetres of height that the text lacks so far. */
  lacksMm: number;
}

/** Starts a flow at the top of the first region. */
export function startFlow(regions: readonly Region[]): Flow {
  return { regions, region: 0, topMm: regions[0]!.yMm, lacksMm: 0 };
}

/** Moves on until a line of a size has room; past the last region it goes on below and counts what is lacking. */
function nextLine(flow: Flow, sizeMm: number): Region {
  const bottom = () => flow.regions[flow.region]!.yMm + flow.regions[flow.region]!.heightMm;
  while (flow.topMm + sizeMm > bottom() + 1e-9 && flow.region < flow.regions.length - 1) {
    flow.region++;
    flow.topMm = flow.regions[flow.region]!.yMm;
  }
  return flow.regions[flow.region]!;
}

const NARROWEST_MM = 4;

/** Flows a measured text through the regions; answers how much height it lacked in the end, 0 where it fits. */
export function flowText(layout: Layout, measured: Measured, style: TextStyle, flow: Flow): number {
  const stepMm = style.sizeMm * style.leading;
  for (let at = START; isLeft(measured, at);) {
    const region = nextLine(flow, style.sizeMm);
    const isOver = flow.topMm + style.sizeMm > region.yMm + region.heightMm + 1e-9;
    const room = lineRoom(region, flow.topMm, style.sizeMm);
    const widthMm = Math.max(room.widthMm, isOver ? NARROWEST_MM * 3 : 0);
    if (widthMm < NARROWEST_MM && !isOver) {
      flow.topMm += stepMm;
      continue;
    }
    const line = takeLine(measured, at, style.sizeMm, widthMm);
    const blankMm = region.disc ? room.widthMm - line.widthMm : 0;
    putLine(layout, line.text, style, room.xMm + Math.max(0, blankMm) / 2, flow.topMm, isOver);
    if (isOver) flow.lacksMm += stepMm;
    flow.topMm += stepMm;
    at = line.next;
  }
  return flow.lacksMm;
}
