/** From what is asked of a supplier to the paper that answers it. */
import { expect, test } from '@playwright/test';
import { startApplication, type Application } from './application';
import { open } from './page';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

test('a supplier is written to, and the paper that comes is known as the answer and ends what was asked', async ({
  page,
}) => {
  const url = application.url;
  const taken = await page.request.put(`${url}/api/v1/materials`, {
    headers: { origin: url },
    data: { library: 'peanut', supplier: 'Fennmoor Oils' },
  });
  expect(taken.status()).toBe(200);
  await open(page, application, '/cupboard?material=peanut');
  await page.getByRole('button', { name: 'Write one' }).click();
  await page.getByLabel('Language').selectOption('de');
  const letter = page.getByRole('textbox', { name: 'Letter', exact: true });
  await expect(letter).toHaveValue(/Fennmoor Oils[\s\S]*Peanut protein at most 0\.5 ppm/);
  // Her own words stand, whatever is chosen, until she lets them go.
  await letter.fill('Guten Tag, bitte den Proteingehalt.');
  await expect(page.getByRole('checkbox', { name: 'Peanut protein at most 0.5 ppm' })).toBeDisabled();
  await page.getByRole('button', { name: 'Keep as written today' }).click();
  await expect(page.getByText(/Asked on .*, not on file yet: Peanut protein/)).toBeVisible();

  await open(page, application, '/cupboard/papers?material=peanut');
  await page
    .getByLabel('Or paste its text')
    .fill('Fennmoor Oils\nDocument no: FO-2201\nDate: 2026-11-20\nProtein content   < 0.3 ppm');
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByText('this may be the answer')).toBeVisible();
  await page.getByRole('button', { name: 'It states 0.3 ppm' }).click();
  await expect(page.getByText(/Written down.*Shown by FO-2201, Fennmoor Oils, 2026-11-20/)).toBeVisible();
  await open(page, application, '/cupboard?material=peanut');
  await expect(page.getByText('Everything that was asked is on file.')).toBeVisible();
  await page.getByText('The letter', { exact: true }).click();
  await expect(page.getByText('Guten Tag, bitte den Proteingehalt.')).toBeVisible();
});
