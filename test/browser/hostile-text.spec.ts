/** Every text a maker can write is filled with markup, formulas and direction marks: no screen and no file makes more of them than letters. */
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { expect, test } from '@playwright/test';
import Papa from 'papaparse';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { startApplication, type Application } from './application';
import { open } from './page';
import { SCREENS } from './screens';

/** What stands in every text, behind what stood there. */
const HURT = `<b data-hurt>x</b>"'><img src=x onerror="window.hurt=1"><script>window.hurt=1</script>{{7*7}}\u202E=1+1`;
/** What of it any view that shows a text shows. */
const SHOWN = 'data-hurt';

/** Fields of records that hold what somebody wrote, wherever they stand. */
const WRITTEN = new Set(
  'name note identity batchCode addressLines supplier number issuer description back en fr productName startedBy buyers by to text reason title why source cautions collection'.split(
    ' ',
  ),
);
/** Words of a program's, by table: enumerations under the names of texts. */
const SPARED: Partial<Record<string, readonly string[]>> = { inbox: ['name'] };
const COLUMNS: readonly [table: string, column: string][] = [
  ['materials', 'supplier'],
  ['inbox', 'file_name'],
  ['stock_movements', 'reason'],
];

type Json = string | number | boolean | null | Json[] | { [key: string]: Json };

function hurt(value: Json, key: string, spared: readonly string[]): Json {
  if (typeof value === 'string') return WRITTEN.has(key) && !spared.includes(key) ? value + HURT : value;
  if (Array.isArray(value)) return value.map((one) => hurt(one, key, spared));
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(Object.entries(value).map(([name, one]) => [name, hurt(one, name, spared)]));
}

/** Writes it into every record of a database; answers how many texts it went into. */
function hurtEverything(file: string): number {
  const db = new Database(file);
  let count = 0;
  const tables = [
    'materials',
    'documents',
    'products',
    'settings',
    'lots',
    'wraps',
    'batches',
    'batch_events',
  ];
  db.transaction(() => {
    for (const table of tables) {
      const columns = (db.pragma(`table_info(${table})`) as { name: string }[]).map(({ name }) => name);
      for (const row of db.prepare(`select rowid as rowid, * from ${table}`).all() as Record<
        string,
        unknown
      >[]) {
        for (const column of columns) {
          const text = row[column];
          if (typeof text !== 'string' || !/^[[{]/.test(text)) continue;
          const after = JSON.stringify(hurt(JSON.parse(text) as Json, column, SPARED[table] ?? []));
          if (after === text) continue;
          count += after.split(SHOWN).length - 1;
          db.prepare(`update ${table} set ${column} = ? where rowid = ?`).run(after, row.rowid);
        }
      }
    }
    for (const [table, column] of COLUMNS)
      count += db
        .prepare(`update ${table} set ${column} = ${column} || ? where ${column} is not null`)
        .run(HURT).changes;
    // Names stand in columns of their own too, beside the records.
    for (const table of ['materials', 'products'])
      db.prepare(`update ${table} set name = name || ?`).run(HURT);
    db.prepare('delete from overviews').run();
    // Paper enough for all of it.
    db.prepare(
      `update wraps set body = json_set(body, '$.markets.EU.format', json(?)) where product_id = 'night-mail'`,
    ).run(JSON.stringify({ shape: 'notice', widthMm: 500, heightMm: 700, marginMm: 3 }));
  })();
  db.close();
  return count;
}

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
  await application.kill();
  expect(hurtEverything(join(application.folder, 'proportia.sqlite'))).toBeGreaterThan(500);
  await application.start();
});
test.afterAll(() => application.stop());

test('hostile texts stand on every screen as letters: nothing runs, no element comes of them, the page holds', async ({
  page,
}) => {
  const showing: string[] = [];
  for (const path of SCREENS) {
    await open(page, application, path);
    await page.waitForTimeout(250);
    const found = await page.evaluate(() => ({
      ran: 'hurt' in window,
      elements: document.querySelectorAll('[data-hurt], main img[src="x"], main script[src="x"]').length,
      text: document.body.innerText,
      inputs: [...document.querySelectorAll<HTMLInputElement>('input, textarea')]
        .map(({ value }) => value)
        .join(' '),
    }));
    expect([found.ran, found.elements], path).toEqual([false, 0]);
    if (`${found.text} ${found.inputs}`.includes(SHOWN)) showing.push(path);
  }
  // The check would be empty where no screen showed them.
  expect(showing.length).toBeGreaterThan(SCREENS.length / 2);
});

/** A cell that a spreadsheet would reckon with. */
const isFormula = (cell: string) => /^[=+\-@\t\r]/.test(cell) && Number.isNaN(Number(cell));

test('hostile texts go into files as letters: labels, sheets, records and lists', async ({ page }) => {
  const get = (path: string) => page.request.get(`${application.url}/api/v1/${path}`, { timeout: 0 });
  const shown: string[] = [];
  const note = (path: string, text: string) => text.includes(SHOWN) && shown.push(path);
  for (const as of ['html', 'svg']) {
    const path = `products/night-mail/label?market=EU&as=${as}`;
    const answer = await get(path);
    expect([answer.status(), answer.ok() ? '' : await answer.text()], path).toEqual([200, '']);
    const text = await answer.text();
    note(path, text);
    // In a page of its own, without our rules on scripts.
    await page.goto('about:blank');
    await page.setContent(as === 'svg' ? `<main>${text}</main>` : text);
    await page.waitForTimeout(300);
    const found = await page.evaluate(() => [
      'hurt' in window,
      document.querySelectorAll('[data-hurt]').length,
    ]);
    expect(found, path).toEqual([false, 0]);
  }
  for (const path of [
    'products/night-mail/label?market=EU&as=sheet',
    'products/night-mail/label?market=EU&as=pdf',
    'batches/fl-261014/record?as=pdf',
    'withdrawal?lot=lot-castor-6&as=pdf',
  ]) {
    const answer = await get(path);
    expect([answer.status(), answer.ok() ? '' : await answer.text()], path).toEqual([200, '']);
    const { promise } = getDocument({ data: new Uint8Array(await answer.body()), verbosity: 0 });
    const { items } = await (await (await promise).getPage(1)).getTextContent();
    note(
      path,
      items
        .map((item) => ('str' in item ? item.str : ''))
        .join('')
        .replace(/\s/g, ''),
    );
  }
  const csv = await (await get('withdrawal?lot=lot-castor-6&as=csv')).text();
  expect(Papa.parse<string[]>(csv).data.flat().filter(isFormula)).toEqual([]);
  note('withdrawal.csv', csv);

  const { path: calendar } = (await (await get('rack/calendar')).json()) as { path: string };
  const ics = await (await page.request.get(application.url + calendar)).text();
  // A text that ended its line would begin a property of its own.
  const lines = ics
    .trimEnd()
    .replace(/\r\n[ \t]/g, '')
    .split('\r\n');
  expect(lines.filter((line) => !/^[A-Z-]+[:;]/.test(line))).toEqual([]);
  const events = lines.filter((line) => line === 'BEGIN:VEVENT').length;
  expect(lines.filter((line) => line.startsWith('SUMMARY'))).toHaveLength(events);
  note('calendar', ics.replace(/\r\n[ \t]/g, ''));
  expect(shown).toContain('calendar');
  expect(shown.length).toBeGreaterThan(3);
});
