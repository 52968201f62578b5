/** Addresses as they come over the wire: nobody gets in by writing one in another way. Speaks raw TCP. */
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { isAddress } from '../../src/server/front/address';
import { Access } from '../../src/server/front/access';
import { frontApp } from '../../src/server/front/app';

const WORK = 'the work';
const DOORS = ['api/v1/backups', 'api/v1/archive', 'api/v1/settings', 'api/v1/batches/wr-1/events', 'house'];
const DOTS = ['..', '%2e%2e', '.%2e', '%2E.', '%252e%252e', '..%00'];
const SLASHES = ['/', '\\', '%2f', '%5c', '//', '/./', '%252f'];
const OPEN = ['_astro', 'sign-in', 'mark.svg', '_astro/x'];

/** Every way round the gate that the open addresses and a device's own pages could be a cover for. */
function ways(): string[] {
  const covers = [...OPEN, 'pour', 'rack/x/weigh', 'api/v1/scale', 'api/v1/rack/calendar/x.ics'];
  const found = covers.flatMap((cover) =>
    DOTS.flatMap((dots) =>
      SLASHES.flatMap((slash) =>
        DOORS.flatMap((door) => {
          const up = Array.from(cover.split('/'), () => dots).join(slash);
          return [`/${cover}${slash}${up}${slash}${door}`, `/${cover}/${up}/${door}`];
        }),
      ),
    ),
  );
  const plain = DOORS.flatMap((door) => [
    `//${door}`,
    `/./${door}`,
    `/%61pi/${door.replace('api/', '')}`,
    `/_astro\\..\\${door}`,
    `http://127.0.0.1/${door}`,
    `http://elsewhere.example/_astro/../${door}`,
    `/${door}#/_astro/`,
    `/${door.replaceAll('/', '//')}`,
    `/${door.replace('/', ';/')}`,
  ]);
  return [...new Set([...found, ...plain])];
}

describe('the gate, over raw TCP', () => {
  let server: Server;
  let folder: string;
  let cookies: Record<'nobody' | 'bench' | 'desk', string>;

  before(async () => {
    folder = mkdtempSync(join(tmpdir(), 'proportia-'));
    const access = new Access(folder);
    await access.setPassphrase('four bars of soap');
    const app = frontApp({
      clientFolder: folder,
      names: [],
      pages: (request, response) => response.status(200).send(`${WORK} at ${request.url}`),
      gate: { access, isShut: true },
    });
    server = createServer(app).listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    const cookie = (kind: 'desk' | 'bench') => `cookie: proportia=${access.begin(kind, 'test')}\r\n`;
    cookies = { nobody: '', bench: cookie('bench'), desk: cookie('desk') };
  });
  after(() => {
    server.close();
    rmSync(folder, { recursive: true });
  });

  /** Sends one request as it stands; answers its status and what came. */
  function raw(line: string, headers = ''): Promise<{ status: number; text: string }> {
    return new Promise((resolve, reject) => {
      const socket = connect((server.address() as AddressInfo).port, '127.0.0.1');
      let text = '';
      socket.on('data', (part) => (text += String(part)));
      socket.on('error', reject);
      socket.on('close', () => resolve({ status: Number(text.split(' ')[1]), text }));
      socket.write(`${line} HTTP/1.1\r\nhost: 127.0.0.1\r\n${headers}connection: close\r\n\r\n`);
    });
  }

  it('lets nobody through by another way of writing an address, with any method', async () => {
    for (const target of ways())
      for (const method of ['GET', 'POST', 'PUT']) {
        const { status, text } = await raw(`${method} ${target}`);
        expect(text, `${method} ${target}`).to.not.contain(WORK);
        expect(status, target).to.be.oneOf([303, 400, 401, 403, 404]);
      }
  });

  it('lets a device of the bench out by none of them', async () => {
    for (const target of ways()) {
      const { text } = await raw(`GET ${target}`, cookies.bench);
      expect(text, target).to.not.contain(WORK);
    }
  });

  it('refuses what differs from what it resolves to, signed in too, and takes what is plain', async () => {
    for (const target of [
      '/pour/../house',
      '/a//b',
      '/a/%2e/b',
      '/a\\b',
      '/a%2fb',
      '/%61',
      '/a#b',
      '/a%zz',
      'a',
      '*',
    ])
      expect((await raw(`GET ${target}`, cookies.desk)).status, target).to.equal(400);
    for (const target of [
      '/',
      '/house',
      '/house/',
      '/bars/%C3%B6l',
      '/x/a%3Ab%20c',
      '/x?next=/../y%2e%2e',
      '/a.b-c_d~e',
    ])
      expect((await raw(`GET ${target}`, cookies.desk)).text, target).to.contain(`${WORK} at ${target}`);
  });

  it('answers methods that are none here with 405 before it looks at anything else', async () => {
    for (const method of ['TRACE', 'OPTIONS', 'PATCH', 'PROPFIND', 'LOCK'])
      for (const target of ['/', '/api/v1/range', '/_astro/../house'])
        expect((await raw(`${method} ${target}`)).status, `${method} ${target}`).to.equal(405);
  });

  it('knows the addresses that clients make of any name', () => {
    for (const name of ['öl', 'a b', 'a:b', 'q?', 'semi;colon', '50%', '🧼', "it's", 'a+b@c', '...', 'x'])
      expect(isAddress(`/bars/${encodeURIComponent(name)}`), name).to.equal(true);
    expect(isAddress(`/${'x'.repeat(4096)}`)).to.equal(false);
  });
});
