/** A freshly seeded application on a port of its own, with the day fixed, for one file of browser tests. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { FIXED_DAY, seededFolder } from '../support/seeded';

export interface Application {
  url: string;
  /** Where it keeps its data. */
  folder: string;
  /** Ends the server as a power cut would. */
  kill(): Promise<void>;
  /** Starts it again on the same folder and port, on the fixed day or another, YYYY-MM-DD. */
  start(day?: string): Promise<void>;
  stop(): void;
}

function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.on('error', reject);
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => resolve(port));
    });
  });
}

/** A server that is asked while it begins may have taken the question and never answer it. */
const ANSWER_MS = 5000;

async function untilReady(url: string, server: ChildProcess): Promise<void> {
  for (let tries = 0; tries < 150; tries++) {
    if (server.exitCode !== null) throw new Error(`The server stopped with ${server.exitCode}.`);
    const ready = await fetch(`${url}/api/v1/health`, { signal: AbortSignal.timeout(ANSWER_MS) }).then(
      (answer) => answer.ok,
      () => false,
    );
    if (ready) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('The server did not become ready.');
}

/** Serves the built application from a folder: one that is given, an empty one, or the demo in one of its own. */
export async function startApplication({
  isEmpty = false,
  folder: given,
}: { isEmpty?: boolean; folder?: string } = {}): Promise<Application> {
  const folder = given ?? (isEmpty ? mkdtempSync(join(tmpdir(), 'proportia-')) : seededFolder());
  const port = await freePort();
  const env = {
    ...process.env,
    PROPORTIA_DATA: folder,
    PROPORTIA_TODAY: FIXED_DAY,
    PROPORTIA_ZONE: 'UTC',
    PROPORTIA_PRINTER: 'practice',
    HOST: '127.0.0.1',
    PORT: String(port),
  };
  const url = `http://127.0.0.1:${port}`;
  let server: ChildProcess;
  const start = async (day: string = FIXED_DAY) => {
    server = spawn(process.execPath, ['dist/server/serve.mjs'], {
      env: { ...env, PROPORTIA_TODAY: day },
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    await untilReady(url, server);
  };
  await start();
  return {
    url,
    folder,
    start,
    kill: () =>
      new Promise((resolve, reject) => {
        const { exitCode, signalCode } = server;
        if (exitCode !== null || signalCode !== null)
          reject(new Error(`The server had ended by itself before: ${exitCode ?? signalCode}.`));
        server.once('exit', () => resolve());
        server.kill('SIGKILL');
      }),
    stop: () => {
      server.kill('SIGKILL');
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
