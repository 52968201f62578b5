/** The watch in words, and its rows as a table file that no spreadsheet takes for formulas. */
import { expect } from 'chai';
import type { Effect, Stand } from '../../src/core/change/types';
import {
  effectsCsv,
  handsWords,
  hrefOf,
  labelWords,
  standWords,
  worstWords,
} from '../../src/islands/watch/words';

const stand = (more: Partial<Stand> = {}): Stand => ({
  verdict: 'tight',
  headroomPct: 4.26,
  boundBy: 'cert-1',
  declares: ['linalool'],
  listAdded: 'a',
  listFormed: 'b',
  ...more,
});
const effect = (more: Partial<Effect> = {}): Effect => ({
  what: 'bar',
  id: 'night-mail',
  product: 'night-mail',
  name: 'Night Mail',
  market: 'EU',
  before: stand(),
  after: stand({ verdict: 'over', headroomPct: -12.5 }),
  worse: true,
  hands: { curing: 28, inStock: 41, sold: 63, buyers: 5 },
  ...more,
});

describe('the watch in words', () => {
  it('says how something stands, what of the label changes, and whose hands hold bars', () => {
    expect(standWords(stand())).to.equal('Tight, 4.3 % room');
    expect(standWords(stand({ verdict: 'over', headroomPct: -12.5 }))).to.equal('Over, 12.5 % past');
    expect(standWords(stand({ verdict: 'unproven', headroomPct: null }))).to.equal('Unproven');
    expect(standWords(null)).to.contain('not sold');
    expect(labelWords(stand(), stand({ declares: ['linalool', 'citral'] }))).to.equal('names citral');
    expect(labelWords(stand(), stand({ declares: [] }))).to.equal('no longer names linalool');
    expect(labelWords(stand(), stand({ listFormed: 'c' }))).to.contain('in the list');
    expect([labelWords(stand(), stand()), labelWords(null, stand())]).to.deep.equal(['', '']);
    expect(handsWords(effect().hands)).to.equal('28 curing, 41 in stock, 63 sold (5 buyers known)');
    expect(handsWords({ curing: 0, inStock: 0, sold: 2, buyers: 1 })).to.equal('2 sold (one buyer known)');
    expect(handsWords({ curing: 0, inStock: 0, sold: 0, buyers: 0 })).to.equal('none');
    expect(worstWords([effect()])).to.contain(
      'Night Mail in EU, from Tight, 4.3 % room to Over, 12.5 % past',
    );
    expect([worstWords([]), worstWords([effect({ worse: false })])]).to.deep.equal([
      'Nothing is touched.',
      'Nothing gets worse.',
    ]);
  });

  it('leads to the bar, the batch or the label', () => {
    expect(
      (['bar', 'version', 'batch', 'issued'] as const).map((what) => hrefOf(effect({ what, id: 'x' }))),
    ).to.deep.equal(['/bars/night-mail', '/bars/night-mail', '/rack/x', '/wrap/night-mail']);
  });

  it('keeps formulas, quotes and lines of names as text in the table file', () => {
    const names = ['=SUM(A1)', '+1', '-2', '@x', 'a "quoted" name', 'two,\nlines'];
    const csv = effectsCsv(names.map((name) => effect({ name })));
    const [head, ...rows] = csv.split('\r\n');
    expect(head!.split(',').length).to.equal(12);
    expect(rows.length).to.equal(names.length);
    for (const row of rows) expect(row).not.to.match(/(^|,)"[=+\-@]/);
    expect(rows[0]).to.contain(`"'=SUM(A1)"`);
    expect(rows[4]).to.contain('"a ""quoted"" name"');
  });
});
