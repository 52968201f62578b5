/** Ways in which makers say how they make: lye stock by parts, a mould by its inside. */
import { expect } from 'chai';
import { lyeStockWords, readLyeStock } from '../../src/core/making/lye-stock';
import { blockMl } from '../../src/core/making/mould-size';

describe('a lye stock', () => {
  it('is read in parts or in percent, and nothing else is taken for one', () => {
    for (const text of ['1 to 1', '1:1', '1 : 1', '50', '50 %', '50%', '1/1', '1 zu 1', '2 to 2'])
      expect(readLyeStock(text), text).to.equal(50);
    expect(readLyeStock('1 to 2')).to.be.closeTo(100 / 3, 1e-9);
    expect(readLyeStock('1 to 1,5')).to.be.closeTo(40, 1e-9);
    expect(readLyeStock('')).to.equal(null);
    for (const text of ['0', '100', '120', 'strong', '1 to 0', '-5', 'to 1'])
      expect(Number.isNaN(readLyeStock(text)), text).to.equal(true);
  });

  it('is said as makers say it, where it is such a ratio', () => {
    expect(lyeStockWords(50)).to.equal('1 to 1 (50 %)');
    expect(lyeStockWords(40)).to.equal('1 to 1.5 (40 %)');
    expect(lyeStockWords(100 / 3)).to.equal('1 to 2 (33.3 %)');
    expect(lyeStockWords(47)).to.equal('47 %');
  });
});

describe('a mould by its inside', () => {
  it('holds length times width times height', () => {
    expect(blockMl(250, 80, 60)).to.equal(1200);
    for (const one of [0, NaN, -1]) expect(Number.isNaN(blockMl(one, 80, 60))).to.equal(true);
  });
});
