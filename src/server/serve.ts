/**
 * Starts the application: takes the data folder, opens and migrates the store, then listens. What stands in the
 * way is said in words, and the program ends. Bundled to `dist/server/serve.mjs`.
 */
import { createServer } from 'node:http';
import { join } from 'node:path';
import { hostname, networkInterfaces } from 'node:os';
import { createInterface } from 'node:readline/promises';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { dataFolder } from './config';
import { DATABASE_FILE, openDatabase } from './database';
import { Access, LONGEST_PASSPHRASE, SHORTEST_PASSPHRASE } from './front/access';
import { frontApp } from './front/app';
import { secureHouse } from './front/listen';
import { lockFolder } from './front/lock';
import { isLoopback } from './front/origin';
import { givenTls, ownTls, type Tls } from './front/tls';
import { faultOf } from './archive/backup-job';
import { lastGoodBackup, restoreAtStart } from './archive/restore';
import { noteFault } from './log';
import { storeFault } from './store/faults';

// React's development build is twice to four times slower; it is chosen where nothing else is said.
process.env.NODE_ENV ??= 'production';

const HOST = process.env.HOST || '127.0.0.1';
const PORT = Number(process.env.PORT || 4321);
/** Time for a client to send its headers, and its whole request: an archive of a large house comes in too. Milliseconds. */
const HEADERS_MS = 20_000;
const REQUEST_MS = 15 * 60_000;
/** Idle connections are kept longer than browsers keep them, so that none is closed under a request. */
const KEEP_ALIVE_MS = 75_000;
const DAY_MS = 24 * 3_600_000;

function end(message: string): never {
  console.error(`\nProportia cannot start. ${message}\n`);
  process.exit(1);
}

/** More names this machine goes by, `PROPORTIA_NAMES` parted by commas. */
function namesFromOutside(): string[] {
  return (process.env.PROPORTIA_NAMES ?? '')
    .split(',')
    .map((name) => name.trim().toLowerCase())
    .filter(Boolean);
}

/** Names and addresses that other machines of the network know this one by. */
function ownNames(): string[] {
  const addresses = Object.values(networkInterfaces()).flatMap((all) =>
    (all ?? []).filter(({ address }) => !address.startsWith('fe80')).map(({ address }) => address),
  );
  const name = hostname().toLowerCase();
  return [name, `${name}.local`, ...addresses.map((one) => (one.includes(':') ? `[${one}]` : one))];
}

/** The first address of this machine in its network, with the port; undefined where it is in none. */
function networkAddress(): string | undefined {
  const all = Object.values(networkInterfaces()).flatMap((some) => some ?? []);
  const found = all.find(({ family, internal }) => family === 'IPv4' && !internal);
  return found && `${found.address}:${PORT}`;
}

/** Where other machines reach it, nobody comes in without a passphrase; the first start sets it. */
async function requirePassphrase(access: Access): Promise<void> {
  if (access.hasPassphrase) return;
  const given = process.env.PROPORTIA_PASSPHRASE ?? (await asked());
  if (given.length < SHORTEST_PASSPHRASE || given.length > LONGEST_PASSPHRASE)
    end(
      `HOST is ${HOST}, which other machines reach. Set a passphrase of ${SHORTEST_PASSPHRASE} to ${LONGEST_PASSPHRASE} letters first: in the House, or once by PROPORTIA_PASSPHRASE.`,
    );
  await access.setPassphrase(given);
}

async function asked(): Promise<string> {
  if (!process.stdin.isTTY) return '';
  const lines = createInterface({ input: process.stdin, output: process.stdout });
  const text = await lines.question('A passphrase for whoever opens Proportia from another machine: ');
  lines.close();
  return text.trim();
}

