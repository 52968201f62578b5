/** Whether the shares that a formula states add up: of its fats, and of its liquid. What does not is said, never mended unasked. */
import type { Formula, Line, Stage } from './types';

/** Shares further from a hundred than this do not add up, percent. */
const WITHIN_PCT = 0.05;
/** Decimals that shares are put right to. */
const DECIMALS = 2;

export interface Sum {
  of: 'fats' | 'liquid';
  /** What the lines come to, percent of the mass that the formula states. */
  pct: number;
  isOff: boolean;
}

const STAGES_OF: Record<Sum['of'], readonly Stage[]> = { fats: ['fats'], liquid: ['liquid', 'heldBack'] };
const UNIT_OF = { fats: '%fats', liquid: '%liquid' } as const;

const linesOf = ({ lines }: Formula, of: Sum['of']): Line[] =>
  lines.filter(({ stage }) => STAGES_OF[of].includes(stage));

/** The mass that shares are of, grams; null where none are stated. */
function wholeG(formula: Formula, of: Sum['of'], massOf: (line: string) => number): number | null {
  const shares = linesOf(formula, of).filter(({ amount }) => amount.unit === UNIT_OF[of] && amount.value > 0);
  if (shares.length === 0) return null;
  if (of === 'fats') return formula.fatsMassG || null;
  const [{ id, amount }] = shares as [Line];
  return (100 * massOf(id)) / amount.value;
}

/**
 * What the shares of fats and of liquid come to; none of a kind that states none. `massOf` answers a line's grams by its id.
 *
 * @example
 * sumsOf(formula, massOf); // [{ of: 'fats', pct: 105, isOff: true }, { of: 'liquid', pct: 100, isOff: false }]
 */
export function sumsOf(formula: Formula, massOf: (line: string) => number): Sum[] {
  return (['fats', 'liquid'] as const).flatMap((of): Sum[] => {
    const whole = wholeG(formula, of, massOf);
    if (whole === null || !(whole > 0)) return [];
    const pct = (100 * linesOf(formula, of).reduce((sum, { id }) => sum + massOf(id), 0)) / whole;
    return [{ of, pct, isOff: Math.abs(pct - 100) > WITHIN_PCT }];
  });
}

const rounded = (value: number) => Number(value.toFixed(DECIMALS));

/** The formula with another amount in some of its lines, by their ids. */
const withShares = (formula: Formula, shares: ReadonlyMap<string, Line['amount']>): Formula => ({
  ...formula,
  lines: formula.lines.map((line) => ({ ...line, amount: shares.get(line.id) ?? line.amount })),
});

/**
 * The shares of the fats brought to a hundred in proportion; lines in grams stay, the largest share takes what rounding
 * leaves. Null where nothing can be brought there.
 */
export function fatsToHundred(formula: Formula, massOf: (line: string) => number): Formula | null {
  const lines = linesOf(formula, 'fats');
  const shares = lines.filter(({ amount }) => amount.unit === '%fats');
  const stated = shares.reduce((sum, { amount }) => sum + amount.value, 0);
  const fixedG = lines.filter((line) => !shares.includes(line)).reduce((sum, { id }) => sum + massOf(id), 0);
  const left = 100 - (100 * fixedG) / (formula.fatsMassG || Infinity);
  if (!(stated > 0) || left <= 0) return null;
  const amounts = new Map(
    shares.map(({ id, amount }) => [
      id,
      { value: rounded((amount.value * left) / stated), unit: '%fats' as const },
    ]),
  );
  const largest = shares.reduce((a, b) => (b.amount.value > a.amount.value ? b : a));
  const others = [...amounts].reduce((sum, [id, { value }]) => (id === largest.id ? sum : sum + value), 0);
  amounts.set(largest.id, { value: rounded(left - others), unit: '%fats' });
  return withShares(formula, amounts);
}

/** One liquid taking what the others leave of the whole; null where they leave nothing. `line` is its id. */
export function liquidTakesRest(
  formula: Formula,
  line: string,
  massOf: (line: string) => number,
): Formula | null {
  const whole = wholeG(formula, 'liquid', massOf);
  if (whole === null) return null;
  const othersG = linesOf(formula, 'liquid').reduce(
    (sum, { id }) => (id === line ? sum : sum + massOf(id)),
    0,
  );
  const value = rounded(100 - (100 * othersG) / whole);
  return value > 0 ? withShares(formula, new Map([[line, { value, unit: '%liquid' }]])) : null;
}
