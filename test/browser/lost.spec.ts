/** Nothing is lost while typing: the server dies and comes back, is slow, or another window was first. */
import { expect, test, type Page } from '@playwright/test';
import { startApplication, type Application } from './application';
import { amountOf, open, saved, tab } from './page';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

/** What stands on file of a bar's line. */
async function onFile(bar: string, material: string): Promise<number> {
  const answer = await fetch(`${application.url}/api/v1/products/${bar}`);
  const { version } = (await answer.json()) as {
    version: { formula: { lines: { material: string; amount: { value: number } }[] } };
  };
  return version.formula.lines.find((line) => line.material === material)!.amount.value;
}

test('the server dies under unsaved typing and comes back: it is said, tried again, and saved', async ({
  page,
}) => {
  await open(page, application, '/bars/night-mail');
  await application.kill();
  await amountOf(page, 'Grey clay').fill('2.75 %');
  await expect(page.getByText('Not saved: the application does not answer.')).toBeVisible();
  await amountOf(page, 'Grey clay').fill('2.8 %');
  await application.start();
  await saved(page);
  expect(await onFile('night-mail', 'grey-clay')).toBe(2.8);
});

test('what is unsaved when the tab is closed is offered the next time, and comes back with one click', async ({
  page,
  context,
}) => {
  await open(page, application, '/bars/signal-red');
  await saved(page);
  await application.kill();
  await amountOf(page, 'Red clay').fill('1.85 %');
  await expect(page.getByText('Not saved: the application does not answer.')).toBeVisible();
  await page.close();
  await application.start();
  // Another window that saves meanwhile takes nothing of it.
  const other = await context.newPage();
  await open(other, application, '/bars/signal-red');
  await amountOf(other, 'Red clay').fill('1.5 %');
  await saved(other);
  await other.close();
  const again = await context.newPage();
  await open(again, application, '/bars/signal-red');
  await expect(again.getByText('did not reach the file')).toBeVisible();
  await again.getByRole('button', { name: 'Put it on the table' }).click();
  await expect(amountOf(again, 'Red clay')).toHaveValue('1.85 % fats');
  await saved(again);
  expect(await onFile('signal-red', 'red-clay')).toBe(1.85);
  await open(again, application, '/bars/signal-red');
  await expect(again.getByText('did not reach the file')).toBeHidden();
});

test('a slow server under fast typing gets the last word, and no window is said to have changed anything', async ({
  page,
}) => {
  await page.route('**/formula', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 700));
    await route.continue();
  });
  await open(page, application, '/bars/first-light');
  const amount = amountOf(page, 'Sweet fennel oil');
  for (let step = 1; step <= 12; step++) {
    await amount.fill(`1.${String(step).padStart(2, '0')} %`);
    await page.waitForTimeout(step % 3 === 0 ? 650 : 90);
  }
  await saved(page);
  await expect(page.getByText('changed in another window')).toBeHidden();
  expect(await onFile('first-light', 'fennel-oil')).toBe(1.12);
});

test('a field that cannot be read and then goes with its line holds nothing up', async ({ page }) => {
  await open(page, application, '/bars/ticket-office');
  await page.getByRole('combobox', { name: 'Add a material' }).fill('white kao');
  await page.getByRole('option', { name: /White kaolin/ }).click();
  await saved(page);
  await amountOf(page, 'White kaolin').fill('a heap or so');
  await amountOf(page, 'Pink clay').fill('1.3 %');
  await expect(page.getByText('Not saved yet: a field cannot be read.')).toBeVisible();
  await page.getByRole('button', { name: 'Details of White kaolin' }).click();
  await page.getByRole('button', { name: /^(Remove|Take out) White kaolin/ }).click();
  await saved(page);
  expect(await onFile('ticket-office', 'pink-clay')).toBe(1.3);
});

test('going back to a version whose materials were never loaded finds them', async ({ page }) => {
  await open(page, application, '/bars/waiting-room');
  await page.getByRole('combobox', { name: 'Add a material' }).fill('zinc');
  const first = page.getByRole('option').first();
  const name = (await first.locator('span').first().textContent())!;
  await first.click();
  await tab(page, 'Versions');
  await page.getByLabel('Keep this one as').fill('with more');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Versions' })).toContainText('the same as on the table');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(amountOf(page, name)).toBeHidden();
  await saved(page);
  await page.evaluate(() => sessionStorage.clear());
  await open(page, application, '/bars/waiting-room');
  await tab(page, 'Versions');
  await page.getByRole('button', { name: 'Back to with more' }).click();
  await expect(amountOf(page, name)).toBeVisible();
  await saved(page);
  await expect(page.getByText('unknown', { exact: false })).toBeHidden();
});

