/** Lower factor of a symmetric positive definite matrix, row after row: (0,0), (1,0), (1,1), (2,0) ... */
export interface PackedFactor {
  readonly size: number;
  readonly values: Float64Array;
}

const rowStart = (i: number) => (i * (i + 1)) / 2;

/**
 * Cholesky factor of a covariance matrix.
 *
 * Source: any textbook of numerical linear algebra, e.g. G. H. Golub and C. F. Van Loan, Matrix Computations, section 4.2.
 * @param size rows of the matrix
 * @param at its element of a row and a column not above the row
 * @returns the lower factor
 * @throws {RangeError} if the matrix is not positive definite
 * @example choleskyFactor(1, () => 4).values[0] // => 2
 */
export function choleskyFactor(
  size: number,
  at: (row: number, column: number) => number,
): PackedFactor {
  const values = new Float64Array(rowStart(size));
  for (let i = 0; i < size; i++)
    for (let j = 0; j <= i; j++) {
      let sum = at(i, j);
      for (let k = 0; k < j; k++) sum -= values[rowStart(i) + k]! * values[rowStart(j) + k]!;
      if (i === j && !(sum > 0)) throw new RangeError('the matrix is not positive definite');
      values[rowStart(i) + j] = i === j ? Math.sqrt(sum) : sum / values[rowStart(j) + j]!;
    }
  return { size, values };
}

/**
 * Solves L u = b in place.
 * @param factor a lower factor
 * @param b right side; becomes u
 */
export function solveLower(factor: PackedFactor, b: Float64Array): void {
  const { size, values } = factor;
  for (let i = 0, at = 0; i < size; i++) {
    let sum = b[i]!;
    for (let k = 0; k < i; k++) sum -= values[at++]! * b[k]!;
    b[i] = sum / values[at++]!;
  }
}

/**
 * Solves L' u = b in place.
 * @param factor a lower factor
 * @param b right side; becomes u
 */
export function solveUpper(factor: PackedFactor, b: Float64Array): void {
  const { size, values } = factor;
  for (let i = size - 1; i >= 0; i--) {
    let sum = b[i]!;
    for (let k = i + 1; k < size; k++) sum -= values[rowStart(k) + i]! * b[k]!;
    b[i] = sum / values[rowStart(i) + i]!;
  }
}
