/** Every screen holds at a desk, on a phone, and enlarged four times: nothing runs off its side (WCAG 1.4.10), and axe agrees. */
import { expect, test } from '@playwright/test';
import { startApplication, type Application } from './application';
import { noViolations, open } from './page';
import { SCREENS } from './screens';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

const PHONE = 390;
for (const width of [PHONE, 320]) {
  test(`no screen scrolls sideways at ${width} px${width === PHONE ? ', and axe finds nothing' : ''}`, async ({
    browser,
  }) => {
    test.setTimeout(400_000);
    const context = await browser.newContext({ viewport: { width, height: 844 }, hasTouch: true });
    const page = await context.newPage();
    for (const path of SCREENS) {
      await open(page, application, path);
      await page.waitForTimeout(300);
      expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(
        width,
      );
      // What axe looks at differs between desk and phone, hardly between two phones.
      if (width === PHONE) await noViolations(page, `${path} at ${width}`);
    }
    await context.close();
  });
}
