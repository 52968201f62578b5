/** The doors of batches: beginning one, and what may be written down of it. */
import {
  DECISIONS,
  GUESSED_HOW,
  MOVED_HOW,
  NOTED_FOR,
  OUTCOMES,
  REST_WAYS,
  TEMPERATURES_OF,
  WEIGHED_HOW,
  type BatchEvent,
  type EventType,
} from '../../core/batch/types';
import { MARKETS, STAGES, type RequestError } from '../../core/formula/types';
import {
  Clearable,
  Id,
  isDay,
  ListOf,
  LONGEST,
  Markets,
  Name,
  Nested,
  NotEmpty,
  NumberBetween,
  OneOf,
  Optional,
  OrNull,
  Rule,
  Text,
  YesNo,
} from './fields';
import { checkShape } from './shape';
import type { Door } from './structure';

const MOST_GRAMS = 1e7;
const MOST_BARS = 1e6;
const MOST_MOULDS = 40;
const MOST_PORTIONS = 20;
const COARSEST_G = 1000;

/** A moment with its offset, as ISO 8601 writes it. */
const MOMENT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(?::\d{2}(?:\.\d{1,9})?)?(?:Z|[+-]\d{2}:\d{2})$/;

function Moment(): PropertyDecorator {
  const message = 'Give a moment with its offset, such as 2026-11-24T09:30:00+01:00.';
  return Rule(
    'not-a-moment',
    message,
    (value) =>
      typeof value === 'string' &&
      MOMENT.test(value) &&
      isDay(value.slice(0, 10)) &&
      Number.isFinite(Date.parse(value)),
  );
}

function Count(most = MOST_BARS): PropertyDecorator {
  const message = `Give a whole number from 0 to ${most}.`;
  return Rule(
    'not-a-count',
    message,
    (value) => Number.isInteger(value) && (value as number) >= 0 && (value as number) <= most,
  );
}

/** A count of bars, one at least. */
export function AtLeastOne(): PropertyDecorator {
  return Rule(
    'not-a-count',
    `Give a whole number from 1 to ${MOST_BARS}.`,
    (value) => Number.isInteger(value) && (value as number) >= 1 && (value as number) <= MOST_BARS,
  );
}

const Grams = () => NumberBetween(0, MOST_GRAMS);
const Readability = () => NumberBetween(0, COARSEST_G);
const Reason = () => Name('the reason', LONGEST.line);

class MouldCountDoor {
  @Id() id!: string;
  @Count() count!: number;
}

class SizeDoor {
  @Optional() @NumberBetween(1, MOST_GRAMS) fatsMassG?: number;
  @Optional() @AtLeastOne() bars?: number;
  @Optional() @ListOf(() => MouldCountDoor, MOST_MOULDS) moulds?: MouldCountDoor[];
}

class LyeStockDoor {
  @NumberBetween(1, 99) concentrationPct!: number;
  @Optional() @YesNo() restDry?: boolean;
  @Optional() @YesNo() isMade?: boolean;
}

/** Begins a batch. */
export class NewBatchDoor {
  @Id() product!: string;
  @Optional() @Nested(() => SizeDoor) size?: SizeDoor;
  @Optional() @Nested(() => LyeStockDoor) lyeStock?: LyeStockDoor;
  @Clearable() @Id() bucket?: string | null;
  @Optional() @Readability() readabilityG?: number;
  @OrNull() @Text(LONGEST.name) by!: string | null;
  @Optional() @Reason() despite?: string;
}

export interface NewBatch {
  product: string;
  size?: { fatsMassG?: number; bars?: number; moulds?: { id: string; count: number }[] };
  lyeStock?: { concentrationPct: number; restDry?: boolean; isMade?: boolean };
  /** A mix of fats that is drawn from. */
  bucket?: string | null;
  readabilityG?: number;
  by: string | null;
  /** Why it is poured though it is over a limit or unproven; kept with the record. */
  despite?: string;
}

