/** What falls due by itself within a span of days, if nothing is done; each with the day and what it touches. */
import { membersOf } from '../formula/subject';
import type { Declarable, Limit, Market } from '../formula/types';
import { groupBy } from '../group';
import { byGravity, type HandUrgency } from '../hands/hand';
import { dayAfter, monthsAfter } from '../quantities/day';
import type { AheadFold, AheadRow } from '../records/watch';
import { spoken } from '../spoken';

export interface AheadMaterial {
  id: string;
  name: string;
  constituents: readonly string[];
  /** Of its own papers, in force from or until a day. */
  limits: readonly Limit[];
  /** What to ask of the supplier; null where its papers are up to date. */
  ask: string | null;
  /** Water as such has no best-before, whatever its can says. */
  isWater: boolean;
  /** Months it keeps once opened, usual; null where not known. */
  keepingMonths: number | null;
}

export interface AheadLot {
  id: string;
  code: string;
  material: string;
  bestBefore: string | null;
  openedOn: string | null;
  leftG: number;
}

export interface AheadBar {
  id: string;
  name: string;
  markets: readonly Market[];
  materials: readonly string[];
}

export interface AheadBatch {
  id: string;
  code: string;
  name: string;
  left: number;
  pouredOn: string;
  /** Months the label gives it; null where it says none. */
  months: number | null;
}

export interface AheadInput {
  today: string;
  until: string;
  declarables: readonly Declarable[];
  limits: readonly Limit[];
  materials: readonly AheadMaterial[];
  lots: readonly AheadLot[];
  bars: readonly AheadBar[];
  batches: readonly AheadBatch[];
}

/** A row before it is said how grave it is. */
type DueRow = Omit<AheadRow, 'urgency'>;

const unique = <T>(values: readonly T[]) => [...new Set(values)];

/** Bars sold in a market that hold any material of a test. */
const barsWith = (
  { bars }: AheadInput,
  markets: readonly Market[] | null | undefined,
  test: (material: string) => boolean,
) =>
  bars
    .filter(
      (bar) => (!markets || bar.markets.some((one) => markets.includes(one))) && bar.materials.some(test),
    )
    .map(({ name }) => name);

function lists(input: AheadInput): DueRow[] {
  const due = input.declarables.flatMap((one) =>
    (['newFrom', 'allFrom'] as const).flatMap((which) => {
      const on = one[which];
      return on != null && on > input.today && on <= input.until ? [{ on, which, one }] : [];
    }),
  );
  const keys = unique(
    due.map(({ on, which, one }) => `${on} ${which} ${one.markets.join()} ${one.per ?? ''}`),
  );
  return keys.map((key) => {
    const rows = due.filter(
      ({ on, which, one }) => `${on} ${which} ${one.markets.join()} ${one.per ?? ''}` === key,
    );
    const { on, which, one } = rows[0]!;
    const ids = new Set(rows.map((row) => row.one.id));
    const holds = new Set(
      input.materials
        .filter(({ constituents }) => constituents.some((id) => ids.has(id)))
        .map(({ id }) => id),
    );
    const names = rows.length === 1 ? one.name : `${rows.length} names`;
    const where = one.markets.join(', ');
    const words =
      which === 'newFrom'
        ? one.per === 'unit'
          ? `${where}: what is placed from now on has to name ${names}`
          : `${where}: new bars have to name ${names}`
        : `${where}: everything sold has to name ${names}`;
    return {
      id: `list ${key}`,
      on,
      kind: 'list',
      words,
      touches: barsWith(input, one.markets, (id) => holds.has(id)),
      href: null,
    };
  });
}

function limitRows(input: AheadInput): DueRow[] {
  const within = (day: string | null | undefined): day is string =>
    day != null && day > input.today && day <= input.until;
  const speaks = (limit: Limit) => (id: string) => {
    const material = input.materials.find((one) => one.id === id);
    const { type, id: subject } = limit.subject;
    return type === 'material'
      ? id === subject
      : type === 'constituent' &&
          membersOf(limit.subject).some((one) => material?.constituents.includes(one));
  };
  const all = [...input.limits, ...input.materials.flatMap(({ limits }) => limits)];
  return all.flatMap((limit) =>
    (['from', 'to'] as const).flatMap((which): DueRow[] => {
      const day = limit[which];
      // Its last day is one on which it still counts.
      const on = which === 'to' && day != null ? dayAfter(day, 1) : day;
      if (!within(on)) return [];
      const words = `${spoken(limit.subject.id)}: at most ${limit.maxPct} % ${which === 'from' ? 'from now on' : 'no longer counts'}`;
      return [
        {
          id: `limit ${limit.id} ${which} ${on}`,
          on,
          kind: 'limit',
          words,
          touches: barsWith(input, limit.markets, speaks(limit)),
          href: null,
        },
      ];
    }),
  );
}

