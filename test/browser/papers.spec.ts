/** Papers photographed, leaning and noisy, are read; what is no paper is said in words. */
import { expect, test, type Page } from '@playwright/test';
import { strToU8, zipSync } from 'fflate';
import PDFDocument from 'pdfkit';
import { buffer } from 'node:stream/consumers';
import { startApplication, type Application } from './application';
import { awake, open } from './page';
import { FACES, faceRule, PHOTOGRAPHED } from './photographed';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

const PHOTOGRAPHED_PAPERS = [
  [
    'Hollin Bank Essences',
    'Smoked Pear',
    'HB-20417',
    '14 August 2025',
    '51st Amendment',
    '6.27',
    'archivo',
    15,
  ],
  ['Tanyard Aromatics Ltd', 'Attic Linen', 'TA-881', '2 May 2024', '50th Amendment', '3.18', 'besley', 14],
  [
    'Fernhollow Oils Ltd',
    'Rainy Fig',
    'FO-5512',
    '9 January 2026',
    '51st Amendment',
    '11.05',
    'archivo-narrow',
    17,
  ],
  [
    'Millrace Essences Ltd',
    'Salt Meadow',
    'ME-3390',
    '30 November 2025',
    '49th Amendment',
    '0.84',
    'besley',
    17,
  ],
  ['Three Gables Oils Ltd', 'Copper Iris', 'TG-7061', '21 July 2025', '51st Amendment', '7.5', 'archivo', 13],
  [
    'Weir Street Oils Ltd',
    'Grey Tern',
    'WS-4410',
    '3 March 2026',
    '51st Amendment',
    '8.2',
    'archivo-narrow',
    15,
  ],
] as const;

test('six papers photographed in several faces are straightened and read, and all of it is asked about', async ({
  page,
}) => {
  let typed = 0;
  for (const [
    at,
    [issuer, material, number, day, edition, nine, face, size],
  ] of PHOTOGRAPHED_PAPERS.entries()) {
    // Every second one has a ruled table, of thin, thick and grey rules.
    const rule =
      at % 2 === 0 ? '' : `border: ${['1px solid #000', '2px solid #444', '1px solid #999'][(at - 1) / 2]};`;
    const camera = await page.context().newPage();
    await camera.setViewportSize({ width: 820, height: 1060 });
    const rows = ['4', '5A', '6', '8', '9', '10A', '12'].map(
      (category) => `<tr><td>Category ${category}</td><td>${category === '9' ? nine : '1.25'} %</td></tr>`,
    );
    await camera.setContent(`<style>${FACES.map(faceRule).join('')} ${PHOTOGRAPHED} body { font: ${size}px "${face}"; } table { border-collapse: collapse; } td, th { padding: 5px 40px 5px 8px; text-align: left; ${rule} }</style>
      <h2>${issuer}</h2><h3>Certificate of Conformity</h3><p>Product: ${material}</p><p>Certificate number: ${number}</p>
      <p>Date of issue: ${day}</p><p>Complies with the ${edition}</p><p>Flash point: 82 °C</p>
      <table><tr><th>Category</th><th>Maximum level</th></tr>${rows.join('')}</table>`);
    await camera.evaluate(() => document.fonts.ready);
    const photograph = await camera.screenshot({ scale: 'css' });
    await camera.close();
    await open(page, application, '/cupboard/papers');
    await page.setInputFiles('input[type=file]', {
      name: `${number}.png`,
      mimeType: 'image/png',
      buffer: photograph,
    });
    const read = page.getByRole('region', { name: 'What was read' });
    await expect(read.getByRole('heading', { name: `${number}.png` })).toBeVisible();
    // All of a picture is asked about; now and then a figure has to be typed.
    const numberIn = read.getByLabel('Number', { exact: true });
    await expect(numberIn).not.toHaveValue('');
    if ((await numberIn.inputValue()) !== number) typed++;
    const editionIn = read.getByLabel('Edition of the standard');
    const ordinal = edition.split(' ')[0]!;
    if ((await editionIn.inputValue()) !== ordinal) {
      typed++;
      await editionIn.fill(ordinal);
    }
    // Right, or open between readings of which one is right; never another figure.
    const level = read.getByLabel('Most in a bar, category 9, %', { exact: true });
    const which = read.getByRole('group', { name: 'Most in a bar, category 9, %: which?' });
    if ((await level.inputValue()) === '') {
      await expect(which.getByRole('img')).toBeVisible();
      const right = which.getByRole('button', { name: String(Number(nine)), exact: true });
      if ((await right.count()) > 0) await right.click();
      else {
        typed++;
        await level.fill(String(Number(nine)));
      }
    }
    await expect(level, `${face} ${size}`).toHaveValue(String(Number(nine)));
    await expect(read).toContainText(`The paper speaks of “${material}”`);
    await expect(read.getByText('Read from a picture')).not.toHaveCount(0);
  }
  expect(typed, 'figures that no reading got right').toBeLessThanOrEqual(4);
});

