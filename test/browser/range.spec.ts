/** The morning's screen: what stands where, tried on another day, and anything found by one search. */
import { expect, test } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { startApplication, type Application } from './application';
import { awake, noViolations, open } from './page';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

test('the range is arranged, a view is kept, bars are picked and tried, and go out as CSV and sheets', async ({
  page,
}) => {
  await open(page, application, '/');
  const table = page.getByRole('table', { name: 'Bars', exact: true });
  const lamp = table.getByRole('row').filter({ hasText: 'Lamp Room' });
  await expect(lamp).toContainText('Over a limit where it is sold.');
  await expect(page.getByRole('img', { name: /^Headroom over the range\. EU: .* 1 past one/ })).toBeVisible();
  await page.getByRole('combobox', { name: 'Show' }).selectOption('over');
  await page.getByLabel('Group by').selectOption('bound');
  await expect(table.getByRole('row')).toHaveCount(3);
  await page.getByLabel('Keep this view as').fill('Trouble');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.getByRole('button', { name: 'Show everything' }).click();
  await expect(table.getByRole('row')).toHaveCount(11);
  await page.reload();
  await awake(page);
  await page.getByRole('button', { name: 'Trouble', exact: true }).click();
  await expect(table.getByRole('row')).toHaveCount(3);
  await page.getByRole('button', { name: 'Show everything' }).click();

  // By keys alone: down to the second bar, pick it and the next.
  await table.getByRole('row').nth(1).click();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  await page.keyboard.press('Shift+ArrowDown');
  const picked = page.getByRole('region', { name: 'With the picked bars' });
  await expect(picked.getByRole('heading')).toHaveText('With 2 bars');
  await picked.getByLabel('In a market').selectOption('US');
  await picked.getByRole('button', { name: 'Try it there' }).click();
  const tried = picked.getByRole('table', { name: 'In United States' });
  await expect(tried.getByRole('row').filter({ hasText: 'Night Mail' })).toContainText(
    /US (Tight|Clear|Over)/,
  );
  const downloading = page.waitForEvent('download');
  await page.getByRole('button', { name: 'As CSV' }).click();
  const csv = readFileSync(await (await downloading).path(), 'utf8');
  expect(csv).toMatch(/^bar,collection,scents,verdict,market/);
  expect(csv.split('\n').filter((line) => line.startsWith('Lamp Room,'))).toHaveLength(2);
  await noViolations(page, 'the range with bars picked');
  await picked.getByRole('link', { name: 'Formula sheets to print' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(['Night Mail', 'Lamp Room']);
});

test('one search finds anything from anywhere by keys, errors forgiven', async ({ page }) => {
  await open(page, application, '/wrap');
  await page.keyboard.press('Control+k');
  const field = page.getByPlaceholder(/^a bar, a lot/);
  await field.fill('wiating');
  await expect(page.getByRole('option').first()).toContainText('Waiting Room');
  await noViolations(page, 'the search');
  await field.fill('linalol');
  await page.getByRole('option').filter({ hasText: 'rule' }).first().click();
  await expect(page.getByRole('heading', { name: /^Rulebook/ })).toBeVisible();
  await expect(page.getByLabel('Find', { exact: true })).toHaveValue('linalool');
  await awake(page);
  await page.keyboard.press('Control+k');
  await field.fill('bars with clay sold in the US with glitter');
  const understood = page.getByRole('group', { name: 'What was understood' });
  await expect(understood).toContainText('Not read: glitter');
  const before = await page.getByRole('option').count();
  await noViolations(page, 'a question');
  await understood.getByRole('button', { name: 'Take out: sold in US' }).click();
  await expect(field).toHaveValue('bars with clay with glitter');
  await field.fill('bars with clay');
  await expect(understood.getByRole('button')).toHaveCount(1);
  expect(await page.getByRole('option').count()).toBeGreaterThan(before);
  await field.fill('what to pour');
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/rack\/next$/);
});
