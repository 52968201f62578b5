/** What is said before a pour is begun. */
import { expect } from 'chai';
import { call, sending } from './call';
import { DAY, useDemo } from './database';

const ROUTES = {
  plan: () => import('../../src/pages/api/v1/batches/plan'),
  papers: () => import('../../src/pages/api/v1/materials/[id]/papers'),
};
const post = async (route: keyof typeof ROUTES, body: unknown, params = {}) => {
  const answer = await call(
    ROUTES[route]() as never,
    'POST',
    '/api/v1/x',
    sending(JSON.stringify(body)),
    params,
  );
  return { status: answer.status, body: answer.body as Record<string, unknown> };
};

describe('planning a pour', () => {
  useDemo();

  it('says before the pour where a scent’s papers lie behind the newest edition', async () => {
    const warned = async () => {
      const { body } = await post('plan', { product: 'night-mail' });
      const needed = body.needed as { material: string; warnings: string[] }[];
      return needed.find(({ material }) => material === 'coal-and-violets')!.warnings.join(' ');
    };
    expect(await warned()).not.to.match(/follows/);
    const paper = {
      type: 'certificate',
      number: 'ED-49',
      edition: '49th',
      issuedOn: DAY,
      issuer: 'Hesper & Dunn',
    };
    const body = { papers: [{ ...paper, category: '9', maxPct: 3 }], inbox: null };
    expect((await post('papers', body, { id: 'coal-and-violets' })).status).to.equal(201);
    expect(await warned()).to.match(
      /^Certificate ED-49: It follows the 49th edition; the newest known is the 51st/,
    );
  });
});
