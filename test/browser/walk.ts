/**
 * A walk over every screen, at a desk and on a phone: axe finds nothing, nothing runs off the side (WCAG 1.4.10), and
 * whatever opens, lists under fields, dialogs and closed parts, lies in the window and is really on top. A list once lay
 * half off the page, its names out of sight, while all tests passed.
 */
import { expect, type Locator, type Page } from '@playwright/test';
import type { Application } from './application';
import { noViolations, open } from './page';

/** What is wrong with how an open list or dialog lies, in words; null where nothing is. */
function lieOf(of: Element): string | null {
  // What is longer than its frame scrolls within it: the frame is what lies on the page.
  const frame = of.parentElement;
  const scrolls = frame !== null && /auto|scroll/.test(getComputedStyle(frame).overflowY);
  const element = scrolls ? frame : of;
  const { left, right, top, bottom, width, height } = element.getBoundingClientRect();
  const [wide, high] = [document.documentElement.clientWidth, window.innerHeight];
  if (width < 40 || height < 10) return `is ${Math.round(width)} by ${Math.round(height)} px`;
  if (left < -1 || right > wide + 1 || top < -1 || bottom > high + 1)
    return `lies at ${Math.round(left)} to ${Math.round(right)} by ${Math.round(top)} to ${Math.round(bottom)} in ${wide} by ${high}`;
  const words = [...element.querySelectorAll('[role=option], button, a, p, h2, label')].slice(0, 12);
  for (const one of words) {
    const box = one.getBoundingClientRect();
    const [x, y] = [box.left + Math.min(box.width / 2, 30), box.top + box.height / 2];
    const isShown = box.width > 0 && y > top && y < bottom && x > left && x < right;
    if (!isShown) continue;
    const found = document.elementFromPoint(x, y);
    if (!found || !(one.contains(found) || found.contains(one)))
      return `has “${one.textContent?.slice(0, 40)}” under ${found?.tagName ?? 'nothing'}`;
  }
  return null;
}

/** A list may still be finding its place for a moment; what it says then is held. */
const check = (found: Locator, where: string) =>
  expect.poll(() => found.evaluate(lieOf), { message: where }).toBe(null);

/** Opens every list under a field of a screen. */
async function lists(page: Page, where: string): Promise<number> {
  const fields = page.locator('input[role=combobox]');
  let opened = 0;
  for (let at = 0; at < (await fields.count()); at++) {
    const field = fields.nth(at);
    if (!(await field.isVisible())) continue;
    await field.scrollIntoViewIfNeeded();
    await field.fill('la');
    const list = page.locator('[role=listbox]').first();
    await expect(list.getByRole('option').filter({ hasNotText: 'Looking' }).first()).toBeVisible();
    await check(list, `${where}, list ${at + 1}`);
    opened++;
    await page.keyboard.press('Escape');
    await field.fill('');
    await page.keyboard.press('Escape');
  }
  return opened;
}

/** Opens every closed part; nothing of it runs off the side. */
async function parts(page: Page, where: string): Promise<void> {
  const closed = page.locator('main details:not([open]) > summary');
  for (let left = await closed.count(); left > 0; left--) {
    const first = closed.first();
    if ((await closed.count()) === 0 || !(await first.isVisible())) break;
    await first.click();
  }
  await fits(page, `${where}, every part open`);
}

/** The header, and what it opens, is the same on every screen: it is opened on one of so many. */
const SCREENS_A_DIALOG = 6;

/** Opens the dialogs of the header. */
async function dialogs(page: Page, where: string): Promise<void> {
  const find = page.getByRole('button', { name: /^Find/ });
  if ((await find.count()) === 0 || !(await find.first().isVisible())) return;
  await find.first().click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toBeVisible();
  await check(dialog, `${where}, the finder`);
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
}

/** Nothing of a page runs off its side; a chart may still be drawing itself anew for a moment. */
const fits = (page: Page, where: string) =>
  expect
    .poll(
      () => page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
      { message: where },
    )
    .toBeLessThanOrEqual(0);

/** As narrow as a desk of 1280 px enlarged four times. */
const ENLARGED_PX = 320;

/** Walks over screens at a width, and at a phone's once more enlarged. */
export async function walk(page: Page, application: Application, paths: readonly string[]): Promise<void> {
  const { width, height } = page.viewportSize()!;
  let count = 0;
  for (const [at, path] of paths.entries()) {
    await open(page, application, path);
    const where = `${path} at ${width}`;
    await fits(page, where);
    await noViolations(page, where, width >= 800);
    if (at % SCREENS_A_DIALOG === 0) await dialogs(page, where);
    count += await lists(page, where);
    await parts(page, where);
    if (width >= 800) continue;
    await page.setViewportSize({ width: ENLARGED_PX, height });
    await fits(page, `${path} at ${ENLARGED_PX}, every part open`);
    await page.setViewportSize({ width, height });
  }
  expect(count, 'lists opened').toBeGreaterThan(1);
}
