/**
 * Which bar to weigh on which day: the one weighing that narrows the day on which the batch is ready the most, tried on
 * the cure's own curve. Pure; a look takes up to nine reckonings of the cure.
 */
import { cure } from './cure';
import type { Cure, CureOptions, CurePoint, CureWeighing } from './cure-types';

export interface NextWeighing {
  bar: string;
  /** Days since the pour. */
  day: number;
  /** Width of the interval of the ready day, days: as it is, and as it would be where the bar weighs what is likeliest. */
  nowDays: number;
  thenDays: number;
}

/** Days from today on which a weighing is tried. */
const LATER_DAYS = [0, 3, 7] as const;
/** A weighing of today of a bar that was weighed less than this ago tells nothing new, days. */
const LEAST_APART_DAYS = 0.5;
const MOST_BARS = 3;

const widthOf = ({ readyOnDay }: Cure) => (readyOnDay ? readyOnDay.high - readyOnDay.low : Infinity);

/** What a mean bar likely weighs on a day, grams. */
function likelyAt(curve: readonly CurePoint[], day: number): number {
  const next = curve.findIndex((point) => point.day >= day);
  if (next <= 0) return curve[next === 0 ? 0 : curve.length - 1]!.likelyG;
  const [a, b] = [curve[next - 1]!, curve[next]!];
  return a.likelyG + ((b.likelyG - a.likelyG) * (day - a.day)) / (b.day - a.day || 1);
}

/** Bars worth a try: weighed most, weighed longest ago, and lightest; each once. */
function barsToTry(weighings: readonly CureWeighing[]): { bar: string; last: CureWeighing }[] {
  const byBar = new Map<string, CureWeighing[]>();
  for (const one of weighings) byBar.set(one.bar, [...(byBar.get(one.bar) ?? []), one]);
  const rows = [...byBar].map(([bar, all]) => ({
    bar,
    times: all.length,
    last: all.reduce((latest, one) => (one.day >= latest.day ? one : latest)),
  }));
  const first = (order: (a: (typeof rows)[number], b: (typeof rows)[number]) => number) =>
    [...rows].sort(order)[0]!;
  const chosen = [
    first((a, b) => b.times - a.times || a.last.day - b.last.day),
    first((a, b) => a.last.day - b.last.day),
    first((a, b) => a.last.massG - b.last.massG),
  ];
  return [...new Map(chosen.map((row) => [row.bar, row])).values()].slice(0, MOST_BARS);
}

/**
 * The weighing that narrows most, on a day of the cure; null where the batch is settled, has no curve yet, or no weighing
 * would narrow anything.
 *
 * @example
 * nextWeighing(weighings, { minDays: 28 }, 16)?.bar; // which bar to lay on the scale
 */
export function nextWeighing(
  weighings: readonly CureWeighing[],
  options: CureOptions,
  today: number,
): NextWeighing | null {
  if (weighings.length === 0) return null;
  const now = cure(weighings, options);
  if (now.settled || now.readyOnDay === null || now.curve.length === 0) return null;
  const nowDays = widthOf(now);
  const widthWith = (bar: string, last: CureWeighing, day: number) => {
    const massG = (last.massG * likelyAt(now.curve, day)) / likelyAt(now.curve, last.day);
    return widthOf(cure([...weighings, { bar, day, massG }], options));
  };
  const tries = barsToTry(weighings)
    .flatMap(({ bar, last }) =>
      LATER_DAYS.map((later) => ({ bar, last, day: today + later })).filter(
        ({ day }) => day - last.day >= LEAST_APART_DAYS,
      ),
    )
    .map(({ bar, last, day }) => ({ bar, day, nowDays, thenDays: widthWith(bar, last, day) }))
    .sort((a, b) => a.thenDays - b.thenDays || a.day - b.day);
  const [best] = tries;
  return best && best.thenDays < nowDays ? best : null;
}
