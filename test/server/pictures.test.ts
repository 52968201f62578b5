/** The maker's picture: damaged, bombs and false lengths are refused before they are kept, and an old one kills nothing. */
import { deflateSync, crc32 } from 'node:zlib';
import type { APIRoute } from 'astro';
import { expect } from 'chai';
import fc from 'fast-check';
import { PNG } from 'pngjs';
import { isSoundPng, plainPng } from '../../src/server/labels/png';
import { readLogo } from '../../src/server/labels/logo';
import { findLogo, findWrap, putLogo } from '../../src/server/repositories/wraps';
import { labelFile } from '../../src/server/services/wrap/labels';
import { labelFor, saveProductWrap } from '../../src/server/services/wrap/wrap';
import { call } from './call';
import { useDemo } from './database';

function chunk(type: string, data: Buffer, length = data.length): Buffer {
  const named = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const frame = Buffer.alloc(4);
  frame.writeUInt32BE(length);
  const sum = Buffer.alloc(4);
  sum.writeUInt32BE(crc32(named));
  return Buffer.concat([frame, named, sum]);
}

interface Made {
  width?: number;
  height?: number;
  depth?: number;
  colour?: number;
  interlace?: number;
  pixels?: Buffer;
  more?: Buffer[];
}

/** A PNG put together by hand, sound or not. */
function png({
  width = 4,
  height = 3,
  depth = 8,
  colour = 2,
  interlace = 0,
  pixels,
  more = [],
}: Made = {}): Buffer {
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header.set([depth, colour, 0, 0, interlace], 8);
  const samples = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 }[colour] ?? 1;
  const rowBytes = 1 + Math.ceil((width * samples * depth) / 8);
  const data = pixels ?? Buffer.alloc(rowBytes * height);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', header),
    ...more,
    chunk('IDAT', deflateSync(data)),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

/** A picture as another encoder writes it, with every kind of pixel. */
function drawn(width: number, height: number, options: object = {}): Buffer {
  const made = new PNG({ width, height });
  for (let at = 0; at < made.data.length; at++) made.data[at] = (at * 37) % 256;
  return PNG.sync.write(made, options);
}

describe('a picture in PNG', () => {
  it('is kept in the plainest form, whatever form it came in, with its proportions', () => {
    const palette = chunk('PLTE', Buffer.from([255, 0, 0, 0, 255, 0]));
    const transparent = chunk('tRNS', Buffer.from([0, 255]));
    const forms = [
      png(),
      png({ colour: 3, more: [palette, transparent] }),
      png({ colour: 0, depth: 16 }),
      png({ colour: 6, interlace: 1, width: 8, height: 6, pixels: Buffer.alloc(8 * 6 * 4 + 12) }),
      drawn(40, 30),
      drawn(40, 30, { colorType: 0 }),
    ];
    for (const [index, form] of forms.entries()) {
      const plain = plainPng(form);
      expect(plain, `form ${index}`).to.not.equal(null);
      expect(plain!.widthOverHeight, `form ${index}`).to.be.closeTo(4 / 3, 1e-9);
      const again = PNG.sync.read(Buffer.from(plain!.bytes));
      expect([again.interlace, again.depth], `form ${index}`).to.deep.equal([false, 8]);
      expect([2, 6]).to.include((again as unknown as { colorType: number }).colorType);
    }
  });

  it('keeps its pixels, and is made smaller where it has more than a label can show', () => {
    const source = drawn(30, 20);
    const pixels = (bytes: Uint8Array) => PNG.sync.read(Buffer.from(bytes)).data;
    expect(pixels(plainPng(source)!.bytes).equals(pixels(source))).to.equal(true);
    const large = PNG.sync.read(Buffer.from(plainPng(drawn(3000, 1500, { deflateLevel: 1 }))!.bytes));
    expect([large.width, large.height]).to.deep.equal([1500, 750]);
  });

  it('with any byte changed is refused or still sound, never a crash', () => {
    const whole = drawn(12, 9);
    fc.assert(
      fc.property(fc.nat(whole.length - 1), fc.integer({ min: 1, max: 255 }), (at, by) => {
        const bytes = Buffer.from(whole);
        bytes[at] = (bytes[at]! + by) % 256;
        const read = readLogo(bytes);
        if ('logo' in read) expect(read.logo.bytes.length).to.be.above(0);
        else expect(read.refused.length).to.be.above(20);
      }),
      { numRuns: 300 },
    );
  });

  it('with false lengths, too many pixels, or more behind its pixels than they are, is not decoded', () => {
    const falseLength = Buffer.concat([png().subarray(0, 33), chunk('IDAT', Buffer.from('x'), 0x7fffffff)]);
    const bomb = Buffer.alloc(200 * 1024 * 1024);
    const cases = {
      falseLength,
      huge: png({ width: 100_000, height: 100_000, pixels: Buffer.alloc(10) }),
      many: png({ width: 6000, height: 6000, pixels: Buffer.alloc(10) }),
      bomb: png({ pixels: bomb }),
      interlacedBomb: png({ interlace: 1, pixels: bomb }),
      none: png({ width: 0 }),
      cut: png().subarray(0, 60),
      noEnd: png().subarray(0, -12),
      filter: png({ pixels: Buffer.alloc(13 * 3, 9) }),
      colour: png({ colour: 5 }),
    };
    for (const [name, bytes] of Object.entries(cases)) expect(isSoundPng(bytes), name).to.equal(false);
  });
});

