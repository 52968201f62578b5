/** Pictures of pages: by how much they lean, and what cleaning does to them. */
import { expect } from 'chai';
import { withoutRules } from '../../src/core/paperwork/rules-out';
import { clean, skewOf, type GreyPicture } from '../../src/core/paperwork/straighten';

const WIDTH = 900;
const HEIGHT = 700;

/** A page of even lines of short strokes that lean by so many degrees, with ink and paper of given greys. */
function page(degrees: number, ink = 40, paper = 210): GreyPicture {
  const grey = new Uint8ClampedArray(WIDTH * HEIGHT).fill(paper);
  const tangent = Math.tan((degrees * Math.PI) / 180);
  for (let line = 60; line < HEIGHT - 60; line += 34) {
    for (let x = 80; x < WIDTH - 80; x++) {
      if (x % 29 < 8) continue;
      const foot = Math.round(line + (x - WIDTH / 2) * tangent);
      for (let y = foot; y < foot + 9; y++) if (y >= 0 && y < HEIGHT) grey[y * WIDTH + x] = ink;
    }
  }
  return { width: WIDTH, height: HEIGHT, grey };
}

describe('a picture of a page', () => {
  it('tells by how many degrees its lines lean, to a quarter of a degree', () => {
    for (const degrees of [-5, -2, -0.75, 0, 1.25, 2, 4.5])
      expect(skewOf(page(degrees)), String(degrees)).to.be.closeTo(degrees, 0.3);
  });

  it('does not lean where there is nothing on it', () => {
    expect(skewOf({ width: 60, height: 60, grey: new Uint8ClampedArray(3600).fill(200) })).to.equal(0);
  });

  it('is cleaned to white paper and black ink', () => {
    const picture = page(0, 90, 180);
    clean(picture);
    expect(new Set(picture.grey)).to.deep.equal(new Set([0, 255]));
  });

  describe('with a ruled table on it', () => {
    /** Ink of letters alone, and the same with rules of a thickness around every one of them. */
    function ruled(thickPx: number, isDouble = false): { letters: GreyPicture; both: GreyPicture } {
      const letters = page(0, 0, 255);
      const grey = letters.grey.slice();
      const ink = (x: number, y: number) => (grey[y * WIDTH + x] = 0);
      for (let line = 46; line < HEIGHT - 46; line += 34)
        for (let x = 60; x < WIDTH - 60; x++)
          for (let y = 0; y < thickPx; y++) if (!isDouble || y !== 1) ink(x, line + y);
      for (let column = 60; column < WIDTH - 50; column += 260)
        for (let y = 46; y < HEIGHT - 46; y++)
          // Between letters, as columns are.
          for (let x = 0; x < thickPx; x++) ink(column - (column % 29) + 3 + x, y);
      return { letters, both: { width: WIDTH, height: HEIGHT, grey } };
    }

    it('loses its rules, crossings and all, and keeps its letters', () => {
      for (const [thick, isDouble] of [
        [1, false],
        [2, false],
        [4, false],
        [3, true],
      ] as const) {
        const { letters, both } = ruled(thick, isDouble);
        expect(withoutRules(both)).to.be.above(5000);
        let [left, lost] = [0, 0];
        both.grey.forEach((value, at) => {
          if (value < 200 && letters.grey[at] === 255) left++;
          if (value >= 200 && letters.grey[at] === 0) lost++;
        });
        const ink = letters.grey.filter((value) => value === 0).length;
        expect(left, `${thick} left`).to.equal(0);
        expect(lost / ink, `${thick} lost`).to.be.below(0.02);
      }
    });

    it('is left as it is where nothing is ruled', () => {
      const plain = page(0, 0, 255);
      const before = plain.grey.slice();
      expect(withoutRules(plain)).to.equal(0);
      expect(plain.grey).to.deep.equal(before);
    });
  });
});
