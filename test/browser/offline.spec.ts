/** A bench on a phone pours to the end without the network once it was loaded, over reloads, and gives everything back. */
import { expect, test, type Page } from '@playwright/test';
import type { BatchDetail } from '../../src/core/records/batch';
import type { RunStep } from '../../src/core/making/run-sheet-types';
import { startApplication, type Application } from './application';
import { awake } from './page';

test.use({ actionTimeout: 12_000, viewport: { width: 390, height: 844 } });

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

const batchOf = async (id: string) =>
  (await (await fetch(`${application.url}/api/v1/batches/${id}`)).json()) as BatchDetail;
const done = (page: Page) => page.getByRole('button', { name: 'Done, next' }).locator('visible=true');

/** The service worker is there and holds this page and what it is drawn with. */
async function untilKept(page: Page): Promise<void> {
  const isKept = () =>
    page.evaluate(async () => {
      const pages = await caches.open('bench-pages');
      const kept = await pages.match(location.pathname);
      return navigator.serviceWorker.controller !== null && kept !== undefined;
    });
  await expect.poll(isKept).toBe(true);
}

async function doStep(page: Page, { id, weigh }: RunStep): Promise<void> {
  for (const { massG } of weigh) {
    await page.getByRole('button', { name: 'Type it in' }).click();
    const form = page
      .locator('form')
      .filter({ has: page.getByRole('button', { name: 'Write it down' }) })
      .first();
    await form.getByRole('textbox').fill(massG.toFixed(1));
    await form.getByRole('button', { name: 'Write it down' }).click();
  }
  if (id === 'split') await page.getByRole('button', { name: 'By eye, as planned' }).click();
  if (id === 'pour') await page.getByRole('button', { name: 'It is poured' }).click();
  if (id === 'rest') await page.getByRole('button', { name: 'Left as it is' }).click();
  await expect(done(page)).toBeEnabled();
  await done(page).click();
}

test('once loaded, a batch is poured to the end without the network, over two reloads, and is on file when it is back', async ({
  page,
}) => {
  const begun = (await (
    await fetch(`${application.url}/api/v1/batches`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ product: 'waiting-room', size: { bars: 6 }, by: 'Marit' }),
    })
  ).json()) as BatchDetail;
  const { steps } = begun.sheet;
  await page.goto(`${application.url}/pour/${begun.id}`);
  await awake(page);
  await untilKept(page);
  await doStep(page, steps[0]!);
  await expect.poll(async () => (await batchOf(begun.id)).seq).toBe(2);
  await expect(page.getByText('All on file')).toBeVisible();

  await application.kill();
  await doStep(page, steps[1]!);
  await doStep(page, steps[2]!);
  await expect(page.getByText(/^Kept here until the application answers/)).toBeVisible();
  await page.reload();
  await expect(page.getByText(`step 4 of ${steps.length}`)).toBeVisible();
  await expect(page.getByText(/^Without the network: as of/)).toBeVisible();
  for (const [at, step] of steps.slice(3).entries()) {
    await doStep(page, step);
    if (at === 4) await page.reload();
  }
  await expect(page.getByText('Poured and put to rest.')).toBeVisible();

  await application.start();
  await page.evaluate(() => window.dispatchEvent(new Event('online')));
  await expect(page.getByText('All on file')).toBeVisible();
  const { batch } = await batchOf(begun.id);
  expect(batch.stepsDone.map(({ step }) => step)).toEqual(steps.map(({ id }) => id));
  expect([batch.state, batch.rested]).toEqual(['poured', 'leave']);
  const weighed = steps.flatMap(({ weigh }) => weigh).filter(({ massG }) => massG > 0).length;
  expect(batch.lines.flatMap(({ weighings }) => weighings).length).toBe(weighed);
});
