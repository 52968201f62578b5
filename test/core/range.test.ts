/** The range arranged: what needs a hand, what is looked at, groups, the map and the table for a spreadsheet. */
import { expect } from 'chai';
import fc from 'fast-check';
import type { Verdict } from '../../src/core/formula/answer';
import {
  EVERYTHING,
  groupName,
  headroomMap,
  lookedAt,
  MAP_STEP,
  needsOf,
  rangeTable,
  tightestMarket,
} from '../../src/core/range/arrange';
import type { RackTask } from '../../src/core/curing/rack';
import { attentionOf } from '../../src/core/hands/hand';
import { handOfTask, handsOfBatch, handsOfPapers } from '../../src/core/hands/sources';
import type { MarketStand, RangeRow } from '../../src/core/records/range';
import type { Task } from '../../src/core/records/watch';

const TODAY = '2026-11-24';
const stand = (market: MarketStand['market'], headroomPct: number | null, verdict: Verdict = 'clear') => ({
  market,
  headroomPct,
  verdict,
  boundBy: headroomPct === null ? null : 'linalool',
});
const row = (id: string, more: Partial<RangeRow> = {}): RangeRow => ({
  id,
  name: id,
  note: '',
  collection: '',
  putAwayOn: null,
  margin: 0.1,
  verdict: 'clear',
  closest: null,
  fault: null,
  isPending: false,
  scents: [],
  markets: [stand('EU', 40)],
  label: 'none',
  ready: 0,
  curing: 0,
  sold: 0,
  tasks: [],
  ...more,
});
const needs = (one: RangeRow) => needsOf(one, TODAY);
const ids = (rows: readonly RangeRow[]) => rows.map(({ id }) => id);

