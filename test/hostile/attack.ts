/** Changed and hostile requests against a running application, with the health address asked all the while. */
import { doors, type Door } from './doors';

export interface Report {
  requests: number;
  byStatus: Record<string, number>;
  /** Answers of 500 and above, and requests that were not answered, with what was asked. */
  broken: string[];
  /** Milliseconds, and what took them. */
  slowest: { ms: number; asked: string };
  slow: string[];
  /** The health address, every so often: with nothing else asked, and all the while. */
  idleHealth: Spread;
  health: Spread;
}

/** Half, 99 of 100, and all of the answers came within so many milliseconds. */
export interface Spread {
  halfMs: number;
  mostMs: number;
  allMs: number;
}

function spread(times: readonly number[]): Spread {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share: number) =>
    Math.round(sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!);
  return { halfMs: at(0.5), mostMs: at(0.99), allMs: at(1) };
}

/** Nothing may take longer, milliseconds. */
export const SLOW_MS = 2000;
const HEALTH_EVERY_MS = 50;
const GIVEN_UP_MS = 30_000;

type Random = () => number;

/** A repeatable source of chance (mulberry32). */
export function chance(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

const pick = <T>(random: Random, items: readonly T[]): T => items[Math.floor(random() * items.length)]!;

/** Values that have broken things: odd kinds, odd sizes, odd letters. Long ones are made when they are drawn. */
const ODD: readonly (() => unknown)[] = [
  ...[null, '', 'soap', ' ', -1, 0, 1e308, -1e308, 1e-308, 0.1, true, false, [], {}, [null], [[]], [{}]].map(
    (value) => () => value,
  ),
  ...['\u0000', '\ud800', '\u202e', '🧼', '../..', '<b onload=x>', '=1+1', '%', '\n\n\n', '__proto__'].map(
    (value) => () => value,
  ),
  () => 'x'.repeat(2000),
  () => 'word '.repeat(400),
  () => 'a '.repeat(1000),
  () => 'x'.repeat(200_000),
  () => 'Ж'.repeat(5000),
  () => '\n'.repeat(50_000),
  () => Array.from({ length: 340_000 }, () => ({})),
  () => Array.from({ length: 500 }, (_, index) => index),
  () => Array.from({ length: 150_000 }, () => 'EU'),
  () => Array.from({ length: 3000 }, () => ({ id: 'x', material: 'olive', name: 'x', parts: 1 })),
  () => Object.fromEntries(Array.from({ length: 20_000 }, (_, index) => [`k${index}`, index])),
  () => ({ constructor: 1 }),
  () => JSON.parse('{"__proto__":{"polluted":1}}') as unknown,
  () => JSON.parse('{"a":'.repeat(200) + '1' + '}'.repeat(200)) as unknown,
  () => '2026-02-30',
  () => '.. '.repeat(20),
  () => Number.MAX_SAFE_INTEGER,
];

/** Places looked at within one value; enough to reach every field of a sound body. */
const MOST_CHILDREN = 40;

function places(value: unknown, path: string[] = []): string[][] {
  if (typeof value !== 'object' || value === null) return [path];
  const children = Object.entries(value).slice(0, MOST_CHILDREN);
  return [path, ...children.flatMap(([key, child]) => places(child, [...path, key]))];
}

function bent(value: unknown, [key, ...rest]: readonly string[], odd: unknown): unknown {
  if (key === undefined) return odd;
  const copy = (Array.isArray(value) ? [...(value as unknown[])] : { ...(value as object) }) as Record<
    string,
    unknown
  >;
  if (rest.length === 0 && odd === undefined) delete copy[key];
  else copy[key] = bent(copy[key], rest, odd);
  return copy;
}

/** A body bent in one to three places, sometimes with a field more or less. */
function bentBody(body: unknown, random: Random): unknown {
  let made = body;
  for (let count = 1 + Math.floor(random() * 3); count > 0; count--) {
    const path = pick(random, places(made));
    const way = random();
    if (way < 0.15) made = bent(made, path, undefined) ?? null;
    else if (way < 0.25)
      made = bent(made, [...path, pick(random, ['extra', 'constructor', 'id', '0'])], pick(random, ODD)());
    else made = bent(made, path, pick(random, ODD)());
  }
  return made;
}

const PIXELS =
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';

/** A picture's bytes, damaged in one place or another. */
function picture(random: Random): { type: string; body: BodyInit } {
  if (random() < 0.5) {
    const bytes = Buffer.from(PIXELS, 'base64');
    bytes[Math.floor(random() * bytes.length)] = Math.floor(random() * 256);
    return { type: 'image/png', body: bytes as unknown as BodyInit };
  }
  const shapes = '<rect width="9" height="9" fill="url(#g)" clip-path="url(#c)"/>'.repeat(
    Math.floor(random() * 5000),
  );
  const defs =
    '<defs><linearGradient id="g" spreadMethod="repeat" x2="0.0001"><stop offset="0"/><stop offset="1"/></linearGradient><clipPath id="c" clip-path="url(#c)"><rect width="5" height="5"/></clipPath></defs>';
  return { type: 'image/svg+xml', body: `<svg viewBox="0 0 9 9">${defs}${shapes}</svg>` };
}

const IDS = [
  '..%2f..%2fetc%2fpasswd',
  '%00',
  '__proto__',
  'constructor',
  'x'.repeat(3000),
  '%E0%A4%A',
  '%F0%9F%A7%BC',
];
const METHODS = ['GET', 'POST', 'PUT', 'DELETE', 'PATCH', 'OPTIONS', 'HEAD'];
const QUERIES = [
  '?q=%00',
  `?q=${'x'.repeat(3000)}`,
  '?page=1e9',
  '?find=%25_%25',
  '?market=MOON&as=exe',
  '?ids=,,,__proto__',
];

interface Made {
  path: string;
  init: RequestInit;
}

/** One hostile request made from a door. */
function hostile(door: Door, random: Random): Made {
  let { method, path } = door;
  const way = random();
  if (way < 0.06) method = pick(random, METHODS);
  if (way > 0.94) {
    const parts = path.split('/');
    parts[Math.floor(random() * parts.length)] = pick(random, IDS);
    path = parts.join('/');
  } else if (way > 0.88) path = path.split('?')[0]! + pick(random, QUERIES);
  const init: RequestInit = { method };
  if (method === 'GET' || method === 'HEAD') return { path, init };
  if (path.startsWith('logo')) {
    const { type, body } = picture(random);
    return { path, init: { ...init, body, headers: { 'content-type': type } } };
  }
  const raw = random();
  const text =
    raw < 0.03
      ? '{"a":'
      : raw < 0.05
        ? '"soap"'
        : raw < 0.06
          ? `{"x":"${'y'.repeat(1024 * 1024)}"}`
          : JSON.stringify(door.body === undefined ? {} : bentBody(door.body, random));
  const type = random() < 0.02 ? 'text/plain' : 'application/json';
  const headers: Record<string, string> = { 'content-type': type };
  if (random() < 0.1) headers['idempotency-key'] = pick(random, ['a', 'b', 'x y', 'k'.repeat(200)]);
  return { path, init: { ...init, body: text, headers } };
}

/** Asks the health address again and again while work goes on; answers how long each took, milliseconds. */
async function watchingHealth(url: string, work: Promise<unknown>): Promise<number[]> {
  let isDone = false;
  void work.finally(() => (isDone = true));
  const times: number[] = [];
  while (!isDone) {
    const start = performance.now();
    await fetch(`${url}/api/v1/health`).then((answer) => answer.arrayBuffer());
    times.push(performance.now() - start);
    await new Promise((resolve) => setTimeout(resolve, HEALTH_EVERY_MS));
  }
  return times;
}

/** How long the health address is asked alone before the attack, milliseconds. */
const IDLE_MS = 3000;

/** Requests are made so many at a time before any of them is sent, so that making them slows no answer down. */
const BATCH = 60;

async function sendOne(url: string, { path, init }: Made, report: Report): Promise<void> {
  const asked = `${init.method} ${path.slice(0, 120)} ${String(init.body ?? '').slice(0, 400)}`;
  const start = performance.now();
  const status = await fetch(`${url}/api/v1/${path}`, {
    ...init,
    signal: AbortSignal.timeout(GIVEN_UP_MS),
  }).then(
    async (answer) => {
      // A stream has no end to wait for.
      const isStream = answer.headers.get('content-type')?.startsWith('text/event-stream');
      await (isStream ? answer.body?.cancel() : answer.arrayBuffer());
      return answer.status;
    },
    (error: Error) => `none: ${error.message}`,
  );
  const ms = performance.now() - start;
  report.requests++;
  report.byStatus[status] = (report.byStatus[status] ?? 0) + 1;
  if (typeof status === 'string' || status >= 500) report.broken.push(`${status} ${asked}`);
  if (ms > report.slowest.ms) report.slowest = { ms: Math.round(ms), asked: asked.slice(0, 200) };
  if (ms > SLOW_MS) report.slow.push(`${Math.round(ms)} ms ${asked}`);
}

/** Sends so many hostile requests, a few at a time, over all doors by turns. */
export async function attack(url: string, count: number, seed: number, atOnce = 4): Promise<Report> {
  const read = async (path: string) =>
    (await (await fetch(`${url}/api/v1/${path}`)).json()) as Record<string, unknown>;
  const all = await doors(read);
  const random = chance(seed);
  const report: Report = {
    requests: 0,
    byStatus: {},
    broken: [],
    slowest: { ms: 0, asked: '' },
    slow: [],
    idleHealth: spread(await watchingHealth(url, new Promise((resolve) => setTimeout(resolve, IDLE_MS)))),
    health: spread([0]),
  };
  const health: number[] = [];
  for (let made = 0; made < count;) {
    const batch = Array.from({ length: Math.min(BATCH, count - made) }, () =>
      hostile(all[made++ % all.length]!, random),
    );
    const sending = Promise.all(
      Array.from({ length: atOnce }, async () => {
        for (let next = batch.pop(); next; next = batch.pop()) await sendOne(url, next, report);
      }),
    );
    health.push(...(await watchingHealth(url, sending)));
  }
  return { ...report, health: spread(health) };
}
