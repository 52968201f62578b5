/** The real server opened to other machines, shut again, and started over a damaged database. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { awake, noViolations } from './page';

const PASSPHRASE = 'four bars of soap';

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => resolve(port));
    });
  });
}

interface Started {
  server: ChildProcess;
  /** All it said on both outputs so far. */
  said: () => string;
  /** Its exit code, once it ended. */
  ended: Promise<number | null>;
}

function start(env: Record<string, string>): Started {
  const { PROPORTIA_PASSPHRASE: _, PROPORTIA_RESTORE: __, ...rest } = process.env;
  const server = spawn(process.execPath, ['dist/server/serve.mjs'], {
    env: { ...rest, PROPORTIA_TODAY: '2026-11-24', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let text = '';
  for (const stream of [server.stdout!, server.stderr!])
    stream.on('data', (part: Buffer) => {
      text += part.toString();
    });
  const ended = new Promise<number | null>((resolve) => server.once('exit', resolve));
  return { server, said: () => text, ended };
}

async function untilReady(url: string): Promise<void> {
  await expect
    .poll(
      () =>
        // Where it is encrypted, plain connections are led there; that, too, says that it listens.
        fetch(`${url}/api/v1/health`, { redirect: 'manual' }).then(
          ({ ok, status }) => ok || status === 308,
          () => false,
        ),
      { timeout: 30_000 },
    )
    .toBe(true);
}

const folders: string[] = [];
const servers: ChildProcess[] = [];
function freshFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'proportia-'));
  folders.push(folder);
  return folder;
}
test.afterAll(() => {
  for (const server of servers) server.kill('SIGKILL');
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
});

// The certificate is the house's own; what a browser makes of it is not asked here.
test.use({ ignoreHTTPSErrors: true });

test('opened to other machines, encrypted, it asks for a passphrase; the bench is let in by a code, and shut out', async ({
  page,
  browser,
}) => {
  const [folder, port] = [freshFolder(), await freePort()];
  const env = { PROPORTIA_DATA: folder, HOST: '0.0.0.0', PORT: String(port) };
  const refused = start(env);
  expect(await refused.ended).toBe(1);
  expect(refused.said()).toContain('Set a passphrase');
  const { server } = start({ ...env, PROPORTIA_PASSPHRASE: PASSPHRASE });
  servers.push(server);
  const url = `https://127.0.0.1:${port}`;
  await untilReady(`http://127.0.0.1:${port}`);
  await page.goto(`http://127.0.0.1:${port}/rack`);
  await expect(page).toHaveURL(`${url}/sign-in`);

  // A second one on the same folder says so and ends.
  const second = start({ ...env, PORT: String(await freePort()), PROPORTIA_PASSPHRASE: PASSPHRASE });
  expect(await second.ended).toBe(1);
  expect(second.said()).toContain('Another Proportia already works with this data folder');

  expect((await page.request.get(`${url}/api/v1/range`)).status()).toBe(401);
  await page.goto(`${url}/bars/anything`);
  await expect(page).toHaveURL(/\/sign-in$/);
  await noViolations(page, 'signing in');
  await page.getByLabel('Passphrase').fill('not this one');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toHaveText('That is not it.');
  await page.getByLabel('Passphrase').fill(PASSPHRASE);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Nothing stands here yet' })).toBeVisible();

  await page.goto(`${url}/house`);
  await awake(page);
  const doors = page.getByRole('region', { name: 'Who gets in' });
  await doors.getByRole('button', { name: 'Let a device of the bench in' }).click();
  await doors.getByText('Make a device trust this house').click();
  await expect(doors.getByRole('img', { name: /certificate/ })).toBeVisible();
  const picture = doors.getByRole('img', { name: /^Code / });
  await expect(picture).toBeVisible();
  const words = (await picture.getAttribute('alt'))!;
  const address = /for (\S+)$/.exec(words)![1]!;
  await noViolations(page, 'the house, opened');

  const tablet = await browser.newContext({
    viewport: { width: 390, height: 844 },
    ignoreHTTPSErrors: true,
  });
  const bench = await tablet.newPage();
  // The address of the network where there is one: the desk's own would lead the tablet to itself.
  const there = new URL(address).origin;
  await bench.goto(address);
  await bench.getByRole('button', { name: 'Let this device in' }).click();
  await expect(bench).toHaveURL(/\/pour$/);
  await expect(bench.getByRole('heading', { name: 'Pour day' })).toBeVisible();
  await bench.goto(`${there}/house`);
  await expect(bench).toHaveURL(/\/pour$/);
  expect((await bench.request.get(`${there}/api/v1/archive`)).status()).toBe(403);

  await page.reload();
  await awake(page);
  const device = doors.getByRole('row').filter({ hasText: 'bench' });
  await device.getByRole('button', { name: 'Shut out' }).click();
  await expect(device).toHaveCount(0);
  await bench.goto(`${there}/pour`);
  await expect(bench).toHaveURL(/\/sign-in$/);
  await tablet.close();

  await page.goto(`${url}/house`);
  await awake(page);
  await doors.getByRole('button', { name: 'Sign out here' }).click();
  await expect(page).toHaveURL(/\/sign-in$/);
  await page.getByLabel('Passphrase').fill(PASSPHRASE);
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(`${url}/`);
  await page.goto(`${url}/house`);
  await awake(page);
  await doors.getByRole('button', { name: 'Sign out everywhere' }).click();
  await expect(page).toHaveURL(/\/sign-in$/);
  server.kill('SIGTERM');
});