class EventDoor {
  @Id() id!: string;
  @OneOf(
    [
      'stepDone',
      'stepUndone',
      'weighed',
      'guessed',
      'corrected',
      'added',
      'skipped',
      'temperature',
      'split',
      'poured',
      'rested',
      'stopped',
      'cut',
      'sorted',
      'barWeighed',
      'checked',
      'quarantined',
      'decided',
      'released',
      'moved',
      'noted',
    ] satisfies EventType[],
    'unknown-type',
  )
  type!: string;
  @Moment() at!: string;
  @OrNull() @Text(LONGEST.name) by!: string | null;
}

class StepDoor extends EventDoor {
  @Id() step!: string;
}

class DrawnDoor extends EventDoor {
  @Grams() massG!: number;
  @Optional() @Id() lot?: string;
  @Optional() @Id() portion?: string;
  @Optional() @Reason() despite?: string;
  @Optional() @Id() step?: string;
}

class WeighedDoor extends DrawnDoor {
  @Id() line!: string;
  @Readability() readabilityG!: number;
  @OneOf(WEIGHED_HOW) how!: string;
}

class GuessedDoor extends DrawnDoor {
  @Id() line!: string;
  @OneOf(GUESSED_HOW) how!: string;
  @Optional() @Text(LONGEST.short) said?: string;
}

class CorrectedDoor extends EventDoor {
  @Id() event!: string;
  @Grams() massG!: number;
  @Reason() reason!: string;
  @Optional() @Reason() despite?: string;
}

class AddedDoor extends DrawnDoor {
  @Id() material!: string;
  @OneOf(STAGES) stage!: string;
  @OneOf([...WEIGHED_HOW, ...GUESSED_HOW]) how!: string;
  @Optional() @Readability() readabilityG?: number;
}

class SkippedDoor extends EventDoor {
  @Id() line!: string;
  @Reason() reason!: string;
}

class TemperatureDoor extends EventDoor {
  @OneOf(TEMPERATURES_OF) of!: string;
  @NumberBetween(-50, 300) c!: number;
}

class ShareDoor {
  @Id() id!: string;
  @NumberBetween(0, 1) share!: number;
}

class SplitDoor extends EventDoor {
  @NotEmpty('Give the share of each portion.') @ListOf(() => ShareDoor, MOST_PORTIONS) portions!: ShareDoor[];
}

class PouredDoor extends EventDoor {
  @ListOf(() => MouldCountDoor, MOST_MOULDS) moulds!: MouldCountDoor[];
  @Grams() leftoverG!: number;
}

class RestedDoor extends EventDoor {
  @OneOf(REST_WAYS) way!: string;
}

class ReasonDoor extends EventDoor {
  @Reason() reason!: string;
}

class CutDoor extends EventDoor {
  @Count() bars!: number;
  @Count() seconds!: number;
  @Grams() trimmingsG!: number;
}

class SortedDoor extends EventDoor {
  @AtLeastOne() bars!: number;
  @Reason() reason!: string;
}

class BarWeighedDoor extends EventDoor {
  @Id() bar!: string;
  @NumberBetween(0.01, MOST_GRAMS) massG!: number;
  @Readability() readabilityG!: number;
}

class CheckedDoor extends EventDoor {
  @Id() check!: string;
  @OneOf(OUTCOMES) outcome!: string;
  @Optional() @Text() value?: string;
  @Optional() @Text() note?: string;
}

class DecidedDoor extends EventDoor {
  @OneOf(DECISIONS) decision!: string;
  @Reason() reason!: string;
}

class ReleasedDoor extends EventDoor {
  @AtLeastOne() bars!: number;
  @NumberBetween(0.01, MOST_GRAMS) netMassG!: number;
  @Markets() markets!: string[];
  @Optional() @Reason() despite?: string;
}

