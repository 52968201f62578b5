/** Which backups are kept as they grow old: ever fewer, never none. Pure. */

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;

/** For so long, the newest of every such span is kept. */
const CLASSES: readonly { spanMs: number; forMs: number }[] = [
  { spanMs: HOUR_MS, forMs: DAY_MS },
  { spanMs: DAY_MS, forMs: 14 * DAY_MS },
  { spanMs: 7 * DAY_MS, forMs: 70 * DAY_MS },
  { spanMs: 30 * DAY_MS, forMs: 1100 * DAY_MS },
];

/**
 * The moments (ISO 8601) whose backups are kept at a moment: one an hour for a day, one a day for two weeks, one a
 * week for ten, one a month for three years, and the newest whatever its age. Those from the future are kept.
 *
 * @example keptByAge(['2026-11-24T07:10:00Z', '2026-11-24T07:50:00Z'], '2026-11-24T08:00:00Z').size // 1
 */
export function keptByAge(moments: readonly string[], now: string): ReadonlySet<string> {
  const newestFirst = [...moments].sort((a, b) => Date.parse(b) - Date.parse(a));
  const kept = new Set(newestFirst.slice(0, 1));
  const nowMs = Date.parse(now);
  for (const { spanMs, forMs } of CLASSES) {
    const taken = new Set<number>();
    for (const moment of newestFirst) {
      const ms = Date.parse(moment);
      if (nowMs - ms > forMs) continue;
      const span = Math.floor(ms / spanMs);
      if (ms <= nowMs && taken.has(span)) continue;
      taken.add(span);
      kept.add(moment);
    }
  }
  return kept;
}

/** Whether a backup (ISO 8601) was made while the clock was ahead of what it says now. */
export const isAhead = (at: string, now: string): boolean => Date.parse(at) > Date.parse(now);

/** The newest backups are kept whatever room they take. */
const NEWEST_KEPT = 3;

interface Kept {
  at: string;
  bytes: number;
}

/**
 * Which backups go so that the rest take at most so many bytes: first those nearest to a newer one for their age, so that
 * what is left still reaches as far back; never the newest three, the oldest last. Those made while the clock was ahead
 * go before all others, since nobody knows how old they are. ISO 8601; bytes.
 *
 * @example overRoom([{ at: '2026-11-24T07:00:00Z', bytes: 10 }], 5, '2026-11-24T08:00:00Z').length // 0
 */
export function overRoom<T extends Kept>(backups: readonly T[], mostBytes: number, now: string): T[] {
  const newestFirst = [...backups].sort((a, b) => Date.parse(b.at) - Date.parse(a.at));
  const ahead = newestFirst.filter(({ at }) => isAhead(at, now));
  const rest = newestFirst.slice(ahead.length);
  const gone: T[] = [];
  let bytes = newestFirst.reduce((sum, one) => sum + one.bytes, 0);
  while (bytes > mostBytes && ahead.length > 0 && rest.length + ahead.length > NEWEST_KEPT) {
    const first = ahead.shift()!;
    gone.push(first);
    bytes -= first.bytes;
  }
  while (bytes > mostBytes && rest.length > NEWEST_KEPT) {
    let [least, place] = [Infinity, NEWEST_KEPT];
    // The oldest goes last of all.
    for (let at = NEWEST_KEPT; at < Math.max(NEWEST_KEPT + 1, rest.length - 1); at++) {
      const [newer, here] = [Date.parse(rest[at - 1]!.at), Date.parse(rest[at]!.at)];
      const apart = (newer - here) / Math.max(1, Date.parse(now) - here);
      if (apart < least) [least, place] = [apart, at];
    }
    const [dropped] = rest.splice(place, 1);
    gone.push(dropped!);
    bytes -= dropped!.bytes;
  }
  return gone;
}

/** Without a good backup for so long while something changed, it is said. */
export const OLD_AFTER_DAYS = 2;

/**
 * Whether the newest good backup is too old; `lastGood` null where there is none.
 *
 * @example isBackupOld(null, '2026-11-24T08:00:00Z') // true
 */
export function isBackupOld(lastGood: string | null, now: string): boolean {
  return lastGood === null || Date.parse(now) - Date.parse(lastGood) > OLD_AFTER_DAYS * DAY_MS;
}
