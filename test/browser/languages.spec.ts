/** Photographed papers: in the language they are in, and however they lie. */
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

test('a page that lies on its side, seen at a slant on a dark table with a shadow on it, is read', async ({
  page,
}) => {
  const camera = await page.context().newPage();
  await camera.setViewportSize({ width: 1300, height: 1000 });
  await camera.setContent(`<style>${FACES.map(faceRule).join('')} body { margin: 0; height: 1000px; background: #4a3c30; overflow: hidden; }
    main { position: absolute; left: 330px; top: 40px; width: 640px; height: 900px; box-sizing: border-box; padding: 50px; background: #f6f3ec;
      font: 16px archivo; transform: perspective(1700px) rotateX(14deg) rotateY(-12deg) rotateZ(90deg); }
    table { border-collapse: collapse; } td { padding: 4px 40px 4px 8px; border: 1px solid #333; }
    i { position: absolute; inset: 0; background: linear-gradient(100deg, transparent 20%, rgba(0, 0, 0, .55) 90%); }</style>
    <main><h2>Harbour Scent Works Ltd</h2><p>Product: Coal and Violets</p><p>Certificate number: HS-4471</p><p>Date of issue: 12 March 2026</p>
    <p>Complies with the 51st Amendment of the Standards.</p><table>${[
      ['4', '7.94'],
      ['5A', '2.31'],
      ['9', '3.18'],
      ['10A', '5.47'],
    ]
      .map(([category, level]) => `<tr><td>Category ${category}</td><td>${level} %</td></tr>`)
      .join('')}</table></main><i></i>`);
  await camera.evaluate(() => document.fonts.ready);
  const buffer = await camera.screenshot({ scale: 'css' });
  await camera.close();
  await open(page, application, '/cupboard/papers');
  await page.setInputFiles('input[type=file]', { name: 'side.png', mimeType: 'image/png', buffer });
  const read = page.getByRole('region', { name: 'What was read' });
  await expect(read.getByRole('heading', { name: 'side.png' })).toBeVisible();
  await expect(read.getByLabel('Number', { exact: true })).toHaveValue('HS-4471');
  await expect(read.getByLabel('Most in a bar, category 9, %', { exact: true })).toHaveValue('3.18');
});
