/** Who may come in where other machines can reach the application: passphrase, sessions, slowing down, the bench. */
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { mock } from 'node:test';
import { expect } from 'chai';
import { Access } from '../../src/server/front/access';
import { frontApp } from '../../src/server/front/app';

const PASSPHRASE = 'four bars of soap';
const HOUR = 3_600_000;

describe('the gate', () => {
  let server: Server;
  let url: string;
  let folder: string;
  let access: Access;
  /** The clock stands but for what a test lets pass. */
  const pass = (ms: number) => mock.timers.setTime(Date.now() + ms);

  before(async () => {
    mock.timers.enable({ apis: ['Date'], now: Date.parse('2026-11-24T09:00:00Z') });
    folder = mkdtempSync(join(tmpdir(), 'proportia-'));
    access = new Access(folder);
    await access.setPassphrase(PASSPHRASE);
    const app = frontApp({
      clientFolder: folder,
      names: [],
      pages: (_request, response) => response.status(200).send('the work'),
      gate: { access, isShut: true },
    });
    server = createServer(app).listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  after(() => {
    mock.timers.reset();
    server.close();
    rmSync(folder, { recursive: true });
  });

  const ask = (path: string, init: RequestInit & { cookie?: string } = {}) =>
    fetch(url + path, {
      ...init,
      redirect: 'manual',
      headers: { ...(init.headers as object), ...(init.cookie ? { cookie: init.cookie } : {}) },
    });
  const post = (path: string, fields: Record<string, string>) =>
    ask(path, { method: 'POST', body: new URLSearchParams(fields) });
  const cookieOf = (answer: Response) => answer.headers.get('set-cookie')!.split(';')[0]!;
  const signIn = async () => cookieOf(await post('/sign-in', { passphrase: PASSPHRASE }));
  /** Until nobody has to wait any more. */
  const wait = () => pass(25 * HOUR);

  it('lets nobody in without signing in, neither to pages nor to endpoints', async () => {
    const page = await ask('/bars/lamp-room');
    expect([page.status, page.headers.get('location')]).to.deep.equal([303, '/sign-in']);
    for (const method of ['GET', 'POST', 'PUT', 'DELETE'])
      expect((await ask('/api/v1/range', { method })).status).to.equal(401);
    expect((await ask('/api/v1/range', { cookie: 'proportia=AAAA' })).status).to.equal(401);
    expect((await ask('/api/v1/access')).status).to.equal(401);
    for (const path of ['/api/v1/health', '/sign-in', '/bench-in'])
      expect((await ask(path)).status, path).to.equal(200);
    for (const path of [
      '/api/v1/health/..%2frange',
      '/sign-in/../api/v1/range',
      '//api/v1/range',
      '/API/v1/range',
    ])
      expect(await (await ask(path)).text(), path).to.not.contain('the work');
  });

  it('takes the passphrase, and keeps of it and of sessions only hashes, in a file of the maker alone', async () => {
    const answer = await post('/sign-in', { passphrase: PASSPHRASE });
    expect([answer.status, answer.headers.get('location')]).to.deep.equal([303, '/']);
    expect(answer.headers.get('set-cookie'))
      .to.match(/HttpOnly/)
      .and.match(/SameSite=Strict/);
    const cookie = cookieOf(answer);
    expect(await (await ask('/', { cookie })).text()).to.equal('the work');
    const kept = readFileSync(join(folder, 'access.json'), 'utf8');
    expect(kept).to.contain('$argon2id$');
    expect(kept).to.not.contain(PASSPHRASE);
    expect(kept).to.not.contain(cookie.split('=')[1]!);
    expect(statSync(join(folder, 'access.json')).mode & 0o077).to.equal(0);
    expect(new Access(folder).sessionOf(cookie.split('=')[1]!)).to.include({ kind: 'desk' });
  });

  it('slows down whoever guesses, ever more, and lets the right one in after the wait', async () => {
    wait();
    for (let tries = 0; tries < 3; tries++)
      expect((await post('/sign-in', { passphrase: 'guess' })).status).to.equal(401);
    const waits: number[] = [];
    for (let tries = 0; tries < 5; tries++) {
      const slow = await post('/sign-in', { passphrase: PASSPHRASE });
      expect(slow.status).to.equal(429);
      waits.push(Number(slow.headers.get('retry-after')));
      pass(waits.at(-1)! * 1000);
      expect((await post('/sign-in', { passphrase: 'guess' })).status).to.equal(401);
    }
    expect(waits).to.deep.equal([1, 2, 4, 8, 16]);
    pass(32_000);
    expect((await post('/sign-in', { passphrase: PASSPHRASE })).status).to.equal(303);
    for (const body of [{}, { passphrase: 'x'.repeat(5000) }])
      expect((await post('/sign-in', body as never)).status).to.be.oneOf([401, 413]);
  });

  it('looks at no more guesses that come side by side than at those one by one, and keeps no ended session', async () => {
    wait();
    const guesses = Array.from({ length: 40 }, () => post('/sign-in', { passphrase: 'guess' }));
    const found = (await Promise.all(guesses)).map(({ status }) => status);
    expect(found.filter((status) => status === 401)).to.have.length(3);
    expect(found.filter((status) => status === 429)).to.have.length(37);
    wait();
    await signIn();
    pass(91 * 24 * HOUR);
    await signIn();
    const { sessions } = JSON.parse(readFileSync(join(folder, 'access.json'), 'utf8')) as {
      sessions: unknown[];
    };
    expect(sessions).to.have.length(1);
  });

  it('lets a calendar on another machine in by its own secret address, to read and nothing else', async () => {
    const address = '/api/v1/rack/calendar/0a1b2c3d.ics';
    expect(await (await ask(address)).text()).to.equal('the work');
    for (const [method, path] of [
      ['POST', address],
      ['GET', '/api/v1/rack/calendar'],
      ['GET', '/api/v1/rack/calendar/a/b'],
    ] as const)
      expect((await ask(path, { method })).status, path).to.equal(401);
  });

  it('ends sessions: after a time, by signing out, everywhere, and with another passphrase', async () => {
    wait();
    const idle = await signIn();
    pass(15 * 24 * HOUR);
    expect((await ask('/', { cookie: idle })).status).to.equal(303);
    const [one, two] = [await signIn(), await signIn()];
    await ask('/sign-out', { method: 'POST', cookie: one });
    expect([
      (await ask('/', { cookie: one })).status,
      (await ask('/', { cookie: two })).status,
    ]).to.deep.equal([303, 200]);
    expect((await ask('/api/v1/access/end-all', { method: 'POST', cookie: two })).status).to.equal(200);
    expect((await ask('/', { cookie: two })).status).to.equal(303);
    const three = await signIn();
    const put = (body: object) =>
      ask('/api/v1/access/passphrase', {
        method: 'PUT',
        cookie: three,
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
    expect((await put({ old: PASSPHRASE, passphrase: 'short' })).status).to.equal(422);
    expect((await put({ old: 'wrong', passphrase: 'another passphrase' })).status).to.equal(403);
    const changed = await put({ old: PASSPHRASE, passphrase: 'another passphrase' });
    expect(changed.status).to.equal(200);
    expect((await ask('/', { cookie: three })).status).to.equal(303);
    expect((await ask('/', { cookie: cookieOf(changed) })).status).to.equal(200);
    await access.setPassphrase(PASSPHRASE);
  });

  it('lets a device of the bench in by a code, once, for bench work alone, until it is shut out', async () => {
    wait();
    const desk = await signIn();
    const made = (await (await ask('/api/v1/access/bench', { method: 'POST', cookie: desk })).json()) as {
      code: string;
      url: string;
      svg: string;
    };
    expect(made.url).to.equal(`${url}/bench-in?code=${made.code}`);
    expect(made.svg).to.match(/^<svg /);
    expect(await (await ask(`/bench-in?code=${made.code}`)).text()).to.contain(made.code);
    expect(await (await ask('/bench-in?code="><script>')).text()).to.not.contain('<script>');
    const bench = cookieOf(await post('/bench-in', { code: made.code.toLowerCase() }));
    expect((await post('/bench-in', { code: made.code })).status).to.equal(401);
    for (const path of [
      ...['/pour', '/pour/wr-1', '/pour/wr-1/sheet', '/pour/scale', '/rack/wr-1/weigh', '/rack/wr-1/cut'],
      ...['', '/assessment', '/cure', '/lots', '/photos'].map((of) => `/api/v1/batches/wr-1${of}`),
      '/api/v1/scale/readings',
    ])
      expect((await ask(path, { cookie: bench })).status, path).to.equal(200);
    for (const path of [
      ...['archive', 'backups', 'products/x', 'settings', 'materials', 'lots/l', 'lots/l/trace', 'rack'],
      ...['batches/wr-1/record', 'batches/wr-1/trace', 'trace', 'printer/jobs', 'attention', 'hands'],
    ])
      expect((await ask(`/api/v1/${path}`, { cookie: bench })).status, path).to.equal(403);
    for (const path of ['/pour/trace', '/pour/wr-1/record', '/rack', '/rack/wr-1', '/rack/out', '/cupboard'])
      expect((await ask(path, { cookie: bench })).status, path).to.equal(303);
    expect((await ask('/api/v1/batches/wr-1/parts', { method: 'POST', cookie: bench })).status).to.equal(403);
    expect((await ask('/api/v1/batches/wr-1/photos/p', { method: 'DELETE', cookie: bench })).status).to.equal(
      403,
    );
    for (const method of ['POST', 'PUT', 'DELETE'])
      expect((await ask('/api/v1/access/bench', { method, cookie: bench })).status).to.equal(403);
    expect((await ask('/house', { cookie: bench })).headers.get('location')).to.equal('/pour');
    const { sessions } = (await (await ask('/api/v1/access', { cookie: desk })).json()) as {
      sessions: { id: string; kind: string; isOwn: boolean }[];
    };
    const device = sessions.find(({ kind }) => kind === 'bench')!;
    expect(sessions.some(({ isOwn }) => isOwn)).to.equal(true);
    expect((await ask(`/api/v1/access/${device.id}`, { method: 'DELETE', cookie: desk })).status).to.equal(
      200,
    );
    expect((await ask('/pour', { cookie: bench })).status).to.equal(303);
    const late = (await (await ask('/api/v1/access/bench', { method: 'POST', cookie: desk })).json()) as {
      code: string;
    };
    pass(11 * 60_000);
    expect((await post('/bench-in', { code: late.code })).status).to.equal(401);
  });

  it('shows a code for the address of the network where the desk stands on this machine itself', async () => {
    const app = frontApp({
      clientFolder: folder,
      names: ['desk.lan'],
      pages: (_request, response) => response.send('the work'),
      gate: { access, isShut: false, reach: '192.168.7.20:4321' },
    });
    const other = createServer(app).listen(0, '127.0.0.1');
    await new Promise((resolve) => other.once('listening', resolve));
    const { port } = other.address() as AddressInfo;
    const answer = await fetch(`http://localhost:${port}/api/v1/access/bench`, { method: 'POST' });
    const made = (await answer.json()) as { url: string };
    other.close();
    expect(made.url).to.match(/^http:\/\/192\.168\.7\.20:4321\/bench-in\?code=/);
  });

  it('answers no page of another site, signed in or not', async () => {
    wait();
    const cookie = await signIn();
    const from = (headers: Record<string, string>) => ask('/api/v1/range', { cookie, headers });
    expect((await from({ origin: 'http://elsewhere.example' })).status).to.equal(403);
    expect((await from({ 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'cors' })).status).to.equal(403);
  });
});
