/** A photographed paper is read in the language it is in. */
import { expect, test } from '@playwright/test';
import { startApplication, type Application } from './application';
import { open } from './page';
import { FACES, faceRule, PHOTOGRAPHED } from './photographed';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

test('a photographed paper in German is read with German letters, and in another language when that is said', async ({
  page,
}) => {
  const camera = await page.context().newPage();
  await camera.setViewportSize({ width: 820, height: 700 });
  await camera.setContent(`<style>${FACES.map(faceRule).join('')} ${PHOTOGRAPHED} body { font: 15px archivo; } td { padding: 5px 40px 5px 8px; }</style>
    <h2>Nachtgrün Düfte GmbH</h2><h3>Konformitätserklärung</h3><p>Produktname: Grüne Säge</p><p>Nummer: ND-4471</p>
    <p>Ausgabedatum: 12. März 2026</p><p>Das Produkt ist konform mit der 51. Änderung</p>
    <table><tr><td>Kategorie 4</td><td>1,25 %</td></tr><tr><td>Kategorie 9</td><td>3,18 %</td></tr></table>`);
  await camera.evaluate(() => document.fonts.ready);
  const buffer = await camera.screenshot({ scale: 'css' });
  await camera.close();
  await open(page, application, '/cupboard/papers');
  await page.setInputFiles('input[type=file]', { name: 'nd.png', mimeType: 'image/png', buffer });
  const language = page.getByLabel('Read as a page in');
  await expect(language).toHaveValue('deu');
  const read = page.getByRole('region', { name: 'What was read' });
  await expect(read).toContainText('The paper speaks of “Grüne Säge”');
  await expect(read.getByLabel('Number', { exact: true })).toHaveValue('ND-4471');
  await language.selectOption('eng');
  await expect(language).toHaveValue('eng');
  await expect(read.getByRole('heading', { name: 'nd.png' })).toBeVisible();
});
