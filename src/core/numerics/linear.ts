/** Small symmetric systems of equations, dense, by Cholesky's way. */

export type Matrix = Float64Array[];

export const zeros = (rows: number, columns: number): Matrix =>
  Array.from({ length: rows }, () => new Float64Array(columns));

/** The lower factor of a symmetric positive matrix. */
export function cholesky(matrix: Matrix): Matrix {
  const size = matrix.length;
  const factor = zeros(size, size);
  for (let i = 0; i < size; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = matrix[i]![j]!;
      for (let k = 0; k < j; k++) sum -= factor[i]![k]! * factor[j]![k]!;
      factor[i]![j] = i === j ? Math.sqrt(Math.max(sum, Number.MIN_VALUE)) : sum / factor[j]![j]!;
    }
  }
  return factor;
}

/** The inverse of a symmetric positive matrix, and the logarithm of its determinant. */
export function invert(matrix: Matrix): { inverse: Matrix; logDet: number } {
  const size = matrix.length;
  const factor = cholesky(matrix);
  let logDet = 0;
  for (let i = 0; i < size; i++) logDet += 2 * Math.log(factor[i]![i]!);
  const inverse = zeros(size, size);
  for (let column = 0; column < size; column++) {
    const x = new Float64Array(size);
    x[column] = 1;
    for (let i = 0; i < size; i++) {
      for (let k = 0; k < i; k++) x[i]! -= factor[i]![k]! * x[k]!;
      x[i]! /= factor[i]![i]!;
    }
    for (let i = size - 1; i >= 0; i--) {
      for (let k = i + 1; k < size; k++) x[i]! -= factor[k]![i]! * x[k]!;
      x[i]! /= factor[i]![i]!;
    }
    for (let i = 0; i < size; i++) inverse[i]![column] = x[i]!;
  }
  return { inverse, logDet };
}
