/** The watch: a letter comes, its effect is seen, accepted, its tasks are done, and a bar's scent is swapped. */
import { expect, test } from '@playwright/test';
import { mkdirSync, utimesSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { startApplication, type Application } from './application';
import { noViolations, open, verdict } from './page';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

test('a letter from the folder changes what a label says, and its task issues the label anew', async ({
  page,
}) => {
  const issued = await page.request.post(`${application.url}/api/v1/products/night-mail/issued`, {
    data: { market: 'EU', batch: 'nm-260930' },
    headers: { origin: application.url },
  });
  expect(issued.status()).toBe(201);
  mkdirSync(join(application.folder, 'letters'), { recursive: true });
  const letter = join(application.folder, 'letters', 'Declaration of violets.txt');
  writeFileSync(
    letter,
    'Allergen declaration QX-31\nProduct: Coal & Violets\nSupplier: Made Up Scents\nDate of issue: 20 November 2026\n\n' +
      'Linalool  78-70-6  2.1 %\nCitral  5392-40-5  1.9 %\nCoumarin  91-64-5  1.2 %\n',
  );
  utimesSync(letter, new Date(0), new Date(0));

  await open(page, application, '/cupboard/papers?material=coal-and-violets');
  await page.getByRole('button', { name: /Declaration of violets/ }).click();
  const read = page.getByRole('region', { name: 'What was read' });
  await expect(read.getByLabel(/^Number/)).toHaveValue('QX-31');
  for (const box of await read.getByRole('checkbox', { name: /I have looked/ }).all()) await box.check();
  await read.getByRole('button', { name: 'See what it touches first' }).click();
  const rows = page.getByRole('table', { name: 'What it touches' });
  await expect(rows.getByRole('row', { name: /label of 2026-11-24/ })).toContainText('names');
  await page.getByRole('button', { name: 'Accept it' }).click();
  await expect(page.getByText(/^Accepted on/)).toBeVisible();

  await open(page, application, '/watch');
  const todo = page.getByRole('region', { name: 'To do' });
  const task = todo.getByRole('listitem').filter({ hasText: 'Issue the label of Night Mail' });
  await task.getByRole('button', { name: 'Issue the label anew' }).click();
  await expect(task).toHaveCount(0);
  await todo.getByText('1 done').click();
  await expect(todo.getByText(/Issued anew for EU: night-mail-eu/)).toBeVisible();
  const wrap = await page.request.get(`${application.url}/api/v1/products/night-mail/wrap`);
  const { issued: labels } = (await wrap.json()) as {
    issued: { content: { info: { id: string; text: string }[] } }[];
  };
  const lists = labels.map(({ content }) => content.info.find(({ id }) => id === 'ingredients')!.text);
  expect(lists.filter((list) => /Citral/.test(list))).toHaveLength(1);
  expect(lists.length).toBeGreaterThanOrEqual(2);
});

test('a stricter certificate is looked at, accepted, and its tasks are done', async ({ page }) => {
  await open(page, application, '/cupboard/papers?material=coal-and-violets');
  await page
    .getByLabel('Or paste its text')
    .fill(
      'Certificate of conformity SF-977\nProduct: Coal & Violets\nIssued on 2026-11-20\n51st Amendment\nCategory 9: 2.5 %',
    );
  await page.getByRole('button', { name: 'Read it' }).click();
  const read = page.getByRole('region', { name: 'What was read' });
  await expect(read.getByLabel(/^Most in a bar/)).toHaveValue('2.5');
  await read.getByLabel(/^Number/).fill('SF-977');
  await read.getByLabel(/^Issued by/).fill('Made Up Scents');
  for (const box of await read.getByRole('checkbox', { name: /I have looked/ }).all()) await box.check();
  await read.getByRole('button', { name: 'See what it touches first' }).click();

  await expect(page.getByRole('heading', { level: 1 })).toContainText('Certificate SF-977');
  const rows = page.getByRole('table', { name: 'What it touches' });
  const night = rows.getByRole('row', { name: /^Night Mail Bar EU/ });
  await expect(night).toContainText(/Tight.*Over, [\d.]+ % past/);
  await expect(page.getByText('Nothing is changed until you accept it.')).toBeVisible();
  await noViolations(page);
  await page.getByRole('combobox', { name: /^What/ }).selectOption('batch');
  await expect(night).toHaveCount(0);
  await page.getByRole('combobox', { name: /^What/ }).selectOption('');
  await page.getByLabel('Only what gets worse').check();
  await expect(night).toBeVisible();

  await page.getByLabel('Note, or why it is declined').fill('Came by mail.');
  await page.getByRole('button', { name: 'Accept it' }).click();
  await expect(page.getByText(/Accepted on .*: Came by mail\./)).toBeVisible();
  await open(page, application, '/bars/night-mail');
  await expect(verdict(page)).toHaveText('Over');

  await open(page, application, '/watch');
  await noViolations(page);
  const todo = page.getByRole('region', { name: 'To do' });
  const rework = todo.getByRole('listitem').filter({ hasText: 'Rework Night Mail for EU' });
  await rework.getByRole('textbox').fill('Swapped its scent.');
  await rework.getByRole('button', { name: 'Done' }).click();
  // Before the answer, one that was done earlier may stand there alone.
  await expect(rework).toHaveCount(0);
  await todo.getByText(/^\d+ done$/).click();
  await expect(todo.getByText(/Done .*: Swapped its scent\./)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Journal' })).toContainText('Certificate SF-977');
});

test('a scent is swapped in every bar that holds it, after it was seen; a day ahead is looked at', async ({
  page,
}) => {
  await open(page, application, '/watch');
  const ask = page.getByRole('region', { name: 'What would change' });
  const choose = async (label: string, letters: string, name: RegExp) => {
    await ask.getByLabel(label).fill(letters);
    await page.getByRole('option', { name }).first().click();
    await page.keyboard.press('Escape');
  };
  await choose('Instead of', 'sweet fen', /Sweet fennel oil/);
  await choose('Take', 'sweet ora', /Sweet orange oil/);
  await ask.getByRole('button', { name: 'See what it touches' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(
    'Sweet orange oil for Sweet fennel oil',
  );
  await page.getByRole('button', { name: 'Accept it' }).click();
  await expect(page.getByText(/^Accepted on/)).toBeVisible();
  await open(page, application, '/bars/first-light');
  await expect(page.getByText('Sweet fennel oil')).toHaveCount(0);

  await open(page, application, '/watch');
  const list = page.getByRole('listitem').filter({ hasText: 'has to name' }).first();
  await list.getByRole('button', { name: 'What it touches' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('The day becomes');
  await page.getByLabel('Note, or why it is declined').fill('Not yet.');
  await page.getByRole('button', { name: 'Decline it' }).click();
  await expect(page.getByText(/Declined on .*: Not yet\./)).toBeVisible();
});
