/** What lots are there for the pours of a plan: grams with the day until which they are good. Pure. */
import type { LinearProblem } from '../numerics/highs';
import { daysBetween } from '../quantities/day';
import type { PlanAsk, PlannedAt } from './six-weeks';

/** Grams of a material that are good until a day; null for as long as the plan goes. */
export interface PlanLot {
  massG: number;
  until: string | null;
}

const isGood = ({ until }: PlanLot, day: string) => until === null || until >= day;
const sum = (lots: readonly PlanLot[]) => lots.reduce((total, { massG }) => total + massG, 0);

type Rows = LinearProblem['rows'];

/**
 * Before an order is here, no more of a material than is there and still good: for each day from which on less is good, what
 * pours take from that day on. Lots that go off first are taken first, so that nothing else binds.
 */
export function stockRows({ bars, lots, today, orderDays }: PlanAsk, slots: readonly string[]): Rows {
  const early = slots.filter((day) => daysBetween(today, day) < orderDays);
  return Object.entries(lots).flatMap(([material, all]): Rows => {
    const ends = [...new Set(all.flatMap(({ until }) => until ?? []))].sort();
    // From the first evening on, and from the first evening after each end.
    const starts = [early[0], ...ends.map((end) => early.find((day) => day > end))];
    return [...new Set(starts)].flatMap((from): Rows => {
      if (from === undefined) return [];
      const terms = slots.flatMap((day, slot) =>
        day < from || !early.includes(day)
          ? []
          : bars.flatMap(({ massG }, at) =>
              massG[material] ? [[slot * bars.length + at, massG[material]] as const] : [],
            ),
      );
      const there = sum(all.filter((lot) => isGood(lot, from)));
      return terms.length === 0 ? [] : [{ terms, relation: '<=', right: Math.max(0, there) }];
    });
  });
}

export interface Drawn {
  /** What the pours take beyond what is there, and the day of the first pour that wants it. */
  order: { material: string; massG: number; by: string }[];
  /** What is left of lots that go off before the last day of the plan, on the last day that they are good. */
  unused: { material: string; massG: number; until: string }[];
}

/**
 * What pours take from the lots, those that go off first before the others: what has to be ordered for them, and what no pour
 * takes before its day, of lots that go off before `lastDay`.
 *
 * @example
 * drawn(ask, pours, '2027-01-05').unused; // [{ material: 'hemp', massG: 180, until: '2026-12-10' }]
 */
export function drawn(
  { bars, lots }: Pick<PlanAsk, 'bars' | 'lots'>,
  pours: readonly PlannedAt[],
  lastDay: string,
): Drawn {
  const order = new Map<string, { massG: number; by: string }>();
  const left = new Map(
    Object.entries(lots).map(([material, all]) => [
      material,
      [...all]
        .sort((a, b) => (a.until ?? '9999').localeCompare(b.until ?? '9999'))
        .map((lot) => ({ ...lot })),
    ]),
  );
  for (const { product, day } of [...pours].sort((a, b) => a.day.localeCompare(b.day))) {
    for (const [material, grams] of Object.entries(bars.find(({ id }) => id === product)?.massG ?? {})) {
      const there = left.get(material);
      if (there === undefined) continue;
      let wanted = grams;
      for (const lot of there.filter((one) => isGood(one, day))) {
        const taken = Math.min(lot.massG, wanted);
        lot.massG -= taken;
        wanted -= taken;
      }
      if (wanted <= 0) continue;
      const known = order.get(material) ?? { massG: 0, by: day };
      order.set(material, { ...known, massG: known.massG + wanted });
    }
  }
  const unused = [...left].flatMap(([material, all]) =>
    all.flatMap(({ massG, until }) =>
      until !== null && until < lastDay && massG > 0 ? [{ material, massG, until }] : [],
    ),
  );
  return { order: [...order].map(([material, one]) => ({ material, ...one })), unused };
}
