/** `npm run pictures`: remakes every picture in docs/screenshots from the demo, on a fixed day. */
import { execFileSync, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { ensureBuilt } from './build.mjs';
import { fontsAlone } from './fonts.mjs';
import { chromiumPath, ensureChromium } from './chromium.mjs';

const PORT = 4791;
const URL_HERE = `http://127.0.0.1:${PORT}`;
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };
const TABLET = { width: 1024, height: 768 };
/** What a view fetches and reckons is there after so long. */
const SETTLED_MS = 5000;

async function post(path, body) {
  const answer = await fetch(`${URL_HERE}/api/v1/${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  return answer.json();
}

/** A stricter certificate, looked at and not yet decided. */
async function aChange() {
  const paper = {
    type: 'certificate',
    number: 'BA-1499',
    edition: '51st',
    issuedOn: '2026-11-20',
    issuer: 'Brackwater Aromatics',
    category: '9',
    maxPct: 2.5,
  };
  const change = { kind: 'paper', material: 'coal-and-violets', paper };
  const { id } = await post('changes', { change });
  return `/watch/${id}`;
}

/** What a caption speaks of is opened first: a picture of a closed part shows nothing. */
const sizeTab = async (page) => {
  await page.getByRole('tab', { name: 'Size' }).click();
  const heat = page.getByText('How it heats after the pour');
  await heat.click();
  await heat.scrollIntoViewIfNeeded();
  // All of its runs are in once there is nothing left to break off.
  const enough = page.getByRole('button', { name: 'Enough' });
  await enough.waitFor();
  await enough.waitFor({ state: 'hidden', timeout: 120_000 });
  await page.mouse.move(5, 5);
};

/** The best plan is found first. */
const planFound = async (page) => {
  await page.getByRole('button', { name: 'Find the best plan' }).click();
  await page.getByRole('list', { name: 'The plan' }).waitFor({ timeout: 120_000 });
};

const VIEWS = [
  ['range', '/', DESK],
  ['worktable', '/bars/lamp-room', DESK],
  ['worktable-phone', '/bars/lamp-room', PHONE],
  ['warmth', '/bars/first-light', { width: 1280, height: 1180 }, sizeTab],
  ['formula-sheet', '/bars/lamp-room/sheet', DESK],
  ['cupboard', '/cupboard', DESK],
  ['paper-tray', '/cupboard/papers', DESK],
  ['scent-desk', '/scent', DESK],
  ['wrap', '/wrap/ticket-office', DESK],
  ['pour-day', '/pour', DESK],
  ['bench', '/pour/sr-261124', TABLET],
  ['bench-phone', '/pour/sr-261124', PHONE],
  ['record', '/pour/nm-261025/record', DESK],
  ['rack', '/rack', DESK],
  ['batch', '/rack/wr-261103', DESK],
  ['next', '/rack/next', { width: 1280, height: 1000 }, planFound],
  ['watch', aChange, DESK],
  ['rulebook', '/rulebook', DESK],
  ['house', '/house', DESK],
];

async function untilReady() {
  for (let tries = 0; tries < 150; tries++) {
    if (
      await fetch(`${URL_HERE}/api/v1/health`).then(
        ({ ok }) => ok,
        () => false,
      )
    )
      return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('The server did not become ready.');
}

if (!ensureChromium()) process.exit(1);
await ensureBuilt();
const folder = mkdtempSync(join(tmpdir(), 'proportia-'));
const env = {
  ...process.env,
  NODE_ENV: 'production',
  PROPORTIA_DATA: folder,
  PROPORTIA_TODAY: '2026-11-24',
  HOST: '127.0.0.1',
  PORT: String(PORT),
};
execFileSync(process.execPath, ['--import=tsx', 'scripts/seed.ts'], { env, stdio: 'inherit' });
const server = spawn(process.execPath, ['dist/server/serve.mjs'], { env, stdio: 'inherit' });
const browser = await chromium.launch({
  executablePath: chromiumPath(),
  env: { ...process.env, ...fontsAlone() },
  args: ['--no-sandbox'],
});
try {
  await untilReady();
  await post('backups', {});
  const wanted = process.argv.slice(2);
  for (const [name, where, viewport, act] of VIEWS) {
    if (wanted.length > 0 && !wanted.includes(name)) continue;
    const page = await browser.newPage({ viewport });
    await page.goto(URL_HERE + (typeof where === 'string' ? where : await where()));
    await page.waitForTimeout(SETTLED_MS);
    if (act) {
      await act(page);
      await page.waitForTimeout(SETTLED_MS);
    }
    await page.screenshot({ path: `docs/screenshots/${name}.png` });
    await page.close();
    console.log(name);
  }
} finally {
  await browser.close();
  server.kill();
  rmSync(folder, { recursive: true, force: true });
}
