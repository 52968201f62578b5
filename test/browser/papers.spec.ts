/** Papers photographed, leaning and noisy, are read; what is no paper is said in words. */
import { expect, test } from '@playwright/test';
import { startApplication, type Application } from './application';
import { open } from './page';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

/** A page as a phone takes it: leaning by two degrees on a table, unevenly lit, with grain. */
const PHOTOGRAPHED = `html { background: #b9b2a4; } body { transform: rotate(2deg); margin: 40px; padding: 24px; background: #f3efe6; }
  body::after { content: ''; position: fixed; inset: 0; opacity: .12; background:
  linear-gradient(120deg, #000 0, transparent 60%), repeating-radial-gradient(circle at 13% 37%, #000 0 1px, transparent 1px 3px); }`;

const PHOTOGRAPHED_PAPERS = [
  ['Hollin Bank Essences', 'Smoked Pear', 'HB-20417', '14 August 2025', '51st Amendment', '6.27'],
  ['Tanyard Aromatics Ltd', 'Attic Linen', 'TA-881', '2 May 2024', '50th Amendment', '3.18'],
  ['Fernhollow Oils Ltd', 'Rainy Fig', 'FO-5512', '9 January 2026', '51st Amendment', '11.05'],
  ['Millrace Essences Ltd', 'Salt Meadow', 'ME-3390', '30 November 2025', '49th Amendment', '0.84'],
  ['Three Gables Oils Ltd', 'Copper Iris', 'TG-7061', '21 July 2025', '51st Amendment', '7.5'],
] as const;

test('five papers photographed are straightened and read, and all of it is asked about', async ({ page }) => {
  test.setTimeout(240_000);
  for (const [issuer, material, number, day, edition, nine] of PHOTOGRAPHED_PAPERS) {
    const camera = await page.context().newPage();
    await camera.setViewportSize({ width: 820, height: 1060 });
    const rows = ['4', '5A', '6', '8', '9', '10A', '12'].map(
      (category) => `<tr><td>Category ${category}</td><td>${category === '9' ? nine : '1.25'} %</td></tr>`,
    );
    await camera.setContent(`<style>${PHOTOGRAPHED} body { font: 15px Liberation Sans; } td, th { padding: 5px 40px 5px 0; text-align: left; }</style>
      <h2>${issuer}</h2><h3>Certificate of Conformity</h3><p>Product: ${material}</p><p>Certificate number: ${number}</p>
      <p>Date of issue: ${day}</p><p>Complies with the ${edition}</p><p>Flash point: 82 °C</p>
      <table><tr><th>Category</th><th>Maximum level</th></tr>${rows.join('')}</table>`);
    const photograph = await camera.screenshot({ scale: 'css' });
    await camera.close();
    await open(page, application, '/cupboard/papers');
    await page.setInputFiles('input[type=file]', {
      name: `${number}.png`,
      mimeType: 'image/png',
      buffer: photograph,
    });
    const read = page.getByRole('region', { name: 'What was read' });
    await expect(read.getByRole('heading', { name: `${number}.png` })).toBeVisible({ timeout: 40_000 });
    await expect(read.getByLabel('Number')).toHaveValue(number);
    await expect(read.getByLabel('Edition of the standard')).toHaveValue(edition.split(' ')[0]!);
    await expect(read.getByLabel('Most in a bar, category 9, %')).toHaveValue(String(Number(nine)));
    await expect(read).toContainText(`The paper speaks of “${material}”`);
    await expect(read.getByText('Read from a picture')).not.toHaveCount(0);
  }
});

test('what is no paper is said in words, and nothing is filed', async ({ page }) => {
  test.setTimeout(120_000);
  await open(page, application, '/cupboard/papers');
  const tray = page.getByRole('region', { name: 'The paper', exact: true });
  const give = (name: string, mimeType: string, buffer: Buffer) =>
    page.setInputFiles('input[type=file]', { name, mimeType, buffer });
  const long = await page.context().newPage();
  await long.setContent('<p style="break-after: page">One page of many</p>'.repeat(40));
  await give('long.pdf', 'application/pdf', await long.pdf());
  await expect(tray.getByRole('alert')).toContainText('This PDF has');
  await give('broken.pdf', 'application/pdf', Buffer.from('%PDF-1.7 cut off'));
  await expect(tray.getByRole('alert')).toContainText('cannot be opened');
  await give('broken.png', 'image/png', Buffer.from('no picture'));
  await expect(tray.getByRole('alert')).toContainText('This picture cannot be opened');
  await long.setContent(
    '<div style="width:600px;height:600px;border-radius:50%;background:radial-gradient(#c84,#321)"></div>',
  );
  await give('cat.png', 'image/png', await long.screenshot());
  await expect(tray.getByRole('alert')).toContainText('no page of text', { timeout: 20_000 });
  await long.setContent('<h2>Safety Data Sheet</h2><p>Product name: Orange oil</p><p>Flash point 46 °C</p>');
  await give('sds.pdf', 'application/pdf', await long.pdf());
  const read = page.getByRole('region', { name: 'What was read' });
  await expect(read).toContainText('This is a safety data sheet');
  await long.close();
});