describe('the range', () => {
  const batch = { id: 'b1', code: 'B 1', product: 'late', productName: 'Late' };
  const rackTask = (kind: RackTask['kind'], urgency: RackTask['urgency']): RackTask => ({
    ...{ kind, urgency, portion: null, from: `${TODAY}T08:00:00Z`, until: null, words: `${kind} it.` },
  });
  const task = (kind: Task['kind'], words: string): Task => ({
    ...{ id: words, kind, what: 'batch', subject: 'b1', market: 'EU', words, dueOn: null, change: null },
    ...{ at: TODAY, doneAt: null, doneNote: null, bar: 'late' },
  });

  it('says what a bar needs, grave first, each a door to where it is done, and asks nothing of one put away', () => {
    const tasks = [handOfTask(task('relabel', 'Relabel it.')), handOfTask(task('look', 'Look at it.'))];
    const late = row('late', { verdict: 'over', label: 'differs', tasks });
    const rack = handsOfBatch(batch, [
      rackTask('cut', 'missed'),
      rackTask('turn', 'open'),
      rackTask('weigh', 'later'),
    ]);
    const besides = { rack, startBy: TODAY };
    expect(needsOf(late, TODAY, besides).map(({ why, where }) => [why, where])).to.deep.equal([
      ['cut it.', '/rack/b1#cut'],
      ['Over a limit where it is sold.', '/bars/late'],
      ['Relabel it.', '/rack/b1'],
      ['Pour now, or it runs out.', '/pour?product=late'],
      ['turn it.', '/rack/b1#turn'],
      ['An issued label would read otherwise.', '/wrap/late?open=issued'],
      ['Look at it.', '/rack/b1'],
    ]);
    const later = needsOf(late, TODAY, { startBy: '2026-11-25' }).map(({ why }) => why);
    expect(later).to.not.include('Pour now, or it runs out.');
    expect(needsOf({ ...late, putAwayOn: TODAY }, TODAY, besides)).to.deep.equal([]);
    expect(needs(row('quiet'))).to.deep.equal([]);
    const broken = row('broken', { verdict: null, fault: 'No fats.' });
    expect(needs(broken)[0]!.why).to.contain('does not reckon');
    expect(needs({ ...broken, isPending: true })).to.deep.equal([]);
  });

  it('counts what cannot wait by its place for the header, and tells the gravest', () => {
    const hands = [
      ...handsOfBatch(batch, [rackTask('turn', 'open'), rackTask('cut', 'late'), rackTask('decide', 'late')]),
      handOfTask(task('look', 'Look at it.')),
      ...handsOfPapers([
        { id: 'p', fileName: 'Certificate 12.pdf', filedOn: null },
        { id: 'q', fileName: 'old.pdf', filedOn: TODAY },
      ]),
    ];
    expect(attentionOf(hands)).to.deep.equal({
      Rack: { count: 2, words: 'Late B 1: decide it.' },
      'Paper tray': { count: 1, words: 'Certificate 12.pdf: Came, and is not filed yet.' },
    });
  });

  it('is found by any part of name, note, collection and scent, put away or not, marks and case aside', () => {
    const rows = [
      row('a', { name: 'Café No. 5', scents: ['Rose & Iron'] }),
      row('b', { name: 'Old Café', putAwayOn: TODAY }),
      row('c', { name: 'Branch Line', collection: 'Winter', markets: [stand('US', 3)] }),
    ];
    const find = (text: string) => ids(lookedAt(rows, { ...EVERYTHING, find: text }, needs));
    expect(find('cafe')).to.deep.equal(['a', 'b']);
    expect(find('iron CAFÉ')).to.deep.equal(['a']);
    expect(find('winter')).to.deep.equal(['c']);
    expect(find('')).to.deep.equal(['a', 'c']);
    expect(ids(lookedAt(rows, { ...EVERYTHING, market: 'US' }, needs))).to.deep.equal(['c']);
    expect(ids(lookedAt(rows, { ...EVERYTHING, show: 'away' }, needs))).to.deep.equal(['b']);
  });

  it('shows what was asked for: over, unproven, labels that differ, what needs a hand', () => {
    const rows = [
      row('over', { verdict: 'over' }),
      row('risk', { verdict: 'atRisk' }),
      row('bare', { verdict: 'unproven' }),
      row('label', { label: 'differs' }),
      row('fine'),
    ];
    const show = (what: 'over' | 'unproven' | 'differs' | 'needs') =>
      ids(lookedAt(rows, { ...EVERYTHING, show: what }, needs));
    expect(show('over')).to.deep.equal(['over', 'risk']);
    expect(show('unproven')).to.deep.equal(['bare']);
    expect(show('differs')).to.deep.equal(['label']);
    expect(show('needs')).to.deep.equal(['over', 'risk', 'bare', 'label']);
  });

  it('groups a bar under its scents, its collection, its markets and what binds where it has least room', () => {
    const one = row('a', {
      scents: ['Lavender oil', 'Rose & Iron'],
      markets: [stand('EU', 20), { ...stand('US', 4), boundBy: 'eugenol' }, stand('CA', null)],
    });
    expect(groupName(one, 'scent')).to.equal('Lavender oil, Rose & Iron');
    expect(groupName(one, 'market')).to.equal('EU, US, CA');
    expect(groupName(one, 'bound')).to.equal('eugenol');
    expect(groupName(one, 'collection')).to.equal('No collection');
    expect(groupName(row('b', { markets: [] }), 'bound')).to.equal('Nothing binds');
    expect(tightestMarket({ markets: [stand('EU', 1), stand('UK', 60, 'over')] })!.market).to.equal('UK');
  });

  it('draws every bar once in each market it is sold in, on the right side of the rule', () => {
    const anyStand = fc.record({
      headroomPct: fc.option(fc.double({ min: -400, max: 100, noNaN: true })),
      verdict: fc.constantFrom<Verdict>('clear', 'tight', 'over', 'unproven'),
    });
    fc.assert(
      fc.property(fc.array(anyStand, { minLength: 1, maxLength: 30 }), (stands) => {
        const rows = stands.map(({ headroomPct, verdict }, at) =>
          row(String(at), { markets: [stand('EU', headroomPct, verdict)] }),
        );
        const [eu, ...others] = headroomMap(rows, ['EU', 'US']);
        expect(others).to.deep.equal([]);
        const drawn = eu!.columns.flatMap(({ bars }) => bars);
        expect([...drawn, ...eu!.without].sort()).to.deep.equal(ids(rows).sort());
        for (const { from, bars } of eu!.columns)
          for (const id of bars) {
            const { headroomPct } = rows[Number(id)]!.markets[0]!;
            const used = headroomPct === null ? 1.5 : 1 - headroomPct / 100;
            expect(used > 1 + 1e-6).to.equal(from >= 1 - 1e-9 && used > 1 + 1e-6);
            if (used <= 1) expect(from).to.be.at.most(1 - MAP_STEP + 1e-9);
            if (used < 1.5) expect(used).to.be.within(from - 1e-6, from + MAP_STEP + 1e-6);
          }
      }),
      { numRuns: 200 },
    );
  });

  it('is written out with a line for each market', () => {
    const rows = [
      row('a', { markets: [stand('EU', 4.444), stand('US', null)], verdict: 'tight' }),
      row('b', { markets: [] }),
    ];
    const { fields, data } = rangeTable(rows, needs, (id) => (id === 'a' ? '2026-12-01' : null));
    expect(data).to.have.length(3);
    const of = (line: number, field: string) => data[line]![fields.indexOf(field)];
    expect([of(0, 'market'), of(0, 'headroom %'), of(0, 'start by')]).to.deep.equal([
      'EU',
      4.44,
      '2026-12-01',
    ]);
    expect([of(1, 'market'), of(1, 'headroom %')]).to.deep.equal(['US', '']);
    expect([of(2, 'bar'), of(2, 'market')]).to.deep.equal(['b', '']);
  });
});
