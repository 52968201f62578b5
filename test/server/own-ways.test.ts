/** What a maker says of the ways of a material, and of a lye that was checked, is kept. */
import { expect } from 'chai';
import type { Product } from '../../src/core/records/product';
import { checkStanding } from '../../src/core/loads/lye-check';
import { requireProduct } from '../../src/server/store/products';
import { call, sending } from './call';
import { DAY, useDemo } from './database';

const ROUTES = {
  materials: () => import('../../src/pages/api/v1/materials'),
  material: () => import('../../src/pages/api/v1/materials/[id]'),
  lye: () => import('../../src/pages/api/v1/products/[id]/lye-check'),
};
interface Refusal {
  errors?: { path: string; code: string; message: string }[];
}
async function ask<T>(route: keyof typeof ROUTES, method: string, body: unknown, params = {}) {
  const answer = await call(
    ROUTES[route]() as never,
    method,
    '/api/v1/x',
    sending(JSON.stringify(body)),
    params,
  );
  return { status: answer.status, body: answer.body as unknown as T & Refusal };
}

describe('what a maker says of a material', () => {
  const demo = useDemo();

  it('is kept whole: ways, origin, cautions; what is not one of them is named', async () => {
    const material = {
      ...{ name: 'Soot and honey', kind: 'fragrance', inci: [{ name: 'Parfum', sharePct: 100 }] },
      ...{ origin: 'synthetic', concerns: ['children'] },
      behaviour: { speeds: true, rices: false, stains: true, colour: 'tan', grainUm: [1, 20] },
    };
    const made = await ask<{ written: typeof material & { id: string } }>('materials', 'POST', { material });
    expect(made.status, JSON.stringify(made.body.errors)).to.equal(201);
    const { behaviour, origin, concerns } = made.body.written;
    expect([behaviour, origin, concerns]).to.deep.equal([
      ...[material.behaviour, material.origin, material.concerns],
    ]);
    const odd = await ask('materials', 'POST', { material: { ...material, concerns: ['moonlight'] } });
    expect([odd.status, odd.body.errors![0]!.path]).to.deep.equal([422, 'material.concerns']);
    const grain = { ...material, behaviour: { grainUm: ['fine'] } };
    expect((await ask('materials', 'POST', { material: grain })).body.errors![0]!.path).to.match(
      /^material\.behaviour/,
    );
  });

  it('of a lye checked by a second way is kept with its formula, and asked for again when the lye moves', async () => {
    const done = await ask<{ product: Product }>(
      'lye',
      'PUT',
      { alkaliG: 139.9, secondG: 140.4, by: 'Marit' },
      { id: 'night-mail' },
    );
    const { version, product } = await requireProduct(demo.db, 'night-mail');
    expect(done.body.product.lyeCheck).to.deep.equal(product.lyeCheck);
    expect(product.lyeCheck).to.deep.equal({
      ...{ alkaliG: 139.9, secondG: 140.4, by: 'Marit', on: DAY, revision: version.revision },
    });
    expect([139.9, 141, 139.92].map((g) => checkStanding(product.lyeCheck, g))).to.deep.equal([
      ...['agrees', 'changed', 'agrees'],
    ]);
    expect(checkStanding({ alkaliG: 139.9, secondG: 196 }, 139.9)).to.equal('parts');
    expect(checkStanding(undefined, 139.9)).to.equal('none');
    expect(
      (await ask('lye', 'PUT', { alkaliG: -1, secondG: 1, by: null }, { id: 'night-mail' })).status,
    ).to.equal(422);
  });
});
