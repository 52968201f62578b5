/**
 * What is written down of a batch on this device: kept in the browser first, then sent in order until it is on disk,
 * however often the network drops; what others write down meanwhile is taken in and told. Nothing is ever dropped: an
 * event that the application refuses is set aside until a person has decided. Knows no screen and no clock of its own.
 */
import type { BatchEvent } from '../core/batch/types';

/** What became of one request. */
export type EventOutcome =
  | { outcome: 'taken'; seq: number }
  /** Others were first: what they wrote since. */
  | { outcome: 'behind'; seq: number; events: BatchEvent[] }
  /** The file holds fewer events than this device knows: it went back to a backup. */
  | { outcome: 'ahead' }
  /** One event is refused; the others of the request were not taken either. */
  | { outcome: 'refused'; at: number; code: string; message: string }
  /** Nothing was said of any event: it is sent again. `why` says what stands in the way; null for no answer. */
  | { outcome: 'silent'; why: string | null };

/** An event that was not taken, and why, until somebody decides. */
export interface SetAside {
  event: BatchEvent;
  code: string;
  message: string;
}

/** What of this device is not on file. */
export interface Unsent {
  waiting: readonly BatchEvent[];
  aside: readonly SetAside[];
}

export interface EventSetting {
  batch: string;
  known: BatchEvent[];
  send: (after: number, events: readonly BatchEvent[]) => Promise<EventOutcome>;
  fetchAll: () => Promise<BatchEvent[] | null>;
  /** Keeps what is not on file yet, and lets go what is; the queue waits for it before anything is sent. */
  keep: (unsent: Unsent, gone: readonly string[]) => Promise<void>;
  after: (ms: number, call: () => void) => () => void;
  onChange: () => void;
}

export type SendState = 'sent' | 'sending' | 'away';

/** Pauses between tries while nothing answers, milliseconds; the last goes on. */
const PAUSES_MS = [500, 1000, 2000, 4000, 8000] as const;
/** Events in one request. */
const MOST_AT_ONCE = 200;
/** Code of what was on file until it went back to a backup. */
export const LOST_CODE = 'lost';
const LOST = 'It was on file until the application went back to a backup from before.';

export class EventQueue {
  known: readonly BatchEvent[];
  waiting: readonly BatchEvent[] = [];
  aside: readonly SetAside[] = [];
  state: SendState = 'sent';
  /** What stands in the way of sending, in words; null where nothing was said. */
  why: string | null = null;
  /** Events of others that came in since this was opened, newest last. */
  fromOthers: readonly BatchEvent[] = [];
  private running: Promise<void> | null = null;
  private tries = 0;
  /** Place of the newest event that was heard of. */
  private heardOf = 0;
  private callOff: (() => void) | null = null;
  private isClosed = false;

  constructor(private readonly setting: EventSetting) {
    this.known = setting.known;
  }

  /** Everything that counts, on disk or not; what is set aside does not. */
  get all(): readonly BatchEvent[] {
    return [...this.known, ...this.waiting];
  }

  /** Takes up what an earlier visit left unsent, and what it left undecided. */
  resume({ waiting, aside }: Unsent): void {
    const ids = new Set([...this.all, ...this.aside.map(({ event }) => event)].map(({ id }) => id));
    this.waiting = [...waiting.filter(({ id }) => !ids.has(id)), ...this.waiting];
    this.aside = [...aside.filter(({ event }) => !ids.has(event.id)), ...this.aside];
    this.setting.onChange();
    void this.run();
  }

  /** Takes up what was known at an earlier visit, where the page was loaded with less and nobody answers. */
  learn(events: readonly BatchEvent[]): void {
    if (events.length <= this.known.length) return;
    const ids = new Set(events.map(({ id }) => id));
    this.known = events;
    this.waiting = this.waiting.filter(({ id }) => !ids.has(id));
    this.setting.onChange();
  }

  /** Writes events down: in the browser at once, on disk as soon as it can be. */
  async write(...events: BatchEvent[]): Promise<void> {
    this.waiting = [...this.waiting, ...events];
    this.setting.onChange();
    await this.keep();
    await this.run();
  }

  /**
   * Decides on what was set aside: `instead` is written down in its place, the event as it was or changed, or a note
   * that it was left out.
   */
  async decide(id: string, instead: BatchEvent): Promise<void> {
    this.aside = this.aside.filter(({ event }) => event.id !== id);
    this.waiting = [...this.waiting, instead];
    this.setting.onChange();
    await this.keep(instead.id === id ? [] : [id]);
    await this.run();
  }

