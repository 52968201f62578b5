/**
 * Figures of a picture whose point may have been lost: held against what their own pixels say, the other figures of the
 * paper and what the material's earlier paper said. Where two readings fit it asks, and takes none.
 */
import type { CategoryMax } from './category-checks';
import type { Taken } from './labelled';
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

const placesOf = (value: number) => String(value).split('.')[1]?.length ?? 0;
const cutOff = (value: number) => Number(String(value).slice(0, -1));
const LEAST_OTHERS = 2;

/**
 * A figure less its last digit, where that may be a sign of percent: it stands without one beside levels that have one, or
 * has more places than any other level of the paper; else null.
 */
function withoutSign(
  line: PaperLine | undefined,
  value: number,
  others: readonly number[],
  isSigned: boolean,
): number | null {
  const places = placesOf(value);
  const isBare = line?.cells.some(({ text }) => figureIn(text) === value && !text.includes('%')) ?? false;
  const isLonger = others.length >= LEAST_OTHERS && places > Math.max(2, ...others.map(placesOf));
  return places >= 2 && ((isBare && isSigned) || isLonger) ? cutOff(value) : null;
}

const away = (value: number, from: number) => Math.abs(Math.log(value / from));
/** Whether a reading lies plainly closer to what is known than another one. */
const isCloser = (value: number, other: number, known: readonly number[]) =>
  known.length > 0 && known.every((from) => away(value, from) < away(other, from));

/**
 * A level of a picture with the readings that fit it; the same where only one does.
 *
 * @param known what the material's paper on file says for it; null where there is none.
 * @param isSigned whether the other levels of the paper stand before a sign of percent.
 */
function asked(
  taken: Taken<CategoryMax>,
  paper: Paper,
  others: readonly number[],
  known: number | null,
  isSigned: boolean,
): Taken<CategoryMax> {
  const { category, maxPct } = taken.value;
  if (!isFigure(maxPct)) return taken;
  const usual = middle(others);
  const compared = [usual, known].flatMap((one) => (one === null ? [] : [one]));
  const line = paper.lines[taken.line];
  const cut = withoutSign(line, maxPct, others, isSigned);
  if (cut !== null) return choice(taken, category, [cut, maxPct], SIGN_READ);
  const pixels = otherByPixels(line, maxPct);
  // More than the whole is no level: the point that was read stands there.
  if (pixels && pixels.value > 100) return taken;
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

const POINT_LOST = 'A point may have been lost.';
const SIGN_READ = 'The sign of percent may have been read as a digit.';

function choice(
  taken: Taken<CategoryMax>,
  category: string,
  readings: number[],
  why = POINT_LOST,
): Taken<CategoryMax> {
  const [first, ...rest] = readings;
  return {
    ...taken,
    value: { category, maxPct: first! },
    others: rest.map((maxPct) => ({ category, maxPct })),
    question: `${readings.join(' or ')}? ${why} Choose what the picture shows.`,
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
  const lines = [...new Set(categories.map(({ line }) => line))];
  const signed = lines.filter((line) => paper.lines[line]?.cells.some(({ text }) => text.includes('%')));
  return categories.map((taken) => {
    const others = categories
      .filter((one) => one !== taken && one.value.category !== taken.value.category)
      .map(({ value }) => value.maxPct)
      .filter(isFigure);
    return asked(taken, paper, others, known, signed.length > lines.length / 2);
  });
}
