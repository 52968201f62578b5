/** What was foretold against what came: how it is counted, and that a look back knows nothing of what came later. */
import { expect } from 'chai';
import { cure } from '../../src/core/curing/cure';
import { dayAfter } from '../../src/core/quantities/day';
import { seededRandom, type Random } from '../../src/core/numerics/random';
import { salesAhead, type SoldOn } from '../../src/core/stock/pace';
import { foretoldCure, foretoldPace } from '../../src/core/sure/foretell';
import { ENOUGH, farOut, heldByKind, MOST_WIDER, widened, type Foretold } from '../../src/core/sure/held';
import { makeCure } from '../support/cures';

const one = (came: number, more: Partial<Foretold> = {}): Foretold => ({
  kind: 'pace',
  product: 'slate',
  of: 'x',
  on: '2026-03-01',
  low: 8,
  likely: 10,
  high: 14,
  came,
  ...more,
});

describe('how foretellings held', () => {
  it('is counted by kind, edges within, below and above apart', () => {
    const held = heldByKind([
      one(8),
      one(14),
      one(7.9),
      one(14.1),
      one(10),
      one(3, { kind: 'ready', low: 2 }),
    ]);
    expect(held.map(({ kind, of, within, below, above }) => [kind, of, within, below, above])).to.deep.equal([
      ['ready', 1, 1, 0, 0],
      ['pace', 5, 3, 1, 1],
    ]);
    expect(heldByKind([])).to.deep.equal([]);
    expect([farOut(one(12)), farOut(one(9)), farOut(one(10)), farOut(one(18))]).to.deep.equal([
      0.5, 0.5, 0, 2,
    ]);
    expect(farOut(one(11, { high: 10 }))).to.equal(Infinity);
  });

  it('widens what held too seldom until it holds as often as it says, never what may be chance', () => {
    const within = (all: readonly Foretold[]) => all.filter((each) => farOut(each) <= 1).length / all.length;
    for (let seed = 1; seed <= 40; seed++) {
      const random = seededRandom(seed);
      const spread = 1 + 5 * random.uniform();
      const all = Array.from({ length: 60 }, () => one(10 + spread * random.normal()));
      const [held] = heldByKind(all);
      const after = all.map((each) => ({ ...each, ...widened(each, held!.wider) }));
      if (held!.wider === 1) expect(within(all), `seed ${seed}`).to.be.above(0.7);
      else {
        expect(within(all)).to.be.below(0.8);
        if (held!.wider < MOST_WIDER) expect(within(after)).to.be.least(0.8 - 1e-9);
      }
    }
    const few = Array.from({ length: ENOUGH - 1 }, () => one(40));
    expect(heldByKind(few)[0]!.wider).to.equal(1);
    expect(heldByKind([...few, one(40)])[0]!.wider).to.equal(MOST_WIDER);
    // A cut's window is when to come: no width would make a late hand early.
    const late = few.concat(one(40)).map((each) => ({ ...each, kind: 'cut' as const }));
    expect(heldByKind(late)[0]!.wider).to.equal(1);
    expect(widened({ low: 1, likely: 2, high: 4 }, 3)).to.deep.equal({ low: 0, likely: 2, high: 8 });
  });

  it('is told for the earlier and the later half once there are enough of both', () => {
    const old = Array.from({ length: ENOUGH }, (_, at) => one(10, { on: `2026-01-${10 + at}` }));
    const late = Array.from({ length: ENOUGH }, (_, at) =>
      one(at < 5 ? 10 : 90, { on: `2026-06-${10 + at}` }),
    );
    expect(heldByKind([...late, ...old])[0]!.drift).to.deep.equal({ earlier: 1, later: 0.5 });
    expect(heldByKind(old)[0]!.drift).to.equal(null);
  });
});

describe('what would have been foretold', () => {
  it('of a cure goes by its first half alone, and holds about as often as it says', () => {
    const all: Foretold[] = [];
    for (let seed = 700; seed < 716; seed++) {
      const { weighings, readabilityG, pouredG, bars } = makeCure(seed, 16);
      const options = { readabilityG, pouredG, bars };
      const batch = { product: 'p', code: `b${seed}`, on: '2026-01-01', weighings, options };
      const whole = cure(weighings, options);
      const foretold = foretoldCure({ ...batch, whole });
      all.push(...foretold);
      // What is weighed later changes nothing of what was foretold, but for what came.
      const last = Math.max(...weighings.map(({ day }) => day));
      const bent = weighings.map((each) =>
        each.day > 0.6 * last ? { ...each, massG: each.massG * 1.2 } : each,
      );
      const again = foretoldCure({ ...batch, weighings: bent, whole });
      const plain = (rows: Foretold[]) => rows.map(({ came: _, ...rest }) => rest);
      expect(plain(again), `seed ${seed}`).to.deep.equal(plain(foretold));
      const unsettled = foretoldCure({ ...batch, whole: { ...whole, settled: false } });
      expect(unsettled.some(({ kind }) => kind === 'ready')).to.equal(false);
    }
    const held = heldByKind(all);
    expect(held.map(({ kind }) => kind)).to.deep.equal(['weight', 'ready']);
    for (const { kind, of, within } of held) expect(within / of, kind).to.be.above(0.7);
  });

  const YEAR = 330;
  const START = '2026-01-05';
  /** Sales of most of a year, a few bars on some days, at a pace that may change. */
  function sales(seed: number, perDay: (day: number, random: Random) => number): SoldOn[] {
    const random = seededRandom(seed);
    return Array.from({ length: YEAR }, (_, day) => ({
      day: dayAfter(START, day),
      bars: random.uniform() < perDay(day, random) ? 1 + Math.floor(random.uniform() * 3) : 0,
    })).filter(({ bars }) => bars > 0);
  }
  const looks = (perDay: (day: number) => number) =>
    Array.from({ length: 30 }, (_, seed) =>
      foretoldPace(
        { product: `p${seed}`, sold: sales(seed + 1, perDay), since: START },
        dayAfter(START, YEAR - 1),
      ),
    ).flat();

  it('of sales knows only what sold before, and holds while they go on as they went', () => {
    const steady = looks(() => 0.35);
    expect(steady.length).to.equal(150);
    const [held] = heldByKind(steady);
    expect(held!.within / held!.of).to.be.above(0.8);
    expect(held!.wider).to.equal(1);
    const [first] = foretoldPace({ product: 'p', sold: sales(3, () => 0.35), since: START }, '2026-10-01');
    const until = sales(3, () => 0.35).filter(({ day }) => day <= first!.on);
    expect(salesAhead(until, START, first!.on, 28)).to.deep.include({ low: first!.low, high: first!.high });
  });

  it('of sales that fall away is widened, and told to lean', () => {
    const [held] = heldByKind(looks((day) => (day < 150 ? 0.8 : 0.8 * Math.exp(-(day - 150) / 45))));
    expect(held!.within / held!.of).to.be.below(0.7);
    expect(held!.wider).to.be.above(1.2);
    expect(held!.leans).to.be.below(0);
  });

  it('of sales says nothing of a bar that sold for a few weeks, or never', () => {
    expect(
      foretoldPace(
        { product: 'p', sold: [{ day: '2026-10-01', bars: 3 }], since: '2026-10-01' },
        '2026-11-20',
      ),
    ).to.deep.equal([]);
    expect(foretoldPace({ product: 'p', sold: [], since: START }, '2026-11-20')).to.deep.equal([]);
    expect(salesAhead([], START, '2026-11-20', 28)).to.equal(null);
  });
});
