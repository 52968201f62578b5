import { expect } from 'chai';
import { layoutBand, netDigitHeightMm, STANDARD_BAND, type BandContent } from '../../src/core/labels/band';
import type { Metrics } from '../../src/core/labels/layout';

/** Letters half as wide as high: an x-height of half the size, digits of seven tenths. */
const METRICS: Metrics = {
  width: (text, _face, sizeMm) => [...text].length * sizeMm * 0.5,
  xHeight: () => 0.5,
  digitHeight: () => 0.7,
  missing: (text) => [...new Set(text)].filter((letter) => letter > '\u024f'),
};

const CONTENT: BandContent = {
  name: 'Night Mail',
  identity: 'Soap with grey clay',
  ingredients: 'Olea Europaea Fruit Oil, Aqua, Sodium Hydroxide, Parfum, Kaolin, Linalool',
  netMassG: 90,
  batchCode: 'NM-1',
  responsible: ['Signalbox Soap', 'Tollen Halt'],
};

const lay = (more: Partial<BandContent>, size = STANDARD_BAND) =>
  layoutBand({ ...CONTENT, ...more }, size, METRICS);

describe('band', () => {
  it('keeps every line within the band and every letter at its least height', () => {
    const { texts, findings, widthMm, heightMm } = lay({});
    expect(findings).to.deep.equal([]);
    for (const { text, face, sizeMm, xMm, yMm } of texts) {
      expect(xMm + METRICS.width(text, face, sizeMm), text).to.be.at.most(
        widthMm - STANDARD_BAND.marginMm + 1e-9,
      );
      expect(yMm, text).to.be.within(STANDARD_BAND.marginMm, heightMm - STANDARD_BAND.marginMm);
      expect(sizeMm * METRICS.xHeight(face), text).to.be.at.least(1.2 - 1e-9);
    }
    const net = texts.find(({ element }) => element === 'net')!;
    expect(net.sizeMm * METRICS.digitHeight('strong')).to.be.closeTo(3, 1e-9);
  });

  it('prints every word of the list, in order', () => {
    const list = lay({}).texts.filter(({ element }) => element === 'ingredients');
    expect(list.map(({ text }) => text).join(' ')).to.equal(`Ingredients: ${CONTENT.ingredients}`);
  });

  it('asks for higher digits the heavier the bar', () => {
    expect([50, 50.1, 200, 201, 1000, 1001].map(netDigitHeightMm)).to.deep.equal([2, 3, 3, 4, 4, 6]);
  });

  it('says by how much a text does not fit, and never shrinks or cuts it', () => {
    const long = Array.from({ length: 120 }, (_, i) => `Ingredient ${i}`).join(', ');
    const { findings, texts } = lay({ ingredients: long });
    expect(findings.map(({ code, element }) => `${element} ${code}`)).to.deep.equal([
      'ingredient list does-not-fit',
    ]);
    expect(findings[0]!.message).to.match(/needs \d+\.\d mm more height/);
    expect(
      texts
        .filter(({ element }) => element === 'ingredients')
        .map(({ text }) => text)
        .join(' '),
    ).to.contain('Ingredient 119');
    expect(lay({ name: 'x'.repeat(400) }).findings.map(({ element }) => element)).to.include('name');
  });

  it('names what is missing and what no font can draw', () => {
    const codes = (more: Partial<BandContent>) =>
      lay(more).findings.map(({ element, code }) => `${element} ${code}`);
    expect(codes({ responsible: [], batchCode: ' ' })).to.deep.equal([
      'responsible missing',
      'batchCode missing',
    ]);
    expect(codes({ name: '夜行' })).to.deep.equal(['text cannot-draw']);
  });
});
