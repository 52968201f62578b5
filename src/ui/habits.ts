/** What this house is used to, as every page says it on its root: degrees and ounces, for whatever is drawn in the browser. */
import { clockOf, dayOf, machineZone } from '../core/quantities/day';
import { SCENT_PERCENTS, USUAL_HABITS, type Habits, type SettingsData } from '../core/records/house';
import { address, send } from './api';
import { unitRule } from '../core/quantities/units';

/** What is drawn on the server, before any page is known, goes by what was told last: one process serves one house. */
let told: Habits | null = null;
let known: Habits | null = null;

/** Tells what pages say on their root, for what of them is drawn on the server. */
export const tellHabits = (said: Habits): void => void (told = said);

/** The habits of the page, which says them once; the usual ones where there is none. */
export function habits(): Habits {
  if (typeof document === 'undefined') return told ?? { ...USUAL_HABITS, zone: machineZone() };
  const { degrees, weights, zone, scentPercents } = document.documentElement.dataset;
  known ??= {
    degrees: degrees === 'F' ? 'F' : 'C',
    weights: weights === 'oz' ? 'oz' : 'g',
    zone: zone ?? machineZone(),
    scentPercents: SCENT_PERCENTS.find((one) => one === scentPercents) ?? null,
  };
  return known;
}

/** Says once for the house what a bare percent of a scent is of; where it cannot be kept, it is asked again another day. */
export async function rememberScentPercents(
  scentPercents: NonNullable<Habits['scentPercents']>,
): Promise<void> {
  known = { ...habits(), scentPercents };
  const now = await send<SettingsData>('GET', address('settings'));
  if (!now.ok) return;
  const { demo: _, ...settings } = now.body;
  await send('PUT', address('settings'), { ...settings, scentPercents });
}

/** The house's day of a moment, YYYY-MM-DD. */
export const dayHere = (at: string): string => dayOf(at, habits().zone);

/** The house's clock at a moment, "07:05". */
export const clockHere = (at: string): string => clockOf(at, habits().zone);

/** °C as the house says it, a bare number. */
export const inDegrees = (c: number, { degrees }: Pick<Habits, 'degrees'> = habits()): number =>
  degrees === 'F' ? (c * 9) / 5 + 32 : c;

/** °C of what was said in the degrees of the house. */
export const fromDegrees = (said: number, { degrees }: Pick<Habits, 'degrees'> = habits()): number =>
  degrees === 'F' ? ((said - 32) * 5) / 9 : said;

/** °C as words of the house: "40 °C", "104 °F". */
export const degreesWords = (c: number, of: Pick<Habits, 'degrees'> = habits()): string =>
  `${Math.round(inDegrees(c, of))} °${of.degrees}`;

/** Grams in what this house weighs in, for a line that is new. */
export function newAmount(massG: number): { value: number; unit: Habits['weights'] } {
  const unit = habits().weights;
  const perUnit = unitRule(unit)?.factor ?? 1;
  return { value: Number((massG / perUnit).toFixed(2)), unit };
}
