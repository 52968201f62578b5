/**
 * Six weeks of pours as an integer programme: on each evening with time for it, which bar, if any, so that the least sales
 * are lost over what is not known of each pace, and little lies too long. Pure; the solver is handed in.
 */
import type { Interval } from '../curing/cure-types';
import type { LinearProblem, Solve } from '../numerics/highs';
import { dayAfter, daysBetween, weekdayOf } from '../quantities/day';
import { drawn, stockRows, type Drawn, type PlanLot } from './plan-lots';
import { FRESH_DAYS, LEAST_VALUE, pacesOf, STALE_WEIGHT, TURN_DAYS } from './tonight';

const DAYS_A_WEEK = 7;
/** Days that a plan goes ahead. */
export const PLANNED_DAYS = 42;
/** What may be true of a pace, and how likely: its slow end, its middle, its quick end. */
const PACES = [
  { share: 0.1, weight: 0.3 },
  { share: 0.5, weight: 0.4 },
  { share: 0.9, weight: 0.3 },
] as const;
/** Of two evenings as good the earlier one: so much of a bar for each evening later. */
const LATER = 0.001;
/** Plans within this share of the best possible are as good as it: the rest is beyond what is known of any pace. */
const GAP = 0.005;

export interface PlanBar {
  id: string;
  /** Bars a week, with an 80 % interval; null before anything was sold. */
  perWeek: Interval | null;
  ready: number;
  /** Bars on their way, with the day each is ready. */
  coming: readonly { bars: number; readyOn: string }[];
  wanted: readonly { bars: number; day: string }[];
  /** Bars that a pour makes, and the grams of each material it takes. */
  bars: number;
  massG: Readonly<Record<string, number>>;
}

export interface PlanAsk {
  today: string;
  cureDays: number;
  bars: readonly PlanBar[];
  /** Days of the week on which there is time for one pour, 0 for Sunday. */
  evenings: readonly number[];
  /** Bars that can cure at a time; null where nothing limits them. */
  room: number | null;
  /** What is there of each material; one that is not named is there without limit. */
  lots: Readonly<Record<string, readonly PlanLot[]>>;
  /** Until an order is here pours are of what is there, days. */
  orderDays: number;
}

export interface PlannedAt {
  product: string;
  day: string;
}

/** What would let the plan lose less, and by how many bars. */
export interface Binding {
  what: 'evenings' | 'room' | 'stock';
  saved: number;
}

export interface SixWeeks extends Drawn {
  pours: PlannedAt[];
  /** Whether it was shown that no plan is better; else it is the best that was found in the time. */
  isBest: boolean;
  /** Sales lost, with what lies too long weighted, bars: by the plan, and were nothing poured. */
  missed: number;
  missedWithout: number;
  /** Of these, what is gone before a pour of today could be ready. */
  gone: number;
  binds: Binding[];
  /** Bars that would miss less than those that were looked at, and were not. */
  leftOut: number;
}

/** The days on which there is time to pour, in the six weeks from today on. */
export const slotsOf = ({ today, evenings }: Pick<PlanAsk, 'today' | 'evenings'>): string[] =>
  Array.from({ length: PLANNED_DAYS }, (_, at) => dayAfter(today, at)).filter((day) =>
    evenings.includes(weekdayOf(day)),
  );

/** Weeks that are looked at: until what is poured last had its turn on the shelf. */
const weeksOf = ({ cureDays }: Pick<PlanAsk, 'cureDays'>) =>
  Math.ceil((cureDays + PLANNED_DAYS + TURN_DAYS) / DAYS_A_WEEK);

/** What comes and what is wanted, week by week, at the middle of which it counts. */
function weekly(weeks: number, today: string, all: readonly { bars: number; day: string }[]): number[] {
  const sums = new Array<number>(weeks).fill(0);
  for (const { bars, day } of all) {
    const week = weekAt(daysBetween(today, day));
    if (week < weeks) sums[week]! += bars;
  }
  return sums;
}

const weekAt = (days: number) => Math.max(0, Math.round(days / DAYS_A_WEEK));

/** What a bar brings and what it may be asked for, week by week, at each pace. */
interface Outlook {
  supply: number[];
  demand: { weight: number; perWeek: number; weeks: number[] }[];
}

