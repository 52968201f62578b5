/** Lye made up before, in a recipe: so much of a solution of a known strength is lye and water apart. Pure. */
import { folded } from '../folded';
import { gramsOf } from './amounts';
import type { SheetFault, SheetLine } from './cells';

const PERCENT = String.raw`\(?\d+(?:[.,]\d+)?\s*%\)?`;
const SOLUTION = new RegExp(
  String.raw`^(?:${PERCENT}\s*)?(?:(?:lye|naoh|sodium hydroxide|caustic soda)(?:\s*${PERCENT})?[\s-]+(?:solution|stock|water|master ?batch(?:ed)?|losung)\b|(?:master ?batch(?:ed)?|stock) (?:lye|naoh)\b|natronlauge\b|lessive(?: de soude)?\b)`,
);

/** Whether a row of that name is lye in water. */
export const isLyeSolution = (name: string): boolean => SOLUTION.test(folded(name));

const STRENGTH = /(\d+(?:[.,]\d+)?)\s*%/;
/** What its water is looked for as in the cupboard. */
export const ITS_WATER = 'Water';
/** A sum of lye and liquid that is so near, as a share of it, is that sum. */
const NEAR = 0.02;

const noStrength = (name: string) =>
  `“${name}” does not say how strong it is. Write it into the name, as in “lye solution 50 %”, or give lye and water apart.`;
const twice = (name: string) =>
  `“${name}” stands beside the lye, and is not the sum of lye and liquid. Take away what does not count.`;

/**
 * The rows of a bar with a lye solution taken apart. Beside a row of lye it is the sum of lye and liquid, and goes. What
 * cannot be taken apart is told.
 *
 * @example
 * lyeApart(lines, is, knows).lines.map(({ role }) => role); // [undefined, 'lye', 'material']
 */
export function lyeApart(
  lines: readonly SheetLine[],
  is: {
    solution: (line: SheetLine) => boolean;
    lye: (line: SheetLine) => boolean;
    liquid: (line: SheetLine) => boolean;
  },
  knows: (name: string) => boolean,
): { lines: SheetLine[]; faults: SheetFault[] } {
  const faults: SheetFault[] = [];
  const beside = lines.filter((line) => is.lye(line) || is.liquid(line));
  const sumG = beside.reduce<number>((sum, { amount }) => sum + (gramsOf(amount) ?? NaN), 0);
  const apart = lines.flatMap((line): SheetLine[] => {
    if (!is.solution(line)) return [line];
    const { row, name, amount } = line;
    const say = (message: string) => {
      faults.push({ row, message });
      return [];
    };
    if (lines.some(is.lye)) {
      const isSum = Math.abs((gramsOf(amount) ?? NaN) - sumG) <= NEAR * sumG;
      return isSum ? [] : say(twice(name));
    }
    const strength = Number(STRENGTH.exec(name)?.[1]?.replace(',', '.')) / 100;
    if (!(strength > 0 && strength < 1)) return say(noStrength(name));
    if (!knows(ITS_WATER))
      return say(`“${name}” holds water: choose what “${ITS_WATER}” is in the cupboard.`);
    const part = (share: number) => ({ ...amount, value: amount.value * share });
    return [
      { ...line, role: 'lye', amount: part(strength) },
      { ...line, name: ITS_WATER, role: 'material', amount: part(1 - strength) },
    ];
  });
  return { lines: apart, faults };
}
