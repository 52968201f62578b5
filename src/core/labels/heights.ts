/** Least heights of letters and digits, and how net content is written, by market (rules by market). */
import type { Market } from '../formula/types';
import { GRAMS_PER_OUNCE } from '../quantities/units';
import type { Plan, Shape } from './formats';
import { LABEL_MANNERS } from './manners';

const MM_PER_INCH = 25.4;
const MM2_PER_SQUARE_INCH = MM_PER_INCH * MM_PER_INCH;
const MM2_PER_CM2 = 100;
const inches = (parts: number, of: number) => (parts / of) * MM_PER_INCH;

type Steps = readonly (readonly [upTo: number, heightMm: number])[];

/** Digits by net mass, EU and UK, grams. */
const BY_MASS: Steps = [
  [50, 2],
  [200, 3],
  [1000, 4],
  [Infinity, 6],
];
/** Digits by area of the front panel, US, square inches. */
const BY_AREA_US: Steps = [
  [5, inches(1, 16)],
  [25, inches(1, 8)],
  [100, inches(3, 16)],
  [Infinity, inches(1, 4)],
];
/** Digits by area, Canada, square centimetres. */
const BY_AREA_CA: Steps = [
  [32, 1.6],
  [258, 3.2],
  [645, 6.4],
  // Beyond what the notes state; taken generously.
  [Infinity, 9.6],
];
/** Digits by longest side, Australia, millimetres. */
const BY_SIDE_AU: Steps = [
  [120, 2],
  [230, 2.5],
  [360, 3.3],
  // Beyond what the notes state; taken generously.
  [Infinity, 4.8],
];
/** Good practice for legible small print where no height is fixed, millimetres of x-height. */
const LEGIBLE_MM = 1.2;
/** A notice beside the bars is read from a step away. */
const NOTICE_MM = 2.4;
/** A US package with less room for labelling than this may use half the height, square inches. */
const SMALL_PACKAGE_SQ_IN = 12;

export interface LeastHeight {
  mm: number;
  source: string;
}

/** What a height that hangs on the face says of where the face's size comes from. */
function byFace({ face }: Plan, what: string): string {
  return face ? `${what}, measured ${face.widthMm} × ${face.heightMm} mm` : `${what}, taken from the shape`;
}

function step(steps: Steps, value: number): number {
  return steps.find(([upTo]) => value <= upTo)![1];
}

const byMass = (netMassG: number): LeastHeight => ({ mm: step(BY_MASS, netMassG), source: 'by net mass' });

/** Digits of the net content, by market. */
const DIGITS: Record<Market, (netMassG: number, plan: Plan) => LeastHeight> = {
  EU: byMass,
  UK: byMass,
  US: (_, plan) => ({
    mm: step(BY_AREA_US, plan.frontAreaMm2 / MM2_PER_SQUARE_INCH),
    source: byFace(plan, 'by area of the face'),
  }),
  CA: (_, plan) => ({
    mm: step(BY_AREA_CA, plan.frontAreaMm2 / MM2_PER_CM2),
    source: byFace(plan, 'by area of the face'),
  }),
  AU: (_, plan) => ({ mm: step(BY_SIDE_AU, plan.longestSideMm), source: byFace(plan, 'by longest side') }),
};

/** Least height of the digits of the net content. */
export const leastDigits = (market: Market, netMassG: number, plan: Plan): LeastHeight =>
  DIGITS[market](netMassG, plan);

const legible = (): LeastHeight => ({ mm: LEGIBLE_MM, source: 'good practice, no height is fixed' });

/** Everything else, by market. */
const LETTERS: Record<Market, (plan: Plan) => LeastHeight> = {
  EU: legible,
  UK: legible,
  US: ({ widthMm, heightMm }) =>
    (widthMm * heightMm) / MM2_PER_SQUARE_INCH < SMALL_PACKAGE_SQ_IN
      ? { mm: inches(1, 32), source: 'small package' }
      : { mm: inches(1, 16), source: 'ingredients of a cosmetic' },
  CA: () => ({ mm: 1.6, source: 'height of a lower-case o' }),
  AU: legible,
};

/** Least x-height of everything else. */
export function leastLetters(market: Market, plan: Plan, shape: Shape): LeastHeight {
  if (shape === 'notice') return { mm: NOTICE_MM, source: 'good practice for a notice' };
  return LETTERS[market](plan);
}

const OUNCE_STEP = 10;

/** Net content as the market writes it; grams and ounces rounded down, so that the bar never holds less. */
export function netText(market: Market, netMassG: number): string {
  const grams = Math.floor(netMassG + 1e-9);
  if (!LABEL_MANNERS[market].hasOunces) return `${grams} g`;
  const ounces = Math.floor((netMassG / GRAMS_PER_OUNCE) * OUNCE_STEP + 1e-9) / OUNCE_STEP;
  return `Net Wt ${ounces.toFixed(1)} oz (${grams} g)`;
}

/**
 * The net content that weighed bars allow: the lightest counts; null where none were weighed.
 *
 * @example netFromBars([101.2, 98.7, 99.4]) // 98
 */
export function netFromBars(weighedG: readonly number[]): number | null {
  const weighed = weighedG.filter((mass) => mass > 0);
  return weighed.length > 0 ? Math.floor(Math.min(...weighed) + 1e-9) : null;
}

/** Contrast of two colours as WCAG reckons it, 1 to 21. Colours as #rrggbb. */
export function contrast(a: string, b: string): number {
  const luminance = (colour: string) => {
    const channels = [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16) / 255);
    const [red, green, blue] = channels.map((c) => (c <= 0.03928 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4));
    return 0.2126 * red! + 0.7152 * green! + 0.0722 * blue!;
  };
  const [dark, light] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (light! + 0.05) / (dark! + 0.05);
}
