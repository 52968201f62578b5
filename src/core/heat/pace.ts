/** How much sooner or later than usual a block is firm enough to be cut, from the course of its reaction. */
import { COARSE, unknownsOf, type Known } from './ensemble';
import { simulate } from './simulate';
import type { MouldShape, Pour } from './types';

export interface Pace {
  portion: string | null;
  /** Of the craft's usual hours. */
  factor: number;
  why: string;
}

/** What the craft's usual hours are of: an ordinary block in silicone, poured warm and left as it is. */
const USUAL_SHAPE: MouldShape = { form: 'block', wall: 'silicone', lengthMm: 220, widthMm: 80, heightMm: 72 };
const USUAL_AROUND = { way: 'leave', roomC: 20 } as const;
const USUAL_START_C = 40;
const HOURS = 48;
/** The model moves the craft's hours by no more than this. */
const [LEAST, MOST] = [0.6, 2];

const hoursWords = (hours: number) => `${Math.round(hours)} h`;

function whyOf(gelledShare: number, allHour: number | null): string {
  const gel =
    gelledShare > 0.97 ? 'it gels through' : gelledShare > 0.03 ? 'it gels in part' : 'it does not gel';
  return allHour === null
    ? `${gel}, and part of it stays soft for two days (an estimate from its warmth)`
    : `${gel}, and all of it is firm about ${hoursWords(allHour)} after the pour (an estimate from its warmth)`;
}

/**
 * By part of the batter. The same batter in the usual block is the measure; what a thermometer told of the mould moves
 * the block's own course.
 *
 * @example
 * paceOf(pour, calibrate(poursInThisMould))[0].factor; // 1.3: about a third later than usual
 */
export function paceOf(pour: Pour, known: Known | null = null): Pace[] {
  const options = { hours: HOURS, fineness: COARSE };
  const own = simulate(pour, { ...options, ...(known ? { unknowns: unknownsOf(known.mean) } : {}) });
  const usual = simulate(
    { ...pour, shape: USUAL_SHAPE, around: USUAL_AROUND, startC: USUAL_START_C },
    options,
  );
  return own.firm.map(({ portion, allHour: model }, at) => {
    const allHour = model === null ? null : model * (known?.firm ?? 1);
    const ratio = (allHour ?? HOURS) / (usual.firm[at]!.allHour ?? HOURS);
    return {
      portion,
      factor: Math.min(MOST, Math.max(LEAST, ratio)),
      why: whyOf(own.gelledShare, allHour),
    };
  });
}
