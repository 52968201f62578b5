/** Whether an event makes sense for a batch as it stands; what is refused says which field and what to do. */
import type { Batch, BatchEvent, BatchState, EventOf, EventType, Refusal } from './types';

const refusal = (path: string, code: string, message: string): Refusal => ({ path, code, message });

const ALIVE: readonly BatchState[] = ['pouring', 'poured', 'cut', 'curing', 'released', 'soldOut'];
const MADE: readonly BatchState[] = ['cut', 'curing', 'released', 'soldOut'];

/** The states in which each type of event makes sense. */
const WHEN: Record<EventType, readonly BatchState[]> = {
  started: [],
  stepDone: ['pouring', 'poured'],
  stepUndone: ['pouring', 'poured'],
  weighed: ['pouring', 'poured'],
  guessed: ['pouring', 'poured'],
  corrected: ALIVE,
  added: ['pouring', 'poured'],
  skipped: ['pouring', 'poured'],
  temperature: ['pouring', 'poured'],
  split: ['pouring'],
  poured: ['pouring'],
  rested: ['poured'],
  stopped: ['pouring', 'poured'],
  cut: ['poured'],
  sorted: MADE,
  barWeighed: MADE,
  checked: ALIVE,
  quarantined: ALIVE,
  decided: ALIVE,
  released: ['cut', 'curing', 'released'],
  moved: MADE,
  noted: [...ALIVE, 'stopped', 'discarded'],
};

const STATE_WORDS: Record<BatchState, string> = {
  pouring: 'is being poured',
  poured: 'is poured and not cut yet',
  cut: 'is cut',
  curing: 'is curing',
  released: 'is released',
  soldOut: 'is sold out',
  discarded: 'was discarded',
  stopped: 'was given up',
};

/** What a maker would do, by the event that tells of it. */
const DOING: Record<EventType, string> = {
  started: 'begin it',
  stepDone: 'tick off a step',
  stepUndone: 'take a step back',
  weighed: 'weigh into it',
  guessed: 'put in by spoon or by eye',
  corrected: 'put a weighing right',
  added: 'put in something extra',
  skipped: 'leave something out',
  temperature: 'write a temperature down',
  split: 'split it',
  poured: 'pour it',
  rested: 'say how it rests',
  stopped: 'give it up',
  cut: 'cut it',
  sorted: 'sort bars out',
  barWeighed: 'weigh bars',
  checked: 'write down a look at it',
  quarantined: 'put it in quarantine',
  decided: 'decide about it',
  released: 'release it',
  moved: 'write bars out',
  noted: 'write a note',
};

/** The way of a batch, and what brings it there. */
const WAY: readonly (readonly [BatchState, string])[] = [
  ['pouring', 'Begin it first'],
  ['poured', 'Pour it first'],
  ['cut', 'Cut it first'],
  ['curing', 'Let it cure first'],
  ['released', 'Release it first'],
  ['soldOut', ''],
];

/** "Cut it first, then weigh bars." or that it is too late, as the state says. */
function remedyOf({ type }: BatchEvent, state: BatchState): string {
  const at = (one: BatchState) => WAY.findIndex(([known]) => known === one);
  const first = Math.min(...WHEN[type].map(at).filter((place) => place >= 0));
  const isAhead = at(state) >= 0 && Number.isFinite(first) && at(state) < first;
  return isAhead ? `${WAY[first]![1]}, then ${DOING[type]}.` : `It is too late to ${DOING[type]}.`;
}

const notNow = (message: string, path = 'type') => refusal(path, 'not-now', message);

/** Things that were not planned, in one batch; each is a line to be held against every limit. */
const MOST_EXTRAS = 100;

/** What goes on top is weighed after the pour; everything else before it. */
function weighable(batch: Batch, event: BatchEvent): Refusal | null {
  const { state } = batch;
  if (event.type === 'added' && batch.lines.filter(({ isExtra }) => isExtra).length >= MOST_EXTRAS)
    return refusal(
      'type',
      'too-many',
      `A batch takes ${MOST_EXTRAS} things that were not planned. Change the formula instead.`,
    );
  if (event.type === 'added')
    return state === 'pouring' || event.stage === 'top'
      ? null
      : notNow('It is poured. Only what goes on top can still be added.', 'stage');
  if (event.type !== 'weighed' && event.type !== 'guessed' && event.type !== 'skipped') return null;
  const line = batch.lines.find((one) => one.line === event.line && !one.isExtra);
  if (!line)
    return refusal(
      'line',
      'unknown-line',
      `There is no line "${event.line}" in this batch. Use one of its run sheet.`,
    );
  if (state === 'poured' && line.stage !== 'top')
    return notNow('It is poured. Only what goes on top can still be weighed; correct a weighing instead.');
  if (event.type === 'skipped') return inThePot(line);
  if (event.portion != null) return portionFault(batch, event.portion);
  return null;
}

/** What stands weighed or guessed of a line cannot be left out: it is in the pot, or it is corrected first. */
function inThePot({ weighings }: Batch['lines'][number]): Refusal | null {
  const massG = weighings.reduce((sum, one) => sum + one.massG, 0);
  if (massG <= 0) return null;
  return refusal(
    'line',
    'already-weighed',
    `${Number(massG.toFixed(1))} g of it are written down. If they were taken out again, correct them to nothing first; if not, they are in the pot and count.`,
  );
}

