/** What a block mould holds, from its inside. Pure. */

const MM3_PER_ML = 1000;

/**
 * Millilitres of a block by its inside in millimetres; NaN where one of them is no length.
 *
 * @example blockMl(250, 80, 60) // 1200
 */
export function blockMl(lengthMm: number, widthMm: number, heightMm: number): number {
  const sides = [lengthMm, widthMm, heightMm];
  if (!sides.every((side) => side > 0)) return NaN;
  return sides.reduce((product, side) => product * side, 1) / MM3_PER_ML;
}
