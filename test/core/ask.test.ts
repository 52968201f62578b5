/** Questions about the house, written down with what they mean before the grammar was tried on them. */
import { expect } from 'chai';
import { readAsk, type Filter, type Named } from '../../src/core/search/ask';
import { readDays } from '../../src/core/search/ask-days';

const TODAY = '2026-11-24';
const NAMED: Named = {
  bars: [
    { id: 'night-mail', name: 'Night Mail' },
    { id: 'goods-yard', name: 'Goods Yard' },
  ],
  materials: [
    { id: 'rose-clay', names: ['Rose clay', 'Pink clay'] },
    { id: 'kaolin', names: ['Kaolin', 'White clay'] },
    { id: 'lavender', names: ['Lavender oil'] },
    { id: 'olive', names: ['Olive oil'] },
    { id: 'shea', names: ['Shea butter', 'Shea'] },
  ],
  lots: [{ code: 'CL2622' }, { code: 'OL-2601' }],
};

/** A filter in short, as the table below writes it. */
function short(filter: Filter, not: boolean): string {
  if (not && filter.kind !== 'holds') return `not ${short(filter, false)}`;
  switch (filter.kind) {
    case 'holds': {
      const { what, bound } = filter;
      const name = what.by === 'material' ? what.id : what.by === 'kind' ? what.kind : what.food;
      return `${not ? 'no' : 'has'} ${name}${bound ? ` ${bound.relation} ${bound.pct}` : ''}`;
    }
    case 'stands':
      return `${filter.verdict}${filter.market ? ` ${filter.market}` : ''}`;
    case 'soldIn':
      return `in ${filter.market}`;
    case 'fact':
      return filter.fact;
    case 'stock':
      return `stock ${filter.is}`;
    case 'state':
      return filter.state;
    case 'days':
      return `${filter.from ?? ''}..${filter.to ?? ''}`;
    case 'bar':
      return `bar ${filter.id}`;
    case 'lot':
      return `lot ${filter.code}`;
  }
}

const ASKED: readonly [question: string, means: string | null][] = [
  [
    'bars without palm that are clear in the US with clay under 2 %',
    'bars: no palm, clear US, has clay under 2',
  ],
  ['what is left of lot CL2622', 'lots: stock some, lot CL2622'],
  ['curing since September', 'batches: curing, 2026-09-01..'],
  ['vegan bars', 'bars: vegan'],
  ['bars curing since September', 'batches: curing, 2026-09-01..'],
  ['vegan lots', 'batches: vegan'],
  ['lots since October', 'lots: 2026-10-01..'],
  ['palm free', 'bars: no palm'],
  ['free from milk and nuts', 'bars: no milk, no nut'],
  ['bars without palm or milk', 'bars: no palm, no milk'],
  ['no palm, clay under 2 %', 'bars: no palm, has clay under 2'],
  ['no palm but with clay', 'bars: no palm, has clay'],
  ['not vegan', 'bars: not vegan'],
  ['bars that are not clear in the US', 'bars: not clear US'],
  ['bars not sold in the US', 'bars: not in US'],
  ['clear everywhere', 'bars: clear'],
  ['bars with no shea and no kaolin', 'bars: no shea, no kaolin'],
  ['no milk', 'bars: no milk'],
  ['unproven', 'bars: unproven'],
  ['bars over the limit', 'bars: over'],
  ['bars at risk in Canada', 'bars: atRisk CA'],
  ['which bars are tight in the UK', 'bars: tight UK'],
  ['bars with rose clay', 'bars: has rose-clay'],
  ['pink clay over 3%', 'bars: has rose-clay over 3'],
  ['bars with more than 5 % shea butter', 'bars: has shea over 5'],
  ['soaps with lavender oil at most 1,5 %', 'bars: has lavender under 1.5'],
  ['unscented bars in stock', 'bars: unscented, stock some'],
  ['bars with none left', 'bars: stock none'],
  ['bars sold in Australia', 'bars: in AU'],
  ['batches of Night Mail', 'batches: bar night-mail'],
  ['Night Mail poured in October', 'batches: bar night-mail, 2026-10-01..2026-10-31'],
  ['batches of Goods Yard since 3 May 2026', 'batches: bar goods-yard, 2026-05-03..'],
  ['released batches last month', 'batches: released, 2026-10-01..2026-10-31'],
  ['batches in 2025', 'batches: 2025-01-01..2025-12-31'],
  ['batches before March', 'batches: ..2026-02-28'],
  ['batches with lot OL-2601', 'batches: lot OL-2601'],
  ['which lots of olive oil are left', 'lots: has olive, stock some'],
  ['lots of shea', 'lots: has shea'],
  ['held batches', 'batches: quarantined'],
  ['batches of December', 'batches: 2025-12-01..2025-12-31'],
  ['without papers', 'bars: unproven'],
  ['essential oils under 2 %', 'bars: has essentialOil under 2'],
  ['no essential oils', 'bars: no essentialOil'],
  ['bars with milk but no honey', null],
  ['how do I make soap', null],
  ['what pours tonight', null],
  ['night mail', 'bars: bar night-mail'],
  ['what was sold in May', null],
  ['cheapest bars', null],
  ['', null],
  ['%%%', null],
];

describe('a question about the house', () => {
  for (const [question, means] of ASKED)
    it(`means what it says: ${question || 'nothing'}`, () => {
      const asked = readAsk(question, NAMED, TODAY);
      if (means === null) return expect(asked).to.equal(null);
      const said =
        asked && `${asked.subject}: ${asked.filters.map(({ filter, not }) => short(filter, not)).join(', ')}`;
      expect(said).to.equal(means);
      expect(asked!.unread).to.deep.equal([]);
    });

  it('keeps the words of every filter and tells those that say nothing', () => {
    const text = 'Bars without palm, with glitter, clear in the US';
    const asked = readAsk(text, NAMED, TODAY)!;
    expect(asked.filters.map(({ words }) => words)).to.deep.equal(['without palm', 'clear in the US']);
    for (const { words, from, to } of asked.filters) expect(text.slice(from, to)).to.equal(words);
    expect(asked.unread).to.deep.equal(['glitter']);
  });

  it('takes days by what they say', () => {
    const days = (text: string) => {
      const read = readDays(text.split(' '), TODAY);
      return read && `${read.from ?? ''}..${read.to ?? ''}`;
    };
    expect(days('after 3 may')).to.equal('2026-05-04..');
    expect(days('until february 2026')).to.equal('..2026-02-28');
    expect(days('may 3 2025')).to.equal('2025-05-03..2025-05-03');
    expect(days('since december')).to.equal('2025-12-01..');
    expect(days('30 february')).to.equal(null);
    expect(days('yesterday')).to.equal('2026-11-23..2026-11-23');
    expect(days('last week')).to.equal('2026-11-17..2026-11-24');
    expect(days('lavender')).to.equal(null);
  });
});
