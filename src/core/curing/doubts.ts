/** Weighings that fit no cure: pointed out, and left in until the maker says otherwise. */
import { groupBy } from '../group';
import { GRAMS_PER_OUNCE } from '../quantities/units';
import type { CureDoubt, CureWeighing } from './cure-types';

/** A reading is taken for ounces where it is the bar's grams in ounces within so much of itself. */
const OUNCES_WITHIN = 0.15;
/** A bar gains at most so much of its mass from damp air, for each root of a day, beyond the scale's noise. */
const DAMP_GAIN = 0.003;
const SCALE_STEPS = 3;
/** A jump of more than this share, or more than curing can explain, is another bar. */
const OTHER_BAR = 0.025;
/** The fastest a fresh bar dries: share of its mass at once, and for each day. */
const FASTEST_LOSS = { once: 0.02, perDay: 0.05, most: 0.23 } as const;

const grams = (massG: number) => `${Number(massG.toFixed(1))} g`;

type Placed = CureWeighing & { place: number };

/** The earlier weighing of the same bar that a reading is held against: the last that is no doubt itself. */
function judge(before: Placed, one: Placed, readabilityG: number): CureDoubt | null {
  const { bar, day, massG, place } = one;
  const told = (code: CureDoubt['code'], message: string) => ({ weighing: place, bar, day, code, message });
  const where = `Bar ${bar} on day ${Number(day.toFixed(1))}`;
  const inGrams = massG * GRAMS_PER_OUNCE;
  if (Math.abs(inGrams / before.massG - 1) <= OUNCES_WITHIN)
    return told('ounces', `${where}: ${massG} among grams looks like ounces (${grams(inGrams)}).`);
  const days = Math.max(day - before.day, 0);
  const change = massG / before.massG - 1;
  const noise = (SCALE_STEPS * readabilityG) / before.massG;
  const drop = Math.min(FASTEST_LOSS.once + FASTEST_LOSS.perDay * days, FASTEST_LOSS.most);
  if (change > OTHER_BAR + noise || -change > drop + noise)
    return told(
      'swapped',
      `${where}: ${grams(massG)} after ${grams(before.massG)} is no cure. Was another bar on the scale?`,
    );
  if (change > DAMP_GAIN * Math.sqrt(Math.max(days, 1)) + noise)
    return told(
      'rises',
      `${where}: ${grams(massG)} is more than before (${grams(before.massG)}). Weigh it again.`,
    );
  return null;
}

/** The weighings that are doubted, in their order. `kept` says which count at all. */
export function cureDoubts(
  weighings: readonly CureWeighing[],
  readabilityG: number,
  kept: (place: number) => boolean,
): CureDoubt[] {
  const placed = weighings.map((one, place) => ({ ...one, place })).filter(({ place }) => kept(place));
  const doubts: CureDoubt[] = [];
  for (const rows of groupBy(placed, ({ bar }) => bar).values()) {
    const inOrder = [...rows].sort((a, b) => a.day - b.day);
    let before = inOrder[0]!;
    for (const one of inOrder.slice(1)) {
      const first = before === inOrder[0] ? inOunces(before, one) : null;
      const doubt = first ?? judge(before, one, readabilityG);
      if (doubt) doubts.push(doubt);
      if (first || !doubt) before = one;
    }
  }
  return doubts.sort((a, b) => a.weighing - b.weighing);
}

/** Where the first reading is the odd one, everything after it would be blamed; the first is, instead. */
function inOunces(first: Placed, next: Placed): CureDoubt | null {
  if (Math.abs((first.massG * GRAMS_PER_OUNCE) / next.massG - 1) > OUNCES_WITHIN) return null;
  const { bar, day, massG, place } = first;
  const message = `Bar ${bar} on day ${Number(day.toFixed(1))}: ${massG} among grams looks like ounces.`;
  return { weighing: place, bar, day, code: 'ounces', message };
}
