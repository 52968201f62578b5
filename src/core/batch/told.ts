/** What hands tell during a pour in two taps, and what a liquid that fell short does. Pure. */
import type { Place } from '../making/run-sheet-types';
import type { Batch } from './types';

/** What there is to tell at a place of the run sheet, usual things first; written into the record as they stand. */
const TOLD: Partial<Record<Place, readonly string[]>> = {
  lye: ['It fizzed or foamed up', 'It went brown', 'Grains stay on the bottom', 'It got very hot'],
  fats: ['It did not melt clear', 'It clouded again'],
  join: [
    'False trace: it looked thick and was not',
    'It thickened fast',
    'It took very long',
    'It riced',
    'It seized',
  ],
  portion: [
    'It riced',
    'It seized',
    'It thickened fast',
    'It split into oil and grains',
    'The colour came out otherwise',
  ],
  mould: ['It was thick: spooned in', 'It was thin: it ran together', 'Air was knocked out', 'It riced'],
  rest: [
    'It gelled through',
    'It gelled in the middle only',
    'It did not gel',
    'It cracked on top',
    'Ash on top',
    'It rose in the middle',
    'Its top was misted with alcohol against ash',
    'It went into a low oven, switched off',
    'It was warmed again',
  ],
};
const ANYWHERE = ['Something was spilled'] as const;

/**
 * What can be told at a place, each as it goes into the record.
 *
 * @example toldAt('rest')[0] // 'It gelled through'
 */
export const toldAt = (place: Place): string[] => [...(TOLD[place] ?? []), ...ANYWHERE];

/** What a liquid that fell short does to lye and cure. */
export interface Short {
  shortG: number;
  /** Alkali in alkali and liquid together, percent: as planned, and as it comes out. */
  plannedPct: number;
  comesPct: number;
}

/** Lye stronger than this is hard to dissolve and soon too fast, percent; usual among makers. */
export const STRONG_LYE_PCT = 40;

/**
 * What comes of a line of liquid of which so many grams are in, where that is short; null where it is not, or is no liquid
 * before the lye.
 */
export function shortLiquid(
  batch: Batch,
  line: string,
  doneG: number,
  wantedG: number,
  underG: number,
): Short | null {
  const shortG = wantedG - doneG;
  if (doneG <= 0 || shortG <= underG) return null;
  const liquids = new Set(batch.lines.filter(({ stage }) => stage === 'liquid').map((one) => one.line));
  if (!liquids.has(line)) return null;
  const { sheet, scale } = batch;
  const alkaliG = sheet.alkaliG * scale;
  const weighed = sheet.steps.flatMap(({ weigh }) => weigh).filter((one) => liquids.has(one.line));
  const liquidG = weighed.reduce((sum, { massG }) => sum + massG * scale, 0);
  if (alkaliG <= 0 || liquidG <= shortG) return null;
  const pct = (liquid: number) => (100 * alkaliG) / (alkaliG + liquid);
  return { shortG, plannedPct: pct(liquidG), comesPct: pct(liquidG - shortG) };
}

/**
 * What a short liquid does, in words: the bar dries to the same weight, the lye is stronger, and the batter is faster.
 */
export function shortWords({ plannedPct, comesPct }: Short): string {
  const lye = `the lye comes to ${comesPct.toFixed(1)} % in place of ${plannedPct.toFixed(1)} %`;
  const strong =
    comesPct > STRONG_LYE_PCT
      ? ' So strong a lye hardly dissolves: add the rest, or other water, first.'
      : '';
  return `Left at that, ${lye}: it gets hotter, the batter thickens sooner, and fresh bars weigh less; cured they weigh the same.${strong}`;
}
