/** How long a bar lasts and what another pour of it would want. Pure. */
import type { Overview } from '../overview';
import { dayAfter, dayOf } from '../quantities/day';
import type { NextBar, NextPlans } from '../records/next';
import { nextPour, type paceOf, type Supply } from './pace';

/** What is on file of one bar's batches. */
export interface BarMade {
  /** The moment it was first released; null where it never was. */
  firstAt: string | null;
  /** Bars that can be sold now. */
  ready: number;
  /** Batches with bars on their way, and the moment each was made. */
  coming: readonly { batch: string; code: string; bars: number; madeAt: string }[];
  /** What was sold lately, each with its moment. */
  sold: readonly { at: string; bars: number }[];
}

export type BarStanding = Omit<NextBar, 'barsAPour' | 'missing' | 'massG' | 'verdict' | 'worth'>;

interface Day {
  today: string;
  zone: string;
  /** Days from a pour until its bars can be sold. */
  cureDays: number;
  paceOf: typeof paceOf;
}

function curingOf({ coming }: BarMade, { today, zone, cureDays }: Day): NextBar['curing'] {
  return coming.map(({ batch, code, bars, madeAt }) => {
    const ready = dayAfter(dayOf(madeAt, zone), cureDays);
    return { batch, code, bars, readyOn: ready < today ? today : ready };
  });
}

/**
 * How long a bar lasts at its pace, with what cures, is planned and is wanted, and when to pour it again.
 *
 * @example
 * barStanding(bar, made, plans, { today, zone, cureDays: 42, paceOf }).next.startBy; // '2026-12-10'
 */
export function barStanding(
  { id, name }: { id: string; name: string },
  made: BarMade,
  plans: NextPlans,
  day: Day,
): BarStanding {
  const { today, zone, cureDays } = day;
  const pace = day.paceOf(
    made.sold.map(({ at, bars }) => ({ day: dayOf(at, zone), bars })),
    made.firstAt === null ? today : dayOf(made.firstAt, zone),
    today,
  );
  const curing = curingOf(made, day);
  const planned = plans.planned
    .filter((one) => one.product === id && one.day >= today)
    .map((one) => ({ batch: one.id, bars: one.bars, readyOn: dayAfter(one.day, cureDays) }));
  const supply: Supply = { ready: made.ready, curing: [...curing, ...planned] };
  const needs = plans.wanted.filter(({ product }) => product === id);
  return { id, name, pace, ready: made.ready, curing, next: nextPour(pace, supply, needs, today, cureDays) };
}

/** What is missing for one pour of a bar as its formula stands, and what it makes. */
export function wantingOf(
  { verdict, pour }: Overview,
  freeOf: ReadonlyMap<string, number>,
  nameOf: (material: string) => string,
): Pick<NextBar, 'barsAPour' | 'missing' | 'massG' | 'verdict'> {
  const massG = Object.fromEntries(Object.entries(pour?.massG ?? {}).filter(([id]) => id !== 'water'));
  const missing = Object.entries(massG)
    .map(([material, neededG]) => ({
      material,
      name: nameOf(material),
      neededG,
      freeG: freeOf.get(material) ?? 0,
    }))
    .filter(({ neededG, freeG }) => freeG < neededG);
  return { barsAPour: pour?.bars ?? null, missing, massG, verdict };
}
