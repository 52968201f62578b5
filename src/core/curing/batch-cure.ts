/** A batch's own cure: what of its events the cure, the cut window and the release are reckoned from. */
import { batchFormula } from '../batch/request';
import type { Batch, BatchStanding } from '../batch/types';
import type { TraitMaterial } from '../formula/traits';
import { isScent } from '../formula/scents';
import type { Market } from '../formula/types';
import { dayOf, isBefore, MS_PER_DAY, MS_PER_HOUR } from '../quantities/day';
import type { Cure, CureOptions, CureWeighing } from './cure-types';
import { CUT_CHECK, HARD } from './window';

/** Days from the pour to a moment. */
export const daysSince = (from: string, at: string): number =>
  (Date.parse(at) - Date.parse(from)) / MS_PER_DAY;

/** What of a pour became bars, grams: all that was weighed, less what was left over and trimmed. */
export function barsMassG(batch: Batch): number | null {
  const { poured, cut } = batch;
  if (!poured || !cut) return null;
  const { lines, alkali } = batchFormula(batch);
  const linesG = lines.reduce((sum, { amount }) => sum + amount.value, 0);
  const massG = linesG + (alkali.massG ?? 0) - poured.leftoverG - cut.trimmingsG;
  return massG > 0 ? massG : null;
}

const median = (values: readonly number[]) =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? null;

/** Steps of displays, grams, coarse ones first. */
const STEPS_G = [5, 2, 1, 0.5, 0.2, 0.1, 0.05, 0.02, 0.01] as const;
/** Fewer weighings that fall on coarse steps do so by chance. */
const ENOUGH_FOR_STEP = 4;

/** The step of the scale that bars were weighed on: as it was said, or coarser where every mass falls on coarser steps. */
function stepOf(weighings: readonly { massG: number; readabilityG: number }[]): number {
  const said = median(weighings.map(({ readabilityG }) => readabilityG).filter((step) => step > 0)) ?? 1;
  if (weighings.length < ENOUGH_FOR_STEP) return said;
  const falls = (step: number) =>
    weighings.every(({ massG }) => Math.abs(massG / step - Math.round(massG / step)) < 1e-6);
  return Math.max(said, STEPS_G.find(falls) ?? said);
}

/** The weighings of a batch's bars, those left out aside, and what else is known of them. */
export function cureInput(
  batch: Pick<BatchStanding, 'poured' | 'startedAt' | 'barWeighings' | 'barsG' | 'cut'>,
  minDays?: number,
): { weighings: CureWeighing[]; options: CureOptions } {
  const from = batch.poured?.at ?? batch.startedAt;
  const counted = batch.barWeighings.filter(({ leftOut }) => leftOut === null);
  return {
    weighings: counted.map(({ bar, at, massG }) => ({ bar, day: daysSince(from, at), massG })),
    options: {
      readabilityG: stepOf(counted),
      confirmed: counted.flatMap(({ confirmed }, place) => (confirmed === null ? [] : [place])),
      pouredG: batch.barsG,
      bars: batch.cut?.bars ?? null,
      ...(minDays === undefined ? {} : { minDays }),
    },
  };
}

/** The last mass of every bar weighed, those left out aside, grams. */
export function lastWeights({
  barWeighings,
}: Pick<Batch, 'barWeighings'>): { bar: string; massG: number; at: string }[] {
  const last = new Map<string, { bar: string; massG: number; at: string }>();
  for (const { bar, massG, at, leftOut } of barWeighings) {
    const before = last.get(bar);
    if (leftOut === null && !(before && isBefore(at, before.at))) last.set(bar, { bar, massG, at });
  }
  return [...last.values()];
}

/** A bar by what it weighs once it is settled. */
export interface SettledBar {
  bar: string;
  massG: number;
  /** Weighed after it had settled, or the low end of where its curve leads. */
  by: 'weight' | 'curve';
}

/**
 * Every bar that was weighed, by its settled mass: its last weight where that is from after settling, else the low end of
 * what its curve says. Without a curve a weight counts once the least days have gone by; one of its fresh days never does.
 *
 * @example
 * settledBars(batch, cure); // [{ bar: '1', massG: 91.8, by: 'weight' }, …]
 */
export function settledBars(
  batch: Pick<Batch, 'poured' | 'startedAt' | 'barWeighings'>,
  cure: Cure | null,
  minDays: number,
): SettledBar[] {
  const from = batch.poured?.at ?? batch.startedAt;
  const settledFrom = cure?.readyOnDay ? Math.max(minDays, cure.readyOnDay.high) : minDays;
  const isSettled = cure?.curve.length ? cure.settled : true;
  return lastWeights(batch).flatMap(({ bar, massG, at }): SettledBar[] => {
    const curve = cure?.bars.find((one) => one.bar === bar)?.settledG ?? null;
    if (isSettled && daysSince(from, at) >= settledFrom) return [{ bar, massG, by: 'weight' }];
    return curve ? [{ bar, massG: Math.min(curve.low, massG), by: 'curve' }] : [];
  });
}

