/** A device of the bench at the doors of a batch: what hands do there, and nothing that decides. */
import { expect } from 'chai';
import { isBenchEvent } from '../../src/server/front/bench';
import type { BatchEvent } from '../../src/core/batch/types';
import { call, sending } from './call';
import { DAY, useDemo } from './database';

const events = () => import('../../src/pages/api/v1/batches/[id]/events') as never;
const batches = () => import('../../src/pages/api/v1/batches') as never;
const lots = () => import('../../src/pages/api/v1/batches/[id]/lots') as never;
const AT = `${DAY}T09:00:00+01:00`;
const event = (type: string, more: object = {}) =>
  ({ id: `bd-${type}`, type, at: AT, by: 'Oona', ...more }) as unknown as BatchEvent;

describe('a device of the bench', () => {
  const test = useDemo();

  it('writes down what hands do; one event that decides, and nothing of the request is taken', async () => {
    expect(test.db).to.be.an('function');
    const body = JSON.stringify({ product: 'first-light', size: { fatsMassG: 1000 }, by: 'Oona' });
    const begun = (await call(batches(), 'POST', '/', sending(body))).body as unknown as { id: string };
    const post = (all: BatchEvent[], session: 'bench' | 'desk') =>
      call(events(), 'POST', '/', sending(JSON.stringify({ events: all })), { id: begun.id }, { session });
    const mixed = [
      event('temperature', { of: 'lye', c: 40 }),
      event('quarantined', { reason: 'smells of nothing' }),
    ];
    const refused = await post(mixed, 'bench');
    expect(refused.status).to.equal(403);
    expect(((refused.body as unknown as { errors: unknown }).errors as { path: string }[])[0]!.path).to.equal(
      'events.1.type',
    );
    const taken = await post(mixed.slice(0, 1), 'bench');
    expect([taken.status, (taken.body as unknown as { added: unknown }).added]).to.deep.equal([
      200,
      ['bd-temperature'],
    ]);
    expect((await post(mixed, 'desk')).status).to.equal(200);
  });

  it('may put a cut off and scale the day, and neither release, move, hold, sort nor check anything else', () => {
    for (const check of ['cut', 'scaled']) expect(isBenchEvent(event('checked', { check }))).to.equal(true);
    for (const type of ['barWeighed', 'cut', 'corrected', 'noted', 'poured', 'stopped'])
      expect(isBenchEvent(event(type)), type).to.equal(true);
    for (const type of ['released', 'moved', 'decided', 'quarantined', 'sorted', 'started'])
      expect(isBenchEvent(event(type)), type).to.equal(false);
    expect(isBenchEvent(event('checked', { check: 'ph' }))).to.equal(false);
  });

  it('knows the lots as they are now, with the place of the last event drawn', async () => {
    const body = JSON.stringify({ product: 'first-light', size: { fatsMassG: 1000 }, by: null });
    const begun = (await call(batches(), 'POST', '/', sending(body))).body as unknown as { id: string };
    const look = async () =>
      (await call(lots(), 'GET', '/', {}, { id: begun.id })).body as unknown as {
        seq: number;
        lots: Record<string, { id: string; leftG: number }[]>;
      };
    const before = await look();
    const [material, [lot]] = Object.entries(before.lots).find(([id]) => id !== 'sodium-hydroxide')!;
    const batch = (await call(batches(), 'GET', '/')).body;
    expect(batch).to.have.property('batches');
    const line = (
      begun as unknown as { batch: { lines: { line: string; material: string }[] } }
    ).batch.lines.find((one) => one.material === material)!.line;
    const weighed = event('weighed', { line, massG: 7, readabilityG: 0.1, how: 'typed', lot: lot!.id });
    await call(events(), 'POST', '/', sending(JSON.stringify({ events: [weighed] })), { id: begun.id });
    const after = await look();
    expect(after.seq).to.equal(before.seq + 1);
    expect(after.lots[material]!.find(({ id }) => id === lot!.id)!.leftG).to.be.closeTo(lot!.leftG - 7, 1e-6);
  });
});
