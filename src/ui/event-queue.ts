/**
 * What is written down of a batch on this device: kept in the browser first, then sent in order until it is on disk,
 * however often the network drops; what others write down meanwhile is taken in and told. Knows no screen and no
 * clock of its own.
 */
import type { BatchEvent } from '../core/batch/types';

/** What became of one request. */
export type EventOutcome =
  | { outcome: 'taken'; seq: number }
  /** Others were first: what they wrote since. */
  | { outcome: 'behind'; seq: number; events: BatchEvent[] }
  /** One event is refused; the others of the request were not taken either. */
  | { outcome: 'refused'; at: number; message: string }
  | { outcome: 'silent' };

export interface EventSetting {
  batch: string;
  known: BatchEvent[];
  send: (after: number, events: readonly BatchEvent[]) => Promise<EventOutcome>;
  fetchAll: () => Promise<BatchEvent[] | null>;
  /** Keeps what is not on disk yet; the queue waits for it before anything is sent. */
  keep: (events: readonly BatchEvent[]) => Promise<void>;
  after: (ms: number, call: () => void) => () => void;
  onChange: () => void;
}

export type SendState = 'sent' | 'sending' | 'away';

/** Pauses between tries while nothing answers, milliseconds; the last goes on. */
const PAUSES_MS = [500, 1000, 2000, 4000, 8000] as const;
/** Events in one request. */
const MOST_AT_ONCE = 200;

export class EventQueue {
  known: readonly BatchEvent[];
  waiting: readonly BatchEvent[] = [];
  state: SendState = 'sent';
  /** What was refused last, in words; null where nothing was. */
  refusal: string | null = null;
  /** Events of others that came in since this was opened, newest last. */
  fromOthers: readonly BatchEvent[] = [];
  private running: Promise<void> | null = null;
  private tries = 0;
  private callOff: (() => void) | null = null;
  private isClosed = false;

  constructor(private readonly setting: EventSetting) {
    this.known = setting.known;
  }

  /** Everything there is, on disk or not. */
  get all(): readonly BatchEvent[] {
    return [...this.known, ...this.waiting];
  }

  /** Takes up what an earlier visit left unsent. */
  resume(events: readonly BatchEvent[]): void {
    const ids = new Set(this.all.map(({ id }) => id));
    this.waiting = [...events.filter(({ id }) => !ids.has(id)), ...this.waiting];
    this.setting.onChange();
    void this.run();
  }

  /** Writes events down: in the browser at once, on disk as soon as it can be. */
  async write(...events: BatchEvent[]): Promise<void> {
    this.waiting = [...this.waiting, ...events];
    this.refusal = null;
    this.setting.onChange();
    await this.setting.keep(this.waiting).catch(() => undefined);
    await this.run();
  }

  /** Others have written something down: fetches it, unless it is known. */
  async news(seq: number): Promise<void> {
    if (seq <= this.known.length || this.running) return;
    const all = await this.setting.fetchAll();
    if (all && !this.isClosed) this.takeIn(all.slice(this.known.length));
  }

  /** Tries at once instead of after the pause. */
  retry(): void {
    this.callOff?.();
    this.callOff = null;
    void this.run();
  }

  close(): void {
    this.isClosed = true;
    this.callOff?.();
  }

  private takeIn(events: readonly BatchEvent[]): void {
    const own = new Set(this.waiting.map(({ id }) => id));
    const ids = new Set(this.known.map(({ id }) => id));
    const fresh = events.filter(({ id }) => !ids.has(id));
    this.known = [...this.known, ...fresh];
    this.fromOthers = [...this.fromOthers, ...fresh.filter(({ id }) => !own.has(id))];
    const taken = new Set(this.known.map(({ id }) => id));
    this.waiting = this.waiting.filter(({ id }) => !taken.has(id));
    this.setting.onChange();
  }

  private run(): Promise<void> {
    if (this.isClosed) return Promise.resolve();
    this.running ??= this.sendAll().finally(() => {
      this.running = null;
      this.setting.onChange();
    });
    return this.running;
  }

  private async sendAll(): Promise<void> {
    while (this.waiting.length > 0) {
      this.tell('sending');
      const sent = this.waiting.slice(0, MOST_AT_ONCE);
      const outcome = await this.setting.send(this.known.length, sent);
      if (outcome.outcome === 'silent') {
        const pause = PAUSES_MS[Math.min(this.tries++, PAUSES_MS.length - 1)]!;
        this.callOff = this.setting.after(pause, () => void this.run());
        return this.tell('away');
      }
      this.tries = 0;
      if (outcome.outcome === 'behind') this.takeIn(outcome.events);
      else if (outcome.outcome === 'refused') this.drop(outcome.at, outcome.message);
      else await this.taken(outcome.seq, sent);
      await this.setting.keep(this.waiting).catch(() => undefined);
    }
    this.tell('sent');
  }

  /** What was sent is on disk; where the application added something of its own, all of it is fetched. */
  private async taken(seq: number, sent: readonly BatchEvent[]): Promise<void> {
    const isWhole = seq === this.known.length + sent.length;
    const all = isWhole ? null : await this.setting.fetchAll();
    if (all) return this.takeIn(all.slice(this.known.length));
    this.known = [...this.known, ...sent];
    this.waiting = this.waiting.slice(sent.length);
  }

  private drop(at: number, message: string): void {
    this.waiting = this.waiting.filter((_, place) => place !== at);
    this.refusal = message;
    this.setting.onChange();
  }

  private tell(state: SendState): void {
    this.state = state;
    this.setting.onChange();
  }
}
