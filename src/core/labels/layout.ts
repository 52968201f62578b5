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
}

export interface PlacedRule {
  x1Mm: number;
  y1Mm: number;
  x2Mm: number;
  y2Mm: number;
  weightMm: number;
}

/** What the maker has to see: text that does not fit, a character that cannot be drawn, a missing element. */
export interface LabelFinding {
  element: string;
  code: 'does-not-fit' | 'cannot-draw' | 'missing';
  message: string;
}

export interface Layout {
  widthMm: number;
  heightMm: number;
  texts: PlacedText[];
  rules: PlacedRule[];
  findings: LabelFinding[];
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

/** Breaks text into lines no wider than the width. A word wider than the line is broken between letters. */
export function breakLines(text: string, style: TextStyle, widthMm: number, metrics: Metrics): string[] {
  const fits = (candidate: string) => metrics.width(candidate, style.face, style.sizeMm) <= widthMm;
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const joined = line ? `${line} ${word}` : word;
    if (fits(joined)) {
      line = joined;
      continue;
    }
    if (line) lines.push(line);
    line = word;
    while (!fits(line) && [...line].length > 1) {
      const letters = [...line];
      let count = letters.length - 1;
      while (count > 1 && !fits(letters.slice(0, count).join(''))) count--;
      lines.push(letters.slice(0, count).join(''));
      line = letters.slice(count).join('');
    }
  }
  if (line) lines.push(line);
  return lines;
}

/** Places lines from the top of a box down; gives the height they take, which may exceed the box. */
export function placeLines(layout: Layout, lines: readonly string[], style: TextStyle, box: Box): number {
  const step = style.sizeMm * style.leading;
  lines.forEach((text, index) => {
    layout.texts.push({
      text,
      face: style.face,
      sizeMm: style.sizeMm,
      xMm: box.xMm,
      yMm: box.yMm + style.sizeMm * 0.8 + index * step,
      element: style.element,
    });
  });
  return lines.length === 0 ? 0 : style.sizeMm + (lines.length - 1) * step;
}
