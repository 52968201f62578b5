/** Words of the house: sizes and devices as they are said. */
import { expect } from 'chai';
import { deviceInWords, sizeInWords } from '../../src/islands/house/words';

describe('the words of the house', () => {
  it('say sizes shortly', () => {
    expect([0, 999, 1000, 1_234_567, 84_000_000, 3e12].map(sizeInWords)).to.deep.equal([
      '0 bytes',
      '999 bytes',
      '1.0 kB',
      '1.2 MB',
      '84 MB',
      '3000 GB',
    ]);
  });

  it('say what a device is, and that one does not say', () => {
    const android = 'Mozilla/5.0 (Linux; Android 14; SM-X200) AppleWebKit/537.36 Chrome/126.0 Safari/537.36';
    const ipad =
      'Mozilla/5.0 (iPad; CPU OS 17_5 like Mac OS X) AppleWebKit/605.1.15 Version/17.5 Safari/604.1';
    expect(deviceInWords(android)).to.equal('Chrome on Android');
    expect(deviceInWords(ipad)).to.equal('Safari on an iPad');
    expect(deviceInWords('')).to.equal('a browser on a device that does not say what it is');
  });
});
