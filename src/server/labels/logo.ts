/** The maker's picture: a PNG, or an SVG made harmless; checked by drawing it the way the printer will. */
import PDFDocument from 'pdfkit';
import SVGtoPDF from 'svg-to-pdfkit';
import { fault } from '../http';
import type { Logo } from '../repositories/wraps';
import { cleanSvg } from './svg-logo';

const PNG_MARK = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
const WIDTH_AT = 16;
const HEIGHT_AT = 20;
const MOST_PIXELS = 6000;

const refuse = (message: string) => fault(422, 'not-a-picture', message, 'logo');

function readSvg(bytes: Uint8Array): Logo {
  const clean = cleanSvg(new TextDecoder('utf-8').decode(bytes));
  if (!clean)
    throw refuse('This is neither a PNG nor an SVG of plain shapes. Export it as PNG and send that.');
  try {
    SVGtoPDF(new PDFDocument(), clean.svg, 0, 0, { width: 10, height: 10, warningCallback: () => undefined });
  } catch {
    throw refuse('This SVG cannot be drawn. Export it as PNG and send that.');
  }
  return { mime: 'image/svg+xml', widthOverHeight: clean.widthOverHeight, bytes: Buffer.from(clean.svg) };
}

/** The picture from its bytes; 422 where it cannot be drawn. Nothing in it is ever executed. */
export function readLogo(bytes: Uint8Array): Logo {
  const isPng = PNG_MARK.every((mark, index) => bytes[index] === mark) && bytes.byteLength > HEIGHT_AT + 4;
  if (!isPng) return readSvg(bytes);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const [width, height] = [view.getUint32(WIDTH_AT), view.getUint32(HEIGHT_AT)];
  if (width === 0 || height === 0 || width > MOST_PIXELS || height > MOST_PIXELS)
    throw refuse(`Give a picture of 1 to ${MOST_PIXELS} pixels on a side.`);
  try {
    new PDFDocument({ autoFirstPage: true }).image(Buffer.from(bytes), 0, 0, { width: 10 });
  } catch {
    throw refuse('This PNG is damaged. Save it anew and send that.');
  }
  return { mime: 'image/png', widthOverHeight: width / height, bytes };
}