describe('the picture on a label', () => {
  const test = useDemo();
  const logoRoute = () =>
    import('../../src/pages/api/v1/logo') as never as Promise<{ [method: string]: APIRoute }>;
  const put = async (body: Uint8Array | string, type = 'image/png') =>
    (await call(logoRoute(), 'PUT', '/', { body: body as BodyInit, headers: { 'content-type': type } }))
      .status;

  it('is refused where it is damaged, and what stood there stays', async () => {
    expect(await put(drawn(20, 10))).to.equal(200);
    const kept = (await findLogo(test.db))!;
    const flipped = drawn(20, 10);
    flipped[flipped.length - 20]! ^= 1;
    expect(await put(flipped)).to.equal(422);
    expect(Buffer.from((await findLogo(test.db))!.bytes).equals(Buffer.from(kept.bytes))).to.equal(true);
    expect(await put(png({ width: 400, height: 1 }))).to.equal(422);
  });

  it('that was kept damaged long ago is left out and told, and the next request is answered', async () => {
    const damaged = png({ colour: 3, interlace: 1, pixels: Buffer.alloc(4) });
    await putLogo(test.db, { mime: 'image/png', widthOverHeight: 2, bytes: damaged });
    const { revision, wrap } = (await findWrap(test.db, 'waiting-room'))!;
    const withLogo = { ...wrap, look: { ...wrap.look, logo: true } };
    const { layout, file } = await labelFor(test.house, 'waiting-room', 'EU', 'preview', { wrap: withLogo });
    expect(layout.findings.map(({ code }) => code)).to.deep.equal(['picture']);
    expect(file).to.be.a('string').that.includes('<svg');
    await saveProductWrap(test.house, 'waiting-room', revision, withLogo);
    const refused = await labelFile(test.house, 'waiting-room', 'EU', 'pdf').catch(
      (fault: { status: number }) => fault.status,
    );
    expect(refused).to.equal(422);
    expect(await put(drawn(40, 20))).to.equal(200);
    const pdf = await labelFile(test.house, 'waiting-room', 'EU', 'pdf');
    expect(pdf.body.length).to.be.above(1000);
  });

  it('in SVG that is too intricate to draw is refused; what would repeat or clip without end is left out', async () => {
    const svg = (inside: string) => `<svg viewBox="0 0 9 9">${inside}</svg>`;
    const shape = '<rect width="9" height="9" fill="#123456"/>';
    expect(await put(svg(shape), 'image/svg+xml')).to.equal(200);
    expect(await put(svg(shape.repeat(3000)), 'image/svg+xml')).to.equal(422);
    const clipped = '<rect width="9" height="9" clip-path="url(#c)"/>';
    const clip = '<clipPath id="c" clip-path="url(#c)"><rect width="5" height="5"/></clipPath>';
    expect(await put(svg(clip + clipped.repeat(300)), 'image/svg+xml')).to.equal(422);
    const fine =
      '<linearGradient id="g" spreadMethod="repeat" x2="0.00001"><stop offset="0"/></linearGradient>';
    expect(await put(svg(`<defs>${fine}${clip}</defs>${clipped}`), 'image/svg+xml')).to.equal(200);
    const kept = Buffer.from((await findLogo(test.db))!.bytes).toString();
    expect(kept).to.not.contain('spreadMethod').and.to.not.contain('<clipPath id="c" clip-path');
  });
});
