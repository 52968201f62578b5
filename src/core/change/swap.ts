/** One material in the place of another. */
import { assess } from '../assess';
import type { Formula, Line, Stored } from '../formula/types';
import { unitRule } from '../quantities/units';
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

/** The lines of a formula as assessed, by their ids; none where it does not reckon. */
function assessedLines(subject: Sold, formula: Formula, stored: Stored, onDate: string) {
  const result = assess(requestOf(subject, formula, onDate), stored);
  return new Map(result.ok ? result.assessment.lines.map((line) => [line.id, line]) : []);
}

const rounded = (value: number) => Number(value.toFixed(DECIMALS));

/**
 * A formula with `to` in the place of `from`: gram for gram, or as much of it as leaves the same share of its own
 * largest load as before. Where nothing binds one of them, gram for gram. What was stated in spoons becomes grams,
 * since a spoon of one weighs another than a spoon of the other.
 *
 * @example
 * swapped(bar, formula, { from: 'lavender', to: 'lavandin', by: 'grams' }, snapshot, '2026-11-24'); // a formula
 */
export function swapped(
  subject: Sold,
  formula: Formula,
  { from, to, by }: { from: string; to: string; by: (typeof SWAP_BY)[number] },
  stored: Stored,
  onDate: string,
): Formula {
  const isByVolume = ({ amount }: Line) => unitRule(amount.unit)?.byVolume === true;
  // Only what a spoon of it weighs, or how near its limit it stood, is asked of the formula as it was.
  const isAsked = by !== 'mass' || formula.lines.some((line) => line.material === from && isByVolume(line));
  const before = isAsked ? assessedLines(subject, formula, stored, onDate) : new Map<string, never>();
  const sameMass = ({ id, amount }: Line): Line['amount'] => {
    const massG = unitRule(amount.unit)?.byVolume ? before.get(id)?.massG : undefined;
    return massG === undefined ? amount : { value: rounded(massG), unit: 'g' };
  };
  const plain = replaced(formula, from, to, sameMass);
  if (by === 'mass') return plain;
  const after = assessedLines(subject, plain, stored, onDate);
  return replaced(formula, from, to, (line) => {
    const amount = sameMass(line);
    const [was, is] = [before.get(line.id), after.get(line.id)];
    if (was?.maxG == null || is?.maxG == null || was.maxG <= 0) return amount;
    // In its own unit, since that says what it is a share of.
    const [most, next] = [was.maxInUnit!, is.maxInUnit!];
    const share = amount.unit === most.unit ? amount.value / most.value : was.massG / was.maxG;
    return { ...amount, value: rounded(share * next.value) };
  });
}
