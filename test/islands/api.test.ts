/** Talking to the application: whatever comes back, or nothing, is a value and never a throw. */
import { expect } from 'chai';
import { address, send } from '../../src/ui/api';
import { freeId, plainId } from '../../src/server/store/ids';

describe('sending to the application', () => {
  const real = globalThis.fetch;
  let asked: { url: string; init?: RequestInit }[] = [];
  const answering = (answer: () => Response | Promise<Response>) => {
    asked = [];
    globalThis.fetch = ((url: string, init?: RequestInit) => {
      asked.push({ url, init });
      return Promise.resolve().then(answer);
    }) as typeof fetch;
  };
  const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status });
  afterEach(() => {
    globalThis.fetch = real;
  });

  it('gives the body, and counts a conflict as an answer that brings the newer state', async () => {
    answering(() => json({ saved: 1 }));
    expect(await send('PUT', '/x', { a: 1 })).to.deep.equal({ ok: true, status: 200, body: { saved: 1 } });
    expect(asked[0]!.init).to.deep.include({ method: 'PUT', body: '{"a":1}' });
    answering(() => json({ stale: 2 }, 409));
    expect(await send('PUT', '/x', {})).to.deep.equal({ ok: true, status: 409, body: { stale: 2 } });
    answering(() => json({}));
    await send('GET', '/x');
    expect(asked[0]!.init).to.deep.equal({ method: 'GET', headers: {} });
    await send('POST', '/x', {}, 'key-1');
    expect(asked[1]!.init!.headers).to.deep.include({ 'idempotency-key': 'key-1' });
  });

  it('gives faults with their paths, and words of its own where none came', async () => {
    const errors = [{ path: 'name', code: 'length', message: 'Give the bar a name.' }];
    answering(() => json({ errors }, 422));
    expect(await send('POST', '/x', {})).to.deep.equal({ ok: false, status: 422, faults: errors });
    for (const answer of [
      () => json({}, 500),
      () => new Response('<html>', { status: 502 }),
      () => Promise.reject(new TypeError('offline')),
    ]) {
      answering(answer);
      const told = await send('POST', '/x', {});
      expect(told.ok).to.equal(false);
      expect(!told.ok && told.faults[0]!.message).to.contain('nothing is lost');
    }
  });

  it('makes every part of an address safe', () => {
    expect(address('materials', 'a b/../c', 'lots')).to.equal('/api/v1/materials/a%20b%2F..%2Fc/lots');
  });
});

describe('ids made from names', () => {
  it('hold letters, digits and dashes, and stay apart from those that are taken', async () => {
    expect(plainId('Café No. 5', 'bar')).to.equal('cafe-no-5');
    expect(plainId('石鹸', 'bar')).to.equal('bar');
    expect(plainId('x'.repeat(200), 'bar')).to.have.length(60);
    const taken = () => Promise.resolve(new Set(['a', 'a-2']));
    expect(await freeId('A', 'bar', taken)).to.equal('a-3');
    expect(await freeId('B', 'bar', taken)).to.equal('b');
  });
});
