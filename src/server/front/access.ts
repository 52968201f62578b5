/**
 * Who may come in where other machines can reach the application: a passphrase, sessions that end, and devices of the
 * bench that can do bench work only. Kept in a file of its own beside the database, so that no backup and no archive
 * carries it. Of secrets only their hashes are kept.
 */
import { createHash, randomBytes, randomInt } from 'node:crypto';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { hash, verify } from '@node-rs/argon2';

const FILE = 'access.json';
/** A session ends after so long without a request, and in any case after so long. */
const IDLE_MS = 14 * 24 * 3_600_000;
const WHOLE_MS = 90 * 24 * 3_600_000;
/** A code for a device of the bench is good for so long, once. */
const CODE_MS = 10 * 60_000;
/** When a session was last seen is written down no more often than this. */
const SEEN_MS = 60_000;
export const SHORTEST_PASSPHRASE = 10;
export const LONGEST_PASSPHRASE = 200;

export type SessionKind = 'desk' | 'bench';

export interface Session {
  /** Its name for the list; nothing can be opened with it. */
  id: string;
  /** Hash of the secret that its cookie carries. */
  secret: string;
  kind: SessionKind;
  /** What the device says it is. */
  device: string;
  since: number;
  seen: number;
}

interface Kept {
  passphrase: string | null;
  sessions: Session[];
}

const digest = (text: string) => createHash('sha256').update(text).digest('hex');

export class Access {
  private kept: Kept;
  private readonly file: string;
  /** Codes shown on the desk, by their hash; they do not outlast the process. */
  private readonly codes = new Map<string, number>();

  constructor(
    folder: string,
    private readonly now: () => number = Date.now,
  ) {
    this.file = join(folder, FILE);
    const known = existsSync(this.file) ? (JSON.parse(readFileSync(this.file, 'utf8')) as Kept) : null;
    this.kept = known ?? { passphrase: null, sessions: [] };
  }

  private write(): void {
    writeFileSync(`${this.file}.part`, JSON.stringify(this.kept), { mode: 0o600 });
    renameSync(`${this.file}.part`, this.file);
  }

  get hasPassphrase(): boolean {
    return this.kept.passphrase !== null;
  }

  /** Sets the passphrase (argon2id); every session ends. */
  async setPassphrase(text: string): Promise<void> {
    this.kept = { passphrase: await hash(text), sessions: [] };
    this.write();
  }

  async isPassphrase(text: string): Promise<boolean> {
    const { passphrase } = this.kept;
    return passphrase !== null && text.length <= LONGEST_PASSPHRASE && (await verify(passphrase, text));
  }

  /** Begins a session; answers the secret for its cookie. */
  begin(kind: SessionKind, device: string): string {
    const secret = randomBytes(32).toString('base64url');
    const at = this.now();
    const id = randomBytes(8).toString('hex');
    this.kept.sessions.push({
      id,
      secret: digest(secret),
      kind,
      device: device.slice(0, 200),
      since: at,
      seen: at,
    });
    this.write();
    return secret;
  }

  private isLive({ since, seen }: Session): boolean {
    const at = this.now();
    return at - seen < IDLE_MS && at - since < WHOLE_MS;
  }

  /** The session of a cookie's secret, or null where it ended. */
  sessionOf(secret: string | null): Session | null {
    if (!secret) return null;
    const wanted = digest(secret);
    const session = this.kept.sessions.find((one) => one.secret === wanted);
    if (!session || !this.isLive(session)) return null;
    if (this.now() - session.seen > SEEN_MS) {
      session.seen = this.now();
      this.write();
    }
    return session;
  }

  /** Live sessions, the newest first, without their secrets. */
  sessions(): Omit<Session, 'secret'>[] {
    return this.kept.sessions
      .filter((one) => this.isLive(one))
      .map(({ secret: _, ...session }) => session)
      .sort((a, b) => b.seen - a.seen);
  }

  /** Ends a session; answers whether there was one. */
  end(id: string): boolean {
    const left = this.kept.sessions.filter((one) => one.id !== id);
    const was = left.length < this.kept.sessions.length;
    this.kept.sessions = left;
    if (was) this.write();
    return was;
  }

  endAll(): void {
    this.kept.sessions = [];
    this.write();
  }

  /** A code that lets one device of the bench in. */
  makeCode(): string {
    const code = Array.from({ length: 10 }, () => 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789'[randomInt(32)]).join('');
    this.codes.set(digest(code), this.now() + CODE_MS);
    return code;
  }

  /** Uses a code up; answers whether it was one. */
  useCode(code: string): boolean {
    const key = digest(code.trim().toUpperCase());
    const until = this.codes.get(key);
    this.codes.delete(key);
    return until !== undefined && this.now() < until;
  }
}

/** Failures after which each further one makes the next try wait twice as long. */
const FREE_FAILURES = 3;
const LONGEST_WAIT_MS = 15 * 60_000;
/** After so long without a failure, it is forgotten. */
const FORGOTTEN_MS = 24 * 3_600_000;
const MOST_KNOWN = 10_000;

/** Slows down whoever guesses: by where they come from, and all together. */
export class Slowing {
  private readonly failures = new Map<string, { count: number; last: number }>();
  constructor(private readonly now: () => number = Date.now) {}

  /** Milliseconds that whoever comes from there still has to wait; 0 for none. */
  waitMs(from: string): number {
    const known = this.failures.get(from);
    if (!known || this.now() - known.last > FORGOTTEN_MS || known.count < FREE_FAILURES) return 0;
    const wait = Math.min(LONGEST_WAIT_MS, 1000 * 2 ** (known.count - FREE_FAILURES));
    return Math.max(0, known.last + wait - this.now());
  }

  failed(from: string): void {
    if (this.failures.size >= MOST_KNOWN) this.failures.delete([...this.failures.keys()][0]!);
    const known = this.failures.get(from);
    const isOld = known && this.now() - known.last > FORGOTTEN_MS;
    this.failures.set(from, { count: (isOld ? 0 : (known?.count ?? 0)) + 1, last: this.now() });
  }

  succeeded(from: string): void {
    this.failures.delete(from);
  }
}
