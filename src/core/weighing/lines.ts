/** Reading the lines of text that a scale's bridge sends. */
import { GRAMS_PER_KILO, GRAMS_PER_OUNCE, GRAMS_PER_POUND } from '../quantities/units';

const UNITS: Record<string, number> = { g: 1, kg: GRAMS_PER_KILO, oz: GRAMS_PER_OUNCE, lb: GRAMS_PER_POUND };
/** A state, `ST` where it is stable and `US` where not; perhaps gross or net; the number; the unit. */
const LINE =
  /^(?:(ST|US|OL)\s*[,;]?\s*)?(?:(?:GS|NT|G|N)\s*[,;]\s*)?([+-]?)\s*(\d{1,9}(?:[.,]\d{1,6})?)\s*(kg|g|oz|lb)s?$/i;
const OVERLOADED = /^(?:OL\b|[,;\s]*(?:-+|E+r*r*)\s*$)/i;

export interface ScaleLine {
  /** Grams; null where the scale says it is overloaded. */
  g: number | null;
  /** What its last decimal stands for, grams: the display moves in no finer steps. */
  stepG: number | null;
}

/**
 * What one line says, or null for anything that is no weight.
 *
 * @example
 * readScaleLine('ST,+00123.4 g'); // { g: 123.4, stepG: 0.1 }
 * readScaleLine('US,  -0.250 kg'); // { g: -250, stepG: 1 }
 */
export function readScaleLine(text: string): ScaleLine | null {
  const line = text.trim();
  if (OVERLOADED.test(line)) return { g: null, stepG: null };
  const match = LINE.exec(line);
  if (!match) return null;
  const [, , sign, digits, unit] = match;
  const number = digits!.replace(',', '.');
  const perUnit = UNITS[unit!.toLowerCase()]!;
  const stepG = perUnit / 10 ** (number.split('.')[1]?.length ?? 0);
  const value = Number(number) * perUnit;
  return { g: sign === '-' ? -value : value, stepG };
}
