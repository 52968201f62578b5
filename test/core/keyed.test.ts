/** Rows that a maker keys in or pastes beside a paper. */
import { expect } from 'chai';
import { keyedLines } from '../../src/core/paperwork/keyed';
import { readPaper } from '../../src/core/paperwork/read';
import { knownConstituents } from '../../src/library/constituents';

const read = (text: string) => {
  const { lines, unread } = keyedLines(text);
  const { rows, categories } = readPaper({ lines }, knownConstituents, []);
  return {
    rows: rows.map(({ constituent, lowPct, highPct }) => `${constituent} ${lowPct} to ${highPct}`),
    categories: categories.map(({ value }) => `${value.category} ${value.maxPct}`),
    unread,
  };
};

describe('rows keyed by hand', () => {
  it('are constituents by name or number, with one share or a range, and levels by category', () => {
    expect(
      read('Linalool 0.8\nLimonene: 3.4 %\n78-70-6 Linalool 0.5 - 1.2 %\nCitral (5392-40-5) <0.1'),
    ).to.deep.equal({
      rows: ['linalool 0.8 to 0.8', 'limonene 3.4 to 3.4', 'linalool 0.5 to 1.2', 'citral 0 to 0.1'],
      categories: [],
      unread: [],
    });
    expect(read('4 7.9\ncategory 9: 3.18 %\n10a\t5')).to.deep.equal({
      rows: [],
      categories: ['4 7.9', '9 3.18', '10A 5'],
      unread: [],
    });
    expect(read('Linalool 0,8\nLimonene 3,4\n9 2,5')).to.deep.equal({
      rows: ['linalool 0.8 to 0.8', 'limonene 3.4 to 3.4'],
      categories: ['9 2.5'],
      unread: [],
    });
  });

  it('tells what says no share', () => {
    expect(read('Linalool\n\nplease see overleaf\nLimonene 3')).to.deep.equal({
      rows: ['limonene 3 to 3'],
      categories: [],
      unread: ['Linalool', 'please see overleaf'],
    });
    expect(keyedLines('')).to.deep.equal({ lines: [], said: [], unread: [] });
    const { lines, said } = keyedLines('Linalool 0.8\nLinalool\n9 3.18');
    expect(said).to.deep.equal(['Linalool 0.8', '9 3.18']);
    expect(lines.length).to.equal(3);
  });
});
