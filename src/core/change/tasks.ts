/** What has to be done once a change is accepted. */
import { readsSame } from './effects';
import type { Change, Effect, Stand } from './types';

export const TASK_KINDS = ['stopSelling', 'relabel', 'rework', 'askPaper', 'reissue', 'look'] as const;
export type TaskKind = (typeof TASK_KINDS)[number];

/** A task before it is on file. */
export interface NewTask {
  kind: TaskKind;
  /** What it is about: a bar, a batch, an issued label, or what falls due. */
  what: string;
  /** Its id; empty where it is about nothing on file. */
  subject: string;
  market: string | null;
  words: string;
  /** The day by which it has to be done; null where there is none. */
  dueOn: string | null;
}

const CANNOT_SELL: readonly string[] = ['over', 'unproven'];
const isShut = (stand: Stand | null) => stand === null || CANNOT_SELL.includes(stand.verdict);
const readsOtherwise = (before: Stand | null, after: Stand | null) =>
  before !== null &&
  after !== null &&
  !(readsSame(before, after, 'added') && readsSame(before, after, 'formed'));

function taskOf(effect: Effect): NewTask | null {
  const { what, id, name, market, before, after, hands } = effect;
  const make = (kind: TaskKind, words: string): NewTask => ({
    kind,
    what,
    subject: id,
    market,
    words,
    dueOn: null,
  });
  const left = hands.curing + hands.inStock;
  const becameShut = isShut(after) && !isShut(before);
  if (what === 'batch' && left > 0) {
    if (becameShut) return make('stopSelling', `Stop selling ${name} in ${market}: ${left} bars are here.`);
    if (readsOtherwise(before, after))
      return make('relabel', `Relabel ${name} for ${market}: ${left} bars are here.`);
  }
  if (what === 'bar') {
    if (becameShut && after?.verdict === 'unproven')
      return make('askPaper', `Ask for the paper that proves ${name} in ${market}.`);
    if (becameShut) return make('rework', `Rework ${name} for ${market} before it is poured again.`);
  }
  if (what === 'issued' && left > 0) return make('reissue', `Issue the label of ${name} for ${market} anew.`);
  return null;
}

/** Of a lot that goes into quarantine: every batch it went into, as long as bars of it are here. */
function ofBadLot(effects: readonly Effect[], reason: string): NewTask[] {
  const batches = new Map(effects.map((effect) => [effect.id, effect]));
  return [...batches.values()].flatMap(({ what, id, name, hands }): NewTask[] => {
    const left = hands.curing + hands.inStock;
    if (left === 0) return [];
    const words = `Stop selling ${name}: a lot in it is in quarantine (${reason}); ${left} bars are here.`;
    return [{ kind: 'stopSelling', what, subject: id, market: null, words, dueOn: null }];
  });
}

/**
 * The tasks that a change with some effects makes, in their order. Versions kept for the record ask for nothing.
 *
 * @example
 * tasksOf(change, effects); // [{ kind: 'stopSelling', … }, { kind: 'relabel', … }]
 */
export function tasksOf(change: Change, effects: readonly Effect[]): NewTask[] {
  if (change.kind === 'lot') return change.quarantine === null ? [] : ofBadLot(effects, change.quarantine);
  return effects.flatMap((effect) => taskOf(effect) ?? []);
}
