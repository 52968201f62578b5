/** How a batch stands, in words. */
import { gramsAt } from './words';
import type {
  Batch,
  BatchEvent,
  BatchState,
  EventType,
  MOVED_HOW,
  REST_WAYS,
  TEMPERATURES_OF,
} from '../core/batch/types';
import { lineName } from '../core/batch/record';
import type { BatchSummary } from '../core/records/batch';

export const STATE_WORDS: Record<BatchState, string> = {
  pouring: 'Being poured',
  poured: 'Poured, to be cut',
  cut: 'Cut',
  curing: 'Curing',
  released: 'Released',
  soldOut: 'Sold out',
  discarded: 'Discarded',
  stopped: 'Given up',
};

export function stateWords({ state, isQuarantined }: Pick<BatchSummary, 'state' | 'isQuarantined'>): string {
  return isQuarantined ? `${STATE_WORDS[state]}, in quarantine` : STATE_WORDS[state];
}

/** What a temperature was measured of. */
export const TEMPERATURE_WORDS: Record<(typeof TEMPERATURES_OF)[number], string> = {
  lye: 'the lye',
  fats: 'the fats',
  batter: 'the batter',
  cook: 'the pot',
  mould: 'the mould',
  room: 'the room',
};

/** How a pour was put to rest, in words. */
export const REST_WORDS: Record<(typeof REST_WAYS)[number], string> = {
  warm: 'Kept warm',
  leave: 'Left as it is',
  chill: 'Chilled',
};

/** How bars went, in words. */
export const MOVED_WORDS: Record<(typeof MOVED_HOW)[number], string> = {
  sale: 'sold',
  sample: 'given as samples',
  loss: 'lost',
  own: 'kept',
};

const EVENT_WORDS: Record<EventType, string> = {
  started: 'began the batch',
  stepDone: 'finished',
  stepUndone: 'opened again',
  weighed: 'weighed',
  guessed: 'put in without weighing',
  corrected: 'corrected a weighing',
  added: 'added something extra',
  skipped: 'left out',
  temperature: 'measured the warmth',
  split: 'split the batter',
  poured: 'poured',
  rested: 'put it to rest',
  stopped: 'gave the batch up',
  cut: 'cut the bars',
  sorted: 'sorted out seconds',
  barWeighed: 'weighed a bar',
  checked: 'looked it over',
  quarantined: 'put it in quarantine',
  decided: 'decided on the quarantine',
  released: 'released bars',
  moved: 'wrote down where bars went',
  noted: 'made a note',
};

/** What somebody else did just now: "Marit weighed Olive oil". */
export function eventWords(event: BatchEvent, batch: Batch): string {
  const { lines, sheet } = batch;
  const who = event.by ?? 'Another device';
  const line = 'line' in event ? lines.find((one) => one.line === event.line) : undefined;
  const step = 'step' in event ? sheet.steps.find(({ id }) => id === event.step)?.title : undefined;
  const what = step ?? (line ? lineName(batch, line) : '');
  return `${who} ${EVENT_WORDS[event.type]}${what && `: ${what}`}.`;
}

/** What an event of this device says, for whoever decides on it: "34.2 g of Olive oil", "finished: Weigh the fats". */
export function saidOf(event: BatchEvent, batch: Batch): string {
  if (event.type === 'weighed' || event.type === 'guessed' || event.type === 'added') {
    const line = 'line' in event ? batch.lines.find((one) => one.line === event.line) : undefined;
    const material = event.type === 'added' ? event.material : (line?.material ?? '');
    const name = line
      ? lineName(batch, line)
      : (batch.materials.find(({ id }) => id === material)?.name ?? 'something extra');
    return `${gramsAt(event.massG, 0.01)} of ${name}`;
  }
  if (event.type === 'barWeighed') return `bar ${event.bar} at ${gramsAt(event.massG, event.readabilityG)}`;
  if (event.type === 'noted') return `the note “${event.text}”`;
  return eventWords({ ...event, by: '' }, batch).trim();
}
