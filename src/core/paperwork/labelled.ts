/** What stands beside the labels of a paper: behind them, in the next cell, or below. */
import {
  DATE_WORD,
  FLASH_POINT,
  ISSUED_WORD,
  ISSUER_LABEL,
  MATERIAL_LABEL,
  NUMBER_NOUN,
  NUMBER_SIGN,
} from './labels';
import { plainText } from './lexicon';
import { lineText, type Cell, type Paper } from './page';

/** Something taken from a paper: from which line, in which words, and what is to be asked. */
export interface Taken<T> {
  value: T;
  /** Index of the line in the paper. */
  line: number;
  said: string;
  question: string | null;
  /** Other readings that fit as well. */
  others?: T[];
  /** Several readings fit as well as each other: none is taken before the maker chose. */
  isOpen?: boolean;
}

export const SIGN = `(?:\\.?[-\\s]*${NUMBER_SIGN}\\.?)`;
/** "Certificate no.", "Documentnummer", "N° de document", "Numero documento". */
export const NUMBER_LABEL = `(?:${NUMBER_NOUN}${SIGN}|${NUMBER_SIGN}\\.?\\s*(?:de[ls]?\\s|du\\s|di\\s|des\\s|of\\s)?\\s*(?:the\\s)?${NUMBER_NOUN})`;
const LABEL = new RegExp(
  `^(?:${[MATERIAL_LABEL, ISSUER_LABEL, NUMBER_LABEL, NUMBER_NOUN, ISSUED_WORD, DATE_WORD, FLASH_POINT, 'vanill?ine?'].join('|')})$`,
);

/** The value below a label is looked for within this many line heights. */
const BELOW_HEIGHTS = 2.6;
export const SAME_COLUMN_PT = 14;

/** A cell below another, in the next line and the same column. */
export function below(paper: Paper, index: number, cell: Cell): { cell: Cell; line: number } | null {
  const line = paper.lines[index]!;
  const next = paper.lines[index + 1];
  if (!next || next.page !== line.page || next.yPt - line.yPt > BELOW_HEIGHTS * line.heightPt) return null;
  const found = next.cells.find(({ xPt }) => Math.abs(xPt - cell.xPt) < SAME_COLUMN_PT);
  return found ? { cell: found, line: index + 1 } : null;
}

/** Whether a cell is a label itself, so that what stands beside it is not the value of the one before. */
export function isLabel(text: string): boolean {
  return /[:：]\s*$/.test(text) || LABEL.test(plainText(text));
}

export type Found = Taken<string>;

/** Everything that goes with a label that begins a cell: behind it, in the next cell, or below it. */
export function* labelled(paper: Paper, label: string): Generator<Found> {
  const pattern = new RegExp(`^${label}\\.?\\s*(?:[:#]|$|\\.{2,}|\\s-\\s)\\s*`);
  for (const [index, line] of paper.lines.entries()) {
    for (const [place, cell] of line.cells.entries()) {
      const match = pattern.exec(plainText(cell.text));
      if (!match) continue;
      const rest = cell.text
        .slice(match[0].length)
        .replace(/^[:\s.-]+/, '')
        .trim();
      if (rest !== '') {
        yield { value: rest, line: index, said: cell.text, question: null };
        continue;
      }
      const next = line.cells[place + 1];
      const beside = next && !isLabel(next.text) ? next : undefined;
      const under = below(paper, index, cell);
      if (beside)
        yield {
          value: beside.text.replace(/^:\s*/, ''),
          line: index,
          said: `${cell.text} ${beside.text}`,
          question: null,
        };
      else if (under)
        yield {
          value: under.cell.text,
          line: under.line,
          said: `${cell.text} ${under.cell.text}`,
          question: null,
        };
    }
  }
}

/** The first line on which a pattern is found anywhere. */
export function matched(
  paper: Paper,
  pattern: RegExp,
): { match: RegExpExecArray; line: number; said: string } | null {
  for (const [line, entry] of paper.lines.entries()) {
    const text = lineText(entry);
    const match = pattern.exec(plainText(text));
    if (match) return { match, line, said: text.slice(match.index, match.index + match[0].length).trim() };
  }
  return null;
}
