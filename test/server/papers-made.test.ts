/** Papers of every layout and tongue, made up by another hand than the demo's, printed through Chromium and read. */
import { expect } from 'chai';
import { makePaper } from '../papers/layouts';
import { Press } from '../papers/print';
import { marksOf, tally, type Mark } from '../papers/score';
import { truthOf } from '../papers/truth';
import { many } from '../support/many';

/** Seeds that no rule of the reader was written against. */
const FIRST_SEED = 61_000;
const COUNT = many(14, 40);

describe('papers made up by another hand', () => {
  it('are read field by field, and nothing wrong goes unasked', async () => {
    const press = await Press.open();
    const all: Mark[] = [];
    try {
      for (let seed = FIRST_SEED; seed < FIRST_SEED + COUNT; seed++) {
        const paper = makePaper(truthOf(seed));
        all.push(...marksOf(paper, await press.read(paper.html)));
      }
    } finally {
      await press.close();
    }
    const recall = (field: string) => {
      const { right, missing, asked, silent } = tally(all).get(field)!;
      return right / (right + missing + asked + silent);
    };
    expect(recall('nine')).to.be.at.least(0.98);
    for (const field of ['row', 'category', 'material', 'number', 'issuedOn', 'edition'])
      expect(recall(field), field).to.be.at.least(0.97);
    expect(all.filter(({ outcome }) => outcome === 'silent')).to.deep.equal([]);
  });
});
