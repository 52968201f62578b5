/** Tables that lost their columns on the way: written down before the reader was tried on them. */
import { expect } from 'chai';
import { linesFromText } from '../../src/core/paperwork/page';
import { readPaper } from '../../src/core/paperwork/read';
import { unstacked } from '../../src/core/paperwork/stacked';
import { knownConstituents } from '../../src/library/constituents';

const levels = (text: string) =>
  readPaper({ lines: linesFromText(text) }, knownConstituents, [])
    .categories.map(({ value }) => `${value.category} ${value.maxPct}`)
    .join(', ');

describe('a table that lost its columns', () => {
  it('is read where every cell stands on a line of its own', () => {
    const stack = '4\n7.94\n5A\n2.31\n9\n3.18\n12\nNo restriction';
    expect(levels(`Certificate\nCategory\nMaximum level (%)\n${stack}`)).to.equal(
      '4 7.94, 5A 2.31, 9 3.18, 12 100',
    );
    expect(levels('Category 4\n7.94 %\nCategory 9\n3.18 %\nCategory 10A\n5.47 %')).to.equal(
      '4 7.94, 9 3.18, 10A 5.47',
    );
    expect(levels('Zertifikat\nKategorie\nHöchstmenge %\n4\n7,94\n5A\n2,31\n9\n3,18')).to.equal(
      '4 7.94, 5A 2.31, 9 3.18',
    );
  });

  it('keeps the unit that its heads say', () => {
    expect(levels('Certificate\nCategory\nMaximum (ppm)\n4\n79400\n5A\n23100\n9\n31800')).to.equal(
      '4 7.94, 5A 2.31, 9 3.18',
    );
  });

  it('is read where a comma stands between its cells, and a decimal comma is none', () => {
    expect(levels('Certificate\nCategory, Maximum %\n4, 7.94\n5A, 2.31\n9, 3.18')).to.equal(
      '4 7.94, 5A 2.31, 9 3.18',
    );
    expect(levels('Certificate\nCategory values\n4,94\n5,31\n9,18')).to.equal('');
  });

  it('holds constituents with their numbers and shares, the number first or last', () => {
    const shares = (text: string) =>
      readPaper({ lines: linesFromText(text) }, knownConstituents, [])
        .rows.map(({ constituent, lowPct, highPct }) => `${constituent} ${lowPct} ${highPct}`)
        .join(', ');
    const wanted = 'linalool 1.2 1.2, limonene 0.4 0.8, citral 0 0.1';
    const name = 'Linalool\n78-70-6\n1.2\nLimonene\n5989-27-5\n0.4 - 0.8\nCitral\n5392-40-5\n<0.1';
    const number = '78-70-6\nLinalool\n1.2\n5989-27-5\nLimonene\n0.4 - 0.8\n5392-40-5\nCitral\n<0.1';
    for (const stack of [name, number])
      expect(shares(`Allergen declaration\nName\nCAS\nShare %\n${stack}`)).to.equal(wanted);
  });

  it('takes no code for a level: codes that stand one below the other are no pairs', () => {
    const codes = '1\n2\n3\n4\n6\n8\n9\n10';
    for (const text of [
      `Certificate\nCategory\n${codes}\n0.12\n0.85\n0.43\n7.94\n0.03\n0.38\n3.18\n5.47`,
      `Certificate\nCategory\n${codes}`,
      'Certificate\nCategory\n1\n2\n3\n4\n5A\n2.31\n9\n3.18',
      'Certificate\nCategory\n1, 2\n3, 4\n5, 6',
    ])
      expect(levels(text), text).to.equal('');
    expect(levels('Certificate\nCategory\nMaximum %\n4\n20\n9\n5\n12\n100')).to.equal('4 20, 9 5, 12 100');
  });

  it('is no table where nothing says categories, codes go back and forth, or a table stands as it should', () => {
    for (const text of [
      'Order\nPallet\n1\n20\n2\n30\n3\n40',
      'Category\n9\n3.18\n4\n7.94\n5\n2.31',
      'Category 4\t7.9 %\nCategory 9\t3.18 %\nCategory 12\t5 %',
    ]) {
      const lines = linesFromText(text);
      expect(unstacked(lines), text).to.deep.equal(lines);
    }
  });
});
