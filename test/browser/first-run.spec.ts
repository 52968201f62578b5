/** The first hour of somebody without the demo: by keyboard, by touch on a phone, and by what a screen reader is told. */
import { expect, test, type Page } from '@playwright/test';
import { startApplication, type Application } from './application';
import { amountOf, noViolations, open, saved, verdict } from './page';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication({ isEmpty: true });
});
test.afterAll(() => application.stop());

const MOST_TABS = 80;

/** Goes on with the tabulator until what has the focus says what is looked for. */
async function tabTo(page: Page, words: RegExp): Promise<void> {
  const said = () =>
    page.evaluate(() => {
      const element = document.activeElement as HTMLInputElement | null;
      const labels = [...(element?.labels ?? [])].map(({ textContent }) => textContent);
      return [element?.getAttribute('aria-label'), ...labels, element?.textContent].join(' ').trim();
    });
  for (let tabs = 0; tabs < MOST_TABS; tabs++) {
    await page.keyboard.press('Tab');
    if (words.test(await said())) return;
  }
  throw new Error(`No tab stop says ${words}.`);
}

test('by keyboard alone: who answers, a first bar, a scent on it, its label', async ({ page }) => {
  await open(page, application, '/');
  await expect(page.getByRole('region', { name: 'Begin' })).toContainText('Nothing stands here yet');
  await tabTo(page, /Say who answers for the bars/);
  await page.keyboard.press('Enter');
  await page.waitForURL(/maker/);
  await open(page, application, '/wrap/maker');
  await tabTo(page, /^Name/);
  await page.keyboard.type('Quay Soap');
  await page.keyboard.press('Tab');
  await page.keyboard.type('1 Quay');
  await tabTo(page, /^Keep|^Save/);
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^(?:Kept|Saved)/).first()).toBeVisible();
  await open(page, application, '/');
  await tabTo(page, /A new bar/);
  await page.keyboard.type('First Tide');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'First Tide' })).toBeVisible();
  await open(page, application, '/bars/first-tide');
  await expect(verdict(page)).toHaveText('Clear');
  await tabTo(page, /Add a material/);
  await page.keyboard.type('lavender o');
  await expect(page.getByRole('option', { name: /Lavender oil/ })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(amountOf(page, 'Lavender oil')).toBeFocused();
  await expect(verdict(page)).toHaveText('Unproven');
  await saved(page);
  await open(page, application, '/wrap/first-tide');
  await expect(page.locator('main')).toContainText('an address is on file');
});

test('by touch on a phone: where it is sold, a bar, an amount', async ({ browser }) => {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  const page = await context.newPage();
  await open(page, application, '/house');
  const settings = page.getByRole('region', { name: 'Settings' });
  await settings.getByLabel('Canada').tap();
  await expect(settings.getByRole('status')).toHaveText('Kept.');
  await open(page, application, '/');
  await page.getByLabel('A new bar').tap();
  await page.keyboard.type('Second Tide');
  await page.getByRole('button', { name: 'Start' }).tap();
  await expect(page.getByRole('heading', { level: 1, name: 'Second Tide' })).toBeVisible();
  await open(page, application, '/bars/second-tide');
  await page.getByRole('combobox', { name: 'Add a material' }).tap();
  await page.keyboard.type('kaolin');
  await page
    .getByRole('option', { name: /kaolin/i })
    .first()
    .tap();
  const added = page.getByRole('textbox', { name: /^Amount of .*kaolin/i });
  await added.tap();
  await added.fill('20 g');
  await expect(verdict(page)).toHaveText('Clear');
  await saved(page);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await context.close();
});

/** Whatever can be worked in a tree of names and roles, without a name. */
const nameless = (tree: string) =>
  tree
    .split('\n')
    .filter((line) =>
      /^\s*- (?:button|link|textbox|combobox|checkbox|radio|spinbutton|slider|tab|switch|searchbox)(?: \[[^\]]*\])*:?\s*$/.test(
        line,
      ),
    );

test('to a screen reader everything has a name, one heading leads, and none below is skipped', async ({
  page,
}) => {
  await page.request.post(`${application.url}/api/v1/products`, { data: { name: 'Third Tide' } });
  for (const path of [
    '/',
    '/wrap/maker',
    '/house',
    '/house/import',
    '/cupboard',
    '/cupboard/papers',
    '/bars/third-tide',
    '/wrap/third-tide',
    '/bars/none',
    '/pour',
    '/rack',
    '/watch',
    '/rulebook',
    '/scent',
  ]) {
    await open(page, application, path);
    const tree = await page.locator('body').ariaSnapshot();
    expect(nameless(tree), path).toEqual([]);
    expect(tree, path).toMatch(/^- main:/m);
    const levels = [...tree.matchAll(/- heading .*\[level=(\d)\]/g)].map((match) => Number(match[1]));
    expect(
      levels.filter((level) => level === 1),
      path,
    ).toHaveLength(1);
    expect(levels[0], path).toBe(1);
    levels.forEach((level, at) =>
      expect(level, `${path}, heading ${at + 1}`).toBeLessThanOrEqual((levels[at - 1] ?? 0) + 1),
    );
    await noViolations(page, path, false);
  }
});