function portionFault({ formula }: Batch, portion: string): Refusal | null {
  if (formula.portions?.some(({ id }) => id === portion)) return null;
  return refusal('portion', 'unknown-portion', `There is no portion "${portion}" in this batch.`);
}

/** Shares add up to one within so much. */
const SHARES_WITHIN = 1e-6;

function splitFault({ formula }: Batch, { portions }: EventOf<'split'>): Refusal | null {
  const planned = (formula.portions ?? []).map(({ id }) => id).sort();
  if (planned.length === 0) return notNow('This batch has no portions to be split into.');
  const given = portions.map(({ id }) => id).sort();
  if (given.join('\n') !== planned.join('\n'))
    return refusal('portions', 'unknown-portion', `Give a share for each of: ${planned.join(', ')}.`);
  const sum = portions.reduce((total, { share }) => total + share, 0);
  return Math.abs(sum - 1) <= SHARES_WITHIN
    ? null
    : refusal(
        'portions',
        'shares',
        `The shares add up to ${Number(sum.toFixed(4))}; they have to add up to 1.`,
      );
}

function releaseFault({ isQuarantined, bars }: Batch, event: EventOf<'released'>): Refusal | null {
  if (isQuarantined) return notNow('It is in quarantine. Decide first what is to become of it.');
  const most = bars.good - bars.released;
  if (event.bars > most)
    return refusal('bars', 'not-enough-bars', `Only ${most} bars are there to be released.`);
  return null;
}

/** Why bars may not be sold in a market without a word; null where they were released for it, or none is named. */
function marketFault({ released }: Batch, { market, despite, note }: EventOf<'moved'>): Refusal | null {
  if (!market || despite || note || released.some(({ markets }) => markets.includes(market))) return null;
  const markets = [...new Set(released.flatMap((one) => one.markets))].join(', ') || 'no market';
  return refusal(
    'market',
    'not-released',
    `This batch was released for ${markets}, not for ${market}. Sell it where it was released for, or say why.`,
  );
}

function sortedFault({ bars }: Batch, event: EventOf<'sorted'>): Refusal | null {
  const most = Math.max(0, Math.min(bars.good - bars.released, bars.left));
  return event.bars <= most
    ? null
    : refusal('bars', 'not-enough-bars', `Only ${most} bars are here that are not released.`);
}

function movedFault(batch: Batch, event: EventOf<'moved'>): Refusal | null {
  const { isQuarantined, bars, moved } = batch;
  if (event.how === 'sale') {
    if (isQuarantined) return notNow('It is in quarantine: nothing of it is sold. Decide first.');
    if (bars.released === 0)
      return refusal('how', 'not-released', 'Release the batch before any bar of it is sold.');
    const sold = moved.reduce((sum, one) => sum + (one.how === 'sale' ? one.bars : 0), 0);
    if (event.bars > bars.released - sold)
      return refusal('bars', 'not-enough-bars', `Only ${bars.released - sold} released bars are left.`);
    const elsewhere = marketFault(batch, event);
    if (elsewhere) return elsewhere;
  }
  if (event.bars > bars.left) return refusal('bars', 'not-enough-bars', `Only ${bars.left} bars are left.`);
  return null;
}

type Looks = { [T in EventType]?: (batch: Batch, event: EventOf<T>) => Refusal | null };

const LOOKS: Looks = {
  stepDone: ({ sheet }, { step }) => stepFault(sheet, step),
  stepUndone: ({ sheet }, { step }) => stepFault(sheet, step),
  weighed: weighable,
  guessed: weighable,
  skipped: weighable,
  added: (batch, event) =>
    weighable(batch, event) ?? (event.portion == null ? null : portionFault(batch, event.portion)),
  corrected: ({ lines, barWeighings }, { event }) =>
    lines.some(({ weighings }) => weighings.some((one) => one.event === event)) ||
    barWeighings.some((one) => one.event === event)
      ? null
      : refusal('event', 'unknown-event', 'There is no weighing of that id in this batch.'),
  split: splitFault,
  cut: (_, { bars, seconds }) =>
    seconds <= bars ? null : refusal('seconds', 'not-enough-bars', 'There cannot be more seconds than bars.'),
  sorted: sortedFault,
  decided: ({ isQuarantined }) =>
    isQuarantined ? null : notNow('It is not in quarantine; there is nothing to decide.'),
  released: releaseFault,
  moved: movedFault,
};

function stepFault({ steps }: Batch['sheet'], step: string): Refusal | null {
  return steps.some(({ id }) => id === step)
    ? null
    : refusal('step', 'unknown-step', `There is no step "${step}" in this batch’s run sheet.`);
}

/**
 * Why an event cannot be taken for a batch as it stands; null where it can.
 *
 * @example
 * refusalOf(batch, { type: 'cut', bars: 14, … }); // { path: 'type', code: 'not-now', message: 'This batch is …' }
 */
export function refusalOf(batch: Batch, event: BatchEvent): Refusal | null {
  if (!WHEN[event.type].includes(batch.state))
    return notNow(`This batch ${STATE_WORDS[batch.state]}. ${remedyOf(event, batch.state)}`);
  const look = LOOKS[event.type] as ((batch: Batch, event: BatchEvent) => Refusal | null) | undefined;
  return look?.(batch, event) ?? null;
}
