/** Twin pours: how a batch that this one should match went, beside how this one goes. Pure. */
import { JOIN } from './joined';
import type { Batch, REST_WAYS, TEMPERATURES_OF } from './types';

type Of = (typeof TEMPERATURES_OF)[number];

/** How a pour went. */
export interface PourStory {
  code: string;
  startedAt: string;
  /** The last of each that was measured, °C. */
  temperatures: { of: Of; c: number }[];
  /** From the lye in the fats to the pour; null where either is not known. */
  minutes: number | null;
  rested: (typeof REST_WAYS)[number] | null;
  /** What was written down of it, in its order. */
  told: string[];
}

const MS_PER_MINUTE = 60_000;
const TO_MATCH = 'To match ';

/** The note that names a batch's twin. */
export const matchNote = (code: string): string => `${TO_MATCH}${code}`;

/** The code of the batch that this one should match, as last said; null where nobody said. */
export const twinCode = ({ notes }: Pick<Batch, 'notes'>): string | null =>
  notes.findLast(({ text }) => text.startsWith(TO_MATCH))?.text.slice(TO_MATCH.length) ?? null;

const joinedAt = ({ stepsDone }: Pick<Batch, 'stepsDone'>) =>
  stepsDone.findLast(({ step }) => step === JOIN)?.at ?? null;

/** Minutes since the lye went into the fats; null before that. */
export function minutesSinceJoin(batch: Pick<Batch, 'stepsDone'>, at: string): number | null {
  const from = joinedAt(batch);
  return from === null ? null : Math.max(0, (Date.parse(at) - Date.parse(from)) / MS_PER_MINUTE);
}

/**
 * How a batch was poured.
 *
 * @example
 * storyOf(batch).minutes; // 14: from the lye in the fats to the mould
 */
export function storyOf(batch: Batch): PourStory {
  const lastOf = new Map(batch.temperatures.map(({ of, c }) => [of, c]));
  return {
    code: batch.code,
    startedAt: batch.startedAt,
    temperatures: [...lastOf].map(([of, c]) => ({ of, c })),
    minutes: batch.poured ? minutesSinceJoin(batch, batch.poured.at) : null,
    rested: batch.rested,
    told: batch.notes.map(({ text }) => text).filter((text) => !text.startsWith(TO_MATCH)),
  };
}

/** One warmth of both. */
export interface BesideTwin {
  of: Of;
  thenC: number;
  nowC: number | null;
  /** Warmer than then, °C; negative for cooler. */
  warmerC: number | null;
}

/** Each warmth that was measured then, with that of today. */
export function besideTwin(today: Pick<Batch, 'temperatures'>, twin: PourStory): BesideTwin[] {
  return twin.temperatures.map(({ of, c }) => {
    const nowC = today.temperatures.findLast((one) => one.of === of)?.c ?? null;
    return { of, thenC: c, nowC, warmerC: nowC === null ? null : nowC - c };
  });
}
