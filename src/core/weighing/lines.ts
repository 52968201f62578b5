/** Reading the lines of text that scales send, over a bridge or a serial line. */
import { GRAMS_PER_KILO, GRAMS_PER_OUNCE, GRAMS_PER_POUND } from '../quantities/units';

const UNITS: Record<string, number> = { g: 1, kg: GRAMS_PER_KILO, oz: GRAMS_PER_OUNCE, lb: GRAMS_PER_POUND };

const NUMBER = String.raw`([+-]?)\s*(\d{1,9}(?:[.,]\d{1,6})?)`;
/** Said before the number, in any order: stable or not, gross or net, that it is the weight. */
const BEFORE =
  /^(?:(?:ST|US|SD|S\s+S|S\s+D|GS|GR|NT|TR|N|G|S|D|NET|GROSS|WT|WEIGHT|W|\?|\*)(?=[\s,;:+-]|\d)\s*[,;:]?\s*)*/i;
const STABLE = /(?:^|[\s,;])(?:ST|S\s+S|S)(?=[\s,;:+-]|\d|$)/i;
const UNSTABLE = /(?:^|[\s,;])(?:US|SD|S\s+D|D|\?)(?=[\s,;:+-]|\d|$)/i;
const MASS = new RegExp(
  String.raw`^${NUMBER}\s*(kg|g|oz|lb)s?\s*(?:[,;]?\s*(ST|US|S|D|\?|N|NT|NET|G|GS))?$`,
  'i',
);
/** Pounds and ounces in two numbers. */
const POUNDS_OUNCES = new RegExp(
  String.raw`^([+-]?)\s*(\d{1,6})\s*lbs?\.?\s*[,:]?\s*(\d{1,2}(?:[.,]\d{1,6})?)\s*oz$`,
  'i',
);
const OVERLOADED =
  /^(?:(?:ST|US|S|GS|NT)\s*[,;]?\s*)*(?:OL|OVER|OVERLOAD|[HL]|-{2,}|_{2,}|\^{2,}|E+R+(?:OR)?\d*)\s*(?:kg|g|oz|lb)?$/i;

/** What is sent before and after a line: the beginning of a text, its end, and one character to check it by. */
const STX = '\u0002';
const ETX = '\u0003';

export interface ScaleLine {
  /** Grams; null where the scale says it is overloaded. */
  g: number | null;
  /** What its last decimal stands for, grams: the display moves in no finer steps. */
  stepG: number | null;
  /** Whether the scale calls the reading stable; null where it does not say. */
  isStable: boolean | null;
}

const codes = (text: string) => [...text].map((letter) => letter.charCodeAt(0));
const xor = (text: string) => codes(text).reduce((sum, code) => sum ^ code, 0);
const sum = (text: string) => codes(text).reduce((total, code) => total + code, 0) & 0xff;
/** The ways in which a line is summed up in two hexadecimal digits. */
const SUMS = [xor, sum, (text: string) => (0x100 - sum(text)) & 0xff];

/** Takes off what frames a line and what it is checked by; null where the check does not hold. */
function unframed(text: string): string | null {
  const start = text.lastIndexOf(STX);
  const body = start < 0 ? text : text.slice(start + 1);
  const end = body.indexOf(ETX);
  if (end >= 0) {
    const check = body.slice(end + 1).replace(/[\r\n]/g, '');
    const inside = body.slice(0, end);
    return check === '' || [inside, inside + ETX].some((one) => xor(one) === check.charCodeAt(0))
      ? inside
      : null;
  }
  const checked = /^(.*(?:kg|g|oz|lb)s?\s*)[*,;](\s*)([0-9A-F]{2})\s*$/is.exec(body);
  if (!checked) return body;
  const [, inside, , digits] = checked;
  const wanted = parseInt(digits!, 16);
  const ways = [inside!, inside!.trimEnd(), inside! + body.charAt(inside!.length)];
  return ways.some((one) => SUMS.some((way) => way(one) === wanted)) ? inside! : null;
}

const decimals = (digits: string) => digits.split(/[.,]/)[1]?.length ?? 0;

/**
 * What one line says, or null for anything that is no weight, and for a line whose check sum does not hold.
 *
 * @example
 * readScaleLine('ST,+00123.4 g'); // { g: 123.4, stepG: 0.1, isStable: true }
 * readScaleLine('US,  -0.250 kg'); // { g: -250, stepG: 1, isStable: false }
 */
export function readScaleLine(text: string): ScaleLine | null {
  const inside = unframed(text);
  if (inside === null) return null;
  const line = inside.trim();
  if (OVERLOADED.test(line)) return { g: null, stepG: null, isStable: null };
  const before = BEFORE.exec(line)![0];
  const rest = line.slice(before.length).trim();
  const two = POUNDS_OUNCES.exec(rest);
  const match = two ? null : MASS.exec(rest);
  if (!two && !match) return null;
  const marks = `${before} ${match?.[4] ?? ''}`;
  const isStable = UNSTABLE.test(marks) ? false : STABLE.test(marks) ? true : null;
  if (two) {
    const [, sign, pounds, ounces] = two;
    const g = Number(pounds) * GRAMS_PER_POUND + Number(ounces!.replace(',', '.')) * GRAMS_PER_OUNCE;
    return { g: sign === '-' ? -g : g, stepG: GRAMS_PER_OUNCE / 10 ** decimals(ounces!), isStable };
  }
  const [, sign, digits, unit] = match!;
  const perUnit = UNITS[unit!.toLowerCase()]!;
  const value = Number(digits!.replace(',', '.')) * perUnit;
  return { g: sign === '-' ? -value : value, stepG: perUnit / 10 ** decimals(digits!), isStable };
}