test('what is no paper is said in words, and nothing is filed', async ({ page }) => {
  await open(page, application, '/cupboard/papers');
  const tray = page.getByRole('region', { name: 'The paper', exact: true });
  const give = (name: string, mimeType: string, buffer: Buffer) =>
    page.setInputFiles('input[type=file]', { name, mimeType, buffer });
  const long = await page.context().newPage();
  await long.setContent('<p style="break-after: page">One page of many</p>'.repeat(40));
  await give('long.pdf', 'application/pdf', await long.pdf());
  await expect(tray.getByText('long.pdf has 40 pages')).toBeVisible();
  await tray.getByRole('button', { name: 'Give up' }).click();
  await expect(tray.getByRole('alert')).toContainText('Given up');
  await give('broken.pdf', 'application/pdf', Buffer.from('%PDF-1.7 cut off'));
  await expect(tray.getByRole('alert')).toContainText('cannot be opened');
  await give('broken.png', 'image/png', Buffer.from('no picture'));
  await expect(tray.getByRole('alert')).toContainText('This picture cannot be opened');
  await long.setContent(
    '<div style="width:600px;height:600px;border-radius:50%;background:radial-gradient(#c84,#321)"></div>',
  );
  await give('cat.png', 'image/png', await long.screenshot());
  await expect(tray.getByRole('alert')).toContainText('no page of text');
  // What no reader can read a person keys in, beside its picture.
  await tray.getByRole('button', { name: 'Type it in' }).click();
  await expect(tray.getByRole('img').first()).toBeVisible();
  const keyed = page.getByRole('region', { name: 'What was read' });
  await expect(keyed.getByRole('heading', { name: 'Typed in by hand' })).toBeVisible();
  await keyed.getByText('Type in rows').click();
  await keyed.getByLabel('Rows, one a line').fill('Linalool 78-70-6 0.5 - 1.2\n9 3.18\nsee overleaf');
  await keyed.getByRole('button', { name: 'Add them' }).click();
  await expect(keyed.getByRole('status')).toContainText('2 rows added. What stands here says no share.');
  await expect(keyed.getByLabel('Rows, one a line')).toHaveValue('see overleaf');
  await expect(keyed.getByLabel('Most in a bar, category 9, %')).toHaveValue('3.18');
  await expect(keyed.getByLabel('High share of Linalool, percent')).toHaveValue('1.2');
  await long.setContent('<h2>Safety Data Sheet</h2><p>Product name: Orange oil</p><p>Flash point 46 °C</p>');
  await give('sds.pdf', 'application/pdf', await long.pdf());
  const read = page.getByRole('region', { name: 'What was read' });
  await expect(read).toContainText('This is a safety data sheet');
  await long.close();
});

const zipped = (files: Record<string, string>) =>
  Buffer.from(
    zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)]))),
  );
const XML = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>';
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006';
const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const relations = (rows: string[]) =>
  `${XML}<Relationships xmlns="${PACKAGE}/relationships">${rows
    .map(
      (row, at) =>
        `<Relationship Id="r${at}" Type="${OFFICE}/${row.split(' ')[0]}" Target="${row.split(' ')[1]}"/>`,
    )
    .join('')}</Relationships>`;
const types = (parts: [string, string][]) =>
  `${XML}<Types xmlns="${PACKAGE}/content-types"><Default Extension="xml" ContentType="application/xml"/><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>${parts
    .map(
      ([part, type]) =>
        `<Override PartName="${part}" ContentType="application/vnd.openxmlformats-officedocument.${type}+xml"/>`,
    )
    .join('')}</Types>`;

