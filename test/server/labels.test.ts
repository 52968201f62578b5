/** Fonts as measures, pictures made harmless, barcodes, and words for a shop. */
import { expect } from 'chai';
import fc from 'fast-check';
import { labelContent } from '../../src/core/labels/content';
import { USUAL_FORMATS } from '../../src/core/labels/formats';
import { layoutLabel } from '../../src/core/labels/label';
import { OPEN_JAR, OPEN_JAR_WIDTH, openJarPath } from '../../src/core/labels/open-jar';
import { emptyLayout } from '../../src/core/labels/layout';
import type { LinearCode } from '../../src/core/labels/code';
import { barcodeFor, isGtin } from '../../src/server/labels/barcode';
import { fontMetrics, glyphPaths } from '../../src/server/labels/fonts';
import { labelsPerSheet, layoutPdf } from '../../src/server/labels/pdf';
import { cleanSvg } from '../../src/server/labels/svg-logo';
import { layoutSvg } from '../../src/server/labels/svg';
import { labelHtml, labelText } from '../../src/server/labels/words';
import { near } from '../support/request';

describe('the shipped fonts', () => {
  it('measure in proportion to the size, and a text as long as its parts or shorter by kerning', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('display', 'text', 'strong'),
        fc.integer({ min: 1, max: 40 }),
        (face, size) => {
          const one = fontMetrics.width('Night Mail', face as 'text', 1);
          near(fontMetrics.width('Night Mail', face as 'text', size), one * size);
          const parts =
            fontMetrics.width('Night', face as 'text', 1) + fontMetrics.width('Mail', face as 'text', 1);
          expect(one).to.be.above(parts);
        },
      ),
      { numRuns: 20 },
    );
    for (const face of ['display', 'text', 'strong'] as const) {
      expect(fontMetrics.xHeight(face)).to.be.within(0.4, 0.6);
      expect(fontMetrics.digitHeight(face)).to.be.within(0.6, 0.8);
    }
  });

  it('know what they can draw: French yes, other scripts and emoji no', () => {
    expect(fontMetrics.missing('Éviter le contact avec les yeux ; œuf, ß, ø, ł')).to.deep.equal([]);
    expect(fontMetrics.missing('石鹸 🧼')).to.include.members(['石', '🧼']);
  });

  it('draw the open jar that no font holds, as wide and high as a letter, beside the months', async () => {
    expect(fontMetrics.missing(OPEN_JAR)).to.deep.equal([]);
    near(
      fontMetrics.width(`${OPEN_JAR}12M`, 'text', 3),
      3 * OPEN_JAR_WIDTH + fontMetrics.width('12M', 'text', 3),
    );
    const content = labelContent({
      market: 'EU',
      regime: 'cosmetic',
      name: 'Night Mail',
      identity: { en: 'Soap' },
      use: {},
      cautions: {},
      text: '',
      ingredients: 'Sodium Olivate',
      netMassG: 80,
      responsible: ['Us'],
      batchCode: '1',
      durability: { months: 36, endsOn: null, openMonths: 12 },
    });
    const look = {
      paper: '#ffffff',
      ink: '#000000',
      nameFace: 'display',
      logo: null,
      barcode: null,
    } as const;
    const layout = layoutLabel(content, USUAL_FORMATS.band, look, 80, fontMetrics);
    const { text, sizeMm, xMm, yMm } = layout.texts.find(({ element }) => element === 'durability')!;
    expect(text).to.equal(`${OPEN_JAR}12M`);
    expect(layoutSvg(layout, 'A label', new Map(), false)).to.contain(openJarPath(sizeMm, xMm, yMm));
    expect(
      Buffer.from(await layoutPdf(layout, 'A label'))
        .subarray(0, 5)
        .toString(),
    ).to.equal('%PDF-');
    // Words stay words where they are read.
    expect(labelText(content)).to.contain('Opened: 12 M').and.to.not.contain(OPEN_JAR);
  });

  it('give outlines that stand where the text stands', () => {
    const numbers = (d: string) => [...d.matchAll(/-?\d+(?:\.\d+)?/g)].map(([text]) => Number(text));
    const d = glyphPaths('H', 'text', 10, 100, 50);
    const xs = numbers(d).filter((_, index) => index % 2 === 0);
    expect(Math.min(...numbers(d))).to.be.above(40);
    expect(Math.min(...xs)).to.be.at.least(40);
    expect(glyphPaths('', 'text', 10, 0, 0)).to.equal('');
  });
});

