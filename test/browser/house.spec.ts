/** The house: bars out of a spreadsheet, a backup taken back, everything out and in, help, the demo taken out. */
import { readFileSync } from 'node:fs';
import excel from 'exceljs';
import { expect, test } from '@playwright/test';
import { startApplication, type Application } from './application';
import { noViolations, open, tab } from './page';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

const CSV = `Our soaps,,
Recipe,Ingredient,Amount
Harbour,Olive oil (pomace),500 g
,Coconut oil 76,200 g
,Distilled water,230 g
,Lye,95 g
,Stardust,0.7 oz ppo
Thimble,Shea butter,12 oz
,Castor oil,2 oz
`;

test('bars come in from a spreadsheet: a name is put right, all are looked at, all or none are taken', async ({
  page,
}) => {
  await open(page, application, '/house/import');
  await expect(page.getByText('Bars, a row an ingredient')).toBeVisible();
  await page
    .getByLabel('or drop it here, or paste its cells')
    .fill('Bar\tOlive oil\tCoconut oil\nPasted\t700\t300');
  await page.getByRole('button', { name: 'Read these cells' }).click();
  await expect(page.getByRole('heading', { name: 'Pasted cells' })).toBeVisible();
  await expect(page.getByText('Bars, a row an ingredient')).toHaveCount(0);
  await page
    .getByLabel('A spreadsheet or CSV file')
    .setInputFiles({ name: 'soaps.csv', mimeType: 'text/csv', buffer: Buffer.from(CSV) });
  const outcome = page.getByRole('region', { name: 'What comes of it' });
  await expect(outcome).toContainText('Row 7: “Stardust” is not known');
  const take = page.getByRole('button', { name: /^Take in/ });
  await expect(take).toBeDisabled();
  const names = page.getByRole('region', { name: 'Names to look at' });
  await expect(names).toContainText('Stardust');
  const name = names.getByRole('listitem').filter({ hasText: 'Stardust' });
  await name.getByRole('combobox').fill('lavender oil');
  await page
    .getByRole('option', { name: /Lavender oil/ })
    .first()
    .click();
  await page.keyboard.press('Escape');
  await expect(name).toContainText('taken for Lavender oil');
  await expect(outcome).toContainText('Neither lye nor superfat is stated');
  const thimble = outcome.getByRole('listitem').filter({ hasText: 'Thimble' });
  await thimble.getByText('line by line').click();
  const castor = thimble.getByRole('row', { name: /Castor oil: 2 oz/ });
  await expect(castor).toContainText('56.7');
  await page.getByRole('button', { name: 'Leave out row 9' }).click();
  await expect(castor).toHaveCount(0);
  await page.getByRole('button', { name: 'Leave out row 9' }).click();
  await expect(castor).toHaveCount(1);
  await page.getByRole('button', { name: 'Hold them against the limits first' }).click();
  await expect(outcome.getByRole('listitem').filter({ hasText: 'Harbour' })).toContainText(
    /Clear|Tight|Unproven|Over/,
  );
  await noViolations(page, 'the import');
  await page.getByRole('button', { name: 'Take in 2 bars' }).click();
  await page.waitForURL(/\/$/);
  await expect(page.getByRole('link', { name: 'Thimble' })).toBeVisible();
  await open(page, application, '/house/import');
  await page.getByLabel('A spreadsheet or CSV file').setInputFiles({
    name: 'next.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(CSV.replaceAll('Harbour', 'Slip').replaceAll('Thimble', 'Winch')),
  });
  await expect(page.getByText(/^Read as soaps\.csv of .*, which had the same heads/)).toBeVisible();
  await expect(outcome).not.toContainText('is not known');
  await expect(page.getByRole('button', { name: 'Take in 2 bars' })).toBeEnabled();
});

const STOCK = `Product,Vendor,Lot #,Size,Paid,Bought on,Exp
Babassu oil,Tollen Mill,BB-1,2 x 500 g,$18.50,3/14/2026,11/27
Night Harbour,Brackwater Aromatics,NH-9,8 oz,22,4/2/2026,
Castor oil,Tollen Mill,C-7,1 tub,9,3/14/2026,
`;