class MovedDoor extends EventDoor {
  @AtLeastOne() bars!: number;
  @OneOf(MOVED_HOW) how!: string;
  @Optional() @Text(LONGEST.line) to?: string;
  @Optional() @Text() note?: string;
  @Optional() @OneOf(MARKETS) market?: string;
  @Optional() @Reason() despite?: string;
}

class NotedDoor extends EventDoor {
  @Name('the note', LONGEST.text) text!: string;
  @OneOf(NOTED_FOR) for!: string;
}

/** By kind of event; a batch is begun by its own door. */
const DOORS: Record<Exclude<EventType, 'started'>, Door> = {
  stepDone: StepDoor,
  stepUndone: StepDoor,
  weighed: WeighedDoor,
  guessed: GuessedDoor,
  corrected: CorrectedDoor,
  added: AddedDoor,
  skipped: SkippedDoor,
  temperature: TemperatureDoor,
  split: SplitDoor,
  poured: PouredDoor,
  rested: RestedDoor,
  stopped: ReasonDoor,
  cut: CutDoor,
  sorted: SortedDoor,
  barWeighed: BarWeighedDoor,
  checked: CheckedDoor,
  quarantined: ReasonDoor,
  decided: DecidedDoor,
  released: ReleasedDoor,
  moved: MovedDoor,
  noted: NotedDoor,
};

/** Events taken at once. */
const MOST_EVENTS = 1000;

/** A weighing by the scale without its readability is none. */
function scaleFault(event: BatchEvent): RequestError[] {
  if (event.type !== 'added' || 'readabilityG' in event) return [];
  const isGuess = (GUESSED_HOW as readonly string[]).includes(event.how);
  return isGuess
    ? []
    : [
        {
          path: 'readabilityG',
          code: 'not-a-number',
          message: 'Give the readability of the scale, in grams.',
        },
      ];
}

function checkEvent(input: unknown, at: number): { event: BatchEvent } | { errors: RequestError[] } {
  const type = typeof input === 'object' && input !== null ? (input as { type?: unknown }).type : null;
  if (type === 'started') {
    const message = 'A batch is begun once, by POST to batches. Leave this event out.';
    return { errors: [{ path: `events.${at}.type`, code: 'not-now', message }] };
  }
  const door =
    typeof type === 'string' && Object.hasOwn(DOORS, type) ? DOORS[type as keyof typeof DOORS] : EventDoor;
  const shaped = checkShape<BatchEvent>(door, input);
  const errors = shaped.ok ? scaleFault(shaped.value) : shaped.errors;
  if (shaped.ok && errors.length === 0) return { event: shaped.value };
  return {
    errors: errors.map((error) => ({ ...error, path: `events.${at}${error.path && `.${error.path}`}` })),
  };
}

export interface EventsBody {
  after: number | null;
  events: BatchEvent[];
}

/** What came in to be written down of a batch; faults with the path to their field. */
export function checkEvents(
  input: unknown,
): { ok: true; body: EventsBody } | { ok: false; errors: RequestError[] } {
  const wrong = (path: string, code: string, message: string) => ({
    ok: false as const,
    errors: [{ path, code, message }],
  });
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    return wrong('', 'not-an-object', 'Send a JSON object.');
  const { after = null, events } = input as { after?: unknown; events?: unknown };
  if (after !== null && !(Number.isInteger(after) && (after as number) >= 0))
    return wrong(
      'after',
      'not-a-count',
      'Give the place of the last event you know as a whole number, or leave it out.',
    );
  if (!Array.isArray(events)) return wrong('events', 'not-a-list', 'Give a list of events.');
  if (events.length > MOST_EVENTS)
    return wrong('events', 'too-many', `Send at most ${MOST_EVENTS} events at once.`);
  const checked = events.map(checkEvent);
  const errors = checked.flatMap((one) => ('errors' in one ? one.errors : []));
  if (errors.length > 0) return { ok: false, errors: errors.slice(0, 200) };
  const taken = checked.flatMap((one) => ('event' in one ? [one.event] : []));
  return { ok: true, body: { after: after as number | null, events: taken } };
}
