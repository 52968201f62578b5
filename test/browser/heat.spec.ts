/** How the block heats: on the worktable before the pour, on the rack with the thermometer after it. */
import { expect, test } from '@playwright/test';
import { startApplication, type Application } from './application';
import { noViolations, open, tab } from './page';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

test('a maker sees how a pour will heat, tries other ways, and says what a mould is made of', async ({
  page,
}) => {
  await open(page, application, '/bars/first-light');
  await tab(page, 'Size');
  await page.getByText('How it heats after the pour').click();
  await expect(
    page.getByRole('img', { name: 'Warmth of middle and edge over a day, with its band' }),
  ).toBeVisible();
  const ways = page.getByRole('table', { name: 'The ways side by side' });
  await expect(ways.getByRole('row')).toHaveCount(7, { timeout: 60_000 });
  await expect(ways.getByRole('row', { name: /^Kept warm/ })).toContainText('gels through');
  await expect(ways.getByRole('row', { name: /^Chilled/ })).toContainText('does not gel');
  await expect(page.getByText(/Look at it from .* h after the pour/)).toBeVisible();

  const slider = page.getByRole('slider', { name: 'Hours since the pour' });
  await slider.focus();
  await page.keyboard.press('Home');
  await expect(
    page.getByRole('img', { name: /^A cut through the block after 0 hours: Middle 40 °C/ }),
  ).toBeVisible();
  await noViolations(page);

  await page.getByText('My moulds').click();
  await page.getByRole('listitem').filter({ hasText: 'Long block' }).locator('summary').click();
  const block = page.getByRole('listitem').filter({ hasText: 'Long block' });
  await block.getByLabel('Wall').selectOption('silicone');
  await block.getByLabel('Width, mm').fill('80');
  await block.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText(/^Long block: silicone, 250 × 80 mm/)).toBeVisible();
});

test('the thermometer of a poured batch is held against what was foreseen', async ({ page }) => {
  await open(page, application, '/rack/fl-261123');
  const warmth = page.getByRole('region', { name: 'Warmth' });
  await expect(warmth.getByRole('img', { name: /^A cut through the block/ })).toBeVisible();
  await warmth.getByLabel('Middle, °C').fill('48,5');
  await warmth.getByLabel('Room, °C').fill('19');
  await warmth.getByRole('button', { name: 'Measured now' }).click();
  await expect(warmth.getByRole('list', { name: 'Foreseen and measured' })).toContainText(
    /middle: 49 °C measured, \d+ °C foreseen/,
  );
  await expect(warmth.getByText(/Narrowed by your thermometer in one pour/)).toBeVisible({ timeout: 60_000 });
});
