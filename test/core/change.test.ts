/** What a change makes of rows, tasks and days to come, by examples worked by hand. */
import { expect } from 'chai';
import fc from 'fast-check';
import { aheadRows, foldAhead, type AheadInput } from '../../src/core/change/ahead';
import { differs, isWorse, ordered } from '../../src/core/change/effects';
import { tasksOf } from '../../src/core/change/tasks';
import { touchedBetween } from '../../src/core/change/touched';
import type { Effect, Hands, Stand } from '../../src/core/change/types';
import { VERDICTS } from '../../src/core/formula/answer';
import { limitOn, MATERIALS } from '../support/request';

const stand = (more: Partial<Stand> = {}): Stand => ({
  verdict: 'clear',
  headroomPct: 40,
  boundBy: 'cert-1',
  declares: [],
  listAdded: 'Aqua, Parfum',
  listFormed: 'Parfum, Aqua',
  ...more,
});
const none: Hands = { curing: 0, inStock: 0, sold: 0, buyers: 0 };
const effect = (more: Partial<Effect>): Effect => ({
  what: 'bar',
  id: 'night-mail',
  product: 'night-mail',
  name: 'Night Mail',
  market: 'EU',
  before: stand(),
  after: stand(),
  worse: false,
  hands: none,
  ...more,
});

describe('a row of what a change touches', () => {
  it('is worse with a worse verdict, or the same with less room; what does not reckon is worst', () => {
    const over = stand({ verdict: 'over', headroomPct: -10 });
    expect(isWorse(stand(), over)).to.equal(true);
    expect(isWorse(over, stand())).to.equal(false);
    expect(isWorse(stand(), stand({ headroomPct: 39 }))).to.equal(true);
    expect(isWorse(stand(), stand({ headroomPct: null }))).to.equal(false);
    expect(isWorse(over, null)).to.equal(true);
    expect(isWorse(null, null)).to.equal(false);
  });

  it('differs by verdict, room, binding limit, names or lists; an issued label by what stands on it alone', () => {
    for (const more of [{ verdict: 'tight' as const }, { headroomPct: 1 }, { boundBy: 'x' }]) {
      expect(differs(stand(), stand(more))).to.equal(true);
      expect(differs(stand(), stand(more), 'added')).to.equal(false);
    }
    expect(differs(stand(), stand({ declares: ['linalool'] }), 'added')).to.equal(true);
    expect(differs(stand(), stand({ listFormed: 'other' }), 'added')).to.equal(false);
    expect(differs(stand(), stand({ listFormed: 'other' }), 'formed')).to.equal(true);
    expect(differs(stand(), stand({ listFormed: 'other' }))).to.equal(true);
    expect([differs(null, null), differs(null, stand())]).to.deep.equal([false, true]);
  });

  it('comes worse first, then by bars sold, in stock and curing, whatever order they were found in', () => {
    const hands = fc.record({ curing: fc.nat(3), inStock: fc.nat(3), sold: fc.nat(3), buyers: fc.nat(2) });
    const rows = fc.uniqueArray(
      fc.record({
        id: fc.stringMatching(/^[a-d]{1,3}$/),
        worse: fc.boolean(),
        hands,
        verdict: fc.constantFrom(...VERDICTS),
      }),
      { selector: ({ id }) => id, maxLength: 12 },
    );
    fc.assert(
      fc.property(rows, (list) => {
        const effects = list.map(({ id, worse, hands: held, verdict }) =>
          effect({ id, worse, hands: held, after: stand({ verdict }) }),
        );
        const sorted = ordered(effects);
        const key = ({ worse, hands: { sold, inStock, curing } }: Effect) => [
          Number(worse),
          sold,
          inStock,
          curing,
        ];
        for (const [at, one] of sorted.slice(1).entries()) {
          const [a, b] = [key(sorted[at]!), key(one)];
          const first = a.findIndex((value, place) => value !== b[place]);
          if (first >= 0) expect(a[first]).to.be.above(b[first]!);
        }
        expect(ordered([...effects].reverse())).to.deep.equal(sorted);
      }),
    );
  });

  it('makes the tasks that it asks for, and none for what is gone or kept for the record', () => {
    const over = stand({ verdict: 'over' });
    const here: Hands = { curing: 2, inStock: 5, sold: 9, buyers: 1 };
    const kinds = (effects: Partial<Effect>[]) =>
      tasksOf({ kind: 'day', onDate: '2027-01-01' }, effects.map(effect)).map(({ kind, words }) => [
        kind,
        words,
      ]);
    expect(kinds([{ after: over }])).to.deep.equal([
      ['rework', 'Rework Night Mail for EU before it is poured again.'],
    ]);
    expect(kinds([{ after: stand({ verdict: 'unproven' }) }])[0]![0]).to.equal('askPaper');
    expect(kinds([{ what: 'batch', after: over, hands: here }])).to.deep.equal([
      ['stopSelling', 'Stop selling Night Mail in EU: 7 bars are here.'],
    ]);
    expect(kinds([{ what: 'batch', after: stand({ listAdded: 'x' }), hands: here }])[0]![0]).to.equal(
      'relabel',
    );
    expect(kinds([{ what: 'issued', after: stand({ declares: ['x'] }), hands: here }])[0]![0]).to.equal(
      'reissue',
    );
    expect(
      kinds([
        { what: 'batch', after: over },
        { what: 'version', after: over, hands: here },
        { before: over, after: over },
      ]),
    ).to.deep.equal([]);
  });
});

