import { expect, test, type Page } from '@playwright/test';
import { startApplication, type Application } from './application';
import { awake, amountOf, noViolations, open, saved, tab, verdict } from './page';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

const loads = (page: Page) =>
  page
    .getByRole('region', { name: 'Loads' })
    .getByRole('button', { name: /^Details of/ })
    .allTextContents();

test('lines are put in another order by keys and by pointer, and undone', async ({ page }) => {
  await open(page, application, '/bars/lamp-room');
  expect(await loads(page)).toEqual(['Clove bud oil', 'Cinnamon leaf oil', 'Petitgrain oil']);
  await page.getByRole('button', { name: 'Move Petitgrain oil' }).focus();
  const told = page.locator('[id^=DndLiveRegion]').first();
  await page.keyboard.press('Space');
  await expect(told).toHaveText(/^Petitgrain oil over Petitgrain oil/);
  // A key pressed before the rows are measured moves nothing.
  await expect(async () => {
    await page.keyboard.press('ArrowUp');
    await expect(told).toHaveText(/^Petitgrain oil over Cinnamon leaf oil/, { timeout: 2000 });
  }).toPass();
  await page.keyboard.press('Space');
  await expect.poll(() => loads(page)).toEqual(['Clove bud oil', 'Petitgrain oil', 'Cinnamon leaf oil']);
  await page.keyboard.press('Control+z');
  await expect.poll(() => loads(page)).toEqual(['Clove bud oil', 'Cinnamon leaf oil', 'Petitgrain oil']);

  const from = (await page.getByRole('button', { name: 'Move Clove bud oil' }).boundingBox())!;
  const to = (await page.getByRole('button', { name: 'Move Petitgrain oil' }).boundingBox())!;
  await page.mouse.move(from.x + 5, from.y + 5);
  await page.mouse.down();
  await page.mouse.move(from.x + 5, from.y + 40, { steps: 5 });
  await expect(told).toContainText(/^Clove bud oil /);
  await page.mouse.move(to.x + 5, to.y + 12, { steps: 8 });
  await expect(told).toHaveText(/^Clove bud oil over Petitgrain oil/);
  await page.mouse.up();
  await expect.poll(() => loads(page)).toEqual(['Cinnamon leaf oil', 'Petitgrain oil', 'Clove bud oil']);
  await saved(page);
});

test('what-if moves verdicts without touching the bar, until it is put on the table', async ({ page }) => {
  await open(page, application, '/bars/night-mail');
  await tab(page, 'Slide and see');
  const panel = page.getByRole('region', { name: 'Slide and see' });
  await panel.getByLabel(/^of/).selectOption('Coal & Violets');
  await panel.getByLabel(/^Load/).fill('120');
  await expect(panel.getByRole('status')).toContainText('Over');
  await expect(verdict(page)).toHaveText('Tight');
  await panel.getByRole('button', { name: 'Back to what is' }).click();
  await panel.getByLabel(/^Cured weighs/).fill('76');
  await expect(panel.getByRole('status')).toContainText('Over'); // the drier the bar, the higher the load
  await panel.getByRole('button', { name: 'Put this on the table' }).click();
  await expect(verdict(page)).toHaveText('Over');
  await page.keyboard.press('Control+z');
  await expect(verdict(page)).toHaveText('Tight');
  await panel.getByLabel('Rules as of').selectOption('31 Jul 2028');
  await expect(panel.getByRole('status')).toContainText('Tight');
});

