/** The house: what is set for all bars, who answers where, and the demo taken out without touching one’s own. */
import { expect } from 'chai';
import type { Installation, SettingsData } from '../../src/core/records/house';
import type { Product } from '../../src/core/records/product';
import { seedDemo } from '../../src/demo/seed';
import { addMix } from '../../src/server/repositories/materials';
import { findSetting, putSetting } from '../../src/server/repositories/settings';
import { addLot } from '../../src/server/repositories/lots';
import {
  createProduct,
  discardProduct,
  duplicateProduct,
} from '../../src/server/services/worktable/products';
import { caller } from './call';
import { DAY, useDemo } from './database';

const go = caller({
  settings: () => import('../../src/pages/api/v1/settings'),
  demo: () => import('../../src/pages/api/v1/demo'),
  about: () => import('../../src/pages/api/v1/installation'),
  maker: () => import('../../src/pages/api/v1/maker'),
  preview: () => import('../../src/pages/api/v1/products/[id]/label'),
});

describe('the house', () => {
  const test = useDemo();

  it('sets where new bars are sold and what prices are in, and refuses what it does not know', async () => {
    const first = (await go<SettingsData>('settings', 'GET')).body;
    expect(first).to.deep.include({ currency: 'EUR', markets: ['EU', 'UK'] });
    const body = { revision: first.revision, currency: 'CAD', markets: ['CA'] };
    expect((await go<SettingsData>('settings', 'PUT', { body })).body).to.include({ currency: 'CAD' });
    expect((await go('settings', 'PUT', { body })).status).to.equal(409);
    // What it is used to is kept, also where a later change does not say it.
    const asked = async (more: object) => {
      const { revision } = (await go<SettingsData>('settings', 'GET')).body;
      return (await go<SettingsData>('settings', 'PUT', { body: { ...body, revision, ...more } })).body;
    };
    expect(first).to.include({ degrees: 'C', weights: 'g' });
    expect(await asked({ degrees: 'F', weights: 'oz' })).to.include({ degrees: 'F', weights: 'oz' });
    expect(await asked({})).to.include({ degrees: 'F', weights: 'oz' });
    for (const wrong of [
      { currency: 'XXX' },
      { markets: [] },
      { markets: ['MOON'] },
      { degrees: 'K' },
      { labelLanguages: ['tlh'] },
      { labelLanguages: ['de', 'de'] },
      { revision: -1 },
    ])
      expect((await go('settings', 'PUT', { body: { ...body, ...wrong } })).status).to.equal(422);
    const bar = await createProduct(test.house, { name: 'Sold in Canada' });
    expect(bar.markets).to.deep.equal(['CA']);
    await discardProduct(test.house, bar.id);
  });

  it('names on a label who answers in that market', async () => {
    const stored = (await go<{ maker: object; revision: number }>('maker', 'GET')).body;
    const there = { market: 'EU', name: 'Our Person There', addressLines: ['Quay 1', 'Port'] };
    const body = { ...stored.maker, revision: stored.revision, elsewhere: [there] };
    expect((await go('maker', 'PUT', { body })).status).to.equal(200);
    const text = async (market: string) => {
      const params = { id: 'first-light' };
      const found = await go<ArrayBuffer>('preview', 'GET', { params, query: `?market=${market}&as=text` });
      return new TextDecoder().decode(found.body);
    };
    expect(await text('EU')).to.contain('Our Person There');
    expect(await text('UK')).to.not.contain('Our Person There');
    // A new wrap's label in the EU speaks what the house says, with the usual cautions in it.
    await test.db('wraps').where('product_id', 'first-light').delete();
    const { revision } = (await go<SettingsData>('settings', 'GET')).body;
    const spoken = { revision, currency: 'EUR', markets: ['EU'], labelLanguages: ['de'] };
    expect((await go('settings', 'PUT', { body: spoken })).status).to.equal(200);
    expect(await text('EU')).to.contain('Warnhinweise: Kontakt mit den Augen vermeiden');
    expect(await text('UK')).to.contain('Caution: Avoid contact with eyes');
    const wrong = { ...body, revision: stored.revision + 1, elsewhere: [{ ...there, market: 'MOON' }] };
    expect((await go('maker', 'PUT', { body: wrong })).status).to.equal(422);
  });

  it('says what took too long, and that nothing was changed; it is no fault of its own', async () => {
    const { endpoint } = await import('../../src/server/http');
    const { JobEnded } = await import('../../src/server/jobs/ended');
    const late = endpoint(() => Promise.reject(new JobEnded('time')));
    const answer = (await late({} as never)) as Response;
    expect([
      answer.status,
      ((await answer.json()) as { errors: { code: string }[] }).errors[0]!.code,
    ]).to.deep.equal([503, 'busy']);
  });

  it('says what this installation is and that its database holds together', async () => {
    const about = (await go<Installation>('about', 'GET')).body;
    expect(about).to.include({ folder: test.folder, fault: null });
    expect(about.version).to.match(/^\d+\.\d+\.\d+$/);
    expect(about.counts).to.include({ bars: 10, batches: 20 });
  });

  it('takes the demo out, keeps what is one’s own with all it needs, and does not bring it back', async () => {
    const copy = (await duplicateProduct(test.house, 'night-mail', 'My Mail')) as Product;
    await addLot(test.db, {
      id: 'my-lot',
      material: 'coal-and-violets',
      supplier: 'S',
      code: 'MINE',
      receivedOn: DAY,
      openedOn: null,
      bestBefore: null,
      quantityG: 100,
      leftG: 100,
      revision: 1,
      price: null,
    } as never);
    // A mix of the demo's, in a mix of the demo's, in one of her own: all of it stays.
    const demo = (await findSetting(test.db, 'demo')).value!;
    for (const [id, material] of [
      ['inner', 'kaolin'],
      ['outer', 'inner'],
      ['my-mix', 'outer'],
    ] as const)
      await addMix(test.db, id, id, [{ material, parts: 1 }]);
    await putSetting(test.db, 'demo', { ...demo, materials: [...demo.materials, 'inner', 'outer'] });
    expect((await go('demo', 'POST', { body: { sure: 'yes' } })).status).to.equal(422);
    const { status, body } = await go<SettingsData>('demo', 'POST', { body: { sure: 'take the demo out' } });
    expect([status, body.demo]).to.deep.equal([200, null]);
    expect(await test.db('products').pluck('id')).to.deep.equal([copy.id]);
    const materials = (await test.db('materials').pluck('id')) as string[];
    expect(materials).to.include('coal-and-violets');
    const held = (await test.db('product_materials').pluck('material_id')) as string[];
    const own = ['my-mix', 'outer', 'inner', 'kaolin'];
    expect(materials).to.include.members(own);
    expect(
      materials.every((id) => held.includes(id) || own.includes(id)),
      materials.join(),
    ).to.equal(true);
    expect(await test.db('documents').where('number', 'BA-1407').first()).to.not.equal(undefined);
    expect(await test.db('lots').where('id', 'my-lot').first()).to.not.equal(undefined);
    for (const table of ['batches', 'batch_events', 'inbox', 'issued_labels'])
      expect(await test.db(table).first(), table).to.equal(undefined);
    expect((await test.db.raw('pragma foreign_key_check')) as unknown[]).to.deep.equal([]);
    await discardProduct(test.house, copy.id);
    expect(await seedDemo(test.house)).to.equal(false);
  });
});
