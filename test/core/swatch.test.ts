/** A bar's colour from photographs on a grey card. */
import { expect } from 'chai';
import fc from 'fast-check';
import { colourMoved, labOf, swatchOf, type Rgb } from '../../src/core/curing/swatch';

const SIDE = 40;
const linear = (value: number) =>
  value / 255 <= 0.04045 ? value / 255 / 12.92 : ((value / 255 + 0.055) / 1.055) ** 2.4;
const shown = (light: number) =>
  Math.round(255 * (light <= 0.0031308 ? 12.92 * light : 1.055 * Math.min(1, light) ** (1 / 2.4) - 0.055));

/** A picture: a bar in the middle of a card, both under a light that is so strong in each channel. */
function picture(bar: Rgb, light: Rgb, card: Rgb = [118, 118, 118]): Uint8ClampedArray {
  const pixels = new Uint8ClampedArray(SIDE * SIDE * 4).fill(255);
  for (let y = 0; y < SIDE; y++)
    for (let x = 0; x < SIDE; x++) {
      const isBar = x > SIDE * 0.25 && x < SIDE * 0.75 && y > SIDE * 0.25 && y < SIDE * 0.75;
      const of = isBar ? bar : card;
      for (let channel = 0; channel < 3; channel++)
        pixels[4 * (y * SIDE + x) + channel] = shown(linear(of[channel]!) * light[channel]!);
    }
  return pixels;
}

describe('the colour of a bar', () => {
  it('is what it is in even light, whatever light it was photographed in', () => {
    const level = fc.integer({ min: 40, max: 160 });
    const light = fc.double({ min: 0.5, max: 1.2, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(level, level, level), fc.tuple(light, light, light), (bar, lamp) => {
        const found = swatchOf(picture(bar, lamp), SIDE, SIDE)!;
        // Pictures hold whole steps of 255: dark ones tell a little less.
        for (const [channel, value] of found.entries()) expect(value).to.be.closeTo(bar[channel]!, 3);
      }),
    );
  });

  it('is not told where the frame is no grey card', () => {
    for (const card of [
      [5, 5, 5],
      [250, 250, 250],
      [200, 40, 40],
    ] as const)
      expect(swatchOf(picture([120, 100, 80], [1, 1, 1], card), SIDE, SIDE), String(card)).to.equal(null);
  });

  it('is told in L*a*b*, by figures worked elsewhere', () => {
    const of = (colour: Rgb) => labOf(colour).map((value) => Number(value.toFixed(1)) || 0);
    expect(of([255, 255, 255])).to.deep.equal([100, 0, 0]);
    expect(of([255, 0, 0])).to.deep.equal([53.2, 80.1, 67.2]);
    expect(of([0, 0, 255])).to.deep.equal([32.3, 79.2, -107.9]);
  });

  it('moves in words: vanilla browns, chlorophyll fades, and a bar that stayed says so', () => {
    expect(colourMoved([222, 210, 190], [150, 115, 80]).words).to.equal('darker, yellower, redder');
    expect(colourMoved([110, 140, 80], [170, 165, 120]).words).to.equal('less green, lighter, less yellow');
    expect(colourMoved([150, 140, 130], [151, 141, 131])).to.include({ words: 'no change to be seen' });
    const level = fc.integer({ min: 0, max: 255 });
    const colour = fc.tuple(level, level, level);
    fc.assert(fc.property(colour, colour, (a, b) => colourMoved(a, b).words !== ''));
  });
});
