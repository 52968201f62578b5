/** Least heights of letters and digits: by mass, by area or side, and by the face of the package where it was measured. */
import { expect } from 'chai';
import { formatFault, planFormat, proposedFace, SHAPES, USUAL_FORMATS } from '../../src/core/labels/formats';
import { leastDigits, leastLetters } from '../../src/core/labels/heights';
import { near } from '../support/request';

describe('heights', () => {
  const plan = planFormat(USUAL_FORMATS.band);
  it('of digits follow mass, area or longest side', () => {
    expect([50, 51, 200, 201, 1000].map((g) => leastDigits('EU', g, plan).mm)).to.deep.equal([2, 3, 3, 4, 4]);
    const sticker = (widthMm: number, heightMm: number) =>
      planFormat({ shape: 'sticker', widthMm, heightMm, marginMm: 2 });
    near(leastDigits('US', 90, sticker(50.8, 63.5)).mm, 25.4 / 16); // 5 sq in
    near(leastDigits('US', 90, sticker(50.8, 65)).mm, 25.4 / 8);
    expect(leastDigits('CA', 90, sticker(40, 80)).mm).to.equal(1.6); // 32 cm²
    expect(leastDigits('CA', 90, sticker(41, 80)).mm).to.equal(3.2);
    expect([120, 121, 231].map((side) => leastDigits('AU', 90, sticker(side, 50)).mm)).to.deep.equal([
      2, 2.5, 3.3,
    ]);
  });

  it('of digits follow the face of the package where it was measured, and say so', () => {
    const sticker = { ...USUAL_FORMATS.sticker, widthMm: 40, heightMm: 80 };
    const larger = planFormat({ ...sticker, face: { widthMm: 60, heightMm: 80 } });
    expect(leastDigits('CA', 90, planFormat(sticker))).to.deep.equal({
      mm: 1.6,
      source: 'by area of the face, taken from the shape',
    });
    expect(leastDigits('CA', 90, larger)).to.deep.equal({
      mm: 3.2,
      source: 'by area of the face, measured 60 × 80 mm',
    });
    expect(
      leastDigits('AU', 90, planFormat({ ...sticker, face: { widthMm: 121, heightMm: 10 } })).mm,
    ).to.equal(2.5);
    for (const shape of SHAPES) {
      const format = USUAL_FORMATS[shape];
      const { widthMm, heightMm } = proposedFace(format);
      expect((widthMm * heightMm) / planFormat(format).frontAreaMm2).to.be.within(0.97, 1.03);
    }
    expect(formatFault({ ...sticker, face: { widthMm: 0, heightMm: 80 } })).to.match(/face/);
  });

  it('of letters follow the market; a small US package may use half', () => {
    near(
      leastLetters('US', planFormat({ ...USUAL_FORMATS.sticker, widthMm: 90, heightMm: 60 }), 'sticker').mm,
      25.4 / 32,
    );
    near(
      leastLetters('US', planFormat({ ...USUAL_FORMATS.band, widthMm: 210, heightMm: 60 }), 'band').mm,
      25.4 / 16,
    );
    expect(leastLetters('CA', plan, 'band').mm).to.equal(1.6);
    expect(leastLetters('EU', plan, 'notice').mm).to.be.above(leastLetters('EU', plan, 'band').mm);
  });
});
