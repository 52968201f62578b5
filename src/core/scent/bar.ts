/** A blend tried in a bar: its oils as lines of their own in place of the bar's scent. */
import { isScentBlend, type MixPart } from '../formula/mix';
import type { Formula, Line, Material } from '../formula/types';
import type { BlendOil } from './programme';

/** Id of the line that an oil of the blend stands in. */
export function oilLine(material: string): string {
  return `oil ${material}`;
}

/** The formula without its scents. */
export function withoutScent(formula: Formula, material: (id: string) => Material | undefined): Formula {
  const isScentLine = (line: Line) => {
    const found = material(line.material);
    return found !== undefined && isScentBlend(found);
  };
  return { ...formula, lines: formula.lines.filter((line) => !isScentLine(line)) };
}

/**
 * The formula with the blend's oils at trace, each its share of a total in percent of the fats.
 *
 * @example
 * withOils(withoutScent(formula, find), mix.parts, 3).formula; // the blend at 3 % of the fats, oil by oil
 */
export function withOils(
  formula: Formula,
  parts: readonly MixPart[],
  totalPctFats: number,
): { formula: Formula; oils: BlendOil[] } {
  const used = parts.filter((part) => part.parts > 0);
  const sum = used.reduce((total, part) => total + part.parts, 0);
  const lines = used.map((part): Line => ({
    id: oilLine(part.material),
    material: part.material,
    stage: 'trace',
    amount: { value: (totalPctFats * part.parts) / sum, unit: '%fats' },
    measuredBy: 'scale',
  }));
  return {
    formula: { ...formula, lines: [...formula.lines, ...lines] },
    oils: used.map((part) => ({ line: oilLine(part.material), parts: part.parts })),
  };
}