/** Keeps one thing in two windows that both have it open; the second is told, and may put its own in place. */
async function twoWindows(page: Page, path: string, keep: (one: Page, text: string) => Promise<void>) {
  const other = await page.context().newPage();
  await open(page, application, path);
  await open(other, application, path);
  await keep(other, 'theirs');
  await keep(page, 'mine');
  await expect(page.getByText('This was changed in another window just now')).toBeVisible();
  await other.close();
}

test('two windows on a bar’s details, a material and a lot: the second is told, never overwrites', async ({
  page,
}) => {
  await twoWindows(page, '/bars/snow-plough', async (one, text) => {
    await tab(one, 'Bar');
    await one.getByLabel('A note for yourselves').fill(text);
    await one.getByRole('button', { name: 'Keep these details' }).click();
    await one.waitForTimeout(600);
  });
  await twoWindows(page, '/cupboard?material=kaolin', async (one, text) => {
    await one.getByRole('button', { name: 'Change' }).click();
    await one.getByLabel('From').fill(text);
    await one.getByRole('button', { name: 'Keep' }).click();
    await one.waitForTimeout(600);
  });
  const { supplier } = (await (await fetch(`${application.url}/api/v1/materials/kaolin`)).json()) as {
    supplier: string;
  };
  expect(supplier).toBe('theirs');
  await twoWindows(page, '/cupboard?material=olive', async (one, text) => {
    await one
      .getByRole('table', { name: 'Lots on file' })
      .getByRole('rowheader')
      .getByRole('button')
      .first()
      .click();
    await one.getByLabel('Supplier').fill(text);
    await one.getByRole('button', { name: 'Keep' }).click();
    await one.waitForTimeout(600);
  });
});

test('two windows on moulds and on phrases: the second is told, sees the other’s, and adds to them', async ({
  page,
}) => {
  const other = await page.context().newPage();
  const moulds = async (one: Page) => {
    await open(one, application, '/bars/first-light');
    await tab(one, 'Size');
    await one.getByText('My moulds').click();
  };
  const addMould = async (one: Page, name: string) => {
    const form = one.getByRole('form', { name: 'A mould' });
    await form.getByLabel('Name').fill(name);
    await form.getByLabel('Holds, mL').fill('500');
    await form.getByRole('button', { name: 'Add' }).click();
  };
  await moulds(page);
  await moulds(other);
  await addMould(other, 'Theirs');
  await expect(other.getByRole('button', { name: 'Remove Theirs' })).toBeVisible();
  await addMould(page, 'Mine');
  await expect(page.getByText(/changed in another window|another window/i).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Remove Theirs' })).toBeVisible();
  await page.getByRole('form', { name: 'A mould' }).getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('button', { name: 'Remove Mine' })).toBeVisible();
  const kept = (await (await fetch(`${application.url}/api/v1/moulds`)).json()) as {
    moulds: { name: string }[];
  };
  expect(kept.moulds.map(({ name }) => name)).toEqual(expect.arrayContaining(['Theirs', 'Mine', 'Slab']));

  const phrases = async (one: Page) => {
    await open(one, application, '/wrap/lamp-room');
    await expect(one.getByRole('region', { name: 'Label' })).toBeVisible();
    await one.getByText('My own phrases').click();
  };
  const addPhrase = async (one: Page, words: string) => {
    await one.getByLabel('Words, in order').fill(words);
    await one.getByRole('button', { name: 'Add', exact: true }).click();
  };
  await phrases(page);
  await phrases(other);
  await addPhrase(other, 'their shine');
  await expect(other.getByRole('button', { name: 'Remove their shine' })).toBeVisible();
  await addPhrase(page, 'my shine');
  await expect(page.getByRole('button', { name: 'Remove their shine' })).toBeVisible();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Remove my shine' })).toBeVisible();
  const words = (await (await fetch(`${application.url}/api/v1/phrases`)).json()) as {
    phrases: { say: string }[];
  };
  expect(words.phrases.map(({ say }) => say)).toEqual(expect.arrayContaining(['their shine', 'my shine']));
});
