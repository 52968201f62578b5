/** A QR code as a drawing. */
import bwipjs from 'bwip-js/node';

/** The code of a text as SVG, black on white. */
export function qrSvg(text: string): string {
  return bwipjs.toSVG({ bcid: 'qrcode', text, scale: 4, padding: 2, backgroundcolor: 'FFFFFF' });
}
