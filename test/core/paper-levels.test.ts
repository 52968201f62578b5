/**
 * Certificates as suppliers write them, put down before the reader was tried on them: the level of bar soap is right, asked
 * about, or left to be typed; none is wrong without a word.
 */
import { expect } from 'chai';
import { linesFromText } from '../../src/core/paperwork/page';
import { readPaper } from '../../src/core/paperwork/read';
import { knownConstituents } from '../../src/library/constituents';
import { DECLARATIONS, PAPERS } from '../support/level-papers';

/** At least so many of them are read without a question. */
const LEAST_RIGHT = 40;

const read = (text: string) => readPaper({ lines: linesFromText(text) }, knownConstituents);

describe('levels on papers of many kinds', () => {
  let right = 0;
  for (const [name, wanted, text] of PAPERS)
    it(`${name}: nothing is taken wrong without a word`, () => {
      const { categories, questions } = read(text);
      const nine = categories.find(({ value }) => value.category === '9');
      if (nine && nine.question === null) {
        expect(wanted).to.not.equal(null);
        expect(nine.value.maxPct).to.be.closeTo(wanted!, 1e-9);
        right++;
      } else if (nine) expect(nine.question).to.not.equal('');
      else expect(questions).to.not.deep.equal([]);
    });

  it('most are read without a question', () => {
    expect(right).to.be.at.least(LEAST_RIGHT);
  });

  it('says what stands beside the category where it is no level by itself', () => {
    const of = (name: string) => read(PAPERS.find(([one]) => one === name)![2]).questions.join(' ');
    expect(of('NR')).to.include('Category 9 says “NR”');
    expect(of('not supported')).to.include('Category 9 says “not supported”');
    expect(of('over hundred')).to.include('Category 9 says “350”');
  });

  for (const [name, shares, text] of DECLARATIONS)
    it(`shares of a declaration, ${name}: none is taken wrong without a word`, () => {
      const { rows, questions } = read(text);
      for (const [id, wanted] of Object.entries(shares)) {
        const row = rows.find(({ constituent }) => constituent === id);
        if (row?.question === null) expect(row.typicalPct).to.be.closeTo(wanted ?? NaN, 1e-9);
        else if (!row) expect(questions).to.not.deep.equal([]);
      }
    });
});
