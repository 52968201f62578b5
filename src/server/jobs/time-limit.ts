/** How long a job may take: a machine that is busy with other programs takes nothing from it. */

/** A job that is given little of the machine is waited for so much longer than its limit, milliseconds. */
const MOST_SLACK_MS = 5000;
const LOOK_MS = 100;

/** What the machine gave was read last, and when: reading it costs as much as a small job. */
let read = { atMs: -Infinity, givenMs: 0 };

/** The time this process was given on all cores up to a moment ago, milliseconds. */
function givenMs(): number {
  const atMs = performance.now();
  if (atMs - read.atMs >= LOOK_MS) {
    const { user, system } = process.cpuUsage();
    read = { atMs, givenMs: (user + system) / 1000 };
  }
  return read.givenMs;
}

/**
 * Whether a job has had its time: its limit has passed by the clock, and this process was given as much of the machine
 * meanwhile. `passedMs` and `givenMs` count from when it began.
 *
 * @example hadItsTime({ limitMs: 1500, passedMs: 1600, givenMs: 400 }) // false
 */
export function hadItsTime(job: { limitMs: number; passedMs: number; givenMs: number }): boolean {
  const { limitMs, passedMs } = job;
  if (passedMs < limitMs) return false;
  return job.givenMs >= limitMs || passedMs >= limitMs + MOST_SLACK_MS;
}

/** Jobs at work: what the machine gives is shared among them. */
let atWork = 0;

/** A signal that ends a job once it has had its time; `stop` when it ended by itself. */
export function timeLimit(limitMs: number): { signal: AbortSignal; stop: () => void } {
  const ending = new AbortController();
  const [startMs, startGiven] = [performance.now(), givenMs()];
  let timer: NodeJS.Timeout;
  atWork++;
  const look = () => {
    const job = {
      limitMs,
      passedMs: performance.now() - startMs,
      givenMs: (givenMs() - startGiven) / Math.max(1, atWork),
    };
    if (hadItsTime(job)) ending.abort();
    else timer = setTimeout(look, Math.max(LOOK_MS, limitMs - job.passedMs)).unref();
  };
  timer = setTimeout(look, limitMs).unref();
  return {
    signal: ending.signal,
    stop: () => {
      clearTimeout(timer);
      atWork--;
    },
  };
}
