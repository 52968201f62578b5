/** The maker's picture: a PNG, checked by decoding it the way the printer will. */
import PDFDocument from 'pdfkit';
import { fault } from '../http';
import type { Logo } from '../repositories/wraps';

const PNG_MARK = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
const WIDTH_AT = 16;
const HEIGHT_AT = 20;
const MOST_PIXELS = 6000;

/** The picture from its bytes; 422 where it is no PNG that can be drawn. Nothing in it is ever executed. */
export function readLogo(bytes: Uint8Array): Logo {
  const isPng = PNG_MARK.every((mark, index) => bytes[index] === mark) && bytes.byteLength > HEIGHT_AT + 4;
  const refuse = (message: string) => fault(422, 'not-a-picture', message, 'logo');
  if (!isPng) throw refuse('Only PNG pictures are taken; an SVG may carry scripts. Export yours as PNG.');
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
