/**
 * Whatever can take long runs on threads, so that no request stops the others: labels and PDFs, pictures, large
 * assessments, overviews of many bars. Each job has a time limit; its thread is ended when that is reached.
 */
import { availableParallelism } from 'node:os';
import { resolve } from 'node:path';
import { Piscina } from 'piscina';
import { clockMs } from '../clock';
import { JobEnded } from './ended';
import type { JobAsked, JobInput, JobName, JobOutput } from './jobs';

/** Where `scripts/workers.mjs` puts the bundled thread, seen from the folder the application runs in. */
const THREAD_FILE = 'dist/workers/jobs.mjs';
const MOST_THREADS = 4;
const LEAST_THREADS = 3;
const THREADS = Math.max(LEAST_THREADS, Math.min(MOST_THREADS, availableParallelism()));
/** Jobs of one kind at a time, and long ones of any kind together: one thread is always left for everything else. */
const MOST_ALIKE = THREADS - 1;
/** Jobs that may wait for a thread at a time. */
const MOST_WAITING = 500;
/** Memory of a thread's own objects, MB; a job that wants more is ended. */
const MOST_MEMORY_MB = 512;
/** Memory of a thread for what is soon thrown away, MB: formulas that are read and left by the thousand. */
const YOUNG_MEMORY_MB = 32;
/**
 * Usual time limit, milliseconds: many times what the largest label or sheet takes, so that a computer busy with other
 * programs ends none. What a request can make large without end has a tighter one of its own.
 */
const USUAL_LIMIT_MS = 10_000;

/** A thread that starts loads what it needs first; that is not the job's time. */
const START_MS = 20_000;
const READY_MS = 20;

let pool: Promise<Piscina> | null = null;

async function start(): Promise<Piscina> {
  const made = new Piscina({
    filename: resolve(THREAD_FILE),
    minThreads: THREADS,
    maxThreads: THREADS,
    execArgv: [],
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB, maxYoungGenerationSizeMb: YOUNG_MEMORY_MB },
  });
  const signal = AbortSignal.timeout(START_MS);
  const ready = { name: 'ready', input: READY_MS, begun: new Float64Array(1) } satisfies JobAsked<'ready'>;
  await Promise.all(Array.from({ length: THREADS }, () => made.run(ready, { signal })));
  return made;
}

/** The threads; those that could not start are tried again at the next job. */
function threads(): Promise<Piscina> {
  pool ??= start().catch((error: unknown) => {
    pool = null;
    throw error;
  });
  return pool;
}

let running = 0;
/** Running jobs by their kind; the long ones are counted together as well. */
const alike = new Map<string, number>();
const waiting: { kinds: readonly string[]; go: () => void }[] = [];
const LONG = 'long';

const kindsOf = (name: string, limitMs: number) => (limitMs > USUAL_LIMIT_MS ? [name, LONG] : [name]);
const isFree = (kinds: readonly string[]) =>
  running < THREADS && kinds.every((kind) => (alike.get(kind) ?? 0) < MOST_ALIKE);

function count(kinds: readonly string[], by: number): void {
  running += by;
  for (const kind of kinds) alike.set(kind, (alike.get(kind) ?? 0) + by);
}

/** Resolves when a thread is free for one more job of these kinds; it is counted from then. */
async function turn(kinds: readonly string[]): Promise<void> {
  if (isFree(kinds)) return count(kinds, 1);
  if (waiting.length >= MOST_WAITING) throw new JobEnded('crowd');
  await new Promise<void>((go) => waiting.push({ kinds, go }));
}

function pass(kinds: readonly string[]): void {
  count(kinds, -1);
  const at = waiting.findIndex((one) => isFree(one.kinds));
  if (at < 0) return;
  const [next] = waiting.splice(at, 1);
  count(next!.kinds, 1);
  next!.go();
}

export interface JobOptions {
  /** Time limit from the moment its code is there and it begins, by the clock, milliseconds. */
  limitMs?: number;
  /** Ends the job. */
  signal?: AbortSignal;
  /** One of many of a row, which may wait at a busy thread so that no thread waits for it. */
  ahead?: boolean;
}

function isMemory(error: unknown): boolean {
  return (error as { code?: string } | null)?.code === 'ERR_WORKER_OUT_OF_MEMORY';
}

/** Calls `end` when a job has run for its time; what waits or is being loaded has not begun. Answers how to call it off. */
function afterIts(limitMs: number, begun: Float64Array, end: () => void): () => void {
  let timer = setTimeout(function look() {
    const leftMs = begun[0] === 0 ? limitMs : begun[0]! + limitMs - clockMs();
    if (leftMs <= 0) end();
    else timer = setTimeout(look, leftMs);
  }, limitMs);
  return () => clearTimeout(timer);
}

/** Runs a job on a thread. Throws JobEnded where its limit is reached, and whatever the job itself throws. */
export async function onThread<K extends JobName>(
  name: K,
  input: JobInput<K>,
  { limitMs = USUAL_LIMIT_MS, signal, ahead = false }: JobOptions = {},
): Promise<JobOutput<K>> {
  const kinds = kindsOf(name, limitMs);
  if (!ahead) await turn(kinds);
  const limit = new AbortController();
  let callOff = () => {};
  try {
    const running = await threads();
    const begun = new Float64Array(new SharedArrayBuffer(Float64Array.BYTES_PER_ELEMENT));
    callOff = afterIts(limitMs, begun, () => limit.abort());
    const ended = signal ? AbortSignal.any([limit.signal, signal]) : limit.signal;
    return (await running.run({ name, input, begun } satisfies JobAsked<K>, {
      signal: ended,
    })) as JobOutput<K>;
  } catch (error) {
    if (limit.signal.aborted) throw new JobEnded('time');
    if (isMemory(error)) throw new JobEnded('memory');
    throw error;
  } finally {
    callOff();
    if (!ahead) pass(kinds);
  }
}

/** Ends all threads; the next job starts them anew. */
export async function endThreads(): Promise<void> {
  const ending = pool;
  pool = null;
  await (await ending)?.destroy();
}
