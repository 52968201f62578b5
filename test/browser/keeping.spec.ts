import { expect, test, type Locator } from '@playwright/test';
import { startApplication, type Application } from './application';
import { awake, amountOf, noViolations, open, saved, verdict } from './page';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

test('a bar from nothing, by pointer alone, in few steps', async ({ page }) => {
  await open(page, application, '/');
  const started = Date.now();
  await page.getByLabel('A new bar').fill('Night Platform');
  await page.getByRole('button', { name: 'Start' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Night Platform' })).toBeVisible();
  await awake(page);
  const add = page.getByRole('combobox', { name: 'Add a material' });
  await add.fill('peppermint');
  await page.getByRole('option', { name: /Peppermint oil/ }).click();
  await amountOf(page, 'Peppermint oil').fill('1.5 %');
  await add.fill('white kao');
  await page.getByRole('option', { name: /White kaolin/ }).click();
  await amountOf(page, 'White kaolin').fill('2 tsp');
  await expect(verdict(page)).toHaveText('Clear');
  await expect(page.getByTestId('list-text')).toContainText('Kaolin');
  await saved(page);
  expect(Date.now() - started).toBeLessThan(120_000);
});

/** Types into a field and leaves it within one task of the page, as quick hands do on a busy machine. */
const typeAndLeave = (field: Locator, words: string) =>
  field.evaluate((input: HTMLInputElement, text) => {
    input.focus();
    input.select();
    document.execCommand('insertText', false, text);
    input.blur();
  }, words);

test('a spooned scent leaves doubt that weighing clears', async ({ page }) => {
  await open(page, application, '/bars/first-light');
  await amountOf(page, 'Sweet fennel oil').fill('3.6 %');
  await page.getByRole('button', { name: 'Details of Sweet fennel oil' }).click();
  await page.getByLabel('Measured').selectOption('level spoon');
  await expect(verdict(page)).toHaveText('At risk');
  await expect(page.getByRole('region', { name: 'Verdict' })).toContainText('With the doubt it reads');
  await page.getByRole('button', { name: /^Do it: Weigh Sweet fennel oil/ }).click();
  await expect(verdict(page)).toHaveText('Tight');
  await expect(page.getByLabel('Measured')).toHaveValue('scale');
  // Words of an amount say how it is measured too.
  await amountOf(page, 'Sweet fennel oil').fill('1 heaped tsp');
  await expect(page.getByLabel('Measured')).toHaveValue('heaped');
  await amountOf(page, 'Sweet fennel oil').fill('20 g');
  await expect(page.getByLabel('Measured')).toHaveValue('scale');
  // What a bare percent of a scent is of, is asked once for the house; a figure alone keeps the unit from before.
  await amountOf(page, 'Sweet fennel oil').fill('1 oz');
  await amountOf(page, 'Sweet fennel oil').fill('2 %');
  await expect(page.getByText('2 % of what?')).toBeVisible();
  // Typed and left before the page has been painted: the row is given the new amount a frame later.
  await typeAndLeave(amountOf(page, 'Sweet fennel oil'), '2');
  await expect(amountOf(page, 'Sweet fennel oil')).toHaveValue('2 oz');
  await expect(page.getByText('of what?')).toHaveCount(0);
  await amountOf(page, 'Sweet fennel oil').fill('2 %');
  await page.getByRole('button', { name: 'of the whole pour' }).click();
  await expect(amountOf(page, 'Sweet fennel oil')).toHaveValue('2 % pour');
  await saved(page);
  await page.goto(`${application.url}/house`);
  await expect(page.getByLabel('A bare percent of a scent is')).toHaveValue('%pour');
});

test('the nearest formula that is clear everywhere is found, put on the table and taken back', async ({
  page,
}) => {
  await open(page, application, '/bars/night-mail');
  await expect(verdict(page)).toHaveText('Tight');
  await page.getByText('Clear everywhere', { exact: true }).click();
  const panel = page.getByRole('region', { name: 'Clear everywhere' });
  for (const market of ['United States', 'Canada', 'Australia'])
    await panel.getByRole('checkbox', { name: market }).check();
  await panel.getByRole('checkbox', { name: 'vegan' }).check();
  await panel.getByRole('button', { name: 'Find the nearest' }).click();
  await expect(panel.getByRole('table', { name: 'What moves' })).toContainText('Coal & Violets');
  await expect(panel).toContainText('Then it is clear in all of them.');
  // Another tick is another question: what was found goes.
  await panel.getByRole('checkbox', { name: 'free of palm' }).check();
  await expect(panel.getByRole('table', { name: 'What moves' })).toHaveCount(0);
  await panel.getByRole('button', { name: 'Find the nearest' }).click();
  await panel.getByRole('button', { name: 'Put it on the table' }).click();
  await expect(verdict(page)).toHaveText('Clear');
  await expect(panel.getByRole('table', { name: 'What moves' })).toHaveCount(0);
  await noViolations(page, 'clear everywhere');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(verdict(page)).toHaveText('Tight');
  await saved(page);
});

test('a change made just before the page is left is not lost', async ({ page }) => {
  await open(page, application, '/bars/signal-red');
  await amountOf(page, 'Red clay').fill('2.25 %');
  await expect(page.getByText('Not saved yet')).toBeVisible();
  await page.goto(`${application.url}/cupboard`);
  await open(page, application, '/bars/signal-red');
  await expect(amountOf(page, 'Red clay')).toHaveValue('2.25 % fats');
});

test('a mix is made of materials, stands in a bar, and changes with its parts', async ({ page }) => {
  await open(page, application, '/cupboard');
  await page.getByRole('button', { name: 'A material or mix' }).click();
  await page.getByRole('radio', { name: 'A mix of materials' }).check();
  await page.getByLabel('Name of the mix').fill('Wetted clay');
  const part = page.getByLabel('Add a part');
  await part.selectOption('White kaolin');
  await part.selectOption('Water, distilled');
  await page.getByLabel('Parts of Water, distilled').fill('2');
  await expect(page.getByText('66.7 %')).toBeVisible();
  await expect(page.getByText(/^Stands in a formula as/)).toBeVisible();
  await page.getByRole('button', { name: 'Keep' }).click();
  const mix = page.getByRole('region', { name: 'Wetted clay' });
  await expect(mix).toContainText('White kaolin 33.3 %');

  await open(page, application, '/bars/waiting-room');
  await page.getByRole('combobox', { name: 'Add a material' }).fill('wetted');
  await page.getByRole('option', { name: /Wetted clay/ }).click();
  await amountOf(page, 'Wetted clay').fill('6 %');
  await expect(page.getByTestId('list-text')).toContainText('Kaolin');
  await saved(page);
  await open(page, application, '/cupboard?material=kaolin');
  await expect(page.getByRole('region', { name: 'Used in' })).toContainText(
    'Waiting Room through Wetted clay',
  );
  await page.getByRole('button', { name: 'Remove White kaolin' }).click();
  await expect(page.getByRole('region', { name: 'White kaolin' }).getByRole('alert')).toContainText(
    'is used in',
  );
});

test('a craft ceiling of one’s own takes the place of the usual one, and is taken back', async ({ page }) => {
  await open(page, application, '/bars/night-mail');
  const clay = page.getByRole('listitem').filter({ hasText: 'Grey clay' });
  await expect(clay).toContainText('makers stay under 5 %');
  await open(page, application, '/cupboard');
  const own = page.getByLabel('Your own ceiling for Clays together, percent');
  await own.fill('1.5');
  await own.blur();
  await page.waitForTimeout(300);
  await open(page, application, '/bars/night-mail');
  await expect(clay).toContainText('makers stay under 1.5 %');
  await expect(clay).toContainText('Your own figure');
  await open(page, application, '/cupboard');
  await own.fill('');
  await own.blur();
  await page.waitForTimeout(300);
  await open(page, application, '/bars/night-mail');
  await expect(clay).toContainText('makers stay under 5 %');
});

test('a blend and a wrap changed in two windows are never overwritten unasked', async ({ page, context }) => {
  const other = await context.newPage();
  await open(page, application, '/scent?blend=sidings');
  await open(other, application, '/scent?blend=sidings');
  await other.getByLabel('Parts of Petitgrain oil').fill('2');
  await saved(other);
  await page.getByLabel('Parts of Petitgrain oil').fill('3');
  await expect(page.getByText('This blend was changed in another window')).toBeVisible();
  await page.getByRole('button', { name: 'Keep mine' }).click();
  await saved(page);

  await open(page, application, '/wrap/first-light');
  await open(other, application, '/wrap/first-light');
  await other.getByLabel('Own words on the label').fill('Keep dry.');
  await saved(other);
  await page.getByLabel('Own words on the label').fill('Keep it dry.');
  await expect(page.getByText('This wrap was changed in another window')).toBeVisible();
  await page.getByRole('button', { name: /Take the other/ }).click();
  await expect(page.getByLabel('Own words on the label')).toHaveValue('Keep dry.');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('Own words on the label')).toHaveValue('Keep it dry.');
});

test('phrases of one’s own are found, and forgotten again', async ({ page }) => {
  await open(page, application, '/wrap/lamp-room');
  await expect(page.getByRole('region', { name: 'Label' })).toBeVisible(); // drawn, so the island is awake
  await page.getByLabel('Description, for the shop').fill('With a signal shine');
  const claims = page.getByRole('region', { name: 'Claims' });
  await expect(claims).toContainText('Nothing was found in these words that promises more');
  await page.getByText('My own phrases').click();
  await page.getByLabel('Words, in order').fill('signal shin*');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(claims).toContainText('“signal shine” a cosmetic claim');
  await page.getByRole('button', { name: 'Remove signal shin*' }).click();
  await expect(claims).toContainText('Nothing was found in these words that promises more');
  // What speaks of the body in unknown words is asked about, and what a reader says of it stands.
  await page.getByLabel('Description, for the shop').fill('Knees like a lamb');
  await expect(page.getByRole('region', { name: 'Standing' })).toContainText(
    'promised by “Knees like a lamb”',
  );
  await claims.getByRole('button', { name: '“Knees like a lamb”: Acts on the body' }).click();
  await expect(claims).toContainText('“Knees like a lamb” a medicine claim');
  await page.getByRole('button', { name: 'Remove knees like a lamb' }).click();
});

test('the formula sheet stands on paper as it stands on the table', async ({ page }) => {
  await open(page, application, '/bars/lamp-room/sheet');
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
  await expect(page.getByRole('navigation')).toBeHidden();
  const sheet = page.getByRole('article');
  for (const words of [
    '138.4 g',
    'Clove bud oil',
    '8.00 g',
    'Certificate NB-198',
    'Goggles, gloves',
    'second method',
  ])
    await expect(sheet).toContainText(words);
  await page.goto(`${application.url}/bars/nowhere/sheet`);
  await expect(page.getByRole('heading', { name: 'There is no bar here' })).toBeVisible();
  expect((await page.goto(`${application.url}/compare?left=nowhere`))!.status()).toBe(404);
  expect((await page.goto(`${application.url}/wrap/nowhere`))!.status()).toBe(404);
});
