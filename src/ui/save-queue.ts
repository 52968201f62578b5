/**
 * Saving one thing that changes under the hands: one request at a time, in order; tried again with growing pauses
 * while the application does not answer; what is not on file yet is kept aside in the browser meanwhile. Knows no
 * screen and no clock of its own.
 */

/** Something as it stands on file. */
export interface OnFile<T> {
  revision: number;
  savedAt: string;
  value: T;
}

export type SaveState<T> =
  | { state: 'saved'; at: string }
  | { state: 'waiting' }
  | { state: 'saving' }
  | { state: 'stale'; newer: OnFile<T> }
  /** Refused as it stands; the next change is sent again. */
  | { state: 'failed'; message: string }
  /** No answer, or one that says it cannot be saved just now; it is tried again by itself after a pause. */
  | { state: 'away'; againInMs: number; message: string | null };

/** What became of one request. */
export type SaveOutcome<T> =
  | { outcome: 'saved'; saved: OnFile<T> }
  | { outcome: 'stale'; newer: OnFile<T> }
  | { outcome: 'refused'; message: string }
  | { outcome: 'silent'; message: string | null };

/** What lies aside in the browser: a value that did not reach the file, and the revision it was made from. */
export interface LaidAside<T> {
  revision: number;
  at: string;
  value: T;
}

export interface Aside<T> {
  put(entry: LaidAside<T>): Promise<void>;
  drop(): Promise<void>;
}

export interface SaveSetting<T> {
  loaded: OnFile<T>;
  send: (revision: number, value: T) => Promise<SaveOutcome<T>>;
  aside: Aside<T>;
  /** Calls back after a pause; answers how to call it off. */
  after: (ms: number, call: () => void) => () => void;
  now: () => string;
  onChange: () => void;
}

/** The hands rest so long before a change is sent, and before it is laid aside. */
export const REST_MS = 500;
export const ASIDE_MS = 200;
/** Pauses between tries while the application does not answer; the last one goes on. */
export const PAUSES_MS = [1000, 2000, 4000, 8000, 15_000, 30_000] as const;

const same = (one: unknown, two: unknown) => one === two || JSON.stringify(one) === JSON.stringify(two);

export class SaveQueue<T> {
  onFile: OnFile<T>;
  state: SaveState<T>;
  private value: T;
  private savable = true;
  private running: Promise<void> | null = null;
  private tries = 0;
  /** What was sent and never answered: any of it may stand on file. */
  private unanswered: T[] = [];
  private isUrgent = false;
  private callOffRest: (() => void) | null = null;
  private callOffAside: (() => void) | null = null;

  constructor(private readonly setting: SaveSetting<T>) {
    this.onFile = setting.loaded;
    this.value = setting.loaded.value;
    this.state = { state: 'saved', at: setting.loaded.savedAt };
  }

  /** What is on the table now, and whether it may be saved as it stands. */
  set(value: T, savable: boolean): void {
    const isNew = value !== this.value;
    this.value = value;
    this.savable = savable;
    if (isNew && this.state.state === 'failed') this.tell({ state: 'waiting' });
    if (this.isOnFile()) {
      // What is under way may change what stands on file.
      if (this.running && isNew) this.layAside(ASIDE_MS);
      if (this.running || this.state.state === 'stale') return;
      this.callOffRest?.();
      if (this.state.state !== 'saved') this.tell({ state: 'saved', at: this.onFile.savedAt });
      this.dropAside();
      return;
    }
    if (isNew) this.layAside(ASIDE_MS);
    if (this.state.state === 'saved') this.tell({ state: 'waiting' });
    if (isNew || savable) this.rest(REST_MS);
  }

  /** Whether what is on the table is what stands on file, as far as that is known: what was never answered may stand there. */
  private isOnFile(): boolean {
    return this.unanswered.length === 0 && same(this.value, this.onFile.value);
  }

  private tell(state: SaveState<T>): void {
    this.state = state;
    this.setting.onChange();
  }

  private rest(ms: number): void {
    if (this.running || this.state.state === 'stale' || this.state.state === 'away') return;
    this.callOffRest?.();
    this.callOffRest = this.setting.after(ms, () => void this.run());
  }

  /** Sends whatever is unsaved, one request after the other, until nothing is or something is in the way. */
  private run(): Promise<void> {
    this.callOffRest?.();
    this.callOffRest = null;
    this.running ??= this.sendAll().finally(() => {
      this.running = null;
      this.isUrgent = false;
      if (this.state.state === 'away') {
        const { againInMs } = this.state;
        this.callOffRest = this.setting.after(againInMs, () => void this.run());
      } else if (!this.isOnFile() && this.savable && this.state.state === 'waiting') this.rest(REST_MS);
    });
    return this.running;
  }

