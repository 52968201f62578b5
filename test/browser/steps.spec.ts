/** The way of the work in steps: clicks and keys from where one stands, counted and written down in docs/steps.md. */
import { readFileSync, writeFileSync } from 'node:fs';
import { expect, test, type Locator, type Page } from '@playwright/test';
import { startApplication, type Application } from './application';
import { awake } from './page';

test.use({ actionTimeout: 12_000 });

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

/** Counts what hands do; what is typed counts by its keys. */
class Hands {
  steps = 0;

  constructor(readonly page: Page) {}

  async click(target: Locator): Promise<void> {
    await target.click();
    this.steps++;
  }

  async press(key: string): Promise<void> {
    await this.page.keyboard.press(key);
    this.steps++;
  }

  async type(text: string): Promise<void> {
    await this.page.keyboard.type(text);
    this.steps += text.length;
  }
}

interface Way {
  task: string;
  /** Figures wanted, and what is meant by them. */
  wanted: number;
  of: string;
  walk: (hands: Hands, page: Page) => Promise<void>;
}

const at = async (page: Page, path: string) => {
  await page.goto(application.url + path);
  await awake(page);
};
const verdict = (page: Page) => page.getByRole('region', { name: 'Verdict' }).getByRole('heading');

const WAYS: readonly Way[] = [
  {
    task: 'a new bar by its purpose to a verdict',
    ...{ wanted: 1, of: 'clicks' },
    walk: async (hands, page) => {
      await at(page, '/');
      await hands.click(page.getByRole('button', { name: 'Salt bar' }));
      await expect(verdict(page)).toHaveText('Clear');
    },
  },
  {
    task: 'an own formula by keys alone, as text in the finder',
    ...{ wanted: 40, of: 'keys' },
    walk: async (hands, page) => {
      await at(page, '/');
      await hands.press('Control+k');
      await expect(page.getByPlaceholder(/^a bar, a lot/)).toBeFocused();
      await hands.type('700 olive, 300 coconut');
      await expect(page.getByRole('option', { name: /Make a bar of this recipe/ })).toBeVisible();
      await hands.press('Enter');
      await page.waitForURL(/recipe=/);
      await awake(page);
      await expect(page.getByRole('button', { name: 'Make this bar' })).toBeEnabled();
      await hands.press('Control+Enter');
      await expect(verdict(page)).toHaveText('Clear');
    },
  },
  {
    task: 'swap one oil in one bar',
    ...{ wanted: 2, of: 'clicks' },
    walk: async (hands, page) => {
      await at(page, '/bars/first-light');
      await hands.click(page.getByRole('button', { name: 'Change Castor oil for …' }));
      const found = page.getByRole('list', { name: 'What could stand here' });
      await hands.click(found.getByRole('button').first());
      await expect(page.getByText(/stands in the place of Castor oil/)).toBeVisible();
    },
  },
  {
    task: 'pour the same bar again, from its table',
    ...{ wanted: 1, of: 'clicks to a filled plan' },
    walk: async (hands, page) => {
      await at(page, '/bars/waiting-room');
      await hands.click(page.getByRole('link', { name: 'Pour', exact: true }));
      await expect(page.getByText(/^Filled in as batch WR-/)).toBeVisible();
      await expect(page.getByRole('button', { name: 'Begin this batch' })).toBeEnabled();
    },
  },
  {
    task: 'from the range’s “needs a hand” to the hand',
    ...{ wanted: 1, of: 'clicks' },
    walk: async (hands, page) => {
      await at(page, '/');
      await hands.click(page.getByRole('link', { name: /Decide in writing/ }).first());
      await expect(page.getByRole('region', { name: 'Quarantine' })).toBeVisible();
    },
  },
  {
    task: 'hold a doubted lot with all that holds it, from Trace',
    ...{ wanted: 2, of: 'clicks' },
    walk: async (hands, page) => {
      await at(page, '/pour/trace?lot=lot-olive-1');
      await hands.click(page.getByText(/^Hold lot /));
      await hands.click(page.getByRole('button', { name: 'Hold lot, batches and sales' }));
      await expect(page.getByText(/^Held\. It went into/)).toBeVisible();
      await expect(page.getByRole('link', { name: 'Letter and list as PDF' })).toBeVisible();
    },
  },
  {
    task: 'a delivery of three things',
    ...{ wanted: 3, of: 'clicks, the table itself pasted' },
    walk: async (hands, page) => {
      await at(page, '/cupboard');
      await hands.click(page.getByRole('link', { name: 'A delivery' }));
      await awake(page);
      const table = page.getByLabel(/^What came, a line each/);
      await hands.click(table);
      await table.fill('olive oil; 5 kg; 45.00\nshea butter; 1 kg; 18.50\ncastor oil; 500 g; 9.00');
      await hands.click(page.getByRole('button', { name: 'Write 3 lots down' }));
      await expect(page.getByText(/^3 lots are written down/)).toBeVisible();
    },
  },
];

const FILE = 'docs/steps.md';
const HEAD = `# Steps

Clicks and keys from where one stands, counted by \`test/browser/steps.spec.ts\`, which writes this table.

| task | wanted at most | counted | of |
| --- | --- | --- | --- |
`;

test('what makers do most takes few steps, each counted', async ({ page }) => {
  const rows: string[] = [];
  for (const { task, wanted, of, walk } of WAYS) {
    const hands = new Hands(page);
    await test.step(task, () => walk(hands, page));
    expect(hands.steps, task).toBeLessThanOrEqual(wanted);
    rows.push(`| ${task} | ${wanted} | ${hands.steps} | ${of} |`);
  }
  const cells = (text: string) => text.replace(/[\s|-]+/g, ' ');
  const text = `${HEAD}${rows.join('\n')}\n`;
  if (process.env.WRITE_STEPS) writeFileSync(FILE, text);
  expect(cells(readFileSync(FILE, 'utf8'))).toBe(cells(text));
});
