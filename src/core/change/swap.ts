/** One material in the place of another. */
import { assess } from '../assess';
import type { Formula, Line, Stored } from '../formula/types';
import { requestOf } from './effects';
import type { SWAP_BY, Subject } from './types';

/** Where a bar is sold. */
type Sold = Pick<Subject, 'markets' | 'firstPlacedOn' | 'placedOn'>;

/** Amounts in a formula are kept to so many decimals. */
const DECIMALS = 4;

function replaced(
  formula: Formula,
  from: string,
  to: string,
  amountOf: (line: Line) => Line['amount'],
): Formula {
  return {
    ...formula,
    lines: formula.lines.map((line) =>
      line.material === from ? { ...line, material: to, amount: amountOf(line) } : line,
    ),
  };
}

/** By line, the largest load in its own unit; null where nothing binds or it does not reckon. */
function largest(subject: Sold, formula: Formula, stored: Stored, onDate: string) {
  const result = assess(requestOf(subject, formula, onDate), stored);
  return new Map(
    result.ok ? result.assessment.lines.map(({ id, maxInUnit }) => [id, maxInUnit?.value ?? null]) : [],
  );
}

/**
 * A formula with `to` in the place of `from`: gram for gram, or as much of it as leaves the same share of its own
 * largest load as before. Where nothing binds one of them, gram for gram.
 */
export function swapped(
  subject: Sold,
  formula: Formula,
  { from, to, by }: { from: string; to: string; by: (typeof SWAP_BY)[number] },
  stored: Stored,
  onDate: string,
): Formula {
  const plain = replaced(formula, from, to, ({ amount }) => amount);
  if (by === 'mass') return plain;
  const before = largest(subject, formula, stored, onDate);
  const after = largest(subject, plain, stored, onDate);
  return replaced(formula, from, to, ({ id, amount }) => {
    const [most, next] = [before.get(id) ?? null, after.get(id) ?? null];
    if (most === null || next === null || most <= 0) return amount;
    return { ...amount, value: Number(((amount.value * next) / most).toFixed(DECIMALS)) };
  });
}
