/** A device of the bench at the doors of a batch: what hands do there, and nothing that decides. */
import { expect } from 'chai';
import { isBenchEvent, isOfBench } from '../../src/server/front/bench';
import type { BatchEvent } from '../../src/core/batch/types';
import { call, sending } from './call';
import { DAY, useDemo } from './database';

const events = () => import('../../src/pages/api/v1/batches/[id]/events') as never;
const batches = () => import('../../src/pages/api/v1/batches') as never;
const lots = () => import('../../src/pages/api/v1/batches/[id]/lots') as never;
const twins = () => import('../../src/pages/api/v1/batches/[id]/twin') as never;
const rescues = () => import('../../src/pages/api/v1/batches/[id]/rescue') as never;
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

  it('makes a lot of a bottle that is not on file, numbered on, and may draw from it at once', async () => {
    const body = JSON.stringify({ product: 'first-light', size: { fatsMassG: 1000 }, by: null });
    const begun = (await call(batches(), 'POST', '/', sending(body))).body as unknown as { id: string };
    const made = await call(
      lots(),
      'POST',
      '/',
      sending(JSON.stringify({ material: 'olive', quantityG: 5000, code: null })),
      { id: begun.id },
      { session: 'bench' },
    );
    expect(made.status).to.equal(201);
    const { lots: all, code } = made.body as unknown as {
      lots: Record<string, { id: string; code: string; leftG: number }[]>;
      code: string;
    };
    const lot = all.olive!.find((one) => one.code === code)!;
    expect(lot.leftG).to.equal(5000);
    const refused = await call(
      lots(),
      'POST',
      '/',
      sending(JSON.stringify({ material: 'beeswax', quantityG: 500, code: null })),
      { id: begun.id },
    );
    expect(refused.status).to.equal(422);
    expect(isOfBench('POST', `/api/v1/batches/${begun.id}/lots`)).to.equal(true);
    expect(isOfBench('POST', '/api/v1/lots/delivery')).to.equal(false);
  });

  it('is told what would bring a pot back, the names with it, and that nothing can be added once it is poured', async () => {
    const body = JSON.stringify({ product: 'waiting-room', size: { fatsMassG: 1000 }, by: null });
    const begun = (await call(batches(), 'POST', '/', sending(body))).body as unknown as {
      id: string;
      batch: { lines: { line: string; material: string; plannedG: number }[] };
    };
    const look = () => call(rescues(), 'GET', '/', {}, { id: begun.id }, { session: 'bench' });
    expect((await look()).body).to.include({ outcome: 'fine' });
    const line = begun.batch.lines.find(({ material }) => material === 'olive')!;
    const over = { line: line.line, massG: line.plannedG * 1.3, readabilityG: 1, how: 'typed' };
    const write = (all: BatchEvent[]) =>
      call(events(), 'POST', '/', sending(JSON.stringify({ events: all })), { id: begun.id });
    await write([event('weighed', { ...over, id: 'rescue-over' })]);
    const found = (await look()).body as unknown as {
      outcome: string;
      additions: { material: string; massG: number }[];
      names: Record<string, string>;
    };
    expect(found.outcome).to.equal('found');
    expect(found.additions.map(({ material }) => found.names[material])).to.include('Sodium hydroxide');
    await write([event('poured', { moulds: [], leftoverG: 0, id: 'rescue-poured' })]);
    expect((await look()).status).to.equal(422);
    expect((await call(rescues(), 'GET', '/', {}, { id: 'nobody' })).status).to.equal(404);
  });

  it('sees how the bar was poured the last time, or the batch that it should match', async () => {
    const body = JSON.stringify({ product: 'night-mail', size: { fatsMassG: 1000 }, by: null });
    const begun = (await call(batches(), 'POST', '/', sending(body))).body as unknown as { id: string };
    const look = async () =>
      (await call(twins(), 'GET', '/', {}, { id: begun.id }, { session: 'bench' })).body as unknown as {
        twin: { code: string; isNamed: boolean };
        others: string[];
      };
    const first = await look();
    expect([first.twin.code, first.twin.isNamed]).to.deep.equal([first.others[0], false]);
    const note = event('noted', { id: 'twin-note', text: `To match ${first.others[1]}`, for: 'record' });
    await call(events(), 'POST', '/', sending(JSON.stringify({ events: [note] })), { id: begun.id });
    const named = await look();
    expect([named.twin.code, named.twin.isNamed]).to.deep.equal([first.others[1], true]);
  });
});