describe('a lot that is doubted', () => {
  const here: Hands = { curing: 0, inStock: 5, sold: 9, buyers: 1 };
  it('asks to stop selling each batch it went into once, as long as bars are here; freed, it asks for nothing', () => {
    const rows = [
      effect({ what: 'batch', id: 'a', name: 'Night Mail A', market: 'EU', hands: here }),
      effect({ what: 'batch', id: 'a', name: 'Night Mail A', market: 'UK', hands: here }),
      effect({ what: 'batch', id: 'b', name: 'Night Mail B' }),
    ];
    const lot = { kind: 'lot' as const, lot: 'l' };
    const bad = tasksOf({ ...lot, quarantine: 'Smells of paint.' }, rows);
    expect(bad.map(({ kind, subject }) => [kind, subject])).to.deep.equal([['stopSelling', 'a']]);
    expect(bad[0]!.words).to.contain('Smells of paint.');
    expect(tasksOf({ ...lot, quarantine: null }, rows)).to.deep.equal([]);
  });
});

describe('what two stores treat differently', () => {
  const store = (limits: ReturnType<typeof limitOn>[], materials = MATERIALS) => ({
    stored: { material: (id: string) => materials.find((one) => one.id === id), limits, declarables: [] },
    onDate: '2026-11-24',
  });
  it('is what a rule speaks of, or what changed itself, and nothing else', () => {
    const plain = store([]);
    const eugenol = touchedBetween(plain, store([limitOn({ type: 'constituent', id: 'eugenol' }, 1)]));
    expect(['clove', 'cinnamon', 'olive', 'perfume'].map(eugenol)).to.deep.equal([true, true, false, false]);
    const kind = touchedBetween(plain, store([limitOn({ type: 'kind', id: 'clay' }, 1)]));
    expect(['clay', 'salt'].map(kind)).to.deep.equal([true, false]);
    const later = touchedBetween(
      plain,
      store([limitOn({ type: 'kind', id: 'clay' }, 1, { from: '2027-01-01' })]),
    );
    expect(later('clay')).to.equal(false);
    const other = MATERIALS.map((one) => (one.id === 'olive' ? { ...one, waterPct: 1 } : one));
    const changed = touchedBetween(plain, store([], other));
    expect(['olive', 'coconut', 'unknown'].map(changed)).to.deep.equal([true, false, true]);
  });
});

