/** A QR code as a drawing. */
import bwipjs from 'bwip-js/node';
import type { SquareCode } from '../../core/labels/code';

/** Blank modules that a square code needs around it. */
const QUIET = 4;

/** The code of a text in modules, for a layout to draw; a sixth of it may be damaged. */
export function squareOf(text: string): SquareCode {
  const [raw] = bwipjs.raw({ bcid: 'qrcode', text, eclevel: 'M' } as Parameters<
    typeof bwipjs.raw
  >[0]) as unknown as {
    pixs: number[];
    pixx: number;
  }[];
  return { side: raw!.pixx, dark: raw!.pixs, quietModules: QUIET };
}

/** The code of a text as SVG, black on white. */
export function qrSvg(text: string): string {
  return bwipjs.toSVG({ bcid: 'qrcode', text, scale: 4, padding: 2, backgroundcolor: 'FFFFFF' });
}