/** Goes on from the backup that `PROPORTIA_RESTORE` names, where the database does not hold together; else it is left alone. */
async function restoreWanted(): Promise<void> {
  const wanted = process.env.PROPORTIA_RESTORE;
  if (!wanted) return;
  if (faultOf(join(dataFolder(), DATABASE_FILE)) === null) {
    process.stdout.write(
      'The database holds together; PROPORTIA_RESTORE is left aside. Go back in the House.\n',
    );
    return;
  }
  const why = await restoreAtStart(dataFolder(), wanted);
  if (why) end(why);
  process.stdout.write(`Restored from the backup ${wanted}.\n`);
}

async function prepareStore(): Promise<() => void> {
  try {
    const release = lockFolder(dataFolder());
    await restoreWanted();
    await (await openDatabase(dataFolder())).destroy();
    return release;
  } catch (error) {
    const known = storeFault(error);
    if (!known) throw error;
    const isBroken = ['damaged', 'empty', 'newer', 'missing'].includes(known.kind);
    const good = isBroken ? await lastGoodBackup(dataFolder()) : null;
    const way = good
      ? ` The last backup that holds together is ${good}. To go on from it: PROPORTIA_RESTORE=${good} and start again; the damaged file is kept beside it.`
      : '';
    return end(`${known.message}${way} (${dataFolder()}${known.detail ? `: ${known.detail}` : ''})`);
  }
}

/** Certificates: the maker's own by `PROPORTIA_CERT` and `_KEY`, none by `PROPORTIA_TLS=off`, else the house's. */
async function tlsWanted(names: readonly string[]): Promise<Tls | null> {
  if (process.env.PROPORTIA_TLS === 'off') return null;
  const { PROPORTIA_CERT: cert, PROPORTIA_KEY: key } = process.env;
  try {
    if (cert || key) return givenTls(cert ?? '', key ?? '');
    return await ownTls(dataFolder(), ['localhost', '127.0.0.1', '[::1]', ...names]);
  } catch (error) {
    return end((error as Error).message);
  }
}

/** Looks once a day whether names have changed or the end is near. */
function keepRenewed(renew: (tls: Tls) => void): void {
  const look = async () => {
    const next = await tlsWanted([...namesFromOutside(), ...ownNames()]);
    if (next) renew(next);
  };
  setInterval(() => void look().catch((error: unknown) => noteFault('tls', error)), DAY_MS).unref();
}

async function start(): Promise<void> {
  if (!Number.isInteger(PORT) || PORT < 1 || PORT > 65_535) end('PORT has to be a number from 1 to 65535.');
  const release = await prepareStore();
  const isShut = !isLoopback(HOST);
  const access = new Access(dataFolder());
  if (isShut) await requirePassphrase(access);
  const entry = new URL('./entry.mjs', import.meta.url);
  const { handler } = (await import(pathToFileURL(fileURLToPath(entry)).href)) as {
    handler: Parameters<typeof frontApp>[0]['pages'];
  };
  const clientFolder = fileURLToPath(new URL('../client', import.meta.url));
  const names = isShut ? [...namesFromOutside(), ...ownNames()] : namesFromOutside();
  const tls = isShut ? await tlsWanted(names) : null;
  const app = frontApp({
    clientFolder,
    pages: handler,
    names,
    gate: { access, isShut, reach: isShut ? networkAddress() : undefined, tls },
  });
  const options = { headersTimeout: HEADERS_MS, requestTimeout: REQUEST_MS, keepAliveTimeout: KEEP_ALIVE_MS };
  const house = tls && secureHouse(app, tls, names, options);
  if (house?.renew && tls?.authority) keepRenewed(house.renew);
  const server = house?.server ?? createServer(options, app);
  server.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code === 'EADDRINUSE') end(`Port ${PORT} is taken by another program. Set PORT to a free one.`);
    end(error.message);
  });
  server.listen(PORT, HOST, () => {
    process.stdout.write(`Listening on ${tls ? 'https' : 'http'}://${HOST}:${PORT}\n`);
    // A first look starts threads and renders once, so that the maker's own first look is quick.
    if (!tls) void fetch(`http://${HOST}:${PORT}/`).catch(() => undefined);
  });
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.on(signal, () => {
      server.close();
      release();
      process.exit(0);
    });
  }
}

await start();
