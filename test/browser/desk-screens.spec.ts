import { test } from '@playwright/test';
import { startApplication, type Application } from './application';
import { SCREENS } from './screens';
import { walk } from './walk';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

test('every screen at a desk holds to WCAG 2.2 AA as far as axe can tell, and what opens lies on top', async ({
  page,
}) => {
  await walk(page, application, [
    ...SCREENS,
    '/bars/night-mail',
    '/cupboard?material=sweet-orange-oil',
    '/scent?blend=evening-departure',
    '/wrap/lamp-room',
  ]);
});