test('a batch is sized to a mould, and costs what its lots cost', async ({ page }) => {
  await open(page, application, '/bars/first-light');
  await tab(page, 'Size');
  const panel = page.getByRole('region', { name: 'Size and cost' });
  await expect(panel).toContainText('left over');
  await panel.getByLabel(/^Mould[^s]/).selectOption('Slab, 2.90 L, 30 bars');
  await panel.getByRole('button', { name: 'Size to fill 1 × Slab' }).click();
  await expect(panel).toContainText('Fills 1 to the rim. Nothing is left over.');
  await expect(panel).toContainText('2.90 L of batter');
  await expect(panel.getByRole('textbox', { name: 'Bars from a batch' })).toHaveValue('30');
  const cost = panel.getByRole('region', { name: 'Cost' });
  await expect(cost).toContainText('a bar of 30');
  await expect(cost).toContainText('Sodium hydroxide');
  const price = cost.getByRole('region', { name: 'Price' });
  await price.getByLabel('A bar', { exact: true }).fill('6');
  await price.getByRole('button', { name: 'A place where it is sold' }).click();
  await price.getByLabel('tax, %').fill('19');
  await expect(price).toContainText('tax €0.96');
  await price.getByLabel('A bar', { exact: true }).fill('0.2');
  await expect(price).toContainText('Below what a bar costs');
  await page.waitForResponse(
    (answer) => answer.url().endsWith('/price') && answer.request().method() === 'PUT',
  );
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('textbox', { name: 'Fats in all' })).toHaveValue('1000');
  await expect(price.getByLabel('tax, %')).toHaveValue('19');

  await panel.getByText('My moulds').click();
  await panel.getByLabel('Name').fill('Tin');
  await panel.getByLabel('Holds, mL').fill('nothing');
  await panel.getByRole('button', { name: 'Add', exact: true }).click();
  const mould = panel.getByRole('form', { name: 'A mould' });
  await expect(mould.getByRole('alert')).toContainText('Give a number');
  await panel.getByLabel('Holds, mL').fill('700');
  await panel.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(panel.getByRole('listitem').filter({ hasText: 'Tin, 700 mL, 1 bars' })).toBeVisible();
});