  private async sendAll(): Promise<void> {
    let isFirst = true;
    while (!this.isOnFile() && this.savable && this.state.state !== 'stale') {
      // What changed during a request waits for the hands to rest, unless somebody waits for it.
      if (!isFirst && !this.isUrgent) return this.tell({ state: 'waiting' });
      isFirst = false;
      const sent = this.value;
      this.tell({ state: 'saving' });
      const outcome = await this.setting.send(this.onFile.revision, sent);
      if (!this.take(outcome, sent)) return;
    }
  }

  /** Takes in what became of a request; false where nothing more can be sent now. */
  private take(outcome: SaveOutcome<T>, sent: T): boolean {
    if (outcome.outcome === 'silent') {
      const againInMs = PAUSES_MS[Math.min(this.tries++, PAUSES_MS.length - 1)]!;
      this.unanswered.push(sent);
      this.layAside(0);
      this.tell({ state: 'away', againInMs, message: outcome.message });
      return false;
    }
    this.tries = 0;
    if (outcome.outcome === 'refused') {
      if (this.isOnFile()) this.dropAside();
      this.tell({ state: 'failed', message: outcome.message });
      return false;
    }
    if (outcome.outcome === 'stale' && !this.isOurs(outcome.newer, sent)) {
      this.tell({ state: 'stale', newer: outcome.newer });
      return false;
    }
    this.unanswered = [];
    this.onFile = outcome.outcome === 'saved' ? { ...outcome.saved, value: sent } : outcome.newer;
    const { savedAt } = this.onFile;
    if (this.isOnFile()) this.dropAside();
    this.tell(this.isOnFile() ? { state: 'saved', at: savedAt } : { state: 'waiting' });
    return true;
  }

  /** A save whose answer was lost is met again as "newer": it is our own. */
  private isOurs({ value }: OnFile<T>, sent: T): boolean {
    return [sent, ...this.unanswered].some((one) => same(one, value));
  }

  /** Sends what is unsaved now; true once everything is on file. However many wait, each change is sent once. */
  async flush(): Promise<boolean> {
    this.isUrgent = true;
    // What is under way may change what stands on file, also where that is what lies on the table again.
    if (this.running) {
      await this.running;
      this.isUrgent = true;
    }
    while (!this.isOnFile() && this.savable && this.state.state !== 'stale') {
      const before = this.onFile.revision;
      await this.run();
      this.isUrgent = true;
      if (this.onFile.revision === before) break;
    }
    this.isUrgent = false;
    return this.isOnFile();
  }

  /**
   * The page is left: what is unsaved is laid aside at once. Answers what to send on the way out, from the revision
   * that will stand once a request under way is taken; null where nothing is unsaved.
   */
  leave(): { revision: number; value: T } | null {
    if ((this.isOnFile() && !this.running) || this.state.state === 'stale') return null;
    this.layAside(0);
    if (!this.savable) return null;
    return { revision: this.onFile.revision + (this.running ? 1 : 0), value: this.value };
  }

  private layAside(ms: number): void {
    this.callOffAside?.();
    const put = () => {
      this.callOffAside = null;
      const { revision } = this.onFile;
      void this.setting.aside
        .put({ revision, at: this.setting.now(), value: this.value })
        .catch(() => undefined);
    };
    if (ms === 0) put();
    else this.callOffAside = this.setting.after(ms, put);
  }

  private dropAside(): void {
    this.callOffAside?.();
    this.callOffAside = null;
    void this.setting.aside.drop().catch(() => undefined);
  }

  /** The same value is on file under a new revision, because a version of it was kept. */
  moveTo(revision: number): void {
    this.onFile = { ...this.onFile, revision };
    this.setting.onChange();
  }

  /** After a stale save: carries on from the newer one, with whatever is on the table. */
  carryOnFrom(newer: OnFile<T>): void {
    this.onFile = newer;
    this.unanswered = [];
    this.tell(this.isOnFile() ? { state: 'saved', at: newer.savedAt } : { state: 'waiting' });
    if (!this.isOnFile()) this.rest(REST_MS);
  }

  /** Calls off everything that waits. */
  close(): void {
    this.callOffRest?.();
    this.callOffAside?.();
  }
}
