/** A delivery of many things at once, lots numbered as the maker does, opened by their first draw; one school everywhere. */
import { expect } from 'chai';
import { readDelivery } from '../../src/core/sheets/delivery';
import { nextCodes } from '../../src/core/stock/lot-code';
import type { BatchDetail } from '../../src/core/records/batch';
import type { StoredWrap } from '../../src/core/records/wrap';
import { findLot, lotsOf } from '../../src/server/repositories/lots';
import { worktableData } from '../../src/server/services/worktable/products';
import { call, sending } from './call';
import { DAY, useDemo } from './database';

const ROUTES = {
  delivery: () => import('../../src/pages/api/v1/lots/delivery'),
  batches: () => import('../../src/pages/api/v1/batches'),
  events: () => import('../../src/pages/api/v1/batches/[id]/events'),
  school: () => import('../../src/pages/api/v1/products/[id]/school'),
};
interface Refusal {
  errors?: { path: string; code: string }[];
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

/** A line as typed, and name, grams or millilitres, code, best before and price as meant; null of a fault. */
const LINES: readonly (readonly [string, (string | number | null)[] | null])[] = [
  ['olive oil; 5 kg; lot X12; 10/2027; 45.00', ['olive oil', 5000, 'X12', '2027-10-31', 45]],
  ['shea butter\t1 kg\t€18.50', ['shea butter', 1000, null, null, 18.5]],
  ['30 g lavender oil, L 8841, 2028-05-14', ['lavender oil', 30, '8841', '2028-05-14', null]],
  ['castor oil, 1.5 lb', ['castor oil', 680.388555, null, null, null]],
  ['coconut oil; MHD 31.12.2027; 10 kg; Charge 77-B', ['coconut oil', 10000, '77-B', '2027-12-31', null]],
  ['kaolin; 500 g; 12.50', ['kaolin', 500, null, null, 12.5]],
  ['kaolin, 12,50 EUR, 500 g', ['kaolin', 500, null, null, 12.5]],
  ['rose water; 1 L', ['rose water', 1000, null, null, null]],
  ['olive oil', null],
  ['olive oil; 5 kg; 03/04/2027', null],
  ['olive oil; 5 kg; A; B', null],
];

describe('a delivery as text', () => {
  for (const [text, meant] of LINES)
    it(JSON.stringify(text), () => {
      const [line] = readDelivery(text);
      const { name, held, code, bestBefore, price, fault } = line!;
      if (meant === null) return expect(fault).to.be.a('string');
      expect(fault).to.equal(null);
      expect([name, held!.value, code, bestBefore, price]).to.deep.equal(meant);
    });

  it('numbers lots on as the maker does, or by the day where there is no pattern', () => {
    expect(nextCodes(['OL2600', 'CO2602', 'RA2604'], ['Shea butter', 'Öl'], DAY)).to.deep.equal([
      ...['SH2605', 'OL2606'],
    ]);
    expect(nextCodes(['from the fair', '12/b'], ['Shea', 'Olive'], DAY)).to.deep.equal([
      '261124-1',
      '261124-2',
    ]);
    expect(nextCodes(['261124-1'], ['Shea'], DAY)).to.deep.equal(['261124-2']);
  });
});

describe('a delivery over HTTP', () => {
  const demo = useDemo();
  const row = (material: string, more: object = {}) => ({
    ...{ material, quantityG: 1000, code: null, bestBefore: null, price: null },
    ...more,
  });

  it('is taken down whole or not at all, library materials with it, and a lot is opened by its first draw', async () => {
    const delivery = {
      supplier: 'Hesper & Dunn Oils',
      receivedOn: DAY,
      rows: [row('olive'), row('mango-butter')],
    };
    const { status, body } = await ask<{ lots: { code: string; material: string }[] }>(
      'delivery',
      'POST',
      delivery,
    );
    expect([status, body.lots.length, body.lots[0]!.code.slice(0, 2)]).to.deep.equal([201, 2, 'OL']);
    const [olive] = (await lotsOf(demo.db, ['olive'])).filter(({ code }) => code === body.lots[0]!.code);
    expect([olive!.leftG, olive!.openedOn, olive!.supplier]).to.deep.equal([
      1000,
      null,
      'Hesper & Dunn Oils',
    ]);
    const before = (await lotsOf(demo.db, ['olive'])).length;
    const none = await ask('delivery', 'POST', { ...delivery, rows: [row('olive'), row('moon-dust')] });
    expect([none.status, (await lotsOf(demo.db, ['olive'])).length]).to.deep.equal([404, before]);
    const wrong = await ask('delivery', 'POST', { ...delivery, rows: [row('olive', { quantityG: 0 })] });
    expect(wrong.body.errors![0]!.path).to.equal('rows.0.quantityG');

    const begun = (await ask<BatchDetail>('batches', 'POST', { product: 'first-light', by: null })).body;
    const step = begun.sheet.steps.find(({ weigh }) => weigh.some(({ material }) => material === 'olive'))!;
    const { line } = step.weigh.find(({ material }) => material === 'olive')!;
    const event = {
      ...{
        id: 'dlv-1',
        type: 'weighed',
        at: `${DAY}T10:00:00Z`,
        by: null,
        step: step.id,
        line,
        portion: null,
      },
      ...{ massG: 450, readabilityG: 1, how: 'scale', lot: olive!.id },
    };
    const drawn = await ask('events', 'POST', { events: [event] }, { id: begun.id });
    expect(drawn.status, JSON.stringify(drawn.body.errors)).to.equal(200);
    const after = (await findLot(demo.db, olive!.id))!;
    expect([after.openedOn, after.leftG]).to.deep.equal([DAY, 550]);
  });

  it('has one school of the list: chosen for worktable and wrap alike', async () => {
    const before = (await worktableData(demo.house, 'night-mail')).schools;
    const chosen = await ask<{ saved: StoredWrap }>(
      'school',
      'PUT',
      { market: 'UK', school: 'formed' },
      { id: 'night-mail' },
    );
    expect(chosen.body.saved.wrap.markets.UK!.school).to.equal('formed');
    const { schools } = await worktableData(demo.house, 'night-mail');
    expect([schools.UK, schools.EU]).to.deep.equal(['formed', before.EU]);
    const odd = await ask('school', 'PUT', { market: 'UK', school: 'old' }, { id: 'night-mail' });
    expect([odd.status, odd.body.errors![0]!.path]).to.deep.equal([422, 'school']);
  });
});