test('a workbook comes in sheet by sheet, and a cell that is pointed at is what it is said to be', async ({
  page,
}) => {
  const book = new excel.Workbook();
  const heads = ['Ingredient', 'Grams'];
  book.addWorksheet('Read me').addRows([['My soaps'], ['Change only the yellow cells.']]);
  const bar = (name: string, ...rows: (string | number)[][]) =>
    book.addWorksheet(name).addRows([heads, ...rows]);
  bar('Fair Lavender', ['Olive oil', 700], ['Coconut oil', 300], ['Water', 330]);
  bar('Fair Charcoal', ['Olive oil', 650], ['Lard', 350], ['Water', 320]);
  bar('Fair Swirl', ['Olive oil', 1000], ['Water', 330], ['TOP SWIRL'], ['White kaolin', 5]);
  book.addWorksheet('Cupboard').addRows([
    ['Material', 'Supplier', 'Lot', 'Left', 'Price'],
    ['Olive oil', 'Mill', 'FAIR1', '4.2 kg', 30],
  ]);
  await open(page, application, '/house/import');
  await page.getByLabel('A spreadsheet or CSV file').setInputFiles({
    name: 'fair.xlsx',
    mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    buffer: Buffer.from(await book.xlsx.writeBuffer()),
  });
  const sheets = page.getByRole('group', { name: 'Its sheets' });
  await expect(sheets.getByRole('radio')).toHaveCount(4);
  await expect(sheets).toContainText(/Read me\s*nothing that is read/);
  await expect(sheets.getByRole('radio', { name: /^Fair Lavender, Fair Charcoal bars/ })).toBeChecked();
  await page.getByRole('button', { name: 'Take in 2 bars' }).click();
  await expect(sheets.getByRole('radio', { name: 'Fair Swirl bars' })).toBeChecked();
  const outcome = page.getByRole('region', { name: 'What comes of it' });
  await expect(outcome).toContainText('TOP SWIRL holds no fat');
  // By keys alone: down to the cell, and what it is.
  await page.getByRole('gridcell', { name: 'Ingredient' }).focus();
  for (let down = 0; down < 3; down++) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  const pointing = page.getByRole('region', { name: 'The cell that was pointed at' });
  await expect(pointing).toContainText('“TOP SWIRL”');
  await noViolations(page, 'a sheet that is pointed at');
  await pointing.getByRole('button', { name: 'It names no bar' }).click();
  await expect(outcome).toContainText('Fair Swirl');
  await page.getByRole('gridcell', { name: 'White kaolin' }).click();
  await pointing.getByLabel('“White kaolin” is').selectOption('no part of the bar');
  await expect(outcome).toContainText('2 lines');
  await page.getByRole('button', { name: 'Take in 1 bar' }).click();
  await expect(sheets.getByRole('radio', { name: 'Cupboard materials and lots' })).toBeChecked();
  await page.getByRole('button', { name: 'Take in 1 row' }).click();
  await page.waitForURL(/\/cupboard$/);
  await open(page, application, '/');
  for (const name of ['Fair Lavender', 'Fair Charcoal', 'Fair Swirl'])
    await expect(page.getByRole('link', { name })).toBeVisible();
});

