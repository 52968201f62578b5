/** The thermometer of pour day over HTTP: what was measured is found again by mould, and moves the cut window. */
import { expect } from 'chai';
import { calibrate, knownFactor } from '../../src/core/heat/calibrate';
import type { BatchDetail } from '../../src/core/records/batch';
import type { CureData } from '../../src/core/records/rack';
import type { MouldWarmth } from '../../src/core/records/warmth';
import type { Mould } from '../../src/core/making/size';
import { caller } from './call';
import { DAY, useDemo } from './database';

const ROUTES = {
  moulds: () => import('../../src/pages/api/v1/moulds'),
  warmth: () => import('../../src/pages/api/v1/moulds/[id]/warmth'),
  batches: () => import('../../src/pages/api/v1/batches'),
  events: () => import('../../src/pages/api/v1/batches/[id]/events'),
  cure: () => import('../../src/pages/api/v1/batches/[id]/cure'),
};

const go = caller(ROUTES);

let count = 0;
const event = (type: string, minute: number, more: object) => ({
  id: `warm${++count}`,
  type,
  at: `${DAY}T${String(8 + Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}:00Z`,
  by: null,
  ...more,
});

describe('the warmth of pours over HTTP', () => {
  useDemo();

  async function pouredBatch(way: string): Promise<string> {
    const { id, sheet } = (
      await go<BatchDetail>('batches', 'POST', { body: { product: 'first-light', by: null } })
    ).body;
    const weigh = sheet.steps.flatMap((step) => step.weigh);
    const events = [
      ...weigh.map(({ line, massG }) =>
        event('weighed', 0, { line, massG, readabilityG: 0.1, how: 'typed' }),
      ),
      event('temperature', 5, { of: 'batter', c: 41 }),
      event('poured', 6, { moulds: [{ id: 'long-block', count: 1 }], leftoverG: 0 }),
      event('rested', 7, { way }),
    ];
    const kept = await go<{ errors?: unknown }>('events', 'POST', { params: { id }, body: { events } });
    expect(kept.status, JSON.stringify(kept.body.errors)).to.equal(200);
    return id;
  }

  it('moves the cut window: chilled it opens later than kept warm', async () => {
    const from = async (way: string) => {
      const id = await pouredBatch(way);
      return (await go<CureData>('cure', 'GET', { params: { id } })).body.window!;
    };
    const [warm, chilled] = [await from('warm'), await from('chill')];
    expect(chilled.missedAfterHours).to.be.above(warm.missedAfterHours! * 1.2);
    expect(warm.why.join()).to.contain('it gels through');
    expect(chilled.why.join()).to.contain('it does not gel');
  });

  it('finds what was measured since a pour by its mould, and narrows the unknowns by it', async () => {
    const id = await pouredBatch('leave');
    expect(
      (await go<MouldWarmth>('warmth', 'GET', { params: { id: 'long-block' } })).body.measured,
    ).to.deep.equal([]);
    const events = [
      event('temperature', 30, { of: 'room', c: 17 }),
      event('temperature', 66, { of: 'batter', c: 70 }),
      event('temperature', 66, { of: 'mould', c: 62 }),
      event('temperature', 186, { of: 'batter', c: 66 }),
    ];
    expect((await go('events', 'POST', { params: { id }, body: { events } })).status).to.equal(200);
    const { measured } = (await go<MouldWarmth>('warmth', 'GET', { params: { id: 'long-block' } })).body;
    expect(measured.map(({ batch, readings }) => [batch, readings])).to.deep.equal([
      [
        id,
        [
          { hour: 1, where: 'middle', c: 70 },
          { hour: 1, where: 'edge', c: 62 },
          { hour: 3, where: 'middle', c: 66 },
        ],
      ],
    ]);
    const { pour } = measured[0]!;
    expect([pour.startC, pour.around.roomC, pour.around.way, pour.shape.wall]).to.deep.equal([
      41,
      17,
      'leave',
      'wood',
    ]);
    const plain = knownFactor(calibrate([]), 'rate');
    const { low, high } = knownFactor(calibrate(measured), 'rate');
    expect(high - low).to.be.below((plain.high - plain.low) / 3);
    expect((await go('warmth', 'GET', { params: { id: 'none' } })).status).to.equal(404);
  });

  it('moves the cut window by what her own thermometer said of the mould', async () => {
    const id = await pouredBatch('leave');
    const missed = async () =>
      (await go<CureData>('cure', 'GET', { params: { id } })).body.window!.missedAfterHours!;
    const usual = await missed();
    // A batter that wakes slowly: still near its start after two hours, and warm for long after.
    const slow = await pouredBatch('leave');
    const events = [
      event('temperature', 66, { of: 'batter', c: 40 }),
      event('temperature', 126, { of: 'batter', c: 41 }),
      event('temperature', 246, { of: 'batter', c: 46 }),
      event('temperature', 426, { of: 'batter', c: 55 }),
    ];
    expect((await go('events', 'POST', { params: { id: slow }, body: { events } })).status).to.equal(200);
    expect(await missed()).to.be.above(usual * 1.05);
  });

  it('keeps what a mould is made of, and refuses what is none', async () => {
    const { moulds, revision } = (await go<{ moulds: Mould[]; revision: number }>('moulds', 'GET')).body;
    const make = { wall: 'wood', form: 'block', widthMm: 70, lengthMm: 200 };
    const put = (more: object) =>
      go<{ moulds: Mould[]; errors?: { path: string }[] }>('moulds', 'PUT', {
        body: { revision, moulds: [{ ...moulds[1]!, ...more }, ...moulds.filter((_, at) => at !== 1)] },
      });
    const wrong = await put({ make: { ...make, wall: 'straw' } });
    expect([wrong.status, wrong.body.errors?.[0]?.path]).to.deep.equal([422, 'moulds.0.make.wall']);
    expect((await put({ make: { ...make, widthMm: 1 } })).status).to.equal(422);
    expect((await put({ make })).body.moulds[0]!.make).to.deep.equal(make);
  });
});
