/** What was foretold in the demo's house against what came, and a pace that is made wider by it. */
import { expect } from 'chai';
import type { SureData } from '../../src/core/records/sure';
import { farOut, widened } from '../../src/core/sure/held';
import { findSetting, putSetting } from '../../src/server/repositories/settings';
import { nextData } from '../../src/server/services/rack/next';
import { pricingData } from '../../src/server/services/worktable/pricing';
import { lookBackAtPace } from '../../src/server/services/rack/sure';
import { caller } from './call';
import { DAY, useDemo } from './database';

const go = caller({ sure: () => import('../../src/pages/api/v1/sure') });

describe('how sure the house is', () => {
  const demo = useDemo();

  it('tells of released batches and of sales what was foretold and what came', async () => {
    const { status, body } = await go<SureData>('sure', 'GET');
    expect(status).to.equal(200);
    const { held, foretold, names } = body;
    expect(held.map(({ kind }) => kind)).to.include.members(['weight', 'cut', 'pace', 'cost']);
    for (const one of foretold) {
      expect(names, one.of).to.have.property(one.product);
      expect(one.on <= DAY, one.on).to.equal(true);
      expect(one.low).to.be.most(one.likely);
      expect(one.high).to.be.least(one.likely);
    }
    for (const { kind, of, within } of held) {
      const all = foretold.filter((one) => one.kind === kind);
      expect([all.length, all.filter((one) => farOut(one) <= 1).length], kind).to.deep.equal([of, within]);
    }
    // A look at the page is kept: the pace is as wide as it says.
    const pace = held.find(({ kind }) => kind === 'pace')!;
    const { of, within, wider } = pace;
    const { cost, ...kept } = (await findSetting(demo.db, 'sure')).value;
    expect(kept).to.deep.equal({ on: DAY, of, within, wider });
    const ofCost = held.find(({ kind }) => kind === 'cost')!;
    expect(cost).to.deep.equal({ of: ofCost.of, within: ofCost.within, wider: ofCost.wider });
    // Looked at by the pace alone, what is kept of the cost stays, and the price of a bar is as doubtful as it says.
    await putSetting(demo.db as never, 'sure', { ...kept, on: '2026-01-01', cost: { ...cost!, wider: 1.7 } });
    await lookBackAtPace(demo.house);
    expect((await findSetting(demo.db, 'sure')).value.cost!.wider).to.equal(1.7);
    const { doubt } = await pricingData(demo.house, 'night-mail');
    expect([doubt.share.toFixed(3), doubt.of]).to.deep.equal(['0.170', ofCost.of]);
  });

  it('makes the pace wider wherever it is used, and what follows from its fast end', async () => {
    await putSetting(demo.db as never, 'sure', { on: DAY, of: 40, within: 12, wider: 1 });
    const before = await nextData(demo.house);
    await putSetting(demo.db as never, 'sure', { on: DAY, of: 40, within: 12, wider: 2 });
    const after = await nextData(demo.house);
    expect(after.sure).to.deep.include({ of: 40, within: 12, wider: 2 });
    let sold = 0;
    for (const { id, pace, next } of before.bars) {
      const now = after.bars.find((bar) => bar.id === id)!;
      expect(now.pace.perWeek).to.deep.equal(pace.perWeek && widened(pace.perWeek, 2));
      if (!pace.perWeek) continue;
      sold++;
      expect(now.next.endsOn, id).to.equal(next.endsOn);
      if (next.endsEarlyOn) expect(now.next.endsEarlyOn! <= next.endsEarlyOn, id).to.equal(true);
    }
    expect(sold).to.be.above(2);
  });

  it('is looked at again after a week, and not before', async () => {
    const days = async (on: string | null) => {
      await putSetting(demo.db as never, 'sure', { on, of: 0, within: 0, wider: 1 });
      await lookBackAtPace(demo.house);
      return (await findSetting(demo.db, 'sure')).value;
    };
    expect(await days('2026-11-20')).to.deep.equal({ on: '2026-11-20', of: 0, within: 0, wider: 1 });
    const looked = await days('2026-11-01');
    expect(looked.on).to.equal(DAY);
    expect(looked.of).to.be.above(0);
    expect((await days(null)).of).to.equal(looked.of);
  });
});
