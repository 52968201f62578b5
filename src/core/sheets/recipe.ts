/** A bar of a spreadsheet as a formula: lye, liquid and fats told apart, percents understood. Pure. */
import { folded } from '../folded';
import type { Formula, Kind, Line } from '../formula/types';
import { USUAL_STAGE } from '../formula/stages';
import { amountOf, gramsOf, type PercentOf } from './amounts';
import type { SheetBar, SheetFault, SheetLine } from './layout';

const LYE =
  /^(?:lye|naoh|caustic(?: soda)?|sodium hydroxide|soda caustique|atznatron|natriumhydroxid|soda caustica|natronloog)\b/;
const SUPERFAT = /^(?:superfat(?:ting)?|sf|lye discount|uberfettung|surgras|sovragrasso)\b/;
const WHOLE_FATS =
  /^(?:total (?:oils?|fats?)|oils? (?:total|weight)|fats? (?:total|weight)|weight of (?:oils?|fats?))\b/;
const POTASH = /^(?:koh|potassium hydroxide|kaliumhydroxid|potasse)\b/;

export type Role = 'lye' | 'superfat' | 'fats' | 'potash' | 'material';

/** What a row of a recipe is, by its name. */
export function roleOf(name: string): Role {
  const words = folded(name);
  if (POTASH.test(words)) return 'potash';
  if (LYE.test(words)) return 'lye';
  if (SUPERFAT.test(words)) return 'superfat';
  return WHOLE_FATS.test(words) ? 'fats' : 'material';
}

/** What is known of an ingredient. */
export interface Known {
  id: string;
  kind: Kind;
}

/** Sums within so many percent of a hundred count as a hundred. */
const ABOUT = 1.5;

/**
 * What percents of a bar are of, by what adds up to a hundred: the fats alone, or everything. Null where the bar states
 * none, or neither adds up.
 */
export function percentsOf(bar: SheetBar, find: (name: string) => Known | null): PercentOf | null {
  const lines = bar.lines.filter(({ name, amount }) => amount.unit === '%' && roleOf(name) !== 'superfat');
  const sum = (of: readonly SheetLine[]) => of.reduce((total, { amount }) => total + amount.value, 0);
  const fats = lines.filter(({ name }) => find(name)?.kind === 'fat');
  if (fats.length === 0) return null;
  if (Math.abs(sum(fats) - 100) <= ABOUT) return 'fats';
  return Math.abs(sum(lines) - 100) <= ABOUT ? 'whole' : null;
}

export interface Taking {
  find: (name: string) => Known | null;
  /** What percents are of where a bar does not say so by itself. */
  percentOf: PercentOf;
  /** Grams of fats, or of the whole, of bars in percent alone. */
  batchG: number;
  /** Where neither lye nor superfat is stated, percent. */
  superfatPct: number;
}

export type Taken = { ok: true; formula: Formula; notes: string[] } | { ok: false; faults: SheetFault[] };

function linesOf(bar: SheetBar, { find }: Taking, percentOf: PercentOf, wholeG: number) {
  const faults: SheetFault[] = [];
  const lines: Line[] = [];
  for (const { row, name, amount } of bar.lines) {
    const role = roleOf(name);
    if (role === 'potash')
      faults.push({ row, message: `${name}: bars are made with sodium hydroxide here.` });
    if (role !== 'material') continue;
    const known = find(name);
    if (!known) {
      faults.push({ row, message: `“${name}” is not known. Choose the material it is.` });
      continue;
    }
    lines.push({
      id: `l${lines.length + 1}`,
      material: known.id,
      stage: USUAL_STAGE[known.kind] ?? 'trace',
      amount: amountOf(amount, percentOf, wholeG),
      measuredBy: /^(?:tsp|tbsp|cup)/.test(amount.unit) ? 'spoon' : 'scale',
    });
  }
  return { lines, faults };
}

/**
 * A bar as a formula; every row that cannot be taken is told.
 *
 * @example
 * formulaOf(bar, taking); // a formula, and every row that could not be taken
 */
export function formulaOf(bar: SheetBar, taking: Taking): Taken {
  const percentOf = percentsOf(bar, taking.find) ?? taking.percentOf;
  const stated = (role: Role) => bar.lines.find(({ name }) => roleOf(name) === role);
  const [lye, superfat, fats] = [stated('lye'), stated('superfat'), stated('fats')];
  const fatsG = fats ? gramsOf(fats.amount) : null;
  const { lines, faults } = linesOf(bar, taking, percentOf, taking.batchG);
  const isFat = ({ stage }: Line) => stage === 'fats';
  if (!lines.some(isFat))
    faults.push({ row: bar.row, message: `${bar.name} holds no fat that is known here.` });
  if (faults.length > 0) return { ok: false, faults };
  const lyeG = lye ? gramsOf({ ...amountOf(lye.amount, percentOf, taking.batchG) }) : null;
  const isInPercent = lines.some((line) => isFat(line) && line.amount.unit === '%fats');
  const notes =
    lyeG === null && !superfat
      ? [
          `Neither lye nor superfat is stated: ${taking.superfatPct} % superfat is taken. Look at it before a pour.`,
        ]
      : [];
  return {
    ok: true,
    notes,
    formula: {
      format: 'proportia.formula/1',
      name: bar.name,
      process: 'cold',
      fatsMassG: isInPercent ? (fatsG ?? taking.batchG) : null,
      alkali:
        lyeG !== null
          ? { massG: lyeG, purityPct: 99 }
          : { superfatPct: superfat?.amount.value ?? taking.superfatPct, purityPct: 99 },
      ...(lines.some(({ stage }) => stage === 'liquid')
        ? {}
        : { liquid: { basis: 'ofFats' as const, value: 33 } }),
      cure: { residualWaterPct: 8 },
      marginPct: 10,
      lines,
    },
  };
}
