/** One search over everything on file, kept by the database itself. */
import { expect } from 'chai';
import { createProduct, discardProduct } from '../../src/server/services/worktable/products';
import { search } from '../../src/server/services/range/search';
import { caller } from './call';
import { useDemo } from './database';

describe('the search', () => {
  const test = useDemo();
  const found = async (text: string) =>
    (await search(test.house, text)).map(({ kind, title }) => `${kind} ${title}`);
  const first = async (text: string) => (await found(text))[0];

  it('finds bars, materials, batches, lots, papers and rules, errors forgiven, best first', async () => {
    expect(await first('lamp')).to.equal('bar Lamp Room');
    expect(await first('lmap')).to.equal('bar Lamp Room');
    expect(await first('lxmp')).to.equal('bar Lamp Room');
    expect(await first('lmap room')).to.equal('bar Lamp Room');
    expect(await first('nigth mail')).to.match(/^bar Night Mail/);
    expect(await first('kaolin')).to.match(/^material /);
    expect(await first('WR-261103')).to.equal('batch WR-261103 Waiting Room');
    expect(await first('BA-1407')).to.equal('paper BA-1407 Coal & Violets');
    expect(await first('OL2600')).to.match(/^lot OL2600 /);
    expect(await found('linalol')).to.include('rule linalool');
    expect(await found('Sodium Olivate qqqq')).to.deep.equal([]);
  });

  it('answers short words, and words that mean something to an index, as they stand', async () => {
    expect(await found('la')).to.include('bar Lamp Room');
    for (const text of [
      '',
      '   ',
      '"',
      'a" OR "b',
      'NEAR(',
      '*',
      '%',
      '_',
      "'); drop table search_items; --",
      '🧼🧼🧼',
    ])
      expect(await search(test.house, text)).to.be.an('array');
    expect(await first('lamp')).to.equal('bar Lamp Room');
  });

  it('knows what was written a moment ago, by whatever way, and forgets what is gone', async () => {
    const bar = await createProduct(test.house, { name: 'Ballast Blue' });
    expect(await first('balast')).to.equal('bar Ballast Blue');
    await test.db('products').where('id', bar.id).update({ name: 'Sleeper Grey' });
    expect(await found('ballast')).to.not.include('bar Ballast Blue');
    expect(await first('sleeper')).to.equal('bar Sleeper Grey');
    await discardProduct(test.house, bar.id);
    expect(await found('sleeper')).to.not.include('bar Sleeper Grey');
    await test.db.raw("insert into search_index (search_index) values ('integrity-check')");
  });

  it('is asked at its door', async () => {
    const ask = caller({ search: () => import('../../src/pages/api/v1/search') });
    const { status, body } = await ask<{ hits: { href: string }[] }>('search', 'GET', { query: '?q=lamp' });
    expect([status, body.hits[0]!.href]).to.deep.equal([200, '/bars/lamp-room']);
  });
});