describe('what falls due by itself', () => {
  const input = (more: Partial<AheadInput>): AheadInput => ({
    today: '2026-11-24',
    until: '2028-11-24',
    declarables: [],
    limits: [],
    materials: [
      {
        id: 'clove',
        name: 'Clove',
        constituents: ['eugenol'],
        limits: [],
        ask: null,
        isWater: false,
        keepingMonths: 12,
      },
      {
        id: 'olive',
        name: 'Olive',
        constituents: [],
        limits: [],
        ask: 'Ask for a newer one.',
        isWater: false,
        keepingMonths: null,
      },
    ],
    lots: [],
    bars: [{ id: 'n', name: 'Night Mail', markets: ['EU'], materials: ['clove', 'olive'] }],
    batches: [],
    ...more,
  });
  const rows = (more: Partial<AheadInput>) =>
    aheadRows(input(more)).map(({ on, kind, touches }) => [on, kind, touches.join()]);

  it('puts grave things first and folds the small ones; water passes no day', () => {
    const lot = { id: 'l', code: 'L', material: 'clove', bestBefore: '2027-11-24', openedOn: null, leftG: 5 };
    const limit = limitOn({ type: 'constituent', id: 'eugenol' }, 1, { from: '2027-02-01' });
    const far = { ...limit, id: 'far', from: '2028-02-01' };
    const all = aheadRows(input({ lots: [lot, { ...lot, id: 'm', code: 'M' }], limits: [far, limit] }));
    const { rows: alone, folds } = foldAhead(all);
    expect(alone.map(({ urgency, on }) => [urgency, on])).to.deep.equal([
      ['grave', '2027-02-01'],
      ['now', '2028-02-01'],
      ['due', '2026-11-24'],
    ]);
    expect(folds).to.deep.equal([{ kind: 'lot', count: 2, words: '2 lots pass their day' }]);
    // A lot in use that is past its day stands by itself.
    const past = foldAhead(aheadRows(input({ lots: [{ ...lot, bestBefore: '2026-11-01' }] })));
    expect([past.rows.map(({ kind }) => kind), past.folds]).to.deep.equal([['lot', 'paper'], []]);
    const { materials } = input({});
    const water = materials.map((one) => ({ ...one, ask: null, isWater: true }));
    expect(aheadRows(input({ lots: [lot], materials: water }))).to.deep.equal([]);
  });

  it('tells lists, limits, papers, lots, opened oils and batches on their days, and nothing beyond', () => {
    const list = {
      id: 'eugenol',
      name: 'Eugenol',
      markets: ['EU' as const],
      thresholdPct: 0.01,
      newFrom: '2026-07-31',
      allFrom: '2028-07-31',
    };
    expect(rows({ declarables: [list] })).to.deep.equal([
      ['2026-11-24', 'paper', 'Night Mail'],
      ['2028-07-31', 'list', 'Night Mail'],
    ]);
    expect(rows({ declarables: [{ ...list, markets: ['CA'] }] })[1]).to.deep.equal([
      '2028-07-31',
      'list',
      '',
    ]);
    const limit = limitOn({ type: 'constituent', id: 'eugenol' }, 1, {
      from: '2027-02-01',
      to: '2030-01-01',
    });
    expect(rows({ limits: [limit] })[1]).to.deep.equal(['2027-02-01', 'limit', 'Night Mail']);
    // A limit still counts on its last day.
    const ends = { ...limit, from: '2020-01-01', to: '2026-11-24' };
    const [, told] = aheadRows(input({ limits: [ends] }));
    expect([told!.on, told!.words]).to.deep.equal(['2026-11-25', 'eugenol: at most 1 % no longer counts']);
    const lot = {
      id: 'l',
      code: 'L',
      material: 'clove',
      bestBefore: '2029-01-01',
      openedOn: '2026-01-31',
      leftG: 5,
    };
    expect(rows({ lots: [lot] })[1]).to.deep.equal(['2027-01-31', 'opened', 'Night Mail']);
    expect(rows({ lots: [{ ...lot, leftG: 0 }] }).length).to.equal(1);
    const batch = { id: 'b', code: 'B', name: 'Night Mail', left: 3, pouredOn: '2026-08-31', months: 18 };
    expect(rows({ batches: [batch] })[1]).to.deep.equal(['2028-02-29', 'durability', 'Night Mail']);
  });
});
