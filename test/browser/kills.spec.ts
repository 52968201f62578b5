/** The server is killed at random moments while a pour is written down; nothing acknowledged is lost or doubled. */
import { expect, test } from '@playwright/test';
import type { BatchDetail } from '../../src/core/records/batch';
import { startApplication, type Application } from './application';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

/** More by hand: KILLS=50. */
const KILLS = Number(process.env.KILLS ?? 8);

async function ask<T>(path: string, body?: unknown): Promise<T | null> {
  const init =
    body === undefined
      ? {}
      : { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
  return fetch(`${application.url}/api/v1/${path}`, { ...init, signal: AbortSignal.timeout(5000) })
    .then(async (answer) => (answer.ok ? ((await answer.json()) as T) : null))
    .catch(() => null);
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

test('kills at random moments during a pour lose no acknowledged event and double none', async () => {
  test.setTimeout(60_000 + KILLS * 8000);
  const begun = (await ask<BatchDetail>('batches', { product: 'first-light', by: 'Oona' }))!;
  const { lots } = (await ask<{ lots: { id: string; leftG: number }[] }>('materials/olive'))!;
  const lot = lots.at(-1)!;
  const line = begun.sheet.formula.lines.find(({ material }) => material === 'olive')!.id;
  const acknowledged: string[] = [];
  let [made, kills] = [0, 0];
  let waiting: object[] = [];
  const kill = async () => {
    while (kills < KILLS) {
      const before = acknowledged.length;
      await pause(60 + Math.random() * 500);
      // On a busy machine the server may hardly be back by then: something is to be on disk between two kills.
      for (let waits = 0; acknowledged.length === before && waits < 100; waits++) await pause(50);
      await application.kill();
      await application.start();
      kills++;
    }
  };
  const killing = kill();
  while (kills < KILLS) {
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
  await killing;
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
