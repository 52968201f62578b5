/** Gaps in what is heard of a scale: a phone's screen goes off, a network drops. Two stories fit, so it asks. */
import { expect } from 'chai';
import { followScale, startFollowing, type Following, type Reading } from '../../src/core/weighing/follow';
import { tareFollowing } from '../../src/core/weighing/tare';
import { seeded } from '../support/generate';
import { trace, type Happening } from '../support/traces';

const REST: Happening = { do: 'rest', seconds: 5 };
const follow = (readings: readonly Reading[], from?: Following) =>
  readings.reduce(followScale, from ?? startFollowing({ readabilityG: 1 }));

/** What happens while nothing is heard, between two rests; readings of the gap are lost without a blank one. */
function unheard(before: Happening[], meanwhile: Happening[], seed: number, tare = false) {
  const options = { seed, readabilityG: 1, settlingS: 0.8 };
  const all = trace([...before, ...meanwhile, { do: 'rest', seconds: 6 }], options);
  const heardUntil = trace(before, options).length;
  const from = trace([...before, ...meanwhile], options).length;
  const first = follow(all.slice(0, heardUntil));
  const state = follow(all.slice(from), tare ? tareFollowing(first) : first);
  return { state, trueG: all.at(-1)!.trueG };
}

describe('a gap in the readings of a scale', () => {
  it('asks where zero was pressed meanwhile, in every one of sixty traces, and carries on where told so', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const random = seeded(4100 + seed);
      const g = 40 + 500 * random();
      const before: Happening[] = [REST, { do: 'pour', g, seconds: 3 }, REST];
      const gap: Happening[] = [
        { do: 'rest', seconds: 1 + 10 * random() },
        { do: 'zero' },
        { do: 'rest', seconds: 1 + 9 * random() },
      ];
      const { state, trueG } = unheard(before, gap, seed);
      expect(state.question, `${seed}`).to.include({ code: 'slept' });
      expect(state.settled).to.equal(false);
      expect(followScale(state, { carryOn: true }).heldG).to.be.closeTo(trueG, 2);
      expect(followScale(state, { carryOn: false }).heldG).to.be.closeTo(0, 2);
    }
  });

  it('asks where more was poured meanwhile, with or without a zero before it; either answer is the whole story', () => {
    for (let seed = 1; seed <= 30; seed++) {
      const before: Happening[] = [REST, { do: 'pour', g: 120, seconds: 3 }, REST];
      const poured: Happening[] = [{ do: 'rest', seconds: 2 }, { do: 'pour', g: 75, seconds: 3 }, REST];
      const plain = unheard(before, poured, seed);
      expect(plain.state.question).to.include({ code: 'slept' });
      expect(followScale(plain.state, { carryOn: false }).heldG).to.be.closeTo(plain.trueG, 2);
      const zeroed = unheard(before, [{ do: 'rest', seconds: 2 }, { do: 'zero' }, ...poured], seed);
      expect(zeroed.state.question).to.include({ code: 'slept' });
      expect(followScale(zeroed.state, { carryOn: true }).heldG).to.be.closeTo(zeroed.trueG, 2);
    }
  });

  it('asks nothing where all is as it was, where nothing was held, or where the vessel is still off', () => {
    for (let seed = 1; seed <= 30; seed++) {
      const held: Happening[] = [REST, { do: 'pour', g: 120, seconds: 3 }, REST];
      const still = unheard(held, [{ do: 'rest', seconds: 18 }], seed);
      expect([still.state.question, still.state.settled]).to.deep.equal([null, true]);
      expect(still.state.heldG).to.be.closeTo(still.trueG, 1.5);
      const empty = unheard(
        [REST],
        [{ do: 'rest', seconds: 9 }, { do: 'pour', g: 50, seconds: 2 }, REST],
        seed,
      );
      expect(empty.state.question).to.equal(null);
      expect(empty.state.heldG).to.be.closeTo(50, 1.5);
      const lifted = unheard([...held, { do: 'lift', seconds: 4 }], [{ do: 'lift', seconds: 9 }], seed);
      expect(lifted.state.question).to.equal(null);
      expect(lifted.state.heldG).to.be.closeTo(120, 2);
    }
  });

  it('keeps a zero that was set without touching the scale', () => {
    const before: Happening[] = [REST, { do: 'pour', g: 300, seconds: 3 }, REST];
    const { state } = unheard(before, [{ do: 'rest', seconds: 8 }], 3, true);
    expect([state.question, Math.round(state.heldG)]).to.deep.equal([null, 0]);
  });

  it('takes a reading that is repeated, or comes late, for none', () => {
    const points = trace([REST, { do: 'pour', g: 120, seconds: 3 }, REST], {
      seed: 5,
      readabilityG: 1,
      settlingS: 0.8,
    });
    const often = points.flatMap((point, at) => [point, point, points[Math.max(0, at - 3)]!]);
    expect(follow(often)).to.deep.equal(follow(points));
  });
});
