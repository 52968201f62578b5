import { test } from '@playwright/test';
import { startApplication, type Application } from './application';
import { SCREENS } from './screens';
import { walk } from './walk';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

test('every screen on a phone, and enlarged four times, scrolls down alone; axe finds nothing; what opens lies on top', async ({
  page,
}) => {
  await walk(page, application, SCREENS);
});
