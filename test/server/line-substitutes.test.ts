/** What could stand on a line of a bar, over HTTP. */
import { expect } from 'chai';
import type { LineSubstitutes } from '../../src/core/records/watch';
import { requireProduct } from '../../src/server/store/products';
import { call } from './call';
import { useDemo } from './database';

const ROUTE = () => import('../../src/pages/api/v1/products/[id]/substitutes');

describe('what could stand on a line, over HTTP', () => {
  const demo = useDemo();
  const ask = async (id: string, line: string) => {
    const url = `/api/v1/x?line=${encodeURIComponent(line)}`;
    const answer = await call(ROUTE() as never, 'GET', url, {}, { id });
    return {
      status: answer.status,
      body: answer.body as unknown as LineSubstitutes & { errors?: { path: string }[] },
    };
  };

  it('stands beside what is there now: lye, list, cost and what is in the cupboard', async () => {
    const { lines } = (await requireProduct(demo.db, 'night-mail')).version.formula;
    const shea = lines.find(({ material }) => material === 'shea')!;
    const { status, body } = await ask('night-mail', shea.id);
    expect([status, body.now.id, body.now.costMore, body.now.comes]).to.deep.equal([200, 'shea', 0, []]);
    expect(body.now.alkaliG).to.be.above(0);
    const ids = body.candidates.map(({ id }) => id);
    expect(ids).to.not.include('shea');
    const own = body.candidates.filter(({ isOwn }) => isOwn);
    expect(own.some(({ freeG, costMore }) => freeG > 0 && costMore !== null)).to.equal(true);
    expect(own.every(({ alkaliG }) => alkaliG !== null && alkaliG > 0)).to.equal(true);
  });

  it('names what is not there', async () => {
    expect((await ask('no-such-bar', 'l1')).status).to.equal(404);
    const none = await ask('night-mail', 'no-such-line');
    expect([none.status, none.body.errors![0]!.path]).to.deep.equal([422, 'line']);
  });
});
