/** One row of what a change touches: two single assessments, held beside each other. */
import { outlineOf, standsBeside, type Beside, type Outline, type Verdicts } from '../assess';
import { VERDICTS } from '../formula/answer';
import {
  REQUEST_FORMAT,
  type AssessmentRequest,
  type Formula,
  type Market,
  type Stored,
} from '../formula/types';
import type { Effect, Stand, Subject } from './types';

/** How verdicts stand in a market. */
function verdictIn(
  { verdict, limits, markets }: Verdicts,
  market: Market,
): Pick<Stand, 'verdict' | 'headroomPct' | 'boundBy'> {
  let headroomPct: number | null = null;
  let boundBy: string | null = null;
  for (const limit of limits) {
    if (limit.market !== market || limit.force === 'craft' || limit.headroomPct === null) continue;
    if (headroomPct !== null && limit.headroomPct >= headroomPct) continue;
    headroomPct = limit.headroomPct;
    boundBy = limit.id;
  }
  return { verdict: markets.find((one) => one.market === market)?.verdict ?? verdict, headroomPct, boundBy };
}

/** What is named and listed in a market. */
function listsIn(
  { declarables, ingredients }: ReturnType<Beside['lists']>,
  market: Market,
): Pick<Stand, 'declares' | 'listAdded' | 'listFormed'> {
  const list = (school: string) =>
    ingredients.find((one) => one.market === market && one.school === school)?.text ?? '';
  return {
    declares: declarables.filter((one) => one.market === market && one.declare).map(({ id }) => id),
    listAdded: list('added'),
    listFormed: list('formed'),
  };
}

/** How an assessment stands in a market. Pure. */
export function standOf(assessment: Outline, market: Market): Stand {
  return { ...verdictIn(assessment, market), ...listsIn(assessment, market) };
}

/** The request that a subject is assessed by, before or after. */
export function requestOf(
  { markets, firstPlacedOn, placedOn }: Sold,
  formula: Formula,
  onDate: string,
): AssessmentRequest {
  return {
    format: REQUEST_FORMAT,
    formula,
    markets: [...markets],
    onDate,
    firstPlacedOn,
    ...(placedOn ? { placedOn } : {}),
  };
}

/** How a subject stands in each of its markets; null where its formula does not reckon. */
export function standsOf(subject: Sold, formula: Formula, stored: Stored, onDate: string): (Stand | null)[] {
  const outline = outlineOf(requestOf(subject, formula, onDate), stored);
  return subject.markets.map((market) => outline && standOf(outline, market));
}

type Verdict = ReturnType<typeof verdictIn>;

const isSameVerdict = (a: Verdict, b: Verdict) =>
  a.verdict === b.verdict && a.headroomPct === b.headroomPct && a.boundBy === b.boundBy;

const sameDeclares = (a: Stand, b: Stand) =>
  a.declares.length === b.declares.length && a.declares.every((id, at) => id === b.declares[at]);

/** Whether a label that shows a list would read the same. */
export const readsSame = (a: Stand, b: Stand, school: 'added' | 'formed') =>
  sameDeclares(a, b) && (school === 'added' ? a.listAdded === b.listAdded : a.listFormed === b.listFormed);

/** Whether a row differs at all. Of an issued label only what it says counts. */
export function differs(before: Stand | null, after: Stand | null, school?: 'added' | 'formed'): boolean {
  if (!before || !after) return before !== after;
  if (school) return !readsSame(before, after, school);
  return (
    !isSameVerdict(before, after) ||
    !readsSame(before, after, 'added') ||
    before.listFormed !== after.listFormed
  );
}

/** How something stands in a market on either side of a change. */
export interface Sides {
  market: Market;
  before: Stand | null;
  after: Stand | null;
}

/** Where and what something is sold as: all of a subject that its assessment depends on besides its formula. */
export type Sold = Pick<Subject, 'markets' | 'firstPlacedOn' | 'placedOn'>;

/**
 * The markets in which a formula stands otherwise, as two single assessments would tell it, where two stores treat its
 * materials alike but for limits: without reckoning lists where nothing else differs. Null where it does not reckon.
 *
 * @example
 * sidesOfLimits(subject, formula, [today, withStricterLimit], '2026-11-24'); // [{ market: 'EU', before, after }]
 */
export function sidesOfLimits(
  sold: Sold,
  formula: Formula,
  [before, after]: readonly [Stored, Stored],
  onDate: string,
): Sides[] | null {
  const beside = standsBeside(requestOf(sold, formula, onDate), before, after);
  if (!beside) return null;
  const standIn = (stands: Beside['before'], wanted: Market): Verdict => {
    const { verdict, headroomPct, limit } = stands.find(({ market }) => market === wanted)!;
    return { verdict, headroomPct, boundBy: limit };
  };
  const changed = sold.markets.flatMap((market) => {
    const [was, is] = [standIn(beside.before, market), standIn(beside.after, market)];
    return isSameVerdict(was, is) ? [] : [{ market, was, is }];
  });
  if (changed.length === 0) return [];
  const lists = beside.lists(changed.map(({ market }) => market));
  return changed.map(({ market, was, is }) => {
    const said = listsIn(lists, market);
    return { market, before: { ...was, ...said }, after: { ...is, ...said } };
  });
}

/** From worst to best; what does not reckon is worse than all. */
const rank = (stand: Stand | null) => (stand ? VERDICTS.indexOf(stand.verdict) : -1);
const room = (stand: Stand | null) => stand?.headroomPct ?? Infinity;

/** Worse is a worse verdict, or the same with less room. */
export const isWorse = (before: Stand | null, after: Stand | null): boolean =>
  rank(after) < rank(before) || (rank(after) === rank(before) && room(after) < room(before));

/**
 * The effect on a subject in one market.
 *
 * @example
 * effectOf(subject, 'EU', before, after); // { what: 'bar', id, market: 'EU', before, after, worse: true, hands }
 */
export function effectOf(
  subject: Subject,
  market: Market,
  before: Stand | null,
  after: Stand | null,
): Effect {
  const { what, id, product, name, hands } = subject;
  return { what, id, product, name, market, before, after, worse: isWorse(before, after), hands };
}

/** Bars planned are those of a bar itself. */
const isPlanned = ({ what }: Effect) => what === 'bar';

/** Made once: tens of thousands of rows are put in order. */
const byName = new Intl.Collator('en').compare;

/** Worse first; among them by bars sold, in stock, curing, then planned; then by name, so that it is always the same. */
export function ordered(effects: readonly Effect[]): Effect[] {
  return [...effects].sort(
    (a, b) =>
      Number(b.worse) - Number(a.worse) ||
      b.hands.sold - a.hands.sold ||
      b.hands.inStock - a.hands.inStock ||
      b.hands.curing - a.hands.curing ||
      Number(isPlanned(b)) - Number(isPlanned(a)) ||
      rank(a.after) - rank(b.after) ||
      byName(a.name, b.name) ||
      byName(a.id, b.id) ||
      byName(a.market, b.market),
  );
}