/** A workbook as its format describes it, written by hand: text in line, figures as fractions shown in percent. */
function workbook(rows: (string | number)[][]): Buffer {
  const sheet = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
  const cells = rows.map(
    (row, at) =>
      `<row r="${at + 1}">${row
        .map((value, column) => {
          const place = `${'ABCDEF'[column]}${at + 1}`;
          return typeof value === 'number'
            ? `<c r="${place}" s="1"><v>${value}</v></c>`
            : `<c r="${place}" t="inlineStr"><is><t>${value}</t></is></c>`;
        })
        .join('')}</row>`,
  );
  return zipped({
    '[Content_Types].xml': types([
      ['/xl/workbook.xml', 'spreadsheetml.sheet.main'],
      ['/xl/worksheets/sheet1.xml', 'spreadsheetml.worksheet'],
      ['/xl/styles.xml', 'spreadsheetml.styles'],
    ]),
    '_rels/.rels': relations(['officeDocument xl/workbook.xml']),
    'xl/_rels/workbook.xml.rels': relations(['worksheet worksheets/sheet1.xml', 'styles styles.xml']),
    'xl/workbook.xml': `${XML}<workbook xmlns="${sheet}" xmlns:r="${OFFICE}"><sheets><sheet name="Declaration" sheetId="1" r:id="r0"/></sheets></workbook>`,
    'xl/styles.xml': `${XML}<styleSheet xmlns="${sheet}"><fonts count="1"><font/></fonts><fills count="1"><fill/></fills><borders count="1"><border/></borders><cellStyleXfs count="1"><xf/></cellStyleXfs><cellXfs count="2"><xf numFmtId="0"/><xf numFmtId="10" applyNumberFormat="1"/></cellXfs></styleSheet>`,
    'xl/worksheets/sheet1.xml': `${XML}<worksheet xmlns="${sheet}"><sheetData>${cells.join('')}</sheetData></worksheet>`,
  });
}

/** A word processor's document, written by hand: paragraphs, then a table. */
function wordDocument(paragraphs: string[], table: string[][]): Buffer {
  const paragraph = (text: string) => `<w:p><w:r><w:t>${text}</w:t></w:r></w:p>`;
  const rows = table.map(
    (row) => `<w:tr>${row.map((cell) => `<w:tc>${paragraph(cell)}</w:tc>`).join('')}</w:tr>`,
  );
  return zipped({
    '[Content_Types].xml': types([['/word/document.xml', 'wordprocessingml.document.main']]),
    '_rels/.rels': relations(['officeDocument word/document.xml']),
    'word/document.xml': `${XML}<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${paragraphs.map(paragraph).join('')}<w:tbl>${rows.join('')}</w:tbl></w:body></w:document>`,
  });
}

