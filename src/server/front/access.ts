/**
 * Who may come in where other machines can reach the application: a passphrase, sessions that end, and devices of the
 * bench that can do bench work only. Kept in a file of its own beside the database, so that no backup and no archive
 * carries it. Of secrets only their hashes are kept.
 */
import { createHash, randomBytes, randomInt } from 'node:crypto';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { hash, verify } from '@node-rs/argon2';
import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible';

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

  constructor(folder: string) {
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
    const at = Date.now();
    const id = randomBytes(8).toString('hex');
    this.kept.sessions = this.kept.sessions.filter((one) => this.isLive(one));
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
    const at = Date.now();
    return at - seen < IDLE_MS && at - since < WHOLE_MS;
  }

  /** The session of a cookie's secret, or null where it ended. */
  sessionOf(secret: string | null): Session | null {
    if (!secret) return null;
    const wanted = digest(secret);
    const session = this.kept.sessions.find((one) => one.secret === wanted);
    if (!session || !this.isLive(session)) return null;
    const at = Date.now();
    // One that began while the clock was ahead would otherwise last for as much longer.
    if (session.since > at) session.since = at;
    if (Math.abs(at - session.seen) > SEEN_MS) {
      session.seen = at;
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
    this.codes.set(digest(code), Date.now());
    return code;
  }

  /** Uses a code up; answers whether it was one. */
  useCode(code: string): boolean {
    const key = digest(code.trim().toUpperCase());
    const ageMs = Date.now() - (this.codes.get(key) ?? -Infinity);
    this.codes.delete(key);
    // A clock set back ends a code rather than keep it alive.
    return ageMs >= 0 && ageMs < CODE_MS;
  }
}

/** Tries before each further one has to wait, twice as long as the one before. */
const FREE_TRIES = 3;
const LONGEST_WAIT_S = 15 * 60;
/** After so long without a try, they are forgotten. */
const FORGOTTEN_S = 24 * 3600;
/** Tries from everywhere together, a minute. */
const ALL_A_MINUTE = 40;

/** Slows down whoever guesses: by where they come from, and all together. Each try counts before it is looked at. */
export class Slowing {
  private readonly tries = new RateLimiterMemory({ points: 1, duration: FORGOTTEN_S });
  /** One try passes; it stays shut for as long as that one says. */
  private readonly door = new RateLimiterMemory({ keyPrefix: 'door', points: 1, duration: 1 });
  private readonly all = new RateLimiterMemory({ keyPrefix: 'all', points: ALL_A_MINUTE, duration: 60 });

  /** Counts a try. Milliseconds that it has to wait instead of being looked at; 0 for none. */
  async count(from: string): Promise<number> {
    const { consumedPoints } = await this.tries.penalty(from);
    const doublings = consumedPoints - FREE_TRIES;
    try {
      if (doublings >= 0) {
        const customDuration = Math.min(LONGEST_WAIT_S, 2 ** doublings);
        await this.door.consume(from, 1, { customDuration });
      }
      await this.all.consume('all');
      return 0;
    } catch (shut) {
      // What was not looked at is no try.
      await this.tries.reward(from);
      return Math.max(1, (shut as RateLimiterRes).msBeforeNext);
    }
  }

  async succeeded(from: string): Promise<void> {
    await Promise.all([this.tries.delete(from), this.door.delete(from)]);
  }
}
