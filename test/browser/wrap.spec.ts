import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { startApplication, type Application } from './application';
import { awake, noViolations, open, saved, tab } from './page';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

const market = (page: Page, name: RegExp) =>
  page.getByRole('group', { name: 'Market' }).getByRole('radio', { name });
const description = (page: Page) => page.getByLabel('Description, for the shop');

test('words are classed as they are typed, taken back by a plainer wording, and undone', async ({ page }) => {
  await open(page, application, '/wrap/waiting-room?batch=draft');
  await expect(page.getByRole('region', { name: 'Label' })).toBeVisible(); // drawn, so the island is awake
  await expect(page.getByRole('group', { name: 'Market' })).toContainText(/US\s*soap proper/);
  await description(page).fill('A vegan bar that moisturises. It does not heal.');
  const claims = page.getByRole('region', { name: 'Claims' });
  await expect(claims).toContainText('“vegan” about what is in it, holds by the formula');
  await expect(claims).toContainText('“moisturises” a cosmetic claim');
  await expect(claims).not.toContainText('“heal”');
  await expect(market(page, /^US/)).toBeVisible();
  await expect(page.getByRole('group', { name: 'Market' })).toContainText(/US\s*a cosmetic/);
  await claims.getByRole('button', { name: 'Write “rich lather” for “moisturises”' }).click();
  await expect(description(page)).toHaveValue('A vegan bar that rich lather. It does not heal.');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(claims).toContainText('moisturises');
  await description(page).fill('Helps acne');
  await expect(page.getByRole('group', { name: 'Market' })).toContainText(/EU\s*a medicine by its words/);
  await expect(page.getByRole('region', { name: 'Standing' })).toContainText('“acne” speak of treating');
  await description(page).fill('A plain bar');
  await saved(page);
  await page.reload();
  await awake(page);
  await expect(description(page)).toHaveValue('A plain bar');
  await noViolations(page);
});

test('a label in another shape says what does not fit, then prints, is issued and prints again the same', async ({
  page,
}) => {
  await open(page, application, '/wrap/ticket-office?batch=draft');
  const label = page.getByRole('region', { name: 'Label' });
  await expect(label.getByRole('img')).toBeVisible();
  await expect(label).toContainText('at least 1.20 mm');
  await tab(page, 'Look');
  await page.getByLabel(/^Shape for EU/).selectOption('Sticker');
  await page.getByRole('textbox', { name: 'High' }).fill('28');
  const blocking = label.getByRole('status', { name: 'In the way of a print' });
  await expect(blocking).toContainText(/needs \d+\.\d mm more height/);
  await expect(blocking).toContainText('a notice beside small unwrapped bars');
  await tab(page, 'Out and issued');
  const out = page.getByRole('region', { name: 'Out and issued' });
  await out.getByRole('button', { name: 'PDF with trim and bleed' }).click();
  await expect(out.getByRole('alert')).toContainText('more height than there is');
  await page.getByRole('textbox', { name: 'High' }).fill('90');
  await page.getByRole('textbox', { name: 'Wide' }).fill('120');
  await expect(blocking).toHaveCount(0);
  await tab(page, 'Measures');
  await page.getByLabel('Weights of cured bars, g').fill('89,4 87.9 91');
  await expect(page.getByText('On the label: 87 g. The lightest of 3 weighed bars counts.')).toBeVisible();

  const download = page.waitForEvent('download');
  await out.getByRole('button', { name: 'PDF with trim and bleed' }).click();
  expect(
    readFileSync(await (await download).path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
  await out.getByRole('button', { name: 'Issue for European Union' }).click();
  await out.getByLabel(/^Copies of /).fill('24');
  await out.getByRole('button', { name: 'To the label printer' }).click();
  await expect(out.getByRole('link', { name: 'see its spool' })).toBeVisible();
  const { jobs } = (await (await fetch(`${application.url}/api/v1/printer/jobs`)).json()) as {
    jobs: { copies: number }[];
  };
  expect(jobs.map(({ copies }) => copies)).toEqual([24]);
  await expect(out.getByText(/^EU, 24 Nov 2026, batch TO-2611$/)).toBeVisible();
  await tab(page, 'Look');
  await page.getByRole('radio', { name: 'As added' }).check();
  await saved(page);
  await out.getByRole('button', { name: 'Issue for European Union' }).click();
  await expect(out.getByRole('checkbox')).toHaveCount(2);
  for (const box of await out.getByRole('checkbox').all()) await box.check();
  await expect(out.getByRole('table')).toContainText('ingredients');
  await noViolations(page);

  await open(page, application, '/bars/ticket-office');
  await page.getByRole('textbox', { name: 'Amount of Palmarosa oil' }).fill('0.5 %');
  await page.getByRole('textbox', { name: 'Amount of Pink clay' }).fill('0');
  await saved(page);
  await page.getByRole('link', { name: 'Wrap', exact: true }).last().click();
  await awake(page);
  await tab(page, 'Out and issued');
  await expect(page.getByText(/Would read differently today: ingredients/).first()).toBeVisible();
});

test('standing and list follow the market; what is the maker’s is ticked and kept', async ({ page }) => {
  await open(page, application, '/wrap');
  await page.getByRole('link', { name: 'Signal Red' }).click();
  await awake(page);
  const standing = page.getByRole('region', { name: 'Standing' });
  const assessor = standing.getByLabel(/A safety report signed by a qualified assessor/);
  await expect(async () => {
    await assessor.check();
    await expect(assessor).toBeChecked({ timeout: 500 });
  }).toPass();
  await market(page, /^CA/).check();
  await expect(standing).toContainText('Notification within 10 days');
  await tab(page, 'The list');
  await expect(page.getByTestId('wrap-list')).toContainText('Aqua/Water/Eau');
  await expect(page.getByRole('region', { name: 'The list' })).toContainText('colours come last');
  await market(page, /^US/).check();
  await expect(page.getByTestId('wrap-list')).toContainText('Iron Oxides');
  await saved(page);
  await page.reload();
  await awake(page);
  await expect(standing.getByLabel(/A safety report signed/)).toBeChecked();
});

test('a label of a batch says and is held against what is the batch’s, and asks nothing of it', async ({
  page,
}) => {
  await open(page, application, '/wrap/first-light?batch=fl-261014');
  const standing = page.getByRole('region', { name: 'Standing' });
  await expect(standing).toContainText('FL-261014');
  await expect(standing).not.toContainText('FL-2611 ');
  await tab(page, 'Measures');
  const measures = page.getByRole('region', { name: 'Measures' });
  await expect(measures).toContainText(
    /On the label: \d+ g, batch FL-261014, best used before the end of 10\/2028/,
  );
  await expect(measures.getByLabel('Batch', { exact: true })).toHaveCount(0);
  await expect(page.getByText('Best used before the end of 10/2028')).toBeVisible();
});