test('a workbook and a document are read; a locked paper, a wall of figures and other scripts end in words', async ({
  page,
}) => {
  await open(page, application, '/cupboard/papers');
  const tray = page.getByRole('region', { name: 'The paper', exact: true });
  const read = page.getByRole('region', { name: 'What was read' });
  const give = (name: string, file: Buffer) =>
    page.setInputFiles('input[type=file]', { name, mimeType: 'application/octet-stream', buffer: file });

  await give(
    'declaration.xlsx',
    workbook([
      ['Allergen declaration', 'No. WB-4410'],
      ['Product', 'Hedge Lantern'],
      ['Issued on', '2026-03-09'],
      ['Name', 'CAS', 'Share'],
      ['Linalool', '78-70-7', 0.0412],
      ['Coumarin', '91-64-5', 0.00075],
    ]),
  );
  await expect(read.getByRole('heading', { name: 'declaration.xlsx' })).toBeVisible();
  await expect(read.getByLabel('Number')).toHaveValue('WB-4410');
  await expect(read.getByLabel('Typical share of Linalool, percent')).toHaveValue('4.12');
  await expect(read.getByLabel('Typical share of Coumarin, percent')).toHaveValue('0.075');

  await give(
    'certificate.docx',
    wordDocument(
      [
        'Certificate of conformity',
        'Certificate number: DX-118',
        'Product: Hedge Lantern',
        'Date: 4 May 2026',
        'In line with the 51st Amendment',
      ],
      [
        ['Category', 'Maximum level'],
        ['Category 5A', '1.2 %'],
        ['Category 9', '3.65 %'],
        ['Category 10A', '2 %'],
      ],
    ),
  );
  await expect(read.getByRole('heading', { name: 'certificate.docx' })).toBeVisible();
  await expect(read.getByLabel('Most in a bar, category 9, %')).toHaveValue('3.65');
  await expect(read.getByLabel('Number')).toHaveValue('DX-118');

  await give('cut.xlsx', workbook([['a']]).subarray(0, 300));
  await expect(tray.getByRole('alert')).toContainText('This workbook cannot be opened');
  await give('no.docx', Buffer.from('no document'));
  await expect(tray.getByRole('alert')).toContainText('This document cannot be opened');

  const locked = new PDFDocument({ userPassword: 'shut' });
  locked.text('Certificate');
  locked.end();
  await give('locked.pdf', await buffer(locked));
  await expect(tray.getByText('locked.pdf is locked')).toBeVisible();
  await tray.getByRole('button', { name: 'Give up' }).click();
  await expect(tray.getByRole('alert')).toContainText('Given up');

  const made = await page.context().newPage();
  const figures = Array.from({ length: 20_000 }, (_, at) => ((at * 7919) % 10_007) / 100);
  await made.setContent(`<p style="font-size:3px">${figures.join(' ')}</p>`);
  await give('figures.pdf', await made.pdf());
  await expect(read.getByRole('heading', { name: 'figures.pdf' })).toBeVisible();
  await expect(read.getByLabel(/^Take /)).toHaveCount(0);
  await made.setContent(
    '<div dir="rtl"><h2>شهادة المطابقة</h2><p>الفئة 9: ‎3.2 %</p><p>تاريخ 2026-02-01</p></div>',
  );
  await give('other.pdf', await made.pdf());
  await expect(read.getByRole('heading', { name: 'other.pdf' })).toBeVisible();
  await read.getByRole('button', { name: 'File what is ticked' }).click();
  await expect(read.getByRole('alert')).toContainText('Choose the material');
  await made.close();
});

/** A certificate as a page within a page's layout; marks of its notes stand high. */
const markedPage = `<html><head><title>Certificate 99</title><style>td { padding: 3px }</style></head><body>
  <table><tr><td><h2>Certificate of conformity</h2>Certificate number: HT-220<br>Product: Hedge Lantern<sup>1</sup>
  <div>Date: 4 May 2026</div><p>In line with the 51<sup>st</sup> Amendment</p>
  <table border="1"><tr><th>Category</th><th>Maximum level, %</th></tr>
    <tr><td><p>Category 5A</p></td><td>0.25<sup>2</sup></td></tr>
    <tr><td>Category 9<sup>3</sup></td><td>0.5<sup>1, 2</sup></td></tr></table>
  <small>1 As supplied. 2 Of the finished product.</small></td></tr></table></body></html>`;

const openText = zipSync({
  mimetype: strToU8('application/vnd.oasis.opendocument.text'),
  'content.xml': strToU8(
    `<office:document-content xmlns:office="o" xmlns:text="t" xmlns:table="b"><office:body><office:text>
      <text:h>Certificate of conformity</text:h><text:p>Certificate number: OD-7</text:p><text:p>Product: Hedge Lantern</text:p>
      <table:table><table:table-row><table:table-cell><text:p>Category 9</text:p></table:table-cell>
      <table:table-cell><text:p>1.75 %</text:p></table:table-cell></table:table-row></table:table>
    </office:text></office:body></office:document-content>`,
  ),
});

