/** One notion of the house's day, east and west of UTC: from the moment a device writes to what is judged and shown by day. */
import { expect } from 'chai';
import type { BatchEvent } from '../../src/core/batch/types';
import { dayAfter, momentOn } from '../../src/core/quantities/day';
import type { RunSheet } from '../../src/core/making/run-sheet-types';
import type { SettingsData } from '../../src/core/records/house';
import { caller } from './call';
import { pdfLines } from '../papers/print';
import { DAY, useDemo } from './database';

const go = caller({
  settings: () => import('../../src/pages/api/v1/settings'),
  batches: () => import('../../src/pages/api/v1/batches'),
  events: () => import('../../src/pages/api/v1/batches/[id]/events'),
  assessment: () => import('../../src/pages/api/v1/batches/[id]/assessment'),
  lots: () => import('../../src/pages/api/v1/materials/[id]/lots'),
  record: () => import('../../src/pages/api/v1/batches/[id]/record'),
  sales: () => import('../../src/pages/api/v1/sales'),
  withdrawal: () => import('../../src/pages/api/v1/withdrawal'),
});
type Told = { errors: { path: string; code: string }[] };
const PRODUCT = 'first-light';

// At these clocks UTC is a day ahead of the one house, and a day behind the other.
for (const [zone, clock] of [
  ['America/Los_Angeles', '20:30'],
  ['Pacific/Auckland', '07:30'],
] as const)
  describe(`a house in ${zone} at ${clock}`, () => {
    useDemo();
    let count = 0;
    const on = (days: number) => dayAfter(DAY, days);
    const at = (days: number) => momentOn(on(days), zone, clock);
    const event = (type: string, days: number, more: object): BatchEvent =>
      ({ id: `${zone}-${++count}`, type, at: at(days), by: 'Oona', ...more }) as unknown as BatchEvent;
    let made: { id: string; code: string; sheet: RunSheet };
    const write = (...events: BatchEvent[]) =>
      go<Told>('events', 'POST', { params: { id: made.id }, body: { events } });

    before(async () => {
      const { body: settings } = await go<SettingsData>('settings', 'GET');
      const put = await go<SettingsData>('settings', 'PUT', { body: { ...settings, demo: undefined, zone } });
      expect([put.status, put.body.zone], JSON.stringify(put.body)).to.deep.equal([200, zone]);
      made = (await go<typeof made>('batches', 'POST', { body: { product: PRODUCT, by: 'Oona' } })).body;
    });

    it('begins the batch on its own day', () => expect(made.code).to.match(/-261124(-\d)?$/));

    it('takes a lot on its last day, and not the day after', async () => {
      const { line, material, massG } = made.sheet.steps.flatMap(({ weigh }) => weigh)[0]!;
      const { body } = await go<{ lots: { id: string; code: string }[] }>('lots', 'POST', {
        params: { id: material },
        body: {
          ...{ code: 'LAST DAY', supplier: 'H & D', receivedOn: on(-90), openedOn: null, bestBefore: DAY },
          ...{ quantityG: 90_000, leftG: 90_000, price: null },
        },
      });
      const lot = body.lots.find(({ code }) => code === 'LAST DAY')!.id;
      const weigh = (days: number) =>
        write(event('weighed', days, { line, massG, lot, readabilityG: 1, how: 'typed' }));
      expect((await weigh(1)).body.errors[0]).to.include({ code: 'lot-past' });
      expect((await weigh(0)).status).to.equal(200);
    });

    it('is judged, placed, sold and taken back by its own days', async () => {
      const [, ...rest] = made.sheet.steps.flatMap(({ weigh }) => weigh);
      const weighed = rest.map(({ line, massG, portion }) =>
        event('weighed', 0, { line, massG, portion: portion ?? undefined, readabilityG: 1, how: 'typed' }),
      );
      const done = await write(
        ...weighed,
        event('poured', 0, { moulds: [], leftoverG: 0 }),
        event('cut', 1, { bars: 12, seconds: 0, trimmingsG: 0 }),
        event('released', 40, { bars: 12, netMassG: 60, markets: ['EU'], despite: 'a test' }),
      );
      expect(done.status, JSON.stringify(done.body)).to.equal(200);
      const { body } = await go<{ onDate: string; request: object }>('assessment', 'GET', {
        params: { id: made.id },
      });
      expect(body.onDate).to.equal(DAY);
      expect(body.request).to.deep.include({ placedOn: { EU: on(40) } });
      const sell = (days: number) =>
        go<Told>('sales', 'POST', {
          body: { rows: [{ day: on(days), what: made.code, bars: 2, how: 'sale' }], by: 'Oona' },
        });
      expect((await sell(39)).body.errors[0]).to.include({ code: 'not-released' });
      expect((await sell(40)).status).to.equal(201);
      const { body: list } = await go<{ went: { day: string }[] }>('withdrawal', 'GET', {
        query: `?batch=${made.id}`,
      });
      expect(list.went.map(({ day }) => day)).to.deep.equal([on(40)]);
      const paper = await go<ArrayBuffer>('record', 'GET', { params: { id: made.id }, query: '?as=pdf' });
      const lines = (await pdfLines(new Uint8Array(paper.body)))
        .flatMap(({ cells }) => cells.map(({ text }) => text))
        .join('\n');
      expect(lines)
        .to.contain(`${DAY} ${clock}`)
        .and.to.contain(`${on(1)} ${clock}`);
    });
  });
