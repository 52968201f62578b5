/** Codes on a label: bars with their digits, and squares; how much room they want, and where their dark parts lie. */
import type { Plan } from './formats';
import { putLine, type Layout, type Metrics, type Region, type TextStyle } from './layout';

/** Widths of bars and gaps in turn, in modules, with the digits under them. */
export interface LinearCode {
  modules: number[];
  text: string;
  quietModules: number;
}

/** A square of so many modules a side, row by row, 1 for dark ones. */
export interface SquareCode {
  side: number;
  dark: number[];
  quietModules: number;
}

export type Barcode = LinearCode | SquareCode;

const MODULE_MM = 0.3;
const BARS_MM = 13;
const DIGITS_MM = 2.6;
/** Of a square code: what a telephone reads at an arm's length. */
const SQUARE_MODULE_MM = 0.4;

const isSquare = (code: Barcode): code is SquareCode => 'side' in code;

/** Width of a code with the blank around it, millimetres. */
export function codeWidth(code: Barcode): number {
  if (isSquare(code)) return (code.side + 2 * code.quietModules) * SQUARE_MODULE_MM;
  return (code.modules.reduce((sum, one) => sum + one, 0) + 2 * code.quietModules) * MODULE_MM;
}

/** Height that is kept free for a code, with what stands under it, millimetres. */
export const codeHeight = (code: Barcode): number =>
  isSquare(code) ? codeWidth(code) : BARS_MM + DIGITS_MM + 1;

/** The dark modules of a square code, as one bar for each run of them in a row. */
function placeSquare(layout: Layout, { side, dark, quietModules }: SquareCode, foot: Region): void {
  const at = (modules: number) => modules * SQUARE_MODULE_MM;
  for (let row = 0; row < side; row++)
    for (let from = 0; from < side; from++) {
      if (!dark[row * side + from]) continue;
      let to = from;
      while (to < side && dark[row * side + to]) to++;
      layout.bars.push({
        xMm: foot.xMm + at(quietModules + from),
        yMm: foot.yMm + at(quietModules + row),
        widthMm: at(to - from),
        heightMm: at(1),
      });
      from = to;
    }
}

/** Draws a code at the foot that was kept free for it; where there is none, a finding says how much room it wants. */
export function placeCode(
  layout: Layout,
  code: Barcode,
  { metrics, plan }: { metrics: Metrics; plan: Plan },
  foot: Region | null,
): void {
  const widthMm = codeWidth(code);
  if (!foot) {
    const widest = Math.max(...plan.info.map((region) => region.widthMm));
    const message =
      plan.outline === 'rect'
        ? isSquare(code)
          ? `The code needs ${widthMm.toFixed(1)} mm of width and height in one place beside the text.`
          : `The barcode needs ${widthMm.toFixed(1)} mm of width, there are ${widest.toFixed(1)}.`
        : 'A round label has no straight foot for a barcode. Choose another shape or leave it out.';
    layout.findings.push({ element: 'barcode', code: 'barcode', message });
    return;
  }
  if (isSquare(code)) return placeSquare(layout, code, foot);
  const { modules, text, quietModules } = code;
  let xMm = foot.xMm + quietModules * MODULE_MM;
  modules.forEach((module, index) => {
    if (index % 2 === 0)
      layout.bars.push({ xMm, yMm: foot.yMm, widthMm: module * MODULE_MM, heightMm: BARS_MM });
    xMm += module * MODULE_MM;
  });
  const style: TextStyle = { element: 'barcode', face: 'text', sizeMm: DIGITS_MM, leading: 1 };
  const centre = foot.xMm + (widthMm - metrics.width(text, 'text', DIGITS_MM)) / 2;
  putLine(layout, text, style, centre, foot.yMm + BARS_MM + 0.6);
}
