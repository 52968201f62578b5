/** What a batch on the rack waits for: cutting in its window, turning, weighing, checking, release (cure page; craft). */
import type { BatchStanding } from '../batch/types';
import { byMoment, isBefore, MS_PER_DAY, MS_PER_HOUR } from '../quantities/day';
import { daysSince } from './batch-cure';
import { USUAL_MIN_DAYS } from './cure';
import type { Cure } from './cure-types';
import type { CutWindow, PortionWindow } from './window';

export const TURNED = 'turned';
const TURN_EVERY_DAYS = 7;
const TURN_UNTIL_DAYS = 28;
const WEIGH_EVERY_DAYS = 5;
const FIRST_WEIGHING_DAYS = 1;
/** The last part of a cut window in which it is nearly missed. */
const CLOSING_SHARE = 0.25;

export type Urgency = 'later' | 'open' | 'closing' | 'late' | 'missed';
export const URGENCIES: readonly Urgency[] = ['missed', 'closing', 'late', 'open', 'later'];

export interface RackTask {
  kind: 'cut' | 'turn' | 'weigh' | 'check' | 'release' | 'decide';
  /** The portion a cut waits for; null for the whole batch. */
  portion: string | null;
  urgency: Urgency;
  /** The moment it can be done from, and the one it should be done by; null for no end. */
  from: string;
  until: string | null;
  words: string;
}

const after = (at: string, ms: number) => new Date(Date.parse(at) + ms).toISOString();

function span(ms: number): string {
  const hours = Math.abs(ms) / MS_PER_HOUR;
  if (hours < 1) return `${Math.round(hours * 60)} min`;
  if (hours < 48) return `${Math.round(hours)} h`;
  return `${Math.round(hours / 24)} days`;
}

function cutTask(pouredAt: string, at: string, window: PortionWindow): RackTask {
  const { portion, fromHours, toHours, missedAfterHours } = window;
  const from = after(pouredAt, fromHours * MS_PER_HOUR);
  const until = toHours === null ? null : after(pouredAt, toHours * MS_PER_HOUR);
  const hours = (Date.parse(at) - Date.parse(pouredAt)) / MS_PER_HOUR;
  const what = portion === null ? 'Cut' : `Cut “${portion}”`;
  const left = toHours === null ? '' : ` for ${span((toHours - hours) * MS_PER_HOUR)} more`;
  const told = (urgency: Urgency, words: string): RackTask => ({
    kind: 'cut',
    portion,
    urgency,
    from,
    until,
    words,
  });
  if (hours < fromHours) return told('later', `${what} in ${span((fromHours - hours) * MS_PER_HOUR)}.`);
  if (toHours === null)
    return told('open', `${what === 'Cut' ? 'Unmould' : what} when it is firm: it has no last hour.`);
  if (hours > (missedAfterHours ?? Infinity))
    return told(
      'missed',
      `${what}: missed by ${span((hours - toHours) * MS_PER_HOUR)}. It may crumble; try one edge.`,
    );
  if (hours > toHours)
    return told('late', `${what} at once: its window closed ${span((hours - toHours) * MS_PER_HOUR)} ago.`);
  if (hours > toHours - CLOSING_SHARE * (toHours - fromHours))
    return told('closing', `${what} now: good${left}.`);
  return told('open', `${what}: in its window${left}.`);
}

function turnTask({ cut, checks, poured }: BatchStanding, at: string): RackTask[] {
  if (!cut || daysSince(poured?.at ?? cut.at, at) > TURN_UNTIL_DAYS) return [];
  const last = checks.filter(({ check }) => check === TURNED).at(-1)?.at ?? cut.at;
  const from = after(last, TURN_EVERY_DAYS * MS_PER_DAY);
  const isDue = !isBefore(at, from);
  const words = isDue
    ? `Turn the bars: last ${span(Date.parse(at) - Date.parse(last))} ago.`
    : 'Turn the bars.';
  return [{ kind: 'turn', portion: null, urgency: isDue ? 'open' : 'later', from, until: null, words }];
}

