/** PNG pictures: looked over before anything is decoded, decoded whole, and written anew in the plainest form. */
import { inflateSync } from 'node:zlib';
import { PNG } from 'pngjs';

const MARK = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
/** Length, type and checksum of a chunk, bytes. */
const CHUNK_FRAME = 12;
const HEADER_LENGTH = 13;
/** Most pixels that are decoded: a photograph of twelve megapixels. */
const MOST_PIXELS = 12_000_000;
export const LONGEST_SIDE_PX = 6000;
/** Pictures are kept at this many pixels on the longer side: 68 mm at 600 to the inch. */
const KEPT_SIDE_PX = 1600;
const CHANNELS = 4;
/** Samples of a pixel by colour type. */
const SAMPLES: Readonly<Record<number, number>> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };
/** Passes of an interlaced picture, each of which may begin a row with a byte of its own. */
const PASSES = 7;

/** Whether bytes begin as a PNG does. */
export function isPng(bytes: Uint8Array): boolean {
  return MARK.every((mark, index) => bytes[index] === mark);
}

interface Header {
  width: number;
  height: number;
  /** Bytes that its pixels take at most when inflated. */
  mostBytes: number;
}

function headerOf(data: Buffer): Header | null {
  const [width, height] = [data.readUInt32BE(0), data.readUInt32BE(4)];
  const samples = SAMPLES[data[9]!];
  if (!width || !height || samples === undefined) return null;
  if (width > LONGEST_SIDE_PX || height > LONGEST_SIDE_PX || width * height > MOST_PIXELS) return null;
  const rowBytes = Math.ceil((width * samples * data[8]!) / 8) + PASSES;
  return { width, height, mostBytes: (rowBytes + PASSES) * (height + PASSES) };
}

/**
 * Whether every chunk lies within the file and the pixels inflate to no more than they may. Only then is it
 * handed to a decoder, which trusts lengths.
 */
function isBounded(bytes: Buffer): boolean {
  let header: Header | null = null;
  const pixels: Buffer[] = [];
  for (let at = MARK.length; at + CHUNK_FRAME <= bytes.length;) {
    const length = bytes.readUInt32BE(at);
    const type = bytes.toString('latin1', at + 4, at + 8);
    if (at + CHUNK_FRAME + length > bytes.length) return false;
    const data = bytes.subarray(at + 8, at + 8 + length);
    if (!header) {
      header = type === 'IHDR' && length === HEADER_LENGTH ? headerOf(data) : null;
      if (!header) return false;
    }
    if (type === 'IDAT') pixels.push(data);
    if (type === 'IEND') {
      inflateSync(Buffer.concat(pixels), { maxOutputLength: header.mostBytes });
      return true;
    }
    at += CHUNK_FRAME + length;
  }
  return false;
}

function decode(bytes: Uint8Array): PNG | null {
  try {
    const buffer = Buffer.from(bytes);
    return isPng(bytes) && isBounded(buffer) ? PNG.sync.read(buffer) : null;
  } catch {
    return null;
  }
}

/** Whether a PNG can be decoded to its last pixel. */
export function isSoundPng(bytes: Uint8Array): boolean {
  return decode(bytes) !== null;
}

/** The picture with its longer side at the kept size at most, each pixel the mean of those it stands for. */
function reduced(source: PNG): PNG {
  const by = Math.ceil(Math.max(source.width, source.height) / KEPT_SIDE_PX);
  if (by <= 1) return source;
  const [width, height] = [
    Math.max(1, Math.floor(source.width / by)),
    Math.max(1, Math.floor(source.height / by)),
  ];
  const made = new PNG({ width, height });
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      for (let channel = 0; channel < CHANNELS; channel++) {
        let sum = 0;
        for (let dy = 0; dy < by; dy++)
          for (let dx = 0; dx < by; dx++)
            sum += source.data[((y * by + dy) * source.width + x * by + dx) * CHANNELS + channel]!;
        made.data[(y * width + x) * CHANNELS + channel] = Math.round(sum / (by * by));
      }
    }
  }
  return made;
}

const OPAQUE = 255;

/** The PNG written anew, without anything but its pixels; null where it cannot be decoded or is too large. */
export function plainPng(bytes: Uint8Array): { bytes: Uint8Array; widthOverHeight: number } | null {
  const source = decode(bytes);
  if (!source) return null;
  const picture = reduced(source);
  let isOpaque = true;
  for (let at = CHANNELS - 1; at < picture.data.length && isOpaque; at += CHANNELS)
    isOpaque = picture.data[at] === OPAQUE;
  const written = PNG.sync.write(picture, {
    colorType: isOpaque ? 2 : 6,
    inputColorType: 6,
    inputHasAlpha: true,
  });
  return { bytes: new Uint8Array(written), widthOverHeight: source.width / source.height };
}
