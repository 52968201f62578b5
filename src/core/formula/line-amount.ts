/** A line's amount and how it is measured: the one hangs on the other. */
import type { Amount, Line, Measure } from './types';
import { unitRule } from '../quantities/units';

const bySpoon = ({ unit }: Amount): boolean => unitRule(unit)?.byVolume ?? false;

/**
 * A line with another amount, measured as the words of it say. What goes from weight to spoons is spooned from then on,
 * and what goes back is weighed: two teaspoons never carry the doubt of a scale in silence.
 *
 * @example
 * withAmount(line, { value: 2, unit: 'tsp' }).measuredBy; // 'spoon', though the line was weighed before
 */
export function withAmount(line: Line, amount: Amount, how?: Measure): Line {
  if (how) return { ...line, amount, measuredBy: how, uncertaintyPct: null };
  if (bySpoon(amount) === bySpoon(line.amount)) return { ...line, amount };
  return { ...line, amount, measuredBy: bySpoon(amount) ? 'spoon' : 'scale', uncertaintyPct: null };
}
