/** The maker's picture: a PNG written anew, or an SVG made harmless; checked by drawing it the way the printer will. */
import PDFDocument from 'pdfkit';
import SVGtoPDF from 'svg-to-pdfkit';
import type { Logo } from '../repositories/wraps';
import { isPng, LONGEST_SIDE_PX, plainPng } from './png';
import { cleanSvg } from './svg-logo';

/** The picture, or why it cannot be taken. */
export type ReadLogo = { logo: Logo } | { refused: string };

function readSvg(bytes: Uint8Array): ReadLogo {
  const clean = cleanSvg(new TextDecoder('utf-8').decode(bytes));
  if (!clean)
    return {
      refused:
        'This is neither a PNG nor an SVG of plain shapes, or it is too intricate. Export it as PNG and send that.',
    };
  try {
    SVGtoPDF(new PDFDocument(), clean.svg, 0, 0, { width: 10, height: 10, warningCallback: () => undefined });
  } catch {
    return { refused: 'This SVG cannot be drawn. Export it as PNG and send that.' };
  }
  return {
    logo: { mime: 'image/svg+xml', widthOverHeight: clean.widthOverHeight, bytes: Buffer.from(clean.svg) },
  };
}

/** Widest and narrowest that still shows something on a label. */
const MOST_STRETCHED = 50;

/** The picture from its bytes. Nothing in it is ever executed. Runs on a thread. */
export function readLogo(bytes: Uint8Array): ReadLogo {
  if (!isPng(bytes)) return readSvg(bytes);
  const plain = plainPng(bytes);
  if (!plain)
    return {
      refused: `This PNG is damaged or over ${LONGEST_SIDE_PX} pixels on a side. Save it anew, smaller, and send that.`,
    };
  const { widthOverHeight } = plain;
  if (widthOverHeight > MOST_STRETCHED || widthOverHeight < 1 / MOST_STRETCHED)
    return { refused: 'This picture is a mere line. Crop it and send that.' };
  return { logo: { mime: 'image/png', ...plain } };
}
