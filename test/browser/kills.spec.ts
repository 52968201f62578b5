/** The server is killed at random moments while things are written down; nothing acknowledged is lost or doubled. */
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { expect, test } from '@playwright/test';
import type { Formula } from '../../src/core/formula/types';
import type { BatchDetail } from '../../src/core/records/batch';
import type { Backup, BackupsData } from '../../src/core/records/house';
import { startApplication, type Application } from './application';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

/** More by hand: KILLS=50. */
const KILLS = Number(process.env.KILLS ?? 5);

interface Asking {
  method?: 'POST' | 'PUT';
  /** Names what is made, so that it is made once. */
  key?: string;
  /** 409 counts as an answer: it brings the newer state. */
  isStaleFine?: boolean;
}

async function ask<T>(path: string, body?: unknown, asking: Asking = {}): Promise<T | null> {
  const { method = 'POST', key, isStaleFine = false } = asking;
  const headers = { 'content-type': 'application/json', ...(key ? { 'idempotency-key': key } : {}) };
  const init = body === undefined ? {} : { method, headers, body: JSON.stringify(body) };
  return fetch(`${application.url}/api/v1/${path}`, { ...init, signal: AbortSignal.timeout(5000) })
    .then(async (answer) =>
      answer.ok || (isStaleFine && answer.status === 409) ? ((await answer.json()) as T) : null,
    )
    .catch(() => null);
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Numbers of the papers that were filed for a material, read from its database. */
function papersOf(material: string): string[] {
  const db = new Database(join(application.folder, 'proportia.sqlite'), { readonly: true });
  const bodies = db
    .prepare('select body from documents where material_id = ?')
    .pluck()
    .all(material) as string[];
  db.close();
  return bodies.map((body) => (JSON.parse(body) as { number: string }).number);
}

/** Kills the server at random moments and starts it again, `count()` growing in between; true while it does. */
function killing(count: () => number): { goesOn: () => boolean; ended: Promise<void> } {
  let kills = 0;
  const run = async () => {
    while (kills < KILLS) {
      const before = count();
      await pause(60 + Math.random() * 500);
      // On a busy machine the server may hardly be back by then: something is to be on disk between two kills.
      for (let waits = 0; count() === before && waits < 100; waits++) await pause(50);
      await application.kill();
      await application.start();
      kills++;
    }
  };
  return { goesOn: () => kills < KILLS, ended: run() };
}

test('kills at random moments during a pour lose no acknowledged event and double none', async () => {
  test.setTimeout(600_000 + KILLS * 8000);
  const begun = (await ask<BatchDetail>('batches', { product: 'first-light', by: 'Oona' }))!;
  const { lots } = (await ask<{ lots: { id: string; leftG: number }[] }>('materials/olive'))!;
  const lot = lots.at(-1)!;
  const line = begun.sheet.formula.lines.find(({ material }) => material === 'olive')!.id;
  const acknowledged: string[] = [];
  let made = 0;
  let waiting: object[] = [];
  const { goesOn, ended } = killing(() => acknowledged.length);
  while (goesOn()) {
    if (waiting.length < 5) {
      const id = `k${made++}`;
      waiting.push({
        id,
        type: 'weighed',
        at: '2026-11-24T10:00:00Z',
        by: 'Oona',
        line,
        massG: 0.5,
        readabilityG: 0.1,
        how: 'scale',
        lot: lot.id,
      });
    }
    const answer = await ask<{ added: string[]; known: string[] }>(`batches/${begun.id}/events`, {
      events: waiting,
    });
    if (!answer) continue;
    const taken = new Set([...answer.added, ...answer.known]);
    acknowledged.push(...answer.added, ...answer.known);
    waiting = waiting.filter((event) => !taken.has((event as { id: string }).id));
  }
  await ended;
  const { batch, events } = (await ask<BatchDetail>(`batches/${begun.id}`))!;
  const ids = events.map(({ id }) => id);
  expect(new Set(ids).size).toBe(ids.length);
  for (const id of new Set(acknowledged)) expect(ids).toContain(id);
  const weighed = events.filter(({ type }) => type === 'weighed').length;
  expect(weighed).toBeGreaterThan(KILLS);
  expect(batch.lines.find((one) => one.line === line)!.massG).toBeCloseTo(weighed * 0.5, 6);
  const ledger = (await ask<{ leftG: number; movements: { event: string | null; batch: string | null }[] }>(
    `lots/${lot.id}`,
  ))!;
  const drawn = ledger.movements.filter((one) => one.batch === begun.id);
  expect(drawn.map(({ event }) => event).sort()).toEqual(ids.filter((id) => id.startsWith('k')).sort());
  expect(ledger.leftG).toBeCloseTo(lot.leftG - weighed * 0.5, 6);
  expect(await ask<{ status: string }>('health')).toEqual({ status: 'ready' });
});

test('kills at random moments while a formula is saved, papers are filed and backups made lose nothing acknowledged', async () => {
  test.setTimeout(600_000 + KILLS * 8000);
  type Saved = { version: { revision: number; formula: Formula } };
  let { revision, formula } = (await ask<Saved>('products/lamp-room'))!.version;
  const line = formula.lines.findIndex(({ amount }) => amount.unit === '%fats');
  const filed: string[] = [];
  const backups: string[] = [];
  /** The load as sent last, and as acknowledged last: thousandths count the saves. */
  let [sent, kept] = [0, 0];
  const { goesOn, ended } = killing(() => kept + filed.length);
  const load = ({ lines }: Formula) => Math.round(1000 * lines[line]!.amount.value);
  const saves = async () => {
    while (goesOn()) {
      sent = kept + 1;
      const lines = formula.lines.map((one, at) =>
        at === line ? { ...one, amount: { ...one.amount, value: sent / 1000 } } : one,
      );
      const body = { revision, formula: { ...formula, lines } };
      type Answer = Partial<Record<'version' | 'stale', Saved['version']>>;
      const asking = { method: 'PUT', isStaleFine: true } as const;
      const answer = await ask<Answer>('products/lamp-room/formula', body, asking);
      if (!answer) continue;
      ({ revision, formula } = (answer.version ?? answer.stale)!);
      // What comes back as newer is the save whose answer was lost; nothing acknowledged is older.
      expect(load(formula)).toBe(sent);
      kept = sent;
    }
  };
  const files = async () => {
    for (let number = 0; goesOn(); number++) {
      const name = `K-${number}`;
      const paper = { type: 'certificate', number: name, edition: '51st', issuedOn: '2026-03-01' };
      const body = { papers: [{ ...paper, issuer: 'Tollen Mill', maxPct: 3, category: '9' }], inbox: null };
      // Asked again under its name until it is answered, as a screen does.
      while (goesOn() && !(await ask('materials/lavender-oil/papers', body, { key: name }))) await pause(20);
      filed.push(name);
    }
  };
  const copies = async () => {
    while (goesOn()) {
      const made = await ask<Backup>('backups', {});
      if (made) backups.push(made.id);
    }
  };
  await Promise.all([ended, saves(), files(), copies()]);
  const after = (await ask<Saved>('products/lamp-room'))!.version;
  expect([sent, kept]).toContain(load(after.formula));
  expect(kept).toBeGreaterThan(0);
  const numbers = papersOf('lavender-oil');
  // The last may have been given up on when the kills ended.
  for (const name of filed.slice(0, -1)) expect(numbers.filter((one) => one === name)).toEqual([name]);
  // On a slow machine none may have come to its end between two kills; one that nothing disturbs does.
  await expect(async () => backups.push((await ask<Backup>('backups', {}))!.id)).toPass({ timeout: 60_000 });
  const { backups: listed } = (await ask<BackupsData>('backups'))!;
  for (const { id, fault } of listed) {
    expect(fault).toBe(null);
    const copy = new Database(join(application.folder, 'backups', `${id}.sqlite`), { readonly: true });
    expect(copy.pragma('integrity_check', { simple: true })).toBe('ok');
    copy.close();
  }
  // The newest that was acknowledged is there, whatever was thinned out before it.
  expect(listed.map(({ id }) => id)).toContain(backups.at(-1));
});