  /** Others have written something down: fetches it, unless it is known; while something is sent, after that. */
  async news(seq: number): Promise<void> {
    this.heardOf = Math.max(this.heardOf, seq);
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

  private keep(gone: readonly string[] = []): Promise<void> {
    const { waiting, aside } = this;
    return this.setting.keep({ waiting, aside }, gone).catch(() => undefined);
  }

  private takeIn(events: readonly BatchEvent[]): void {
    const own = new Set(this.waiting.map(({ id }) => id));
    const ids = new Set(this.known.map(({ id }) => id));
    const fresh = events.filter(({ id }) => !ids.has(id));
    this.known = [...this.known, ...fresh];
    this.fromOthers = [...this.fromOthers, ...fresh.filter(({ id }) => !own.has(id))];
    const taken = new Set(this.known.map(({ id }) => id));
    this.waiting = this.waiting.filter(({ id }) => !taken.has(id));
    this.aside = this.aside.filter(({ event }) => !taken.has(event.id));
    this.setting.onChange();
  }

  private run(): Promise<void> {
    if (this.isClosed) return Promise.resolve();
    this.running ??= this.sendAll().finally(() => {
      this.running = null;
      this.setting.onChange();
      if (this.heardOf > this.known.length && this.state === 'sent') void this.news(this.heardOf);
    });
    return this.running;
  }

  private async sendAll(): Promise<void> {
    while (this.waiting.length > 0) {
      this.tell('sending');
      const before = this.waiting;
      const sent = before.slice(0, MOST_AT_ONCE);
      const outcome = await this.setting.send(this.known.length, sent);
      const isDone = outcome.outcome !== 'silent' && (await this.settle(outcome, sent));
      if (!isDone) {
        this.why = outcome.outcome === 'silent' ? outcome.why : null;
        const pause = PAUSES_MS[Math.min(this.tries++, PAUSES_MS.length - 1)]!;
        this.callOff = this.setting.after(pause, () => void this.run());
        return this.tell('away');
      }
      this.tries = 0;
      this.why = null;
      const left = new Set([...this.waiting, ...this.aside.map(({ event }) => event)].map(({ id }) => id));
      await this.keep(before.map(({ id }) => id).filter((id) => !left.has(id)));
    }
    this.tell('sent');
  }

  /** Takes an answer; false where the way on could not be found yet. */
  private async settle(
    outcome: Exclude<EventOutcome, { outcome: 'silent' }>,
    sent: readonly BatchEvent[],
  ): Promise<boolean> {
    if (outcome.outcome === 'behind') this.takeIn(outcome.events);
    else if (outcome.outcome === 'refused') this.setAside(sent[outcome.at]!, outcome.code, outcome.message);
    else if (outcome.outcome === 'ahead') return this.fallBack();
    else await this.taken(outcome.seq, sent);
    return true;
  }

  /** What was sent is on disk; where the application added something of its own, all of it is fetched. */
  private async taken(seq: number, sent: readonly BatchEvent[]): Promise<void> {
    const isWhole = seq === this.known.length + sent.length;
    const all = isWhole ? null : await this.setting.fetchAll();
    if (all) return this.takeIn(all.slice(this.known.length));
    this.known = [...this.known, ...sent];
    this.waiting = this.waiting.slice(sent.length);
  }

  /** The file went back: what it holds now counts, and what it no longer holds is asked about. */
  private async fallBack(): Promise<boolean> {
    const all = await this.setting.fetchAll();
    if (!all) return false;
    const here = new Set(all.map(({ id }) => id));
    const lost = this.known.filter(({ id, type }) => !here.has(id) && type !== 'started');
    this.known = all;
    const put = lost.map((event) => ({ event, code: LOST_CODE, message: LOST }));
    this.aside = [...this.aside, ...put];
    this.setting.onChange();
    return true;
  }

  private setAside(event: BatchEvent, code: string, message: string): void {
    this.waiting = this.waiting.filter(({ id }) => id !== event.id);
    this.aside = [...this.aside, { event, code, message }];
    this.setting.onChange();
  }

  private tell(state: SendState): void {
    this.state = state;
    this.setting.onChange();
  }
}
