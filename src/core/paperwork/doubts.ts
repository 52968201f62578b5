/**
 * Figures of a picture whose point may have been lost: held against what their own pixels say, the other figures of the
 * paper and what the material's earlier paper said. Where two readings fit it asks, and takes none.
 */
import type { CategoryMax } from './category-checks';
import type { Taken } from './fields';
import type { Paper, PaperLine } from './page';

/** Levels of one paper, and of a material's papers, lie within this many times each other more often than not. */
const FAR = 5;
/** A ban, or no limit, is no figure to compare with. */
const isFigure = (maxPct: number) => maxPct > 0 && maxPct < 100;

const DIGITS = /\d+(?:[.,]\d+)?/;
const figureIn = (text: string) => Number(DIGITS.exec(text)?.[0].replace(',', '.') ?? NaN);
const middle = (values: readonly number[]) =>
  values.length === 0 ? null : [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
const round = (value: number) => Number(value.toPrecision(6));

/** The other reading of a figure by its own pixels, where its line has one; and whether the figure itself is that by pixels. */
function otherByPixels(
  line: PaperLine | undefined,
  value: number,
): { value: number; isClear: boolean } | null {
  for (const cell of line?.cells ?? []) {
    if (cell.other === undefined || figureIn(cell.text) !== value) continue;
    const other = figureIn(cell.other);
    if (Number.isFinite(other) && other !== value) return { value: other, isClear: cell.isClear ?? false };
  }
  return null;
}

const away = (value: number, from: number) => Math.abs(Math.log(value / from));
/** Whether a reading lies plainly closer to what is known than another one. */
const isCloser = (value: number, other: number, known: readonly number[]) =>
  known.length > 0 && known.every((from) => away(value, from) < away(other, from));

/**
 * A level of a picture with the readings that fit it; the same where only one does.
 *
 * @param known what the material's paper on file says for it; null where there is none.
 */
function asked(
  taken: Taken<CategoryMax>,
  paper: Paper,
  others: readonly number[],
  known: number | null,
): Taken<CategoryMax> {
  const { category, maxPct } = taken.value;
  if (!isFigure(maxPct)) return taken;
  const usual = middle(others);
  const compared = [usual, known].flatMap((one) => (one === null ? [] : [one]));
  const pixels = otherByPixels(paper.lines[taken.line], maxPct);
  if (pixels) {
    // What was read, put right by the pixels: certain where everything else agrees.
    if (pixels.isClear && isCloser(maxPct, pixels.value, compared)) return taken;
    return choice(taken, category, [maxPct, pixels.value]);
  }
  const isWhole = Number.isInteger(maxPct) && maxPct >= 10;
  const isFar = compared.some((from) => maxPct / from > FAR);
  if (!isWhole || !isFar) return taken;
  return choice(taken, category, [round(maxPct / 10), maxPct]);
}

function choice(taken: Taken<CategoryMax>, category: string, readings: number[]): Taken<CategoryMax> {
  const [first, ...rest] = readings;
  return {
    ...taken,
    value: { category, maxPct: first! },
    others: rest.map((maxPct) => ({ category, maxPct })),
    question: `${readings.join(' or ')}? A point may have been lost. Choose what the picture shows.`,
    isOpen: true,
  };
}

/**
 * The levels of a picture, each with the readings that fit.
 *
 * @example
 * withDoubts(categories, paper, 6.2); // category 9 as "7.5 or 75?"
 */
export function withDoubts(
  categories: readonly Taken<CategoryMax>[],
  paper: Paper,
  known: number | null,
): Taken<CategoryMax>[] {
  return categories.map((taken) => {
    const others = categories
      .filter((one) => one !== taken && one.value.category !== taken.value.category)
      .map(({ value }) => value.maxPct)
      .filter(isFigure);
    return asked(taken, paper, others, known);
  });
}
