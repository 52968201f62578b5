/** Amounts as they stand in makers' own spreadsheets, with the unit in the cell, in a column of its own or in the head. */
import type { Amount } from '../formula/types';
import { readAmount } from '../quantities/amount';
import { unitRule, type Unit } from '../quantities/units';

/** A unit, or a percent of which it is still to be said what of. */
export type SheetUnit = Unit | '%';

export interface SheetAmount {
  value: number;
  /** `:1` for a ratio, as of water to lye. */
  unit: SheetUnit | ':1';
}

/** Per pound of oils, as it is written short. */
const PER_POUND =
  /\s*(?:ppo|per\s+(?:lb|pound)s?(?:\s+(?:of\s+)?(?:oils?|fats?))?|\/\s*(?:lb|pound)(?:\s+oils?)?)\s*$/i;
const PER_POUND_UNITS: Partial<Record<string, Unit>> = {
  oz: 'ozPerLbFats',
  tsp: 'tspPerLbFats',
  tbsp: 'tbspPerLbFats',
};
const DOTTED = /\b(tsp|tbsp|oz|lb|lbs|gr|g|ml|kg)\./gi;
/** Spoons and units as they are written short, or abroad. */
const ABROAD: readonly (readonly [RegExp, string])[] = [
  [/\bT(?=\b)(?!sp|bsp)/, 'tbsp'],
  [/\bt(?=\b)(?!sp|bsp)/, 'tsp'],
  [/\b(?:tl|teel(?:ö|oe)ffel|c\. ?à ?c|cucchiaini?)\b/i, 'tsp'],
  [/\b(?:gramm|grammes?|grammi|gramos)\b/i, 'g'],
  [/\b(?:unzen|onces|oncias)\b/i, 'oz'],
  [/\bkilos?\b/i, 'kg'],
  [/\b(?:el|essl(?:ö|oe)ffel|c\. ?à ?s|cucchiai)\b/i, 'tbsp'],
];

function plain(text: string): string {
  const cut = text
    .replace(/[~≈]|\b(?:about|ca|approx)\b\.?/gi, '')
    .replace(DOTTED, '$1')
    .trim();
  return ABROAD.reduce((all, [pattern, unit]) => all.replace(pattern, unit), cut);
}

/** How the error of a number without a unit ends. */
export const NO_UNIT = 'says no unit. Say which unit the column is in.';

const RATIO = /^(\d+(?:[.,]\d+)?)\s*:\s*(\d*[1-9]\d*(?:[.,]\d+)?)$/;
const numberIn = (text: string) => Number(text.replace(',', '.'));

/** The unit that words in a head or a cell name; null where they name none. */
export function unitIn(text: string): SheetUnit | null {
  const bare = plain(text)
    .replace(/[()[\]]/g, ' ')
    .trim();
  if (bare === '') return null;
  const isPerPound = PER_POUND.test(bare);
  const word = bare.replace(PER_POUND, '').trim();
  if (/^(?:%|percent|pct|prozent)$/i.test(word)) return '%';
  const read = readAmount(`1 ${word}`, 'g');
  if (!read.ok) return null;
  if (!isPerPound) return read.amount.unit;
  return PER_POUND_UNITS[read.amount.unit] ?? null;
}

/**
 * Reads a cell; a bare number is in `unit`. Null for an empty cell or a dash; an error in words where it is no amount.
 *
 * @example
 * readCell('5 oz ppo', 'g'); // { value: 5, unit: 'ozPerLbFats' }
 */
export function readCell(cell: string, unit: SheetUnit | null): SheetAmount | null | { error: string } {
  const text = plain(cell);
  if (text === '' || /^[-–—x]$/i.test(text)) return null;
  const ratio = RATIO.exec(text);
  if (ratio) return { value: numberIn(ratio[1]!) / numberIn(ratio[2]!), unit: ':1' };
  const perPound = PER_POUND.test(text);
  const bare = text.replace(PER_POUND, '').trim();
  const percent = /^([\d.,\s/]+)\s*%$/.exec(bare);
  if (percent) {
    const read = readAmount(`${percent[1]} g`, 'g');
    return read.ok
      ? {
          value: read.amount.value,
          unit: unit === null || unit === '%' || !unit.startsWith('%') ? '%' : unit,
        }
      : { error: read.message };
  }
  if (unit === null && /^[\d.,\s/]+$/.test(bare)) return { error: `“${cell}” ${NO_UNIT}` };
  const read = readAmount(bare, unit === null || unit === '%' ? 'g' : unit);
  if (!read.ok) return { error: `“${cell}”: ${read.message}` };
  const { value } = read.amount;
  if (unit === '%' && /^[\d.,\s/]+$/.test(bare)) return { value, unit: '%' };
  if (!perPound) return { value, unit: read.amount.unit };
  const per = PER_POUND_UNITS[read.amount.unit];
  return per
    ? { value, unit: per }
    : { error: `“${cell}” is not a rate per pound of fats. Try oz, tsp or tbsp.` };
}

/** What a percent may be of. */
export type PercentOf = 'fats' | 'whole';

/** A sheet's amount as a formula takes it. Percents of the whole become grams of `wholeG`. */
export function amountOf(
  { value, unit }: { value: number; unit: SheetUnit },
  percentOf: PercentOf,
  wholeG: number,
): Amount {
  if (unit !== '%') return { value, unit };
  return percentOf === 'fats' ? { value, unit: '%fats' } : { value: (value * wholeG) / 100, unit: 'g' };
}

/** Grams of an amount that says a mass; null for any other. */
export function gramsOf({ value, unit }: SheetAmount): number | null {
  if (unit === '%' || unit === ':1') return null;
  const rule = unitRule(unit)!;
  return rule.base === 'absolute' && !rule.byVolume ? value * rule.factor : null;
}