test('an add-in moves from one portion to the other, and a bar becomes a variation', async ({ page }) => {
  await open(page, application, '/bars/level-crossing');
  const portions = page.getByRole('region', { name: 'Portions' });
  const salt = portions.getByRole('row').filter({ hasText: 'Sea salt' });
  await expect(salt).toContainText('none');
  await salt.getByRole('radio', { name: 'white' }).check();
  await expect(page.getByText('in portion white').last()).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await tab(page, 'Bar');
  await page.getByLabel('A variation named').fill('Level Crossing, no salt');
  await page.getByRole('button', { name: 'Start a variation' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Level Crossing, no salt' })).toBeVisible();
  await open(page, application, '/compare?left=level-crossing&right=level-crossing-no-salt');
  await expect(page.getByText('The two formulas are the same.')).toBeVisible();
  await page.getByLabel('On the right').selectOption('Night Mail, as it is');
  await expect(page.getByText(/without Sea salt, fine \(32 % fats\)/)).toBeVisible();
});

test('a certificate is read from its PDF, corrected, accepted, and the verdict follows', async ({ page }) => {
  await open(page, application, '/bars/branch-line');
  await expect(verdict(page)).toHaveText('Unproven');
  await open(page, application, '/cupboard/papers');
  await page.getByRole('button', { name: /BA-1502 Wet Slate certificate/ }).click();
  const read = page.getByRole('region', { name: 'What was read' });
  await expect(read.getByLabel('Belongs to')).toHaveValue('wet-slate');
  await expect(read.getByLabel(/^Most in a bar/)).toHaveValue('5.2');
  await expect(page.getByRole('img', { name: 'Page 1 of BA-1502 Wet Slate certificate.pdf' })).toBeVisible();
  await read.getByRole('button', { name: 'File what is ticked' }).click();
  await expect(read.getByRole('alert')).toContainText('Flash point, °C: tick that you have looked at it.');
  await read.getByLabel(/I have looked/).check();
  await noViolations(page);
  await read.getByLabel(/^Most in a bar/).fill('5,1');
  await read.getByRole('button', { name: 'File what is ticked' }).click();
  await expect(page.getByRole('status', { name: 'Filed' })).toContainText('Certificate BA-1502 counts');
  await page.getByRole('link', { name: 'Branch Line' }).click();
  await expect(verdict(page)).toHaveText('Clear');
  await awake(page);
  await page.getByRole('button', { name: 'Details of Wet Slate' }).click();
  await expect(
    page.getByText(/Certificate BA-1502 of 2026-11-22 counts: the only one on file/),
  ).toBeVisible();
});

test('pasted text is read; what cannot be opened says what to do; doubtful rows wait', async ({ page }) => {
  await open(page, application, '/cupboard/papers?material=palmarosa-oil');
  const chooser = page.locator('input[type=file]');
  await chooser.setInputFiles({
    name: 'broken.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('%PDF-1.4 broken'),
  });
  await expect(page.getByRole('alert').first()).toContainText('This PDF cannot be opened');
  await chooser.setInputFiles({
    name: 'x.bin',
    mimeType: 'application/octet-stream',
    buffer: Buffer.from([0, 1, 2]),
  });
  await expect(page.getByRole('alert').first()).toContainText('neither a PDF, a picture nor text');
  await page
    .getByLabel('Or paste its text')
    .fill('Declaration NB-900\nIssued on 2026-11-20\nLinalool  78-70-7  3 %\nGeraniol  106-24-1  80 %');
  await page.getByRole('button', { name: 'Read it' }).click();
  const read = page.getByRole('region', { name: 'What was read' });
  await expect(read.getByText('The paper names no material. Is that this material?')).toBeVisible();
  await expect(read.getByLabel('Take Linalool')).not.toBeChecked();
  await expect(read.getByLabel('Take Geraniol')).toBeChecked();
  await expect(read.getByLabel('Typical share of Geraniol, percent')).toHaveValue('80');

  // The same paper sent again with another figure is another reading, though name, number and length are the same.
  await page
    .getByLabel('Or paste its text')
    .fill('Declaration NB-900\nIssued on 2026-11-20\nLinalool  78-70-7  3 %\nGeraniol  106-24-1  70 %');
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(read.getByLabel('Typical share of Geraniol, percent')).toHaveValue('70');
  await read.getByLabel('Issued by').fill('Ninefold Botanicals');
  await read.getByRole('button', { name: 'File what is ticked' }).click();
  await page.getByRole('link', { name: 'See it in the cupboard' }).click();
  const material = page.getByRole('region', { name: 'Palmarosa oil' });
  await expect(material).toContainText('Allergen declaration NB-900');
  await expect(material.getByRole('region', { name: 'What it holds' })).toContainText('Geraniol 70 %');
  await material.getByRole('button', { name: 'Take NB-900 off the file' }).click();
  await expect(material).not.toContainText('NB-900');
});

test('the cupboard by keyboard: finding, stepping, a lot, an own material and its ceiling', async ({
  page,
}) => {
  await open(page, application, '/cupboard');
  await page.getByLabel('Find').focus();
  await page.keyboard.type('clay');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('region', { name: 'Grey clay' })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  const pink = page.getByRole('region', { name: 'Pink clay' });
  await expect(pink).toContainText('Ticket Office');
  await pink.getByRole('button', { name: 'A lot' }).click();
  await pink.getByLabel('Lot', { exact: true }).fill('K-77');
  await pink.getByLabel('Bought, g').fill('some');
  await page.keyboard.press('Enter');
  await expect(pink.getByRole('alert').first()).toContainText('Give a number');
  await pink.getByLabel('Bought, g').fill('750');
  await page.keyboard.press('Enter');
  await expect(pink.getByRole('row').filter({ hasText: 'K-77' })).toContainText('750 g of 750 g');

  await page.getByRole('button', { name: 'A material or mix' }).click();
  await page.getByRole('radio', { name: 'One of your own' }).check();
  await page.getByLabel('Name', { exact: true }).fill('Platform dust');
  await page.getByLabel('Kind').last().selectOption('Botanical');
  await page.getByLabel(/^Ingredient names/).fill('Calluna Vulgaris Flower Powder');
  await page.getByLabel(/^Your own ceiling/).fill('1');
  await page.getByRole('button', { name: 'Keep' }).click();
  const own = page.getByRole('region', { name: 'Platform dust' });
  await expect(own).toContainText('Calluna Vulgaris Flower Powder');

  await open(page, application, '/bars/waiting-room');
  await page.getByRole('combobox', { name: 'Add a material' }).fill('platform');
  await page.getByRole('option', { name: /Platform dust/ }).click();
  await amountOf(page, 'Platform dust').fill('2 %');
  await expect(page.getByRole('listitem').filter({ hasText: 'Platform dust' })).toContainText(
    'Your own ceiling',
  );
  await expect(verdict(page)).toHaveText('Tight'); // advice never makes it worse
});

test('a blend: what binds, the nearest that fits solved and assessed again, sent to a bar', async ({
  page,
}) => {
  await open(page, application, '/scent?blend=evening-departure');
  const parts = page.getByRole('region', { name: 'Parts' });
  await parts.getByLabel('In all').fill('4');
  await expect(parts.getByRole('status')).toContainText('Over');
  await expect(page.getByRole('region', { name: 'How far it can go' })).toContainText(
    'Eugenol, at most 0.75 %',
  );
  const solver = page.getByRole('region', { name: 'Nearest blend that fits' });
  await solver.getByRole('button', { name: 'Find it' }).click();
  await expect(solver.getByRole('status')).toContainText('of the blend moved');
  await expect(solver).toContainText('Eugenol at most 0.75 %');
  await noViolations(page);
  await solver.getByRole('button', { name: 'Take these parts' }).click();
  await expect(parts.getByRole('status')).not.toContainText('Over');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(parts.getByRole('status')).toContainText('Over');
  await page.getByRole('button', { name: 'Redo' }).click();
  await saved(page);

  await solver.getByLabel('hold each part').check();
  await solver.getByLabel('Each part may move by').fill('0');
  await parts.getByLabel('Parts of Clove bud oil').fill('80');
  await solver.getByRole('button', { name: 'Find it' }).click();
  await expect(solver.getByRole('status')).toContainText('Nothing fits. These do not go together');
  await expect(solver.getByRole('status')).toContainText('4 % of the fats in all');
  await page.keyboard.press('Control+z');

  const names = page.getByRole('region', { name: 'Fewer names on the label' });
  const said = Number(/(\d+) names:/.exec(await names.innerText())![1]);
  await names.getByRole('button', { name: 'What would each cost?' }).click();
  await expect(names.getByRole('img', { name: /^Names left/ })).toBeVisible();
  const last = names.getByRole('radio').last();
  await last.check();
  const left = Number(/(\d+) of \d+ names/.exec(await names.getByRole('listitem').last().innerText())![1]);
  expect(left).toBeLessThan(said);
  await noViolations(page, 'fewer names');
  await names.getByRole('button', { name: 'Take these parts' }).click();
  // Assessed anew, the label names no more than was said.
  await expect(names).toContainText(new RegExp(`${left} names:|Nothing of it`));
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(names).toContainText(`${said} names:`);

  const all = page.getByRole('region', { name: 'Fewer names on all labels' });
  await all.getByLabel('Of a bar’s scent may be another').selectOption('100');
  await all.getByRole('button', { name: 'Which few swaps?' }).click();
  await expect(all.getByRole('heading', { name: /^1 swap: \d+ of \d+ names left$/ })).toBeVisible();
  await all.getByText('Bar by bar').first().click();
  await expect(all.getByText(/of its scent is another/).first()).toBeVisible();
  await noViolations(page, 'fewer names on all labels');

  const bars = page.getByRole('region', { name: 'Bars' });
  await bars.getByLabel(/^Bar/).selectOption('Waiting Room');
  await bars.getByRole('button', { name: 'Add 4 % of the fats' }).click();
  await bars.getByRole('status').getByRole('link', { name: 'Waiting Room' }).click();
  await expect(amountOf(page, 'Evening departure')).toHaveValue('4 % fats');
  await expect(verdict(page)).toHaveText('Tight');
  await expect(page.getByTestId('list-text')).toContainText('Parfum');
});
