/** A few hundred changed and hostile requests over every door of the running application; `npm run hostile` sends more. */
import { expect, test } from '@playwright/test';
import { attack } from '../hostile/attack';
import { doors, leadsTo, routes } from '../hostile/doors';
import { startApplication, type Application } from './application';

const REQUESTS = 480;
const SEED = 11;

let application: Application;
test.beforeAll(async () => {
  application = await startApplication();
});
test.afterAll(() => application.stop());

test('every endpoint has a door that the attack goes through', async () => {
  const read = async (path: string) =>
    (await (await fetch(`${application.url}/api/v1/${path}`)).json()) as Record<string, unknown>;
  const all = await doors(read);
  for (const route of routes())
    expect(
      all.filter((door) => leadsTo(door, route)),
      route,
    ).not.toEqual([]);
});

test('hostile requests are answered with words, never with a fault of ours, and the server goes on', async () => {
  const { broken, requests, byStatus } = await attack(application.url, REQUESTS, SEED);
  expect(broken).toEqual([]);
  expect(requests).toBe(REQUESTS);
  expect(byStatus['422']).toBeGreaterThan(REQUESTS / 10);
  expect(byStatus['200']).toBeGreaterThan(REQUESTS / 10);
});

test('only this machine’s own pages and programs are answered, reads too, with headers that close the rest', async ({
  page,
}) => {
  const { port } = new URL(application.url);
  const status = (headers: Record<string, string>, path = '/api/v1/health', method = 'GET') =>
    page.request.fetch(application.url + path, { headers, method }).then((answer) => answer.status());
  expect(await status({})).toBe(200);
  expect(await status({ host: `localhost:${port}` })).toBe(200);
  expect(await status({ host: `soap.example:${port}` })).toBe(403);
  expect(await status({ host: `soap.example:${port}` }, '/')).toBe(403);
  expect(await status({ origin: 'http://elsewhere.example' })).toBe(403);
  expect(await status({ origin: 'null' }, '/api/v1/products', 'POST')).toBe(403);
  expect(await status({ origin: 'http://localhost:1' })).toBe(403);
  expect(await status({ 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'no-cors' })).toBe(403);
  expect(await status({ 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' }, '/')).toBe(200);
  expect(await status({}, '/_image?href=/mark.svg&w=16000&h=16000')).toBe(404);
  for (const path of ['/', '/mark.svg', '/api/v1/health', '/api/v1/nowhere', '/nowhere']) {
    const headers = (await page.request.get(application.url + path)).headers();
    expect(headers['content-security-policy'], path).toContain("frame-ancestors 'none'");
    expect(headers['x-content-type-options'], path).toBe('nosniff');
    expect(headers['referrer-policy'], path).toBe('no-referrer');
    expect(headers['cross-origin-resource-policy'], path).toBe('same-origin');
  }
  const policy = (await page.request.get(application.url)).headers()['content-security-policy']!;
  expect(/script-src[^;]*/.exec(policy)![0]).not.toContain('unsafe-inline');
});

test('pages, scripts and JSON come compressed when asked for; hashed files are kept for good', async ({
  page,
}) => {
  const html = await page.request.get(application.url, { headers: { 'accept-encoding': 'gzip' } });
  expect(html.headers()['content-encoding']).toBe('gzip');
  const script = /\/_astro\/client[\w.-]+\.js/.exec(await html.text())![0];
  const file = await page.request.get(application.url + script, { headers: { 'accept-encoding': 'gzip' } });
  expect(file.headers()['content-encoding']).toBe('gzip');
  expect(file.headers()['cache-control']).toContain('immutable');
});
