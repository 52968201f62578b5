/** Reading amounts as makers write them ("28g", "5 % fats", "1 1/2 tbsp/lb") and writing them back. */
import type { Amount } from '../formula/types';
import { readNumber } from './number';
import { unitRule, type Unit } from './units';

/** How each unit is written on screen and paper. */
const WRITTEN: Record<Unit, string> = {
  g: 'g',
  kg: 'kg',
  oz: 'oz',
  lb: 'lb',
  mL: 'mL',
  L: 'L',
  tsp: 'tsp',
  tbsp: 'tbsp',
  cup: 'cup',
  flOz: 'fl oz',
  tspMetric: 'tsp metric',
  tbspMetric: 'tbsp metric',
  tbspAU: 'tbsp AU',
  '%fats': '% fats',
  '%liquid': '% liquid',
  '%pour': '% pour',
  '%cured': '% cured',
  gPerKgFats: 'g/kg',
  ozPerLbFats: 'oz/lb',
  tspPerLbFats: 'tsp/lb',
  tbspPerLbFats: 'tbsp/lb',
};

/** Other ways to write a unit, lower case and without blanks. */
const OTHER_SPELLINGS: Record<string, Unit> = {
  gram: 'g',
  grams: 'g',
  gr: 'g',
  kilo: 'kg',
  kilos: 'kg',
  ounce: 'oz',
  ounces: 'oz',
  pound: 'lb',
  pounds: 'lb',
  lbs: 'lb',
  teaspoon: 'tsp',
  teaspoons: 'tsp',
  tablespoon: 'tbsp',
  tablespoons: 'tbsp',
  cups: 'cup',
  litre: 'L',
  liter: 'L',
  metrictsp: 'tspMetric',
  metrictbsp: 'tbspMetric',
  autbsp: 'tbspAU',
  '%offats': '%fats',
  '%fat': '%fats',
  '%oils': '%fats',
  '%ofliquid': '%liquid',
  '%batch': '%pour',
  '%ofpour': '%pour',
  '%bar': '%cured',
  '%ofcured': '%cured',
  'g/kgfats': 'gPerKgFats',
  'oz/lbfats': 'ozPerLbFats',
  'tsp/lbfats': 'tspPerLbFats',
  'tbsp/lbfats': 'tbspPerLbFats',
};

function buildSpellings(): ReadonlyMap<string, Unit> {
  const spellings = new Map(Object.entries(OTHER_SPELLINGS));
  for (const [unit, written] of Object.entries(WRITTEN) as [Unit, string][]) {
    spellings.set(written.replace(/\s/g, '').toLowerCase(), unit);
    spellings.set(unit.toLowerCase(), unit);
  }
  return spellings;
}

const SPELLINGS = buildSpellings();

/** A tonne: more than any pot this is made for. */
const MOST_GRAMS = 1e6;
const MOST_PERCENT_OF_FATS = 1000;

export type AmountReading =
  | { ok: true; amount: Amount }
  | { ok: false; code: 'not-a-number' | 'negative' | 'unknown-unit' | 'absurd'; message: string };

const NUMBER = /^([+-]?)\s*(?:(\d+)\s+)?(\d+(?:[.,]\d+)?|[.,]\d+)(?:\s*\/\s*(\d+))?/;

function readQuantity(text: string): { value: number; rest: string } | null {
  const match = NUMBER.exec(text);
  if (!match) return null;
  const [whole, sign, units, digits, divisor] = match;
  const decimal = readNumber(digits!);
  if (units !== undefined && divisor === undefined) return null;
  const part = divisor === undefined ? decimal : decimal / Number(divisor);
  const value = (units === undefined ? 0 : Number(units)) + part;
  return { value: sign === '-' ? -value : value, rest: text.slice(whole.length) };
}

function readUnit(rest: string, current: Unit): Unit | undefined {
  const spelled = rest.replace(/\s/g, '').toLowerCase();
  if (spelled === '') return current;
  if (spelled === '%') return current.startsWith('%') ? current : '%fats';
  return SPELLINGS.get(spelled);
}

function isAbsurd({ value, unit }: Amount): boolean {
  const rule = unitRule(unit)!;
  if (rule.base === 'absolute') return value * rule.factor > MOST_GRAMS;
  const percent = 100 * value * rule.factor;
  return percent > (rule.base === 'fats' ? MOST_PERCENT_OF_FATS : 100);
}

/**
 * Reads an amount; a bare number keeps the current unit, a bare "%" is of the fats unless the current unit is
 * another percent. Decimal commas and fractions are read. A fault comes back with a plain remedy.
 *
 * @example readAmount('3,5 %', 'g').amount // { value: 3.5, unit: '%fats' }
 * @example readAmount('2 tsp', 'g').amount // { value: 2, unit: 'tsp' }
 */
export function readAmount(text: string, current: Unit): AmountReading {
  const number = readQuantity(text.trim());
  if (!number || !Number.isFinite(number.value)) {
    return { ok: false, code: 'not-a-number', message: 'Start with a number, such as 28 g or 5 % fats.' };
  }
  if (number.value < 0) {
    return { ok: false, code: 'negative', message: 'An amount cannot be below zero.' };
  }
  const unit = readUnit(number.rest, current);
  if (!unit) {
    const message = `“${number.rest.trim()}” is not a unit here. Try g, oz, % fats, % cured, tsp or tbsp/lb.`;
    return { ok: false, code: 'unknown-unit', message };
  }
  const amount = { value: number.value, unit };
  if (isAbsurd(amount)) {
    return {
      ok: false,
      code: 'absurd',
      message: 'That is more than any pot holds. Check the number and its unit.',
    };
  }
  return { ok: true, amount };
}

/**
 * A number with at most so many decimals and no trailing zeros.
 *
 * @example plainNumber(4.5, 2) // '4.5'
 */
export function plainNumber(value: number, decimals: number): string {
  return String(Number(value.toFixed(decimals)));
}

/** Decimals an amount is shown with. */
const SHOWN_DECIMALS = 4;

/**
 * Writes an amount as a maker would.
 *
 * @example writeAmount({ value: 28, unit: 'g' }) // '28 g'
 */
export function writeAmount({ value, unit }: Amount): string {
  return `${plainNumber(value, SHOWN_DECIMALS)} ${WRITTEN[unit]}`;
}
