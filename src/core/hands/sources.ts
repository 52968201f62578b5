/** What waits for a hand, from what is known of batches, bars, tasks, papers and backups. */
import type { CupboardEntry } from '../records/cupboard';
import type { ShownCondition } from '../paperwork/conditions';
import { asksOf, isOverdue, unanswered } from '../paperwork/supplier-letter';
import { daysBetween } from '../quantities/day';
import type { RackTask, Urgency } from '../curing/rack';
import type { InboxEntry } from '../records/papers';
import type { RackBatch } from '../records/rack';
import type { RangeRow } from '../records/range';
import type { Task } from '../records/watch';
import { MARKETS } from '../formula/types';
import type { Hand, HandUrgency } from './hand';

const path = (...parts: string[]) => parts.map((part) => `/${encodeURIComponent(part)}`).join('');

const issuedOf = (bar: string) => `${path('wrap', bar)}?open=issued`;

const RACK_URGENCIES: Record<Urgency, HandUrgency> = {
  missed: 'grave',
  closing: 'grave',
  late: 'now',
  open: 'due',
  later: 'later',
};

/** What a batch on the rack waits for. */
export function handsOfBatch(
  batch: Pick<RackBatch, 'id' | 'code' | 'product' | 'productName'>,
  tasks: readonly RackTask[],
): Hand[] {
  return tasks.map(({ kind, portion, urgency, words, from }) => ({
    id: `rack ${batch.id} ${kind} ${portion ?? ''}`.trim(),
    what: `${batch.productName} ${batch.code}`,
    why: words,
    // A quarantine holds bars back that somebody may be waiting for, and sold ones may be out.
    urgency: kind === 'decide' ? 'grave' : RACK_URGENCIES[urgency],
    place: 'Rack',
    where: `${path('rack', batch.id)}#${kind}`,
    act: kind === 'turn' ? { kind: 'turned', batch: batch.id } : null,
    on: from,
    bar: batch.product,
    batch: batch.id,
  }));
}

/** What a bar waits for by itself: its formula, its label, the next pour; nothing for one put away. */
export function handsOfBar(
  row: Pick<RangeRow, 'id' | 'name' | 'putAwayOn' | 'verdict' | 'fault' | 'isPending' | 'label'>,
  today: string,
  startBy: string | null = null,
): Hand[] {
  if (row.putAwayOn !== null) return [];
  const hands: Hand[] = [];
  const need = (kind: string, urgency: HandUrgency, why: string, where: string, on: string | null = null) =>
    hands.push({
      ...{ id: `bar ${row.id} ${kind}`, what: row.name, why, urgency, place: 'Range', where },
      ...{ act: null, on, bar: row.id, batch: null },
    });
  const table = path('bars', row.id);
  if (row.verdict === 'over') need('over', 'grave', 'Over a limit where it is sold.', table);
  if (row.fault && !row.isPending) need('fault', 'grave', 'Its formula does not reckon.', table);
  if (row.verdict === 'atRisk') need('risk', 'now', 'The doubt reaches past a limit.', table);
  if (row.verdict === 'unproven') need('unproven', 'now', 'A scent without a paper that counts.', table);
  if (row.label === 'differs')
    need('label', 'due', 'An issued label would read otherwise.', issuedOf(row.id));
  if (startBy && startBy <= today)
    need('pour', 'due', 'Pour now, or it runs out.', `/pour?product=${encodeURIComponent(row.id)}`, startBy);
  return hands;
}

const TASK_URGENCIES: Record<Task['kind'], HandUrgency> = {
  stopSelling: 'grave',
  relabel: 'now',
  reissue: 'now',
  rework: 'now',
  askPaper: 'now',
  look: 'due',
};

function whereOfTask({ what, subject, market }: Task, bar: string | null): string {
  if (what === 'batch') return path('rack', subject);
  if (what === 'issued' && bar) {
    const known = MARKETS.find((one) => one === market);
    return `${issuedOf(bar)}${known ? `&market=${known}` : ''}`;
  }
  return what === 'bar' ? path('bars', subject) : '/watch#to-do';
}

/** A task of the watch that waits. */
export function handOfTask(task: Task): Hand {
  const { id, kind, what, subject, words, dueOn, bar = what === 'bar' ? subject : null } = task;
  return {
    id: `task ${id}`,
    what: 'To do',
    why: words,
    urgency: TASK_URGENCIES[kind],
    place: 'Watch',
    where: whereOfTask(task, bar),
    act: kind === 'reissue' || kind === 'relabel' ? { kind: 'reissue', task: id } : null,
    on: dueOn,
    bar,
    batch: what === 'batch' ? subject : null,
  };
}

/** Papers in the tray that were not filed. */
export const handsOfPapers = (papers: readonly Pick<InboxEntry, 'id' | 'fileName' | 'filedOn'>[]): Hand[] =>
  papers
    .filter(({ filedOn }) => filedOn === null)
    .map(({ id, fileName }) => ({
      ...{ id: `paper ${id}`, what: fileName, why: 'Came, and is not filed yet.', urgency: 'now' },
      ...{ place: 'Paper tray', where: `/cupboard/papers?paper=${encodeURIComponent(id)}` },
      ...{ act: null, on: null, bar: null, batch: null },
    }));

/** Days before a paper ends at which it is told. */
const ENDS_SOON_DAYS = 30;

/** What papers of a material wait for: a condition not met, a paper that ends or ended, a letter nobody answered. */
export function handsOfMaterial(
  entry: Pick<CupboardEntry, 'material' | 'mix' | 'papers' | 'conditions' | 'letters' | 'lots' | 'usedIn'>,
  shown: readonly ShownCondition[],
  today: string,
): Hand[] {
  const { id, name } = entry.material;
  const hands: Hand[] = [];
  const need = (kind: string, urgency: HandUrgency, why: string, on: string | null) =>
    hands.push({
      ...{ id: `material ${id} ${kind}`, what: name, why, urgency, place: 'Cupboard', on },
      ...{ where: `/cupboard?material=${encodeURIComponent(id)}`, act: null, bar: null, batch: null },
    });
  for (const { condition, state, by } of entry.usedIn > 0 ? entry.conditions : []) {
    const asks = `${condition.asks} (${condition.markets.join(', ')})`;
    const ended = shown
      .flatMap((one) => (one.condition === condition.id && one.until !== null ? [one.until] : []))
      .filter((until) => until < today)
      .sort()
      .at(-1);
    if (state === 'notMet') need(condition.id, 'now', `Not met: ${asks}.`, null);
    else if (state === 'met' && by?.until && daysBetween(today, by.until) <= ENDS_SOON_DAYS)
      need(condition.id, 'due', `${by.paper} counts until ${by.until}: ${asks}.`, by.until);
    else if (state === 'open' && ended)
      need(condition.id, 'now', `Its paper ended on ${ended}: ${asks}.`, ended);
  }
  const waits = unanswered(entry.letters, asksOf(entry)).find(({ letter }) => isOverdue(letter, today));
  if (waits)
    need(
      'letter',
      'due',
      `Its supplier was asked on ${waits.letter.on}, and nothing came. Write again?`,
      null,
    );
  return hands;
}

/** What is wrong with the backups, in words. */
export function handsOfBackups(trouble: string | null): Hand[] {
  if (trouble === null) return [];
  return [
    {
      ...{ id: 'backups', what: 'Backups', why: trouble, urgency: 'now', place: 'House' },
      ...{ where: '/house#backups', act: null, on: null, bar: null, batch: null },
    },
  ];
}
