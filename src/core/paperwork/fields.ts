/** What a certificate says about itself: number, edition, date, issuer, material, flash point, vanillin. */
import { findDay, readFigure } from './figures';
import { lineText, type Paper } from './page';

/** Something taken from a paper: from which line, in which words, and what is to be asked. */
export interface Taken<T> {
  value: T;
  /** Index of the line in the paper. */
  line: number;
  said: string;
  question: string | null;
}

export interface PaperFields {
  material: Taken<string> | null;
  number: Taken<string> | null;
  issuer: Taken<string> | null;
  edition: Taken<string> | null;
  issuedOn: Taken<string> | null;
  flashPointC: Taken<number> | null;
  vanillinPct: Taken<number> | null;
}

/** The value below a label is looked for within this many line heights. */
const BELOW_HEIGHTS = 2.5;

/**
 * The text that goes with a label: behind it in its cell, in the next cell, or below it. The label has to
 * begin its cell.
 */
function labelled(paper: Paper, label: RegExp): Taken<string> | null {
  const pattern = new RegExp(`^(?:${label.source})\\s*[:#]?\\s*(.*)$`, 'i');
  for (const [index, line] of paper.lines.entries()) {
    for (const [place, cell] of line.cells.entries()) {
      const rest = pattern.exec(cell.text)?.at(-1)?.trim();
      if (rest === undefined) continue;
      if (rest !== '') return { value: rest, line: index, said: cell.text, question: null };
      const beside = line.cells[place + 1];
      if (beside)
        return { value: beside.text, line: index, said: `${cell.text} ${beside.text}`, question: null };
      const next = paper.lines[index + 1];
      const isNear = next && next.page === line.page && next.yPt - line.yPt <= BELOW_HEIGHTS * line.heightPt;
      const below = isNear
        ? next.cells.find(({ xPt }) => Math.abs(xPt - cell.xPt) < line.heightPt)
        : undefined;
      if (below)
        return { value: below.text, line: index + 1, said: `${cell.text} ${below.text}`, question: null };
    }
  }
  return null;
}

/** The first line on which a pattern is found anywhere. */
function matched(paper: Paper, pattern: RegExp): { match: RegExpExecArray; line: number } | null {
  for (const [line, entry] of paper.lines.entries()) {
    const match = pattern.exec(lineText(entry));
    if (match) return { match, line };
  }
  return null;
}

const NUMBER_LABEL = /(?:certificate|declaration|document|statement|our ref|ref|reference|report)/;
const NUMBER_TAIL = String.raw`(?:\s*(?:no|nr|number|id|ref)\b\.?|\s*#|\s*n°)?\s*[:#]?\s*`;
const NUMBER_SHAPE = String.raw`([A-Z]{1,5}[-/ ]?\d[A-Z0-9/-]*)`;

function findNumber(paper: Paper): Taken<string> | null {
  const found = matched(paper, new RegExp(`\\b${NUMBER_LABEL.source}${NUMBER_TAIL}${NUMBER_SHAPE}`, 'i'));
  if (found) return { value: found.match[1]!, line: found.line, said: found.match[0], question: null };
  const below = labelled(paper, new RegExp(`(?:${NUMBER_LABEL.source})\\s*(?:no|nr|number|id)\\.?`));
  return below && /\d/.test(below.value) ? below : null;
}

function ordinal(edition: number): string {
  const tens = edition % 100;
  const suffix = tens >= 11 && tens <= 13 ? 'th' : (['th', 'st', 'nd', 'rd'][edition % 10] ?? 'th');
  return `${edition}${suffix}`;
}

function findEdition(paper: Paper): Taken<string> | null {
  const found =
    matched(paper, /\b(\d{2})\s?(?:st|nd|rd|th)?\s+(?:amendment|edition)\b/i) ??
    matched(paper, /\b(?:amendment|edition)\s*(?:no\.?|number)?\s*[:#]?\s*(\d{2})\b/i);
  if (!found) return null;
  const value = ordinal(Number(found.match[1]));
  return { value, line: found.line, said: found.match[0], question: null };
}

const ISSUED =
  /\b(?:date(?: of (?:issue|certificate))?|issued(?: on)?|issue date|dated|valid from|revised|revision date)\b/i;

function findIssued(paper: Paper): Taken<string> | null {
  const take = (index: number): Taken<string> | null => {
    const found = findDay(lineText(paper.lines[index]!));
    return found && { value: found.day, line: index, said: found.said, question: found.question };
  };
  for (const [index, line] of paper.lines.entries()) {
    if (!ISSUED.test(lineText(line))) continue;
    const found = take(index) ?? (paper.lines[index + 1] ? take(index + 1) : null);
    if (found) return found;
  }
  for (const index of paper.lines.keys()) {
    const found = take(index);
    if (found) return { ...found, question: found.question ?? 'Is this the day the paper was issued?' };
  }
  return null;
}

function findFlashPoint(paper: Paper): Taken<number> | null {
  const found = matched(paper, /flash\s*-?\s*point[^\d<>≥]*([<>≥]?)\s*(\d+(?:[.,]\d+)?)\s*°?\s*([CF])\b/i);
  if (!found) return null;
  const [said, sign, digits, scale] = found.match;
  const value = Number(digits!.replace(',', '.'));
  const celsius = scale!.toUpperCase() === 'F' ? ((value - 32) * 5) / 9 : value;
  const question = sign ? `The paper says “${sign}”; the figure is held as it stands.` : null;
  return { value: Number(celsius.toFixed(1)), line: found.line, said: said.trim(), question };
}

function findVanillin(paper: Paper): Taken<number> | null {
  const found = matched(
    paper,
    /\b(?:ethyl\s+)?vanillin(?:\s+(?:content|share))?(?:\s*\([^)]*\))?\s*[:=]?\s+(?:121-33-5\s+)?((?:<|≤|max\.?|ca\.?)?\s*\d+(?:[.,]\d+)?\s*(?:%|ppm)|n\.?\s?d\.?|none|not detected)/i,
  );
  if (!found || /^ethyl/i.test(found.match[0])) return null;
  const figure = readFigure(found.match[1]!, '%');
  return (
    figure && { value: figure.highPct, line: found.line, said: found.match[0], question: figure.question }
  );
}

function findIssuer(paper: Paper): Taken<string> | null {
  const named = labelled(paper, /(?:supplier|issued by|company|manufacturer|issuer|from)(?: name)?/);
  if (named) return named;
  const first = paper.lines[0]?.cells[0]?.text;
  if (!first || /certificate|declaration|allergen|statement/i.test(first)) return null;
  return {
    value: first,
    line: 0,
    said: first,
    question: 'Taken from the head of the page. Is this who issued it?',
  };
}

/** Reads what a paper says about itself. Null where it says nothing. */
export function readFields(paper: Paper): PaperFields {
  return {
    material: labelled(
      paper,
      /(?:product|fragrance|material|article|item|oil|trade)(?: name)?(?: and code)?(?=\s*:|$)|(?:product|fragrance|material|article|trade) name|name of (?:the )?(?:product|fragrance|material|oil)|subject\s*:\s*certificate for/,
    ),
    number: findNumber(paper),
    issuer: findIssuer(paper),
    edition: findEdition(paper),
    issuedOn: findIssued(paper),
    flashPointC: findFlashPoint(paper),
    vanillinPct: findVanillin(paper),
  };
}
