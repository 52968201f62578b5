/** What-if: a formula with some of it tried otherwise, and the days on which rules change. */
import type { Formula, Stored } from '../../core/formula/types';
import { changeLine } from './edits';

/** What is tried: each part left as it is where null. */
export interface Trial {
  cured: number | null;
  superfat: number | null;
  line: string;
  load: number | null;
  day: string | null;
}

/** Nothing tried: everything as it is. */
export const NOTHING_TRIED: Omit<Trial, 'line'> = { cured: null, superfat: null, load: null, day: null };

/** The formula as a trial would have it; the very same formula where nothing is tried. */
export function applyTrial(formula: Formula, trial: Trial): Formula {
  let tried = formula;
  if (trial.cured !== null) {
    const cure =
      formula.cure?.massRatio == null ? { residualWaterPct: trial.cured } : { massRatio: trial.cured / 100 };
    tried = { ...tried, cure };
  }
  if (trial.superfat !== null && formula.alkali.superfatPct != null)
    tried = { ...tried, alkali: { ...formula.alkali, superfatPct: trial.superfat } };
  const line = formula.lines.find(({ id }) => id === trial.line);
  if (trial.load !== null && line) {
    const value = Number(((line.amount.value * trial.load) / 100).toFixed(4));
    tried = changeLine(tried, line.id, { amount: { ...line.amount, value } });
  }
  return tried;
}

/** Days on which something in the rules on the table changes, after the day looked at. */
export function daysOfChange(rules: Pick<Stored, 'declarables' | 'limits'>, after: string): string[] {
  const days = [
    ...rules.declarables.flatMap(({ newFrom, allFrom }) => [newFrom, allFrom]),
    ...rules.limits.flatMap(({ from }) => [from]),
  ];
  return [...new Set(days.filter((day): day is string => !!day && day > after))].sort();
}