test('materials and lots come in from a list: what is new is said, what cannot be read is put right, none comes twice', async ({
  page,
}) => {
  await open(page, application, '/house/import');
  const file = page.getByLabel('A spreadsheet or CSV file');
  const put = (text: string) =>
    file.setInputFiles({ name: 'stock.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await put(STOCK);
  await expect(page.getByLabel('It holds')).toHaveValue('stock');
  const outcome = page.getByRole('region', { name: 'What comes of it' });
  await expect(outcome).toContainText('Row 4: “1 tub” says no unit');
  await expect(outcome).toContainText('Row 3: “Night Harbour” is not known here');
  await put(STOCK.replace('1 tub', '1 lb tub') + '\n');
  const name = page.getByRole('region', { name: 'Names to look at' }).getByRole('listitem');
  await name.filter({ hasText: 'Night Harbour' }).getByLabel('or a new material').selectOption('fragrance');
  await expect(name.filter({ hasText: 'Night Harbour' })).toContainText('a new material: fragrance oil');
  await page.getByRole('button', { name: 'Look at them first' }).click();
  await expect(outcome.getByRole('listitem').filter({ hasText: 'Babassu' })).toContainText(
    'from the library',
  );
  await noViolations(page, 'the import of a list');
  await page.getByRole('button', { name: 'Take in 3 rows' }).click();
  await page.waitForURL(/\/cupboard$/);
  await expect(page.getByText('Night Harbour').first()).toBeVisible();
  await open(page, application, '/house/import');
  await put(STOCK.replace('1 tub', '1 lb tub'));
  await page.getByRole('button', { name: 'Look at them first' }).click();
  await expect(outcome.getByRole('listitem').filter({ hasText: 'Babassu' })).toContainText(
    'There is a lot BB-1 of it already.',
  );
});

test('a house that says °F and ounces says them at the sheet, at the warmth of a block and in a new line', async ({
  page,
}) => {
  const faults: string[] = [];
  page.on('console', (message) => message.type() === 'error' && faults.push(message.text()));
  await open(page, application, '/house');
  await page.getByLabel('Warmth is said in').selectOption('F');
  await expect(page.getByText('Kept.')).toBeVisible();
  await page.getByLabel('A new line is weighed in').selectOption('oz');
  await expect(page.getByLabel('A new line is weighed in')).toHaveValue('oz');
  await page.goto(`${application.url}/pour/sr-261124/sheet`);
  await expect(page.getByText(/\(\d+ °F to \d+ °F\)/).first()).toBeVisible();
  // Drawn on the server first: the page says the same, and nothing of it is drawn a second time.
  await open(page, application, '/bars/night-mail');
  await tab(page, 'Size');
  await page.getByText('How it heats after the pour').click();
  await expect(page.getByLabel(/^Poured at/)).toHaveValue('104');
  expect(faults).toEqual([]);
  await open(page, application, '/house');
  await page.getByLabel('Warmth is said in').selectOption('C');
  await expect(page.getByText('Kept.')).toBeVisible();
});

test('a backup is made and taken back; an archive goes out, is looked through, and the demo goes out', async ({
  page,
}) => {
  await open(page, application, '/house');
  await page.getByRole('button', { name: 'Make one now' }).click();
  const made = page.getByRole('table', { name: 'Backups made' });
  await expect(made.getByRole('row').filter({ hasText: 'by hand' })).toBeVisible();
  const archive = page.getByRole('region', { name: 'Archive' });
  const downloading = page.waitForEvent('download');
  await archive.getByRole('link', { name: 'Everything out' }).click();
  const file = await (await downloading).path();
  await page.request.post(`${application.url}/api/v1/products`, { data: { name: 'After the archive' } });
  await archive.getByLabel('Look into an archive').setInputFiles({
    name: 'proportia.zip',
    mimeType: 'application/zip',
    buffer: readFileSync(file),
  });
  await expect(archive.getByRole('table', { name: 'What is in it' })).toContainText('the same');
  await archive.getByRole('button', { name: 'Close, change nothing' }).click();
  await noViolations(page, 'the house');
  await page.getByRole('button', { name: 'Begin empty: take the demo out' }).click();
  await page.getByRole('button', { name: 'Take it out; a backup is made first' }).click();
  await expect(page.getByText(/batches of it are here/)).toHaveCount(0);
  await open(page, application, '/');
  await expect(page.getByRole('link', { name: 'After the archive' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Lamp Room', exact: true })).toHaveCount(0);
  await open(page, application, '/house');
  const first = made.getByRole('row').filter({ hasText: 'by hand' });
  await first.getByRole('button', { name: 'Go back to it' }).click();
  await first.getByRole('button', { name: 'Go back to it; one more is made first' }).click();
  await expect(made.getByRole('row').filter({ hasText: 'before one was taken back' })).toBeVisible();
  await open(page, application, '/');
  await expect(page.getByRole('link', { name: 'Lamp Room', exact: true })).toBeVisible();
});

test('help stands beside the work, by its key, and says what the place is for', async ({ page }) => {
  await open(page, application, '/rack');
  await page.locator('body').press('?');
  const help = page.getByRole('complementary', { name: 'Help' });
  await expect(help).toContainText('the weeks from the pour to the sale');
  await noViolations(page, 'the help');
  await page.keyboard.press('Escape');
  await expect(help).toBeHidden();
});