function outlookOf({ perWeek, ready, coming, wanted }: PlanBar, ask: PlanAsk): Outlook {
  const weeks = weeksOf(ask);
  const arrivals = coming.map(({ bars, readyOn }) => ({ bars, day: readyOn }));
  const supply = weekly(weeks, ask.today, [{ bars: ready, day: ask.today }, ...arrivals]);
  const asked = weekly(weeks, ask.today, wanted);
  const paces = perWeek
    ? pacesOf(
        perWeek,
        PACES.map(({ share }) => share),
      )
    : PACES.map(() => 0);
  return {
    supply,
    demand: PACES.map(({ weight }, at) => ({
      weight,
      perWeek: paces[at]!,
      weeks: asked.map((bars) => bars + paces[at]!),
    })),
  };
}

/** Bars that still sell well after the weeks that are looked at. */
const sellsLater = (perWeek: number, weeks: number, cureDays: number) =>
  perWeek * Math.max(0, FRESH_DAYS / DAYS_A_WEEK + cureDays / DAYS_A_WEEK - weeks);

/**
 * Sales lost under some pours, with what lies too long weighted, bars: what the programme makes least, less what an
 * evening is worth. With `until`, only what is lost before that week.
 *
 * @example
 * missedBy(ask, []); // 41.2: what is lost if nothing is poured
 */
export function missedBy(ask: PlanAsk, pours: readonly PlannedAt[], until = Infinity): number {
  const weeks = Math.min(weeksOf(ask), until);
  const isWhole = weeks < until;
  return ask.bars.reduce((total, bar) => {
    const { supply, demand } = outlookOf(bar, ask);
    const own = pours
      .filter(({ product }) => product === bar.id)
      .map(({ day }) => ({ bars: bar.bars, day: dayAfter(day, ask.cureDays) }));
    const more = weekly(weeks, ask.today, own);
    return demand.reduce((sum, { weight, perWeek, weeks: asked }) => {
      let [stock, lost] = [0, 0];
      for (let week = 0; week < weeks; week++) {
        stock += supply[week]! + more[week]! - asked[week]!;
        lost += Math.max(0, -stock);
        stock = Math.max(0, stock);
      }
      const stale = isWhole ? Math.max(0, stock - sellsLater(perWeek, weeks, ask.cureDays)) : 0;
      return sum + weight * (lost + STALE_WEIGHT * stale);
    }, total);
  }, 0);
}

/** The programme, with the pour that each yes-or-no stands for. */
function programmeOf(ask: PlanAsk, all: PlanAsk['bars']): { problem: LinearProblem; choices: PlannedAt[] } {
  const slots = slotsOf(ask);
  const weeks = weeksOf(ask);
  const choices = slots.flatMap((day) => ask.bars.map(({ id }) => ({ product: id, day })));
  const cost = choices.map(({ day }) => LEAST_VALUE + LATER * slots.indexOf(day));
  const rows: LinearProblem['rows'] = [];
  const add = (price: number) => cost.push(price) - 1;
  const choice = (slot: number, bar: number) => slot * ask.bars.length + bar;
  ask.bars.forEach((bar, at) => {
    const { supply, demand } = outlookOf(bar, ask);
    for (const { weight, perWeek, weeks: asked } of demand) {
      let before: number | null = null;
      for (let week = 0; week < weeks; week++) {
        const [stock, lost] = [add(0), add(weight)];
        const arriving = slots.flatMap((day, slot) =>
          weekAt(daysBetween(ask.today, dayAfter(day, ask.cureDays))) === week
            ? [[choice(slot, at), -bar.bars] as const]
            : [],
        );
        const carried = before === null ? [] : [[before, -1] as const];
        rows.push({
          terms: [[stock, 1], [lost, -1], ...carried, ...arriving],
          relation: '=',
          right: supply[week]! - asked[week]!,
        });
        before = stock;
      }
      const stale = add(weight * STALE_WEIGHT);
      rows.push({
        terms: [
          [before!, 1],
          [stale, -1],
        ],
        relation: '<=',
        right: sellsLater(perWeek, weeks, ask.cureDays),
      });
    }
  });
  const bounds = [...eveningRows(ask, slots), ...roomRows(ask, all, slots), ...stockRows(ask, slots)];
  return {
    problem: {
      variables: cost.length,
      cost,
      rows: [...rows, ...bounds],
      yesNo: choices.map((_, at) => at),
    },
    choices,
  };
}

type Rows = LinearProblem['rows'];

/** One pour an evening. */
const eveningRows = ({ bars }: PlanAsk, slots: readonly string[]): Rows =>
  slots.map((_, slot) => ({
    terms: bars.map((_bar, at) => [slot * bars.length + at, 1] as const),
    relation: '<=',
    right: 1,
  }));

