/** What the journeys share: opening a page awake, its usual parts, and axe. */
import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import type { Application } from './application';

/** Opens a path and waits until its islands are awake. */
export async function open(page: Page, application: Application, path: string): Promise<void> {
  await page.goto(application.url + path);
  await awake(page);
}

/** Waits until the islands of a page that a link led to are awake; its address or heading is waited for first. */
export async function awake(page: Page): Promise<void> {
  await expect(page.locator('astro-island[ssr]')).toHaveCount(0);
  await page.waitForFunction(isAwake);
}

/** Whether React has taken every island over: Astro drops `ssr` a moment earlier, and what is done in between is lost. */
function isAwake(): boolean {
  const isTaken = (element: Element) => Object.keys(element).some((key) => key.startsWith('__reactProps'));
  return [...document.querySelectorAll('astro-island')].every((island) => {
    const inside = [...island.querySelectorAll('*')];
    return inside.length === 0 || inside.some(isTaken);
  });
}

/** The worktable's verdict. */
export const verdict = (page: Page) => page.getByRole('region', { name: 'Verdict' }).getByRole('heading');

/** The amount of a line by its material's name. */
export const amountOf = (page: Page, name: string) =>
  page.getByRole('textbox', { name: `Amount of ${name}` });

/** Waits until everything is on file. */
export const saved = (page: Page) => expect(page.getByText('Saved', { exact: true })).toBeVisible();

/** Chooses a tab; a click before the island is awake is made again. */
export const tab = (page: Page, name: string) =>
  expect(async () => {
    await page.getByRole('tab', { name }).click();
    await expect(page.getByRole('tab', { name })).toHaveAttribute('aria-selected', 'true', { timeout: 500 });
  }).toPass();

/**
 * Holds a page to WCAG 2.2 AA as far as axe can tell. Contrast takes half the time and hangs on the tokens of colours, which
 * are the same at every width: the walk at a desk looks at it.
 */
export async function noViolations(page: Page, where = '', isContrastSeen = true): Promise<void> {
  // No page has frames of another origin, for which axe would open a window of its own each time.
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'],
      rules: { 'color-contrast': { enabled: isContrastSeen } },
      // What holds is not told of: naming each element of it took most of the time.
      resultTypes: ['violations'],
    })
    .analyze();
  expect(violations.map(({ id, nodes }) => `${where} ${id} ${nodes[0]?.html}`)).toEqual([]);
}

/** Types a day, YYYY-MM-DD, into a day field as a maker does: day, month, year. */
export async function typeDay(page: Page, label: string, day: string): Promise<void> {
  const [year, month, date] = day.split('-') as [string, string, string];
  const field = page.getByRole('group', { name: label });
  for (const [part, digits] of [
    ['day', date],
    ['month', month],
    ['year', year],
  ] as const) {
    await field.getByRole('spinbutton', { name: part }).focus();
    await page.keyboard.type(digits);
  }
}
