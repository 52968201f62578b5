/** What a device that was let in by a code may do: what the bench does, and nothing else. Pure. */
import { CUT_CHECK } from '../../core/curing/window';
import { RESCUED_CHECK, SCALED_CHECK, type BatchEvent, type EventType } from '../../core/batch/types';

const ID = '[^/]+';
const path = (text: string) => new RegExp(`^${text.replaceAll('ID', ID)}/?$`);

/** Pages of the bench: choosing a bar and pouring, the run sheet, cutting and weighing for the cure. */
const PAGES = ['/pour', '/pour/ID', '/pour/ID/sheet', '/rack/ID/weigh', '/rack/ID/cut'].map(path);
/** Pages below /pour that are the desk's. */
const DESK_PAGES = [path('/pour/trace')];

const READS = [
  '/api/v1/access',
  '/api/v1/batches',
  '/api/v1/batches/ID',
  '/api/v1/batches/ID/(?:assessment|cure|follow|lots|next-bar|rescue|twin)',
  '/api/v1/batches/ID/photos',
  '/api/v1/batches/ID/photos/ID',
  '/api/v1/scale/readings',
  '/api/v1/thermometer',
  '/api/v1/moulds',
  '/api/v1/moulds/ID/warmth',
].map(path);

const WRITES = [
  '/api/v1/assess',
  '/api/v1/batches',
  '/api/v1/batches/plan',
  '/api/v1/batches/ID/(?:events|lots|photos)',
  '/api/v1/scale/stand-in',
  '/api/v1/thermometer/stand-in',
].map(path);

/** What a device of the bench is told about everything else. */
export const BENCH_ONLY = 'This device was let in for the bench. Everything else is done at the desk.';

const some = (all: readonly RegExp[], at: string) => all.some((one) => one.test(at));

/** Whether a device of the bench may open an address by a method. */
export function isOfBench(method: string, at: string): boolean {
  if (method === 'GET' || method === 'HEAD')
    return (some(PAGES, at) && !some(DESK_PAGES, at)) || some(READS, at);
  return method === 'POST' && some(WRITES, at);
}

/** Every type of event, and whether hands at the bench write it down. */
const BENCH_EVENTS: Record<EventType, boolean> = {
  started: false,
  stepDone: true,
  stepUndone: true,
  weighed: true,
  guessed: true,
  corrected: true,
  added: true,
  skipped: true,
  temperature: true,
  split: true,
  poured: true,
  rested: true,
  stopped: true,
  cut: true,
  sorted: false,
  barWeighed: true,
  checked: false,
  quarantined: false,
  decided: false,
  released: false,
  moved: false,
  noted: true,
};

/**
 * Whether a device of the bench may write an event down: pouring, cutting, scaling the day, how the cut went and putting it off, weighing
 * for the cure, warmth and notes; nothing that decides, releases or moves bars.
 */
export function isBenchEvent(event: BatchEvent): boolean {
  if (event.type === 'checked') return [CUT_CHECK, SCALED_CHECK, RESCUED_CHECK].includes(event.check);
  return BENCH_EVENTS[event.type];
}