function weighTask({ cut, barWeighings }: BatchStanding, at: string, cure: Cure | null): RackTask[] {
  if (!cut || cure?.settled) return [];
  const last = barWeighings
    .map((one) => one.at)
    .sort(byMoment)
    .at(-1);
  const from = last
    ? after(last, WEIGH_EVERY_DAYS * MS_PER_DAY)
    : after(cut.at, FIRST_WEIGHING_DAYS * MS_PER_DAY);
  const isDue = !isBefore(at, from);
  const words = last
    ? `Weigh the same bars again: last ${span(Date.parse(at) - Date.parse(last))} ago.`
    : 'Weigh three bars for the first time.';
  return [{ kind: 'weigh', portion: null, urgency: isDue ? 'open' : 'later', from, until: null, words }];
}

/** What stands in the way of a release, each in one sentence; with a written reason it can be done all the same. */
export function againstRelease(
  batch: BatchStanding,
  at: string,
  cure: Cure | null,
  minDays = USUAL_MIN_DAYS,
): string[] {
  const age = daysSince(batch.poured?.at ?? batch.startedAt, at);
  const open = batch.asked.filter(({ id }) => !batch.checks.some(({ check }) => check === id));
  const bad = batch.asked.filter(
    ({ id }) => batch.checks.filter(({ check }) => check === id).at(-1)?.outcome === 'bad',
  );
  return [
    ...(age < minDays ? [`It has cured ${Math.floor(age)} of at least ${minDays} days.`] : []),
    ...(cure?.doubts.length ? ['A weighing is in doubt and not decided on.'] : []),
    ...(cure?.settled ? [] : ['Its weight is not settled.']),
    ...(open.length > 0
      ? [`Not checked yet: ${open.map(({ name }) => name.toLowerCase()).join(', ')}.`]
      : []),
    ...bad.map(({ name }) => `${name} was found bad.`),
  ];
}

function releaseTasks(batch: BatchStanding, at: string, cure: Cure | null, minDays: number): RackTask[] {
  const { cut, bars, checks } = batch;
  if (!cut || bars.good - bars.released <= 0) return [];
  const against = againstRelease(batch, at, cure, minDays);
  const from = after(batch.poured?.at ?? cut.at, minDays * MS_PER_DAY);
  const task = (kind: 'check' | 'release', words: string): RackTask => ({
    kind,
    portion: null,
    urgency: isBefore(at, from) ? 'later' : 'open',
    from,
    until: null,
    words,
  });
  const isRipe = !isBefore(at, from) && cure?.settled === true;
  const isChecked = batch.asked.every(({ id }) => checks.some(({ check }) => check === id));
  if (against.length === 0)
    return [task('release', `Release ${bars.good - bars.released} bars: settled and checked.`)];
  return isRipe && !isChecked ? [task('check', 'Settled: look it over before it is released.')] : [];
}

/**
 * Everything a batch waits for at a moment, most urgent first; `minDays` is how long it cures at least.
 *
 * @example
 * rackTasks(batch, now, window, cure)[0]; // what it waits for first
 */
export function rackTasks(
  batch: BatchStanding,
  at: string,
  window: CutWindow | null,
  cure: Cure | null,
  minDays = USUAL_MIN_DAYS,
): RackTask[] {
  const { state, poured, isQuarantined } = batch;
  if (isQuarantined) {
    const since = batch.quarantines.at(-1)?.at ?? at;
    const words = 'Decide in writing: it is in quarantine.';
    return [{ kind: 'decide', portion: null, urgency: 'late', from: since, until: null, words }];
  }
  if (state === 'poured' && poured && window)
    return window.portions.map((one) => cutTask(poured.at, at, one)).sort(byUrgency);
  if (state !== 'cut' && state !== 'curing' && state !== 'released') return [];
  const isCuring = state !== 'released';
  return [
    ...releaseTasks(batch, at, cure, minDays),
    ...(isCuring ? weighTask(batch, at, cure) : []),
    ...(isCuring ? turnTask(batch, at) : []),
  ].sort(byUrgency);
}

/** Missed first, what has time last; among equals what was due first. */
export function byUrgency(a: RackTask, b: RackTask): number {
  return URGENCIES.indexOf(a.urgency) - URGENCIES.indexOf(b.urgency) || byMoment(a.from, b.from);
}