/** At no pour more bars cure than there is room for; what cures today is there whatever is planned. */
function roomRows({ bars, room, cureDays }: PlanAsk, all: PlanAsk['bars'], slots: readonly string[]): Rows {
  if (room === null) return [];
  return slots.map((day, slot) => {
    const since = dayAfter(day, -cureDays);
    const terms = slots.flatMap((other, before) =>
      before <= slot && other > since
        ? bars.map((bar, at) => [before * bars.length + at, bar.bars] as const)
        : [],
    );
    const curing = all
      .flatMap(({ coming }) => coming)
      .reduce((sum, one) => sum + (one.readyOn > day ? one.bars : 0), 0);
    return { terms, relation: '<=', right: Math.max(0, room - curing) };
  });
}

/** Seconds for one plan. */
const LONGEST_S = 10;

/** Bars in one programme; of more, those that miss most. */
const MOST_BARS = 40;

/** The bars of which something would be missed, were nothing poured: no pour of another can save anything. Most first. */
function worthLooking(ask: PlanAsk): PlanBar[] {
  return ask.bars
    .map((bar) => ({ bar, missed: missedBy({ ...ask, bars: [bar] }, [], weeksOf(ask)) }))
    .filter(({ missed }) => missed > LEAST_VALUE)
    .sort((a, b) => b.missed - a.missed)
    .map(({ bar }) => bar);
}

/**
 * The pours of the best plan, within a share of what the best possible misses; none where the rack is full already.
 *
 * @example
 * bestPours(ask, highs).pours; // [{ product: 'ticket-office', day: '2026-11-24' }, …]
 */
export function bestPours(ask: PlanAsk, solve: Solve, gap = GAP): Pick<SixWeeks, 'pours' | 'isBest'> {
  const bars = worthLooking(ask).slice(0, MOST_BARS);
  if (bars.length === 0 || slotsOf(ask).length === 0) return { pours: [], isBest: true };
  const { problem, choices } = programmeOf({ ...ask, bars }, ask.bars);
  const answer = solve({ ...problem, gap, seconds: LONGEST_S });
  if (answer.status !== 'optimal') return { pours: [], isBest: true };
  return {
    pours: choices.filter((_, at) => answer.values[at]! > 0.5),
    isBest: !answer.isCutShort,
  };
}

/** Another evening, as far from the others as can be. */
function oneMoreEvening(evenings: readonly number[]): number[] | null {
  const free = [4, 1, 6, 2, 0, 5, 3].filter((day) => !evenings.includes(day));
  const far = (day: number) =>
    Math.min(...evenings.map((one) => Math.min((day - one + 7) % 7, (one - day + 7) % 7)));
  const [best] = free.sort((a, b) => far(b) - far(a));
  return best === undefined ? null : [...evenings, best];
}

const MORE_ROOM = 1.5;
/** What saves less than this is said to bind nothing, bars. */
const LEAST_SAVED = 0.5;

/** The same question with one thing less in the way. */
function eased(ask: PlanAsk): [Binding['what'], PlanAsk][] {
  const evenings = oneMoreEvening(ask.evenings);
  return [
    ...(evenings ? [['evenings', { ...ask, evenings }] as [Binding['what'], PlanAsk]] : []),
    ...(ask.room === null
      ? []
      : [['room', { ...ask, room: MORE_ROOM * ask.room }] as [Binding['what'], PlanAsk]]),
    ['stock', { ...ask, orderDays: 0 }],
  ];
}

/**
 * Six weeks of pours, with what would let them lose less and what has to be ordered for them.
 *
 * @example
 * sixWeeks(ask, highs).pours; // [{ product: 'ticket-office', day: '2026-11-24' }, …]
 */
export function sixWeeks(ask: PlanAsk, solve: Solve): SixWeeks {
  const { pours, isBest } = bestPours(ask, solve);
  const missed = missedBy(ask, pours);
  const binds = eased(ask).flatMap(([what, easier]): Binding[] => {
    const saved = missed - missedBy(easier, bestPours(easier, solve).pours);
    return saved > LEAST_SAVED ? [{ what, saved }] : [];
  });
  return {
    ...{ pours, isBest, missed, binds },
    missedWithout: missedBy(ask, []),
    gone: missedBy(ask, [], weekAt(ask.cureDays)),
    leftOut: Math.max(0, worthLooking(ask).length - MOST_BARS),
    ...drawn(ask, pours, dayAfter(ask.today, PLANNED_DAYS)),
  };
}