describe('a picture in SVG', () => {
  const HARMLESS = /^<svg xmlns="http:\/\/www\.w3\.org\/2000\/svg"/;

  it('keeps shapes and paints, also out of styles, and its proportions', () => {
    const clean = cleanSvg(
      '<svg viewBox="0 0 30 10"><g style="fill: red; stroke-width:2"><path d="M0 0L1 1"/></g></svg>',
    )!;
    expect(clean.widthOverHeight).to.equal(3);
    expect(clean.svg)
      .to.match(HARMLESS)
      .and.to.contain('<g fill="red" stroke-width="2"><path d="M0 0L1 1"></path></g>');
    expect(
      cleanSvg('<svg width="20mm" height="10mm"><rect width="2" height="2"/></svg>')!.widthOverHeight,
    ).to.equal(2);
  });

  it('is refused where it shows nothing, has no size, declares entities or is no SVG', () => {
    for (const text of [
      '',
      'soap',
      '<html/>',
      '<svg viewBox="0 0 1 1"/>',
      '<svg><path d="M0 0"/></svg>',
      '<svg viewBox="0 0 0 0"><path d="M0 0"/></svg>',
      '<svg viewBox="0 0 1 1"><script>1</script></svg>',
      '<!DOCTYPE svg><svg viewBox="0 0 1 1"><path d="M0 0"/></svg>',
      `<svg viewBox="0 0 1 1"><path d="${'M0 0'.repeat(120_000)}"/></svg>`,
    ])
      expect(cleanSvg(text), text.slice(0, 60)).to.equal(null);
  });

  it('never lets through a script, a handler or an address, whatever it is made of', () => {
    const element = fc.constantFrom(
      'g',
      'path',
      'rect',
      'script',
      'a',
      'image',
      'use',
      'style',
      'foreignObject',
      'animate',
      'set',
      'iframe',
    );
    const attribute = fc.constantFrom(
      'onload="alert(1)"',
      'onclick="x()"',
      'href="javascript:alert(1)"',
      'xlink:href="http://x"',
      'style="fill:url(http://x);background:url(data:x)"',
      'fill="url(javascript:x)"',
      'd="M0 0"',
      'fill="url(#a)"',
      'width="1"',
    );
    const around = (children: fc.Arbitrary<string[]>) =>
      fc
        .tuple(element, fc.uniqueArray(attribute, { maxLength: 3 }), children)
        .map(([name, attributes, inner]) => `<${name} ${attributes.join(' ')}>${inner.join('')}</${name}>`);
    const leaf = around(fc.constant([]));
    const tree = around(fc.array(around(fc.array(leaf, { maxLength: 2 })), { maxLength: 2 }));
    fc.assert(
      fc.property(fc.array(tree, { minLength: 1, maxLength: 3 }), (children) => {
        const clean = cleanSvg(
          `<svg viewBox="0 0 9 9" onload="alert(0)">${children.join('')}<rect width="1" height="1"/></svg>`,
        );
        if (!clean) return;
        expect(clean.svg.replace('http://www.w3.org/2000/svg', '')).to.not.match(
          /script|alert|javascript|http|data:|href|foreign|iframe|animate|<set|<a[ >]|<use|<image|\son\w+=/i,
        );
      }),
      { numRuns: 200 },
    );
  });
});

const PLAIN = { barcode: 'batch' as const, gtin: '', batchCode: '', pageAt: null };

describe('barcodes', () => {
  it('are made of a GTIN whose last digit checks, or of a plain batch code', () => {
    expect(isGtin('4006381333931')).to.equal(true);
    expect(['4006381333932', '400638133393', 'abc', ''].some(isGtin)).to.equal(false);
    const gtin = barcodeFor({ ...PLAIN, barcode: 'gtin', gtin: '4006381333931' });
    expect(gtin.ok && (gtin.bars as LinearCode).modules.reduce((sum, one) => sum + one, 0)).to.equal(95);
    const batch = barcodeFor({ ...PLAIN, batchCode: 'NM-2611' });
    expect(batch.ok && (batch.bars as LinearCode).modules.length % 2).to.equal(1);
    for (const batchCode of ['', 'é', 'x'.repeat(30)])
      expect(barcodeFor({ ...PLAIN, batchCode }).ok).to.equal(false);
    expect(barcodeFor({ ...PLAIN, barcode: 'none', gtin: 'x' })).to.deep.equal({ ok: true, bars: null });
  });
});

describe('what leaves the house', () => {
  const look = { paper: '#ffffff', ink: '#000000' };

  it('takes as many labels on a sheet as fit, turned where that holds more', () => {
    const on = (wide: number, high: number) => labelsPerSheet(emptyLayout(wide, high, look), 'A4');
    expect(on(90, 60)).to.deep.equal({ columns: 2, rows: 4, isTurned: false });
    expect(on(210, 50)).to.deep.equal({ columns: 1, rows: 3, isTurned: true });
    const none = on(300, 300);
    expect(none.columns * none.rows).to.equal(0);
  });

  it('escapes what the maker wrote, in HTML and in SVG', () => {
    const content = labelContent({
      market: 'UK',
      regime: 'cosmetic',
      name: 'A <b>bold</b> & "quoted" bar',
      identity: { en: 'Soap' },
      use: {},
      cautions: {},
      text: '<script>alert(1)</script>',
      ingredients: 'Aqua',
      netMassG: 80,
      responsible: ['Us'],
      batchCode: '1',
      durability: { months: 36, endsOn: null },
    });
    const html = labelHtml(content);
    expect(html).to.contain('&lt;b&gt;bold&lt;/b&gt; &amp; &quot;quoted&quot;').and.to.not.contain('<script');
    expect(labelText(content).split('\n').slice(0, 3)).to.deep.equal([
      'A <b>bold</b> & "quoted" bar',
      'Soap',
      '80 g',
    ]);
    const svg = layoutSvg(emptyLayout(20, 20, look), '<script>"x"</script>', new Map(), false);
    expect(svg).to.contain('<title>&lt;script&gt;&quot;x&quot;&lt;/script&gt;</title>');
  });
});
