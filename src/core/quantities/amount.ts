/** Reading amounts as makers write them ("28g", "5 % fats", "1 1/2 tbsp/lb") and writing them back. */
import type { Amount, Measure } from '../formula/types';
import {
  BY_HAND,
  countedIn,
  filled,
  inOneSpelling,
  percentIn,
  pieceOf,
  RANGE,
  rateIn,
  type CountedIn,
} from './amount-words';
import { readNumber } from './number';
import { unitRule, type Unit, type UnitRule } from './units';

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

/** Units by how they are written themselves, lower case and without blanks. */
const SPELLINGS: ReadonlyMap<string, Unit> = new Map(
  (Object.entries(WRITTEN) as [Unit, string][]).flatMap(([unit, written]) => [
    [written.replace(/\s/g, '').toLowerCase(), unit],
    [unit.toLowerCase(), unit],
  ]),
);

/** A tonne: more than any pot this is made for. */
const MOST_GRAMS = 1e6;
const MOST_PERCENT_OF_FATS = 1000;

export type AmountReading =
  | {
      ok: true;
      amount: Amount;
      /** How it is measured, where the words say so: a heaped spoon, a pinch. */
      measuredBy?: Measure;
      /** A bare percent, of which nothing says what it is of: `amount` takes it as of the fats. */
      isPercentOpen: boolean;
    }
  | { ok: false; code: 'not-a-number' | 'negative' | 'unknown-unit' | 'absurd'; message: string };

