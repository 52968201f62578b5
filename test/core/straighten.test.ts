/** Pictures of pages: by how much they lean, and what cleaning does to them. */
import { expect } from 'chai';
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
});
