/** Encrypted by the house's own means: an authority that stays, a certificate for its names, plain connections led there. */
import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { request as requestPlain, type IncomingMessage } from 'node:http';
import { get, request } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { Access } from '../../src/server/front/access';
import { frontApp } from '../../src/server/front/app';
import { secureHouse, type SecureHouse } from '../../src/server/front/listen';
import { givenTls, ownTls, type Tls } from '../../src/server/front/tls';

const NAMES = ['localhost', '127.0.0.1', '[::1]', 'bench.lan', '192.168.7.20'];
const DAY = 24 * 3_600_000;
const PASSPHRASE = 'four bars of soap';

describe('encrypted connections', () => {
  let folder: string;
  let tls: Tls;
  let house: SecureHouse;
  let port: number;

  before(async () => {
    folder = mkdtempSync(join(tmpdir(), 'proportia-'));
    tls = await ownTls(folder, NAMES);
    const access = new Access(folder);
    await access.setPassphrase(PASSPHRASE);
    const app = frontApp({
      clientFolder: folder,
      names: ['bench.lan'],
      pages: (_request, response) => response.send('the work'),
      gate: { access, isShut: true, tls },
    });
    house = secureHouse(app, tls, ['bench.lan'], { headersTimeout: 5000 });
    house.server.listen(0, '127.0.0.1');
    await new Promise((resolve) => house.server.once('listening', resolve));
    ({ port } = house.server.address() as AddressInfo);
  });
  after(() => {
    house.server.close();
    rmSync(folder, { recursive: true });
  });

  const told = async (answer: IncomingMessage) => {
    let text = '';
    for await (const part of answer) text += String(part);
    return { status: answer.statusCode!, headers: answer.headers, text };
  };
  const plain = (path: string, headers = {}, method = 'GET') =>
    new Promise<IncomingMessage>((resolve, reject) =>
      requestPlain({ port, host: '127.0.0.1', path, headers, method }, resolve).on('error', reject).end(),
    ).then(told);
  const secure = (path: string, ca = tls.authority!) =>
    new Promise<IncomingMessage>((resolve, reject) =>
      get({ port, host: '127.0.0.1', path, ca, agent: false }, resolve).on('error', reject),
    ).then(told);

  it('are trusted by whoever has the authority, and their cookie never goes out in the open', async () => {
    expect((await secure('/api/v1/health')).text).to.equal('the work');
    const signedIn = await new Promise<IncomingMessage>((resolve, reject) => {
      const body = new URLSearchParams({ passphrase: PASSPHRASE }).toString();
      const headers = { 'content-type': 'application/x-www-form-urlencoded', 'content-length': body.length };
      request(
        { port, host: '127.0.0.1', path: '/sign-in', method: 'POST', ca: tls.authority!, headers },
        resolve,
      )
        .on('error', reject)
        .end(body);
    });
    expect(signedIn.statusCode).to.equal(303);
    expect(signedIn.headers['set-cookie']![0]).to.match(/; Secure/);
    signedIn.resume();
    const other = await ownTls(mkdtempSync(join(tmpdir(), 'proportia-')), NAMES);
    expect(await secure('/', other.authority!).catch((error: { code: string }) => error.code)).to.match(
      /CERT|SIGNATURE/,
    );
  });

  it('are where plain ones are led, which get nothing but the way and the certificate', async () => {
    const led = await plain('/rack?x=1', { host: `bench.lan:${port}` });
    expect([led.status, led.headers.location]).to.deep.equal([308, `https://bench.lan:${port}/rack?x=1`]);
    expect((await plain('/', { host: 'elsewhere.example' })).status).to.equal(400);
    expect((await plain('/sign-in', {}, 'POST')).status).to.equal(403);
    expect((await plain('/_astro/../house')).status).to.equal(400);
    const certificate = await plain('/authority.crt');
    expect([certificate.status, certificate.text]).to.deep.equal([200, tls.authority]);
    expect((await secure('/authority.crt')).text).to.equal(tls.authority);
    expect(tls.fingerprint).to.equal(new X509Certificate(tls.authority!).fingerprint256);
  });

  it('keep their authority, and get another certificate where names come or the end is near, while they are open', async () => {
    const own = (one: Tls) => new X509Certificate(one.cert);
    const later = await ownTls(folder, NAMES, Date.now() + 10 * DAY);
    expect(later.cert).to.equal(tls.cert);
    const moved = await ownTls(folder, [...NAMES, '10.0.0.9']);
    expect([moved.authority, own(moved).checkIP('10.0.0.9')]).to.deep.equal([tls.authority, '10.0.0.9']);
    const old = await ownTls(folder, NAMES, Date.now() + 380 * DAY);
    expect(old.authority).to.equal(tls.authority);
    expect(own(old).serialNumber).to.not.equal(own(moved).serialNumber);
    for (const name of ['bench.lan', 'localhost']) expect(own(old).checkHost(name)).to.equal(name);
    for (const name of ['authority.key', 'own.key'])
      expect(statSync(join(folder, 'tls', name)).mode & 0o077).to.equal(0);
    house.renew(moved);
    expect((await secure('/api/v1/health')).status).to.equal(200);
  });

  it('can have a certificate of the maker\u2019s own; what is none is told with its name', () => {
    const at = (name: string) => join(folder, 'tls', name);
    const given = givenTls(at('own.pem'), at('own.key'));
    expect([given.authority, given.cert]).to.deep.equal([null, readFileSync(at('own.pem'), 'utf8')]);
    expect(() => givenTls(at('none'), at('own.key'))).to.throw(/PROPORTIA_CERT/);
    expect(() => givenTls(at('own.key'), at('own.key'))).to.throw(/no certificate/);
  });
});
