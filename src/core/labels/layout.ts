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
  code: 'does-not-fit' | 'cannot-draw' | 'missing' | 'contrast' | 'net-position' | 'barcode' | 'format';
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

/** Takes as many words as a width holds; a word wider than the line is broken between letters. */
export function takeLine(
  words: readonly string[],
  style: TextStyle,
  widthMm: number,
  metrics: Metrics,
): { text: string; rest: string[] } {
  const fits = (text: string) => metrics.width(text, style.face, style.sizeMm) <= widthMm;
  let count = 0;
  let text = '';
  while (count < words.length) {
    const joined = text ? `${text} ${words[count]}` : words[count]!;
    if (!fits(joined)) break;
    text = joined;
    count++;
  }
  if (count > 0) return { text, rest: words.slice(count) };
  const letters = [...(words[0] ?? '')];
  let kept = Math.max(1, letters.length - 1);
  while (kept > 1 && !fits(letters.slice(0, kept).join(''))) kept--;
  const tail = letters.slice(kept).join('');
  return { text: letters.slice(0, kept).join(''), rest: [...(tail ? [tail] : []), ...words.slice(1)] };
}

/** The words of a text. */
export function wordsOf(text: string): string[] {
  return text.split(/\s+/).filter(Boolean);
}

/** Breaks text into lines no wider than the width. */
export function breakLines(text: string, style: TextStyle, widthMm: number, metrics: Metrics): string[] {
  const lines: string[] = [];
  for (let words = wordsOf(text); words.length > 0;) {
    const line = takeLine(words, style, widthMm, metrics);
    lines.push(line.text);
    words = line.rest;
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

/** Flows a text through the regions; answers how much height it lacked in the end, 0 where it fits. */
export function flowText(
  layout: Layout,
  text: string,
  style: TextStyle,
  flow: Flow,
  metrics: Metrics,
): number {
  let words = wordsOf(text);
  const stepMm = style.sizeMm * style.leading;
  while (words.length > 0) {
    const region = nextLine(flow, style.sizeMm);
    const isOver = flow.topMm + style.sizeMm > region.yMm + region.heightMm + 1e-9;
    const room = lineRoom(region, flow.topMm, style.sizeMm);
    const widthMm = Math.max(room.widthMm, isOver ? NARROWEST_MM * 3 : 0);
    if (widthMm < NARROWEST_MM && !isOver) {
      flow.topMm += stepMm;
      continue;
    }
    const line = takeLine(words, style, widthMm, metrics);
    const blankMm = region.disc ? room.widthMm - metrics.width(line.text, style.face, style.sizeMm) : 0;
    putLine(layout, line.text, style, room.xMm + Math.max(0, blankMm) / 2, flow.topMm, isOver);
    if (isOver) flow.lacksMm += stepMm;
    flow.topMm += stepMm;
    words = line.rest;
  }
  return flow.lacksMm;
}