test('a damaged database says the way to the last good backup, and goes on from it', async ({ page }) => {
  const [folder, port] = [freshFolder(), await freePort()];
  const env = { PROPORTIA_DATA: folder, HOST: '127.0.0.1', PORT: String(port) };
  const url = `http://127.0.0.1:${port}`;
  const first = start(env);
  servers.push(first.server);
  await untilReady(url);
  const bar = await page.request.post(`${url}/api/v1/products`, { data: { name: 'Kept by the backup' } });
  expect(bar.status()).toBe(201);
  const { id } = (await (await page.request.post(`${url}/api/v1/backups`)).json()) as { id: string };
  first.server.kill('SIGTERM');
  await first.ended;

  const file = join(folder, 'proportia.sqlite');
  for (const end of ['-wal', '-shm']) rmSync(file + end, { force: true });
  truncateSync(file, 5000);
  const damaged = start(env);
  expect(await damaged.ended).toBe(1);
  expect(damaged.said()).toContain(`PROPORTIA_RESTORE=${id}`);

  const wrong = start({ ...env, PROPORTIA_RESTORE: 'another' });
  expect(await wrong.ended).toBe(1);
  expect(wrong.said()).toContain('There is no backup "another"');

  const restored = start({ ...env, PROPORTIA_RESTORE: id });
  servers.push(restored.server);
  await untilReady(url);
  expect(readdirSync(folder)).toContain('proportia.sqlite.before');
  await page.goto(url);
  await expect(page.getByRole('link', { name: 'Kept by the backup' })).toBeVisible();
  await page.request.post(`${url}/api/v1/products`, { data: { name: 'Made after it' } });
  restored.server.kill('SIGTERM');
  await restored.ended;

  // Left in the environment by mistake, it takes nothing back a second time.
  const again = start({ ...env, PROPORTIA_RESTORE: id });
  servers.push(again.server);
  await untilReady(url);
  expect(again.said()).toContain('is left aside');
  await page.reload();
  await awake(page);
  await expect(page.getByRole('link', { name: 'Made after it' })).toBeVisible();
  again.server.kill('SIGTERM');
  await again.ended;

  writeFileSync(file, '');
  const empty = start(env);
  expect(await empty.ended).toBe(1);
  expect(empty.said()).toContain('has no content');
});
