/** Points that a reader of pictures loses: found in a figure's own pixels, or asked about. */
import { expect } from 'chai';
import { withDoubts } from '../../src/core/paperwork/doubts';
import { linesFromItems } from '../../src/core/paperwork/page';
import { partOf, pointIn } from '../../src/core/paperwork/points';
import type { GreyPicture } from '../../src/core/paperwork/straighten';
import { seeded } from '../support/generate';

const [PAPER, INK] = [225, 60];

/** Bars for digits, with what else stands on the picture; grain of a photograph over all of it. */
function drawn(marks: { x: number; y: number; w: number; h: number }[], grain = 0, seed = 1): GreyPicture {
  const [width, height] = [120, 50];
  const random = seeded(seed);
  const grey = Uint8Array.from({ length: width * height }, (_, at) => {
    const [x, y] = [at % width, Math.floor(at / width)];
    const isInk = marks.some((one) => x >= one.x && x < one.x + one.w && y >= one.y && y < one.y + one.h);
    return Math.max(0, Math.min(255, (isInk ? INK : PAPER) + grain * (random() - 0.5)));
  });
  return { width, height, grey };
}
const digit = (x: number) => ({ x, y: 8, w: 14, h: 30 });
const dot = (x: number, size = 4) => ({ x, y: 38 - size, w: size, h: size });

describe('a point in a figure’s own pixels', () => {
  it('is found between its digits, a comma below the line too, in grain and in small print', () => {
    expect(pointIn(drawn([digit(20), digit(52)]))).to.equal(null);
    const found = pointIn(drawn([digit(20), dot(40), digit(52)]))!;
    expect([Math.round(found.x), found.isClear]).to.deep.equal([42, true]);
    expect(pointIn(drawn([digit(20), { x: 40, y: 34, w: 4, h: 10 }, digit(52)]))).to.include({
      isClear: true,
    });
    for (let seed = 1; seed <= 20; seed++)
      expect(pointIn(drawn([digit(20), dot(40), digit(52)], 90, seed)), `${seed}`).to.include({
        isClear: true,
      });
  });

  it('is none above the foot, outside the digits, or one of several specks; a speck is not clear', () => {
    expect(pointIn(drawn([digit(20), { x: 40, y: 14, w: 4, h: 4 }, digit(52)]))).to.equal(null);
    expect(pointIn(drawn([dot(8), digit(20), digit(52)]))).to.equal(null);
    expect(pointIn(drawn([digit(20), dot(37), dot(45), digit(58)]))).to.equal(null);
    expect(pointIn(drawn([digit(20), dot(41, 2), digit(52)]))).to.include({ isClear: false });
    expect(pointIn(drawn([]))).to.equal(null);
  });

  it('is looked for in a part of the page', () => {
    const whole = drawn([digit(20), dot(40), digit(52)]);
    const part = partOf(whole, { left: 15, top: 2, right: 300, bottom: 46 });
    expect([part.width, part.height]).to.deep.equal([105, 44]);
    expect(pointIn(part)!.x).to.be.closeTo(26.5, 1);
    expect(partOf(whole, { left: 200, top: 0, right: 210, bottom: 10 }).width).to.equal(0);
  });
});

describe('a level whose point may have been lost', () => {
  const levels = (nine: number, others: number[]) => [
    { value: { category: '9', maxPct: nine }, line: 0, said: '', question: null },
    ...others.map((maxPct, at) => ({
      value: { category: `${at + 1}`, maxPct },
      line: at + 1,
      said: '',
      question: null,
    })),
  ];
  const item = (text: string, more = {}) => ({ text, xPt: 0, yPt: 20, widthPt: 30, heightPt: 10, ...more });
  const page = (text: string, more = {}) => ({ lines: linesFromItems(1, [item(text, more)]) });
  const nine = (...given: Parameters<typeof withDoubts>) => {
    const { value, others = [], isOpen = false } = withDoubts(...given)[0]!;
    return { readings: [value.maxPct, ...others.map(({ maxPct }) => maxPct)], isOpen };
  };

  it('is taken where its pixels, the other categories and the paper on file agree', () => {
    const seen = page('7.5', { other: '75', isClear: true });
    expect(nine(levels(7.5, [1.25, 1.25, 3]), seen, null)).to.deep.equal({ readings: [7.5], isOpen: false });
    expect(nine(levels(7.5, [1.25]), seen, 6.2)).to.deep.equal({ readings: [7.5], isOpen: false });
  });

  it('is asked about, and not taken, where two readings fit: by its pixels, by what is known, or by nothing', () => {
    const asked = { readings: [7.5, 75], isOpen: true };
    expect(nine(levels(7.5, [1.25]), page('7.5', { other: '75', isClear: false }), null)).to.deep.equal(
      asked,
    );
    expect(nine(levels(7.5, [80, 90]), page('7.5', { other: '75', isClear: true }), null)).to.deep.equal(
      asked,
    );
    expect(nine(levels(7.5, []), page('7.5', { other: '75', isClear: true }), null)).to.deep.equal(asked);
    expect(nine(levels(7.5, [1.2]), page('7.5', { other: '75', isClear: true }), 70)).to.deep.equal(asked);
    expect(nine(levels(75, [1.25, 2]), page('75'), null)).to.deep.equal(asked);
    expect(nine(levels(75, []), page('75'), 6.2)).to.deep.equal(asked);
  });

  it('stands where the other reading were more than the whole; a sign read as a digit is asked about', () => {
    const lost = page('3.18 %', { other: '318', isClear: false });
    expect(nine(levels(3.18, []), lost, null)).to.deep.equal({ readings: [3.18], isOpen: false });
    const signs = (text: string) => ({
      lines: [text, '1.25 %', '2.5 %'].map((one) => linesFromItems(1, [item(one)])[0]!),
    });
    const open = { readings: [11.05, 11.056], isOpen: true };
    expect(nine(levels(11.056, [1.25, 2.5]), signs('11.056'), null)).to.deep.equal(open);
    expect(nine(levels(11.05, [1.25, 2.5]), signs('11.05 %'), null).isOpen).to.equal(false);
    // Where no level of the paper has a sign, one with more places than any other is.
    const bare = (text: string) => ({
      lines: [text, '1.25', '2.5'].map((one) => linesFromItems(1, [item(one)])[0]!),
    });
    expect(nine(levels(11.056, [1.25, 2.5]), bare('11.056'), null)).to.deep.equal(open);
    expect(nine(levels(11.05, [1.25, 2.5]), bare('11.05'), null).isOpen).to.equal(false);
    expect(nine(levels(0.125, [1.255, 2.5]), bare('0.125'), null).isOpen).to.equal(false);
  });

  it('is left alone where nothing speaks for a point, and where it is no figure', () => {
    expect(nine(levels(75, [60, 80]), page('75'), null)).to.deep.equal({ readings: [75], isOpen: false });
    expect(nine(levels(6.27, [1.25]), page('6.27'), null)).to.deep.equal({ readings: [6.27], isOpen: false });
    expect(nine(levels(100, [1.25]), page('no restriction'), 3)).to.deep.equal({
      readings: [100],
      isOpen: false,
    });
  });

  it('keeps what was read beside it when runs of text become cells', () => {
    const [line] = linesFromItems(1, [
      item('7.5', { other: '75', isClear: true }),
      item('%', { xPt: 32, widthPt: 8 }),
    ]);
    expect(line!.cells[0]).to.include({ text: '7.5 %', other: '75 %', isClear: true });
  });
});
