/** The watch: a letter comes, its effect is seen, accepted, its tasks are done, and a bar's scent is swapped. */
import { expect, test } from '@playwright/test';
import { startApplication, type Application } from './application';
import { noViolations, open, verdict } from './page';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

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
  await todo.getByText('1 done').click();
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
