/** Papers that are locked or long, and what comes together: in a mail, or dropped at once. */
import { expect, test } from '@playwright/test';
import PDFDocument from 'pdfkit';
import { buffer } from 'node:stream/consumers';
import { startApplication, type Application } from './application';
import { open } from './page';

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

/** A certificate as a PDF, on the last of so many pages; locked where a word is given. */
async function certificate(pages: number, word?: string): Promise<Buffer> {
  const pdf = new PDFDocument(word === undefined ? {} : { userPassword: word });
  for (let page = 1; page < pages; page++) pdf.text(`Chapter ${page}: of wood and weather.`).addPage();
  pdf.text('Weir Street Oils Ltd').text('Certificate of Conformity');
  pdf.text('Product: Coal & Violets').text('Certificate number: WS-77').text('Date of issue: 3 March 2026');
  pdf.text('Complies with the 51st Amendment').moveDown();
  for (const row of [
    'Category 4   1.25 %',
    'Category 8   0.4 %',
    'Category 9   2.75 %',
    'Category 12   100 %',
  ])
    pdf.text(row);
  pdf.end();
  return buffer(pdf);
}

test('a locked paper opens by its word, a long one by its pages, a mail by its attachment', async ({
  page,
}) => {
  await open(page, application, '/cupboard/papers');
  const tray = page.getByRole('region', { name: 'The paper', exact: true });
  const read = page.getByRole('region', { name: 'What was read' });
  const give = (name: string, mimeType: string, bytes: Buffer) =>
    page.setInputFiles('input[type=file]', { name, mimeType, buffer: bytes });
  const isRead = async (name: string) => {
    await expect(read.getByRole('heading', { name })).toBeVisible();
    await expect(read.getByLabel('Most in a bar, category 9, %', { exact: true })).toHaveValue('2.75');
    await expect(read.getByLabel('Number', { exact: true })).toHaveValue('WS-77');
    await read.getByRole('button', { name: 'Close, change nothing' }).click();
  };
  await give('locked.pdf', 'application/pdf', await certificate(1, 'violets'));
  await tray.getByLabel('Word').fill('roses');
  await tray.getByRole('button', { name: 'Open it' }).click();
  await expect(tray.getByText('That is not its word')).toBeVisible();
  await tray.getByLabel('Word').fill('violets');
  await tray.getByRole('button', { name: 'Open it' }).click();
  await isRead('locked.pdf');

  await give('long.pdf', 'application/pdf', await certificate(44));
  await expect(tray.getByText('long.pdf has 44 pages')).toBeVisible();
  await expect(tray.getByLabel('Pages to read')).toHaveValue('44');
  await tray.getByLabel('Pages to read').fill('43-45');
  await expect(tray.getByRole('button', { name: 'Read these pages' })).toBeDisabled();
  await tray.getByLabel('Pages to read').fill('43-44');
  await tray.getByRole('button', { name: 'Read these pages' }).click();
  await isRead('long.pdf');

  const part = (name: string, type: string, bytes: Buffer) =>
    `--b\r\nContent-Type: ${type}; name="${name}"\r\nContent-Transfer-Encoding: base64\r\nContent-Disposition: attachment; filename="${name}"\r\n\r\n${bytes.toString('base64').replace(/.{76}/g, '$&\r\n')}\r\n`;
  const mail = (parts: string[]) =>
    Buffer.from(
      `From: a@weir.example\r\nTo: b@box.example\r\nSubject: papers\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n--b\r\nContent-Type: text/plain\r\n\r\nAs promised.\r\n${parts.join('')}--b--\r\n`,
    );
  const paper = part('ws-77.pdf', 'application/pdf', await certificate(1));
  await give(
    'other.eml',
    'message/rfc822',
    mail([part('terms.doc', 'application/msword', Buffer.from('Terms.'))]),
  );
  await expect(tray.getByText('What is attached (terms.doc) is of no kind that is read.')).toBeVisible();
  await give('one.eml', 'message/rfc822', mail([paper]));
  await isRead('ws-77.pdf');
  await give(
    'two.eml',
    'message/rfc822',
    mail([
      part('terms.txt', 'text/plain', Buffer.from('Terms.')),
      paper,
      part('price.doc', 'application/msword', Buffer.from('Prices.')),
    ]),
  );
  await expect(tray.getByText('two.eml brings several files')).toBeVisible();
  await tray.getByRole('button', { name: 'ws-77.pdf' }).click();
  await isRead('ws-77.pdf');
  // What else the mail brought stays in sight until somebody has seen to it.
  const together = tray.getByRole('region', { name: 'What came together' });
  await expect(together).toContainText(
    '2 papers in two.eml, 1 not opened yet; of no kind that is read: price.doc.',
  );
  await together.getByRole('button', { name: 'terms.txt' }).click();
  await expect(read.getByRole('heading', { name: 'terms.txt' })).toBeVisible();
  await expect(together).not.toContainText('not opened yet');
  await together.getByRole('button', { name: 'ws-77.pdf' }).click();
  await isRead('ws-77.pdf');
  await together.getByRole('button', { name: 'Done with these' }).click();
  await expect(together).toHaveCount(0);
  // Of several files at once the first is opened, the others wait.
  await page.setInputFiles('input[type=file]', [
    { name: 'first.pdf', mimeType: 'application/pdf', buffer: await certificate(1) },
    { name: 'one.eml', mimeType: 'message/rfc822', buffer: mail([paper]) },
  ]);
  await isRead('first.pdf');
  await expect(together).toContainText('2 papers dropped together, 1 not opened yet.');
  await together.getByRole('button', { name: 'one.eml' }).click();
  await isRead('ws-77.pdf');
});