test('a page, an open document and a printed page are read, and no mark of a note is a digit', async ({
  page,
}) => {
  await open(page, application, '/cupboard/papers');
  const read = page.getByRole('region', { name: 'What was read' });
  const give = async (name: string, file: Buffer) => {
    await page.setInputFiles('input[type=file]', { name, mimeType: '', buffer: file });
    await expect(read.getByRole('heading', { name })).toBeVisible();
  };
  const printed = await page.context().newPage();
  await printed.setContent(markedPage);
  const papers = [
    ['marked.html', Buffer.from(markedPage), 'HT-220', '0.5'],
    ['marked.pdf', await printed.pdf(), 'HT-220', '0.5'],
    ['open.odt', Buffer.from(openText), 'OD-7', '1.75'],
  ] as const;
  await printed.close();
  for (const [name, file, number, level] of papers) {
    await give(name, file);
    await expect(read.getByLabel('Number')).toHaveValue(number);
    await expect(read.getByLabel('Most in a bar, category 9, %')).toHaveValue(level);
    await expect(read.getByText('0.252')).toHaveCount(0);
  }
  await page.setInputFiles('input[type=file]', { name: 'old.doc', mimeType: '', buffer: Buffer.from('x') });
  await expect(page.getByRole('alert')).toContainText('older kind');
});

const housePaper = (mark: string, soap: string) =>
  ['Quarry Lane Odours;our word on this scent', 'ledger mark;' + mark, 'set down;4 March 2026']
    .concat([
      'where it goes;remark;at most',
      `rinsed bars;hands too;${soap}`,
      'worn all day;never faces;0.8 %',
    ])
    .join('\n')
    .replaceAll(';', '\t');

/** Holds the scripts of some name back until what it gives is called. */
async function holdBack(page: Page, scripts: RegExp): Promise<() => void> {
  let letGo = () => {};
  const held = new Promise<void>((resolve) => (letGo = resolve));
  await page.route(scripts, (route) => held.then(() => route.continue()));
  return letGo;
}

test('a paper that is given stays open, whatever was being opened by itself meanwhile', async ({ page }) => {
  const wakeUp = await holdBack(page, /\/PaperTray[^/]*js$/);
  const openNewest = await holdBack(page, /\/pdf[.-][^/]*js$/);
  const paper = page.getByRole('region', { name: 'The paper' });
  const given = (name: string) => page.getByRole('heading', { name });
  const give = (name: string) =>
    page.setInputFiles('input[type=file]', {
      name,
      mimeType: 'text/plain',
      buffer: Buffer.from('Certificate QL 100 of Coal & Violets'),
    });
  await page.goto(application.url + '/cupboard/papers', { waitUntil: 'commit' });
  await give('before it is awake.txt');
  wakeUp();
  await expect(given('before it is awake.txt')).toBeVisible();
  await page.reload();
  await awake(page);
  await expect(paper).toContainText('Opening');
  await give('awake.txt');
  await expect(given('awake.txt')).toBeVisible();
  openNewest();
  await page.waitForTimeout(2000);
  await expect(given('awake.txt')).toBeVisible();
  await expect(paper).not.toContainText('Opening');
});

test('a correction is remembered for the layout, and asked about the next time', async ({ page }) => {
  await open(page, application, '/cupboard/papers');
  const read = page.getByRole('region', { name: 'What was read' });
  const give = (mark: string, soap: string) =>
    page.setInputFiles('input[type=file]', {
      name: `${mark}.tsv`,
      mimeType: 'text/tab-separated-values',
      buffer: Buffer.from(housePaper(mark, soap)),
    });
  await give('QL 7741', '3.6 %');
  await expect(read.getByRole('heading', { name: 'QL 7741.tsv' })).toBeVisible();
  await read.getByLabel('Belongs to').selectOption({ label: 'Coal & Violets' });
  await read.getByLabel('Number').fill('QL 7741');
  await read.getByLabel('Issued by').fill('Quarry Lane Odours');
  for (const question of await read.getByText('I have looked.').all()) await question.click();
  await read.getByLabel('File it as a certificate').check();
  await read.getByLabel('Most in a bar, category 9, %').fill('3.6');
  await read.getByRole('button', { name: 'File what is ticked' }).click();
  await expect(page.getByRole('status', { name: 'Filed' })).toContainText('Coal & Violets');
  await page.reload();
  await awake(page);
  await page.waitForLoadState('networkidle');
  await give('QL 8102', '5.25 %');
  await expect(read.getByRole('heading', { name: 'QL 8102.tsv' })).toBeVisible();
  await expect(read.getByLabel('Number')).toHaveValue('QL 8102');
  await expect(read.getByLabel('Most in a bar, category 9, %')).toHaveValue('5.25');
  await expect(read).toContainText('As you read it last time, on QL 7741');
});
