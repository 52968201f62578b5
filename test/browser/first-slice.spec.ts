import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { startApplication, type Application } from './application';
import { amountOf, awake, open, saved, verdict } from './page';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

async function openBar(page: Page, name: string) {
  await page.goto(application.url);
  await page.getByRole('link', { name }).click();
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible();
  await awake(page);
}

async function pdfText(path: string): Promise<string> {
  const pdf = await getDocument({ data: new Uint8Array(readFileSync(path)), verbosity: 0 }).promise;
  const { items } = await (await pdf.getPage(1)).getTextContent();
  return items
    .map((item) => ('str' in item ? item.str : ''))
    .join(' ')
    .replace(/\s+/g, ' ');
}

test('from a formula to a checked label', async ({ page }) => {
  await openBar(page, 'Night Mail');
  await expect(verdict(page)).toHaveText('Tight');

  const amount = amountOf(page, 'Coal & Violets');
  await amount.fill('6');
  await expect(verdict(page)).toHaveText('Over');
  const region = page.getByRole('region', { name: 'Verdict' });
  await expect(region).toContainText('Certificate BA-1407, Brackwater Aromatics, 51st edition, category 9');

  const largest = page.getByRole('button', { name: /^Set to 5\.\d+ % fats/ });
  const offered = (await largest.textContent())!.replace('Set to ', '');
  await largest.click();
  await expect(amount).toHaveValue(offered);
  await expect(verdict(page)).toHaveText('Tight');

  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(amount).toHaveValue('6 % fats');
  await expect(verdict(page)).toHaveText('Over');
  await page.keyboard.press('Control+Shift+z');
  await expect(amount).toHaveValue(offered);
  await saved(page);

  await page.reload();
  await awake(page);
  await expect(amount).toHaveValue(offered);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();

  const list = page.getByTestId('list-text');
  await page.getByRole('radio', { name: 'As added' }).click();
  await expect(list).toContainText('Aqua, Cocos Nucifera');
  await page.getByRole('radio', { name: 'As formed' }).click();
  await expect(list).toContainText('Sodium Olivate, ');
  await expect(list).toContainText('Glycerin');
  const text = (await list.textContent())!;

  await open(page, application, '/wrap/night-mail?batch=draft');
  const out = page.getByRole('region', { name: 'Out and issued' });
  await expect(async () => {
    await page.getByRole('tab', { name: 'Out and issued' }).click();
    await expect(out).toBeVisible({ timeout: 500 });
  }).toPass();
  const download = page.waitForEvent('download');
  await out.getByRole('button', { name: 'PDF with trim and bleed' }).click();
  const printed = await pdfText(await (await download).path());
  // A line that ends within a word breaks it in the PDF's text.
  expect(printed.replace(/\s/g, '')).toContain(text.replace(/\s/g, ''));
  for (const part of ['Night Mail', '86 g', 'Signalbox Soap', 'Batch NM-2611'])
    expect(printed).toContain(part);
});

test('what cannot be read stays in its field and loses nothing', async ({ page }) => {
  await openBar(page, 'First Light');
  const amount = amountOf(page, 'Sweet orange oil');
  await expect(verdict(page)).toHaveText('Clear');
  for (const [typed, said] of [
    ['-3', 'below zero'],
    ['a handful', 'Weigh one and say it in grams'],
    ['2 furlongs', '“furlongs” is not a unit here'],
    ['9000 kg', 'more than any pot holds'],
  ] as const) {
    await amount.fill(typed);
    await expect(page.getByRole('alert').filter({ hasText: said })).toBeVisible();
    await expect(verdict(page)).toHaveText('Clear');
    await expect(amount).toHaveValue(typed);
  }
  await amount.fill('1/2 oz');
  await saved(page);
  await expect(page.getByText('14.2 g')).toBeVisible();

  for (const fat of ['Coconut oil', 'Shea butter', 'Rapeseed oil, low erucic', 'Castor oil']) {
    await amountOf(page, fat).fill('0');
  }
  const before = await verdict(page).textContent();
  await amountOf(page, 'Olive oil').fill('0');
  await expect(page.getByRole('alert').filter({ hasText: 'The fats weigh nothing' })).toBeVisible();
  await expect(verdict(page)).toHaveText(before!);
  await expect(page.getByText('from before this change').first()).toBeVisible();
  await amountOf(page, 'Olive oil').fill('100');
  await saved(page);
});

test('a stale window is told and overwrites nothing by itself', async ({ page, context }) => {
  await openBar(page, 'Lamp Room');
  const other = await context.newPage();
  await openBar(other, 'Lamp Room');
  await amountOf(other, 'Petitgrain oil').fill('1.1');
  await saved(other);

  await amountOf(page, 'Petitgrain oil').fill('0.9');
  await expect(page.getByText('changed in another window')).toBeVisible();
  await page.getByRole('button', { name: /Take the other/ }).click();
  await expect(amountOf(page, 'Petitgrain oil')).toHaveValue('1.1 % fats');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(amountOf(page, 'Petitgrain oil')).toHaveValue('0.9 % fats');
  await saved(page);
  await other.reload();
  await expect(amountOf(other, 'Petitgrain oil')).toHaveValue('0.9 % fats');
});