/** The lightest of settled bars, grams; null where none is known. */
export const lightestG = (bars: readonly SettledBar[]): number | null =>
  bars.length === 0 ? null : Math.min(...bars.map(({ massG }) => massG));

/** The day a batch was made, in the house's zone: of its pour, or of its beginning before that. */
export const madeOn = ({ poured, startedAt }: Pick<Batch, 'poured' | 'startedAt'>, zone: string): string =>
  dayOf(poured?.at ?? startedAt, zone);

/** The last day, in the house's zone, on which units were placed on each market; of several releases in one the later counts. */
export function placedDays({ released }: Batch, zone: string): Partial<Record<Market, string>> {
  const days: Partial<Record<Market, string>> = {};
  for (const { at, markets } of released)
    for (const market of markets) {
      const day = dayOf(at, zone);
      if (!(market in days) || days[market]! < day) days[market] = day;
    }
  return days;
}

/** Hours after the pour at which a cut was tried and put off. */
export function putOffHours({ poured, checks, cut }: Pick<Batch, 'poured' | 'checks' | 'cut'>): number[] {
  if (!poured) return [];
  return checks
    .filter(
      ({ check, at, outcome, value }) =>
        check === CUT_CHECK && outcome !== 'good' && value !== HARD && (cut === null || isBefore(at, cut.at)),
    )
    .map(({ at }) => (Date.parse(at) - Date.parse(poured.at)) / MS_PER_HOUR);
}

export interface ReleaseCheck {
  id: string;
  name: string;
  how: string;
  caution: string | null;
}

const STRIP: ReleaseCheck = {
  id: 'strip',
  name: 'Strip or tongue',
  how: 'Wet a bar, lay a pH strip on the lather: 8 to 10 is usual. The tongue only afterwards, with the tip, for a moment.',
  caution:
    'Never put a fresh bar to the tongue: free alkali burns. Where the strip reads above 10, stop and keep the batch back.',
};
const ALWAYS: readonly ReleaseCheck[] = [
  {
    id: 'look',
    name: 'Look',
    how: 'Cracks, pockets of liquid, crumbling edges.',
    caution: 'Liquid in a pocket may be lye: gloves.',
  },
  {
    id: 'ash',
    name: 'Ash',
    how: 'A white bloom on the top: steam it, plane it off or leave it.',
    caution: null,
  },
  { id: 'softSpots', name: 'Soft spots', how: 'Press faces and middle: none gives.', caution: null },
  { id: 'lather', name: 'Lather', how: 'Wash with one bar, after the strip.', caution: null },
];
const ORANGE: ReleaseCheck = {
  id: 'orangeSpots',
  name: 'Orange spots',
  how: 'Orange spots or a smell of old oil tell that soft fats turn.',
  caution: null,
};
const SCENT: ReleaseCheck = {
  id: 'scent',
  name: 'Scent',
  how: 'Did it survive the lye and the weeks?',
  caution: null,
};
const COLOUR: ReleaseCheck = {
  id: 'colour',
  name: 'Colour',
  how: 'Did it turn, brown or bleed?',
  caution: null,
};
/** Polyunsaturated acids in a fat above which it turns early, percent (craft). */
const TURNS_FROM_PCT = 15;
const COLOURED: ReadonlySet<string> = new Set(['colourant', 'clay', 'botanical', 'milk', 'sugar']);

/**
 * The checks that are usual before a bar like this is sold (craft).
 *
 * @example
 * usualChecks(materialsIn(batch)); // a strip or the tongue, the look, and what its materials ask for
 */
export function usualChecks(materials: readonly TraitMaterial[]): ReleaseCheck[] {
  const some = (test: (material: TraitMaterial) => boolean) => materials.some(test);
  const turns = some(
    ({ kind, fattyAcids }) =>
      kind === 'fat' && (fattyAcids?.linoleic ?? 0) + (fattyAcids?.linolenic ?? 0) > TURNS_FROM_PCT,
  );
  return [
    STRIP,
    ...ALWAYS,
    ...(turns ? [ORANGE] : []),
    ...(some(isScent) ? [SCENT] : []),
    ...(some((material) => COLOURED.has(material.kind) || isScent(material)) ? [COLOUR] : []),
  ];
}

/** The materials that really went into a batch, as far as they were copied when it was begun. */
export function materialsIn({ materials, lines }: Batch): TraitMaterial[] {
  const used = new Set(lines.filter(({ massG }) => massG > 0).map(({ material }) => material));
  return materials.filter(({ id }) => used.has(id));
}
