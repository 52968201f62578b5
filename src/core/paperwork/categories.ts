/** The maximum in the finished product for each product category, however the table lies. */
import type { Taken } from './fields';
import { readFigure } from './figures';
import { lineText, type Cell, type Paper, type PaperLine } from './page';

/** Maximum for a category, percent of the finished product; 0 is not permitted, 100 not restricted. */
export interface CategoryMax {
  category: string;
  maxPct: number;
}

const CATEGORY = String.raw`(1[0-2]|[1-9])(?:\s?\.?\s?([A-D])(?![A-Za-z]))?`;
const WITH_WORD = new RegExp(
  `^cat(?:egory|egories|\\.)?\\s*:?\\s*${CATEGORY}(?!\\d|[.,]\\d)\\s*[:,–-]?\\s*(.*)$`,
  'i',
);
const BARE = new RegExp(
  `^(?:class\\s*)?${CATEGORY}(?!\\d|[.,]\\d)(?:$|\\s*[-–:]\\s*|\\s+(?=[a-z(]))(.*)$`,
  'i',
);
const INLINE = new RegExp(
  `\\bcat(?:egory|\\.)?\\s*${CATEGORY}(?!\\d|[.,]\\d)[^%\\n]*?(\\d+(?:[.,]\\d+)?)\\s*%`,
  'i',
);
const LEAST_ACROSS = 3;

const FORBIDDEN = /^(?:not permitted|prohibited|not allowed|do not use|0(?:[.,]0+)?\s*%?)$/i;
const FREE = /^(?:no restriction|not restricted|unrestricted|no limit|100(?:[.,]0+)?\s*%?)$/i;

function name(digits: string, letter: string | undefined): string {
  return digits + (letter?.toUpperCase() ?? '');
}

function readMax(text: string): number | null {
  const trimmed = text.trim();
  if (FORBIDDEN.test(trimmed)) return 0;
  if (FREE.test(trimmed)) return 100;
  const figure = readFigure(trimmed, '%');
  return figure && figure.question === null ? figure.highPct : null;
}

function maxIn(cells: readonly Cell[]): number | null {
  for (const cell of [...cells].reverse()) {
    const max = readMax(cell.text);
    if (max !== null) return max;
  }
  return null;
}

type Found = Taken<CategoryMax>;

/** "Category 9 ... 4.5 %" on a line of its own; bare numbers count below a heading that speaks of categories. */
function onOwnLine(line: PaperLine, index: number, inTable: boolean): Found | null {
  const [first, ...rest] = line.cells;
  const match = WITH_WORD.exec(first!.text) ?? (inTable ? BARE.exec(first!.text) : null);
  if (!match) return null;
  const max = maxIn(rest) ?? (match[3] ? readMax(match[3]) : null);
  if (max === null) return null;
  const category = name(match[1]!, match[2]);
  return { value: { category, maxPct: max }, line: index, said: lineText(line), question: null };
}

/** A table that lies across: categories in one line, their figures below them. */
function across(paper: Paper, index: number): Found[] {
  const heads = paper.lines[index]!.cells.flatMap((cell) => {
    const match = new RegExp(`^(?:cat(?:egory|\\.)?\\s*)?${CATEGORY}$`, 'i').exec(cell.text);
    return match ? [{ cell, category: name(match[1]!, match[2]) }] : [];
  });
  const below = paper.lines[index + 1];
  if (heads.length < LEAST_ACROSS || !below) return [];
  const centre = ({ xPt, widthPt }: Cell) => xPt + widthPt / 2;
  return below.cells.flatMap((cell): Found[] => {
    const max = readMax(cell.text);
    if (max === null) return [];
    const nearest = heads.reduce((best, head) =>
      Math.abs(centre(head.cell) - centre(cell)) < Math.abs(centre(best.cell) - centre(cell)) ? head : best,
    );
    if (Math.abs(centre(nearest.cell) - centre(cell)) > 2 * below.heightPt) return [];
    return [
      {
        value: { category: nearest.category, maxPct: max },
        line: index + 1,
        said: `${nearest.category}: ${cell.text}`,
        question: null,
      },
    ];
  });
}

/** In running text; the figure may stand in the line after the category. */
function inline(paper: Paper, index: number): Found | null {
  const here = lineText(paper.lines[index]!);
  if (!/categor|\bcat\./i.test(here)) return null;
  const next = paper.lines[index + 1];
  const match = INLINE.exec(here) ?? (next ? INLINE.exec(`${here} ${lineText(next)}`) : null);
  if (!match) return null;
  const maxPct = Number(match[3]!.replace(',', '.'));
  return {
    value: { category: name(match[1]!, match[2]), maxPct },
    line: index,
    said: match[0],
    question: null,
  };
}

/** Every category and its maximum; where a category is stated twice with different figures, it is asked about. */
export function readCategories(paper: Paper): Found[] {
  const found: Found[] = [];
  let inTable = false;
  let headless = 0;
  paper.lines.forEach((line, index) => {
    const text = lineText(line);
    if (/categor/i.test(text)) [inTable, headless] = [true, 0];
    const lying = across(paper, index);
    const own = lying.length > 0 ? null : (onOwnLine(line, index, inTable) ?? inline(paper, index));
    if (own) headless = 0;
    else if (++headless > 4) inTable = false;
    found.push(...lying, ...(own ? [own] : []));
  });
  const byCategory = new Map<string, Found>();
  for (const entry of found) {
    const before = byCategory.get(entry.value.category);
    if (!before) byCategory.set(entry.value.category, entry);
    else if (before.value.maxPct !== entry.value.maxPct) {
      const lower = before.value.maxPct < entry.value.maxPct ? before : entry;
      const question = `The paper states both ${before.value.maxPct} % and ${entry.value.maxPct} %. Which holds?`;
      byCategory.set(entry.value.category, { ...lower, question });
    }
  }
  return [...byCategory.values()];
}
