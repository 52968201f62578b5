/**
 * `npm run soak -- MINUTES CLIENTS`: clients that go over every screen and reading address of a server of its own, and
 * one that writes. Tells every minute what the server holds, and the main thread's heap after it was swept.
 */
import { spawn } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import type { Formula } from '../../src/core/formula/types';
import { seedOnce, seededFolder, FIXED_DAY } from '../support/seeded';

const MINUTES = Number(process.argv[2] ?? 5);
const CLIENTS = Number(process.argv[3] ?? 5);
const PORT = Number(process.env.PORT ?? 4399);
const MB = 1024 * 1024;
/** Time between two requests of one client, so that the machine is free for others too. Milliseconds. */
const BREATH_MS = Number(process.env.SOAK_BREATH_MS ?? 200);

const READ = [
  ...[
    '/',
    '/bars/night-mail',
    '/compare?bars=night-mail',
    '/cupboard',
    '/cupboard/papers',
    '/cupboard/shelf',
  ],
  ...[
    '/scent',
    '/wrap',
    '/wrap/night-mail',
    '/wrap/spool',
    '/wrap/maker',
    '/pour',
    '/pour/trace',
    '/pour/scale',
  ],
  ...[
    '/pour/nm-260930/record',
    '/pour/nm-260930/sheet',
    '/rack',
    '/rack/nm-260930',
    '/rack/next',
    '/rack/out',
  ],
  ...['/rack/calendar', '/watch', '/rulebook', '/house', '/house/import', '/house/licences', '/bars/sheets'],
  ...[
    '/api/v1/range',
    '/api/v1/range/days',
    '/api/v1/rack',
    '/api/v1/next',
    '/api/v1/attention',
    '/api/v1/ahead',
  ],
  ...['/api/v1/search?q=citral', '/api/v1/installation', '/api/v1/products/night-mail/wrap', '/api/v1/inbox'],
  ...[
    '/api/v1/products/night-mail/label?market=EU&as=svg',
    '/api/v1/batches/nm-260930',
    '/api/v1/rack/calendar',
  ],
];

const unseed = seedOnce();
const folder = seededFolder();
const server = spawn(
  process.execPath,
  [
    '--expose-gc',
    '--heapsnapshot-signal=SIGUSR2',
    '--import',
    './test/hostile/probe.mjs',
    'dist/server/serve.mjs',
  ],
  {
    env: {
      ...process.env,
      PROPORTIA_DATA: folder,
      PROPORTIA_TODAY: FIXED_DAY,
      PROPORTIA_ZONE: 'UTC',
      HOST: '127.0.0.1',
      PORT: String(PORT),
    },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  },
);
const url = `http://127.0.0.1:${PORT}`;
const isUp = () =>
  fetch(`${url}/api/v1/health`).then(
    (answer) => answer.ok,
    () => false,
  );
while (!(await isUp())) await wait(200);

const answers = new Map<number, number>();
const broken: string[] = [];
const ends = Date.now() + MINUTES * 60_000;

async function ask(path: string, init?: RequestInit): Promise<string> {
  const answer = await fetch(url + path, init);
  const text = await answer.text();
  answers.set(answer.status, (answers.get(answer.status) ?? 0) + 1);
  if (answer.status >= 400) broken.push(`${new Date().toISOString()} ${answer.status} ${path}`);
  return text;
}

async function read(client: number): Promise<void> {
  for (let at = client * 7; Date.now() < ends; at++) {
    await ask(READ[at % READ.length]!);
    await wait(BREATH_MS);
  }
}

/** Changes one amount of a bar again and again, so that verdicts are made anew. */
async function write(): Promise<void> {
  const found = await fetch(`${url}/api/v1/products/lamp-room`);
  let { version } = (await found.json()) as { version: { revision: number; formula: Formula } };
  for (let turn = 1; Date.now() < ends; turn++) {
    const { revision, formula } = version;
    const lines = formula.lines.map((line) =>
      line.amount.unit === '%fats'
        ? { ...line, amount: { ...line.amount, value: 1 + (turn % 100) / 1000 } }
        : line,
    );
    const kept = await ask('/api/v1/products/lamp-room/formula', {
      method: 'PUT',
      headers: { 'content-type': 'application/json', origin: url },
      body: JSON.stringify({ revision, formula: { ...formula, lines } }),
    });
    const answer = JSON.parse(kept) as { version?: typeof version; stale?: typeof version };
    if (!answer.version) broken.push(`${new Date().toISOString()} not saved: ${kept}`);
    version = answer.version ?? answer.stale ?? version;
    await wait(BREATH_MS * 5);
  }
}

/** What the server holds, MB: all of it, and its main thread's heap after a sweep. */
function held(): Promise<{ rss: number; heap: number; external: number }> {
  return new Promise((resolve) => {
    server.once('message', (told) => resolve(told as { rss: number; heap: number; external: number }));
    server.send('held');
  });
}

async function tell(): Promise<void> {
  for (let minute = 0; Date.now() < ends; minute++) {
    const { rss, heap, external } = await held();
    const threads = /Threads:\s*(\d+)/.exec(
      readFileSync(join('/proc', String(server.pid), 'status'), 'utf8'),
    )?.[1];
    const count = [...answers].map(([status, times]) => `${status}: ${times}`).join(', ');
    console.log(
      `${minute} min: ${Math.round(rss / MB)} MB, heap ${(heap / MB).toFixed(1)}, outside it ${(external / MB).toFixed(1)}, ${threads} threads; ${count}`,
    );
    await wait(60_000);
  }
}

await Promise.all([tell(), write(), ...Array.from({ length: CLIENTS }, (_, client) => read(client))]);
for (const line of broken) console.log(line);
server.kill('SIGKILL');
rmSync(folder, { recursive: true, force: true });
unseed();
process.exit(broken.length === 0 ? 0 : 1);
