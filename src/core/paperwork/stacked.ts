/**
 * Tables that lost their columns: every cell on a line of its own, or commas between them. Their rows are put together again
 * where the first cell of each stood, so that lines keep their numbers. Pure.
 */
import type { Cell, PaperLine } from './page';

const CODE =
  /^(?:(?:category|cat\.?|kategorie|catégorie|categoría|categoria|categorie)\s+)?(\d{1,2})([a-d]?)$/i;
const FIGURE = /^[<≤]?\s*\d{1,6}(?:[.,]\d{1,4})*\s*%?$/;
const LEVEL =
  /^(?:[<≤]?\s*\d{1,6}(?:[.,]\d{1,4})*\s*%?|not permitted|no restrictions?|not supported|unlimited)$/i;
const RANGE = /^[<≤]?\s*\d{1,3}(?:[.,]\d{1,4})?\s*%?(?:\s*(?:-|–|to)\s*\d{1,3}(?:[.,]\d{1,4})?\s*%?)?$/;
const CAS = /^\d{2,7}-\d{2}-\d$/;
const NAME = /^\p{L}[\p{L}\d ,()'’-]{2,60}$/u;

/** Rows in a row before a stack is a table, and not a list of numbers. */
const LEAST_LEVELS = 3;
const LEAST_SHARES = 2;
/** How far the cells of a row put together stand apart, points. */
const APART_PT = 160;

const alone = (line: PaperLine | undefined): string | null =>
  line?.cells.length === 1 ? line.cells[0]!.text.trim() : null;

/** Its place among the categories: 4, 5A, 5B, 6; null where it is no code. */
function placeOf(text: string | null): number | null {
  const found = text === null ? null : CODE.exec(text);
  if (!found) return null;
  const [, number, letter] = found as unknown as [string, string, string];
  const place = 10 * Number(number) + (letter === '' ? 0 : letter.toLowerCase().charCodeAt(0) - 96);
  return Number(number) >= 1 && Number(number) <= 12 ? place : null;
}

function together(lines: readonly PaperLine[], texts: readonly string[]): PaperLine {
  const [first] = lines as [PaperLine];
  const cells = texts.map((text, at): Cell => {
    const { widthPt } = lines[at]!.cells[0]!;
    return { ...lines[at]!.cells[0]!, text, xPt: first.cells[0]!.xPt + at * APART_PT, widthPt };
  });
  return { ...first, cells };
}

type Pair = readonly [code: string, level: string];

/** A code, and its level in the line below; null where they are none. */
function pairBelow(lines: readonly PaperLine[], at: number): Pair | null {
  const [code, level] = [alone(lines[at]), alone(lines[at + 1])];
  return code !== null && level !== null && placeOf(code) !== null && LEVEL.test(level)
    ? [code, level]
    : null;
}

const COMMA = /^([^,]{1,14}),\s+(.+)$/;

/** A code and its level with a comma and a blank between, in one cell; null where it is none. */
function pairBeside(lines: readonly PaperLine[], at: number): Pair | null {
  const found = COMMA.exec(alone(lines[at]) ?? '');
  if (!found || placeOf(found[1]!.trim()) === null || !LEVEL.test(found[2]!.trim())) return null;
  return [found[1]!.trim(), found[2]!.trim()];
}

/** Pairs that follow each other from a line on, every so many lines, codes in their order. */
function pairsFrom(
  lines: readonly PaperLine[],
  from: number,
  { pairAt, step }: (typeof WAYS)[number],
): Pair[] {
  const pairs: Pair[] = [];
  for (let at = from; ; at += step) {
    const pair = pairAt(lines, at);
    const last = placeOf(pairs.at(-1)?.[0] ?? null) ?? 0;
    if (!pair || placeOf(pair[0])! <= last) return pairs;
    pairs.push(pair);
  }
}

/** How a code and its level may stand, and how many lines each pair takes. */
const WAYS = [
  { pairAt: pairBelow, step: 2 },
  { pairAt: pairBeside, step: 1 },
] as const;

/** Whether a level may as well be the next code: then the codes of a table stand one below the other, and no levels. */
const isNextCode = ([code, level]: Pair, next: Pair | undefined): boolean => {
  const place = placeOf(level);
  return place !== null && place > placeOf(code)! && place < (next ? placeOf(next[0])! : Infinity);
};

/** Pairs that make a table from a line on; none where they are too few, or could be codes alone. */
function tableFrom(lines: readonly PaperLine[], from: number, way: (typeof WAYS)[number]): Pair[] {
  const pairs = pairsFrom(lines, from, way);
  const isTable = pairs.length >= LEAST_LEVELS && isUnderCategories(lines, from);
  return isTable && !pairs.some((pair, at) => isNextCode(pair, pairs[at + 1])) ? pairs : [];
}

/** How many rows of a name, a number and a share follow each other from a line on; the number may come first. */
function sharesFrom(lines: readonly PaperLine[], from: number): number {
  const isRow = (at: number) => {
    const [a, b, c] = [alone(lines[at]), alone(lines[at + 1]), alone(lines[at + 2])];
    if (a === null || b === null || c === null || !RANGE.test(c)) return false;
    return (NAME.test(a) && CAS.test(b)) || (CAS.test(a) && NAME.test(b));
  };
  let count = 0;
  while (isRow(from + 3 * count)) count++;
  return count;
}

/** Lines above a stack in which its heads stand. */
const HEADS = 8;
const textsAbove = (lines: readonly PaperLine[], at: number) =>
  lines.slice(Math.max(0, at - HEADS), at).flatMap(({ cells }) => cells.map(({ text }) => text));

/** Whether a word of categories stands in the stack or shortly before: without one, numbers in order may be anything. */
const SAYS_CATEGORY = /categor|kategor|catégor/i;
const isUnderCategories = (lines: readonly PaperLine[], at: number): boolean =>
  [alone(lines[at]) ?? '', ...textsAbove(lines, at)].some((text) => SAYS_CATEGORY.test(text));

/** The unit that the heads of a stack say, to be written behind its levels; empty where they say none. */
function unitBefore(lines: readonly PaperLine[], at: number): string {
  const said = textsAbove(lines, at)
    .map((text) => /ppm|mg\/kg|g\/kg|‰|%/i.exec(text)?.[0])
    .filter((one) => one !== undefined);
  return said.length === 0 ? '' : ` ${said.at(-1)!}`;
}

/** A row as papers say it: the word before its code, the unit behind its level. */
const rowOf = ([code, level]: Pair, unit: string): string[] => [
  SAYS_CATEGORY.test(code) ? code : `Category ${code}`,
  FIGURE.test(level) && !level.endsWith('%') ? `${level}${unit}` : level,
];

/**
 * The lines of a paper, with the rows of a table that lost its columns put together in the line of their first cell; what
 * is no such table stays as it is.
 *
 * @example
 * unstacked(linesFromText('Category\nMaximum\n4\n7.9\n5A\n2.3\n9\n3.18'))[2].cells.length; // 2
 */
export function unstacked(lines: readonly PaperLine[]): PaperLine[] {
  const made = [...lines];
  for (let at = 0; at < lines.length; at++) {
    const taken = WAYS.map((way) => ({ way, pairs: tableFrom(lines, at, way) })).find(
      ({ pairs }) => pairs.length > 0,
    );
    if (taken) {
      const { way, pairs } = taken;
      const unit = unitBefore(lines, at);
      pairs.forEach((pair, row) => {
        const place = at + way.step * row;
        made[place] = together([lines[place]!, lines[place + way.step - 1]!], rowOf(pair, unit));
      });
      at += way.step * pairs.length - 1;
      continue;
    }
    const shares = sharesFrom(lines, at);
    if (shares < LEAST_SHARES) continue;
    for (let row = 0; row < shares; row++) {
      const place = at + 3 * row;
      const three = lines.slice(place, place + 3);
      made[place] = together(
        three,
        three.map((line) => alone(line)!),
      );
    }
    at += 3 * shares - 1;
  }
  return made;
}