const papers = (input: AheadInput): DueRow[] =>
  input.materials.flatMap(({ id, name, ask }): DueRow[] => {
    const touches = barsWith(input, null, (one) => one === id);
    if (ask === null || touches.length === 0) return [];
    return [
      {
        id: `paper ${id}`,
        on: input.today,
        kind: 'paper',
        words: `${name}: ${ask}`,
        touches,
        href: `/cupboard?material=${id}`,
      },
    ];
  });

function lots(input: AheadInput): DueRow[] {
  const byId = new Map(input.materials.map((one) => [one.id, one]));
  return input.lots.flatMap(({ id, code, material, bestBefore, openedOn, leftG }): DueRow[] => {
    const known = byId.get(material);
    if (leftG <= 0 || known?.isWater) return [];
    const name = known?.name ?? material;
    const touches = barsWith(input, null, (one) => one === material);
    const href = `/cupboard?material=${material}`;
    const rows: DueRow[] = [];
    if (bestBefore !== null && bestBefore <= input.until)
      rows.push({
        id: `lot ${id}`,
        on: bestBefore,
        kind: 'lot',
        words: `${name}, lot ${code}: best before this day`,
        touches,
        href,
      });
    const months = known?.keepingMonths ?? null;
    const opened = openedOn !== null && months !== null ? monthsAfter(openedOn, months) : null;
    if (opened !== null && opened <= input.until)
      rows.push({
        id: `opened ${id}`,
        on: opened,
        kind: 'opened',
        words: `${name}, lot ${code}: open since ${openedOn}, usually good for ${months} months`,
        touches,
        href,
      });
    return rows;
  });
}

const durable = (input: AheadInput): DueRow[] =>
  input.batches.flatMap(({ id, code, name, left, pouredOn, months }): DueRow[] => {
    const on = months === null ? null : monthsAfter(pouredOn, months);
    if (on === null || on > input.until || left <= 0) return [];
    return [
      {
        id: `durability ${id}`,
        on,
        kind: 'durability',
        words: `${name} ${code}: the end its label gives, ${left} bars left`,
        touches: [name],
        href: `/rack/${id}`,
      },
    ];
  });

/** A rule that changes what labels say is at hand so many months before its day: time to use up what is printed. */
const RULE_AT_HAND_MONTHS = 6;
const END_AT_HAND_MONTHS = 3;

/** How grave a row is: rules that touch a bar, then what is past its day and in hand, then what has time. */
function urgencyOf({ kind, on, touches }: DueRow, today: string): HandUrgency {
  const isPast = on <= today;
  switch (kind) {
    case 'list':
    case 'limit':
      if (touches.length === 0) return 'small';
      return on <= monthsAfter(today, RULE_AT_HAND_MONTHS) ? 'grave' : 'now';
    case 'durability':
      if (isPast) return 'now';
      return on <= monthsAfter(today, END_AT_HAND_MONTHS) ? 'due' : 'small';
    case 'paper':
      return 'due';
    case 'lot':
    case 'opened':
      return isPast && touches.length > 0 ? 'due' : 'small';
  }
}

/**
 * Everything that falls due, by day; what is due already stands on its day or today.
 *
 * @example
 * aheadRows({ ...house, today: '2026-11-24', until: '2028-11-24' })[0]; // the next thing that falls due
 */
export function aheadRows(input: AheadInput): AheadRow[] {
  return [...lists(input), ...limitRows(input), ...papers(input), ...lots(input), ...durable(input)]
    .map((row): AheadRow => ({ ...row, urgency: urgencyOf(row, input.today) }))
    .sort((a, b) => a.on.localeCompare(b.on) || a.words.localeCompare(b.words));
}

const FOLD_WORDS: Record<AheadRow['kind'], readonly [one: string, many: string]> = {
  list: ['date of a list touches no bar', 'dates of lists touch no bar'],
  limit: ['limit changes and touches no bar', 'limits change and touch no bar'],
  paper: ['paper is to be asked for', 'papers are to be asked for'],
  lot: ['lot passes its day', 'lots pass their day'],
  opened: ['opened lot passes its usual time', 'opened lots pass their usual time'],
  durability: ['batch reaches the end its label gives', 'batches reach the end their labels give'],
};

/** Those that stand by themselves, grave first, and the small ones in one line a kind. */
export function foldAhead(rows: readonly AheadRow[]): { rows: AheadRow[]; folds: AheadFold[] } {
  const small = groupBy(
    rows.filter(({ urgency }) => urgency === 'small'),
    ({ kind }) => kind,
  );
  return {
    rows: rows.filter(({ urgency }) => urgency !== 'small').sort(byGravity),
    folds: [...small].map(([kind, { length: count }]) => ({
      kind,
      count,
      words: `${count} ${FOLD_WORDS[kind][count === 1 ? 0 : 1]}`,
    })),
  };
}
