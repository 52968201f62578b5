/** Names that answer to what was typed, typing errors forgiven. */
import { expect } from 'chai';
import fc from 'fast-check';
import { editsToBeginnings, forgiven, rank, trigrams, wordsOf } from '../../src/core/search/rank';
import { LIBRARY } from '../../src/library';

/** The plain definition, by trying every last edit; slow, and written apart. */
function slowEdits(a: string, b: string): number {
  if (a === '' || b === '') return a.length + b.length;
  const [x, y] = [a.slice(0, -1), b.slice(0, -1)];
  const options = [slowEdits(x, b) + 1, slowEdits(a, y) + 1, slowEdits(x, y) + Number(a.at(-1) !== b.at(-1))];
  if (a.length > 1 && b.length > 1 && a.at(-1) === b.at(-2) && a.at(-2) === b.at(-1))
    options.push(slowEdits(a.slice(0, -2), b.slice(0, -2)) + 1);
  return Math.min(...options);
}

const NAMES = LIBRARY.map(({ name }) => name);
/** How many names answer better to what was typed, or as well. */
const before = (typed: string, name: string) => {
  const words = wordsOf(typed);
  const own = rank(words, name);
  return own === 0 ? Infinity : NAMES.filter((other) => other !== name && rank(words, other) > own).length;
};

describe('one search', () => {
  it('counts edits as the plain definition does', () => {
    const word = fc.string({ unit: fc.constantFrom('a', 'b', 'c', 'A', 'ö'), maxLength: 6 });
    fc.assert(
      fc.property(word, word, fc.integer({ min: 0, max: 3 }), (a, b, most) => {
        const beginnings = Array.from({ length: b.length + 1 }, (_, letters) => b.slice(0, letters));
        const edits = beginnings.map((one) => Math.min(most + 1, slowEdits(a, one)));
        expect(editsToBeginnings(a, b, most)).to.deep.equal(edits);
      }),
      { numRuns: 300 },
    );
  });

  it('forgives nothing in three letters, one error in up to seven, two in more', () => {
    expect([1, 3, 4, 7, 8, 20].map(forgiven)).to.deep.equal([0, 0, 1, 1, 2, 2]);
    expect(rank(wordsOf('lav'), 'Lavender oil')).to.be.above(rank(wordsOf('lva'), 'Lavender oil'));
    expect(rank(wordsOf('lva'), 'Lavender oil')).to.equal(0);
    expect(rank(wordsOf('lavneder'), 'Lavender oil')).to.be.above(0);
    expect(rank(wordsOf('lamp kaolin'), 'Lamp Room')).to.equal(0);
    expect(rank(wordsOf('lamp'), 'Lamp Room')).to.be.above(rank(wordsOf('lamp'), 'Old Lamp'));
    expect(rank(wordsOf('café'), 'Cafe No. 5')).to.equal(rank(wordsOf('CAFE'), 'Cafe No. 5'));
    expect(rank(wordsOf('clay'), 'Kaolin', 'white clay')).to.be.within(0.3, 0.8);
    expect(rank([], 'Anything')).to.equal(0);
  });

  it('finds a material of the library among the first by its name with one letter wrong', () => {
    const long = NAMES.filter((name) => wordsOf(name).some((word) => word.length >= 5));
    let found = 0;
    let asked = 0;
    fc.assert(
      fc.property(
        fc.constantFrom(...long),
        fc.nat(),
        fc.constantFrom('out', 'swap', 'other', 'in'),
        (name, place, kind) => {
          const word = wordsOf(name).find((one) => one.length >= 5)!;
          const at = 1 + (place % (word.length - 2));
          const [head, tail] = [word.slice(0, at), word.slice(at)];
          const typed = {
            out: head + tail.slice(1),
            swap: head + (tail[1] ?? '') + tail[0]! + tail.slice(2),
            other: `${head}q${tail.slice(1)}`,
            in: `${head}q${tail}`,
          }[kind];
          asked++;
          if (before(typed, name) < 20) found++;
        },
      ),
      { numRuns: 300 },
    );
    expect(found / asked).to.be.at.least(0.97);
  });

  it('asks the index for pieces of three letters', () => {
    expect(trigrams(['lantern', 'ro'])).to.deep.equal(['lan', 'ant', 'nte', 'ter', 'ern']);
    expect(trigrams(['lmap'])).to.include.members(['lma', 'map', 'lam', 'amp']);
    expect(trigrams(['aaaa'])).to.deep.equal(['aaa']);
  });
});