/** A mixed fraction, a fraction, or a plain number with its marks. */
const NUMBER =
  /^([+-]?)\s*(?:(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)|([\d.,'\u00a0\u202f]*\d(?: \d{3}(?!\d))*(?:[.,]\d+)?))/;

function readQuantity(text: string): { value: number; rest: string } | null {
  const match = NUMBER.exec(text);
  if (!match) return null;
  const [all, sign, whole, over, under, plain] = match;
  const value = plain === undefined ? Number(whole ?? 0) + Number(over) / Number(under) : readNumber(plain);
  return { value: sign === '-' ? -value : value, rest: text.slice(all.length).trim() };
}

interface Part extends CountedIn {
  isPercentOpen: boolean;
}

/** A rate for so many grams of fats, in the unit for a pound or a kilogram that it comes to. */
function rated({ unit, times, measuredBy }: CountedIn, perG: number): CountedIn | undefined {
  const rule = unitRule(unit)!;
  if (rule.base !== 'absolute') return undefined;
  const own: Partial<Record<Unit, Unit>> = { oz: 'ozPerLbFats', tsp: 'tspPerLbFats', tbsp: 'tbspPerLbFats' };
  const whole = own[unit] ?? (rule.byVolume ? 'tspPerLbFats' : 'gPerKgFats');
  return { unit: whole, times: (times * rule.factor) / perG / unitRule(whole)!.factor, measuredBy };
}

function readUnit(words: string, current: Unit): Part | undefined {
  const closed = (counted: CountedIn | undefined) => counted && { ...counted, isPercentOpen: false };
  if (words === '') return { unit: current, times: 1, isPercentOpen: false };
  const spelled = SPELLINGS.get(words.replace(/\s/g, ''));
  if (spelled) return closed({ unit: spelled, times: 1 });
  const percent = percentIn(words);
  if (percent === 'open') {
    const isPercentOpen = !current.startsWith('%');
    return { unit: isPercentOpen ? '%fats' : current, times: 1, isPercentOpen };
  }
  if (percent !== null) return closed(percent && { unit: percent, times: 1 });
  const { rest, perG } = rateIn(words);
  const counted = countedIn(rest);
  if (!counted) return undefined;
  return closed(perG === null ? counted : rated(counted, perG));
}

interface Read extends Part {
  value: number;
}

/** Reads "1 lb 8 oz" piece by piece, in the unit of the last piece; undefined where a piece names no unit, null where none is a number. */
function readPieces(text: string, current: Unit): Read | null | undefined {
  let rest = text;
  let sum = null as Read | null;
  for (;;) {
    const number = readQuantity(rest);
    if (!number || !Number.isFinite(number.value)) return sum && rest === '' ? sum : sum ? undefined : null;
    const piece = pieceOf(number.rest);
    const words = piece?.words ?? number.rest;
    if (sum && words === '') return undefined;
    const unit = readUnit(words, current);
    if (!unit) return undefined;
    const read: Read = { ...unit, value: number.value * unit.times };
    const before: UnitRule | null = sum === null ? null : unitRule(sum.unit)!;
    const now = unitRule(read.unit)!;
    if (before && (before.base !== 'absolute' || now.base !== 'absolute' || before.byVolume !== now.byVolume))
      return undefined;
    sum = before && sum ? { ...read, value: read.value + (sum.value * before.factor) / now.factor } : read;
    if (!piece) return sum;
    rest = piece.next;
  }
}

function isAbsurd({ value, unit }: Amount): boolean {
  const rule = unitRule(unit)!;
  if (rule.base === 'absolute') return value * rule.factor > MOST_GRAMS;
  const percent = 100 * value * rule.factor;
  return percent > (rule.base === 'fats' ? MOST_PERCENT_OF_FATS : 100);
}

/** Beyond this many figures after the point an amount is arithmetic, not what a maker wrote. */
const ROUND = 1e9;

const no = (
  code: 'not-a-number' | 'negative' | 'unknown-unit' | 'absurd',
  message: string,
): AmountReading => ({
  ok: false,
  code,
  message,
});

/**
 * Reads an amount as makers write it, in the six languages that their sheets are in: decimal commas and fractions,
 * pounds with ounces, spoons level and heaped, drops and pinches, rates per pound or kilogram of fats, percents of fats,
 * liquid, pour or cured bar. A bare number keeps the current unit, a bare "%" too where that is a percent; else it is told as
 * open. A fault comes back with a plain remedy.
 *
 * @example readAmount('3,5 %', 'g').amount // { value: 3.5, unit: '%fats' }
 * @example readAmount('1 lb 8 oz', 'g').amount // { value: 24, unit: 'oz' }
 * @example readAmount('1 heaped tsp ppo', 'g').measuredBy // 'heaped'
 */
export function readAmount(text: string, current: Unit): AmountReading {
  const { rest: plain, measuredBy } = filled(inOneSpelling(text));
  if (BY_HAND.test(plain))
    return no(
      'not-a-number',
      'Nobody else can measure that. Weigh one and say it in grams, or say it in spoons.',
    );
  if (RANGE.test(plain)) return no('not-a-number', 'Say one figure, not from one to another.');
  const read = readPieces(inOneSpelling(plain), current);
  if (read === null) return no('not-a-number', 'Start with a number, such as 28 g or 5 % fats.');
  if (read === undefined) {
    const words = readQuantity(plain)?.rest ?? plain;
    if (/^\d/.test(words)) return no('not-a-number', 'Say one amount, such as 28 g or 1 lb 8 oz.');
    return no('unknown-unit', `“${words}” is not a unit here. Try g, oz, % fats, % cured, tsp or tbsp/lb.`);
  }
  if (read.value < 0) return no('negative', 'An amount cannot be below zero.');
  const amount = { value: Math.round(read.value * ROUND) / ROUND, unit: read.unit };
  if (isAbsurd(amount))
    return no('absurd', 'That is more than any pot holds. Check the number and its unit.');
  const how = measuredBy ?? read.measuredBy;
  return { ok: true, amount, ...(how ? { measuredBy: how } : {}), isPercentOpen: read.isPercentOpen };
}

/**
 * Grams of a mass as it is typed where grams are asked for: a bare number, or one with its unit ("1 lb 8 oz", "1.2 kg").
 * NaN for what is no mass; a volume is none. `bare` is what a bare number is of.
 *
 * @example readGrams('8 oz') // 226.796185
 * @example readGrams('8', 'oz') // 226.796185
 */
export function readGrams(text: string, bare: 'g' | 'oz' = 'g'): number {
  const read = readAmount(text, bare);
  const rule = read.ok ? unitRule(read.amount.unit)! : null;
  return read.ok && rule!.base === 'absolute' && !rule!.byVolume ? read.amount.value * rule!.factor : NaN;
}

/** The same, with null where nothing is written at all. */
export const readGramsOrNull = (text: string): number | null => (text.trim() === '' ? null : readGrams(text));

/**
 * The smallest step that a mass as it is typed can tell, grams: the last place of its figure in its own unit.
 *
 * @example stepOfGrams('85.5') // 0.1
 */
export function stepOfGrams(text: string, bare: 'g' | 'oz' = 'g'): number {
  const decimals = /[.,](\d+)\D*$/.exec(text)?.[1]?.length ?? 0;
  const read = readAmount(text, bare);
  const factor = read.ok ? unitRule(read.amount.unit)!.factor : 1;
  return Number((factor * 10 ** -decimals).toPrecision(4));
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
