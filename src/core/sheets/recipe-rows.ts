/** A bar's formula as rows of a sheet, as the reader of sheets takes them in again. Pure. */
import type { Formula } from '../formula/types';
import { rowsOfBatch } from './of-batch';
import { writeAmount } from '../quantities/amount';

/**
 * A row: the ingredient or what is said of the batch, how much, in what, when it goes in, and the portion of the batter that
 * it is for.
 */
export interface RecipeRow {
  ingredient: string;
  amount: number | string;
  unit: string;
  stage: string;
  portion: string;
}

type Said = Omit<RecipeRow, 'stage' | 'portion'>;

type Liquid = NonNullable<Formula['liquid']>;

const LIQUID_ROWS: Record<Liquid['basis'], (value: number) => Said> = {
  ofFats: (value) => ({ ingredient: 'Water % of fats', amount: value, unit: '%' }),
  perAlkali: (value) => ({ ingredient: 'Water : lye', amount: `${value}:1`, unit: '' }),
  alkaliConcentration: (value) => ({ ingredient: 'Lye concentration', amount: value, unit: '%' }),
};

/** A unit as an amount is written in it. */
const unitWords = (unit: Parameters<typeof writeAmount>[0]['unit']) =>
  writeAmount({ value: 1, unit }).replace(/^1\s*/, '');

/**
 * The rows of a formula: its lines in their order, then lye or superfat, liquid, the fats that percents are of, and what
 * else is said of the batch.
 *
 * @example
 * recipeRows(formula, nameOf).map(({ ingredient }) => ingredient); // ['Olive oil', 'Coconut oil', 'Superfat']
 */
export function recipeRows(formula: Formula, nameOf: (material: string) => string): RecipeRow[] {
  const { lines, alkali, liquid, fatsMassG } = formula;
  const rows = lines.map(({ material, stage, amount, portion }): RecipeRow => {
    return {
      ingredient: nameOf(material),
      amount: amount.value,
      unit: unitWords(amount.unit),
      stage,
      portion: portion ?? '',
    };
  });
  const more: Said[] = [];
  if (alkali.massG != null) more.push({ ingredient: 'Lye', amount: alkali.massG, unit: 'g' });
  else if (alkali.superfatPct != null)
    more.push({ ingredient: 'Superfat', amount: alkali.superfatPct, unit: '%' });
  if (liquid) more.push(LIQUID_ROWS[liquid.basis](liquid.value));
  if (fatsMassG != null) more.push({ ingredient: 'Total fats', amount: fatsMassG, unit: 'g' });
  for (const [ingredient, amount, unit] of rowsOfBatch(formula)) more.push({ ingredient, amount, unit });
  return [...rows, ...more.map((row) => ({ ...row, stage: '', portion: '' }))];
}
