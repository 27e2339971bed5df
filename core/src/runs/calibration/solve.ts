import { Matrix, SVD } from 'ml-matrix';

export interface Solved {
  readonly x: readonly number[];
  /** Sum of squared residuals. */
  readonly sse: number;
  /** (A'A)^-1. */
  readonly inverse: readonly (readonly number[])[];
}
/** Columns this close to depending on one another are not told apart. */
const RANK = 1e-7;
/** How far from the least the gradient may be, against the size of the problem. */
const AT_LEAST = 1e-8;

/**
 * Least squares: the x that brings A x closest to b, by the singular value decomposition of the package ml-matrix. What it returns is
 * accepted only where the gradient A'(A x - b) vanishes, so that a wrong answer is an error and not a fit. Null when columns depend on
 * one another (`rank`), or when the answer is not the least (`solver`).
 * In: rows of equal length, no fewer than columns.
 */
export function leastSquares(
  rows: readonly (readonly number[])[],
  b: readonly number[],
): Solved | { readonly x: null; readonly why: 'rank' | 'solver' } {
  const n = rows[0]?.length ?? 0;
  if (n === 0 || rows.length < n) return { x: null, why: 'rank' };
  const a = new Matrix(rows.map((r) => [...r]));
  // Columns of unlike size are brought to one, so that their rank can be judged.
  const sizes = Array.from({ length: n }, (_, j) => Math.hypot(...a.getColumn(j)));
  if (sizes.some((s) => s === 0)) return { x: null, why: 'rank' };
  const unit = a.clone();
  sizes.forEach((s, j) => unit.mulColumn(j, 1 / s));
  const svd = new SVD(unit, { autoTranspose: true });
  const most = svd.diagonal[0] ?? 0;
  const least = svd.diagonal[n - 1] ?? 0;
  if (!(least > RANK * most)) return { x: null, why: 'rank' };
  const x = svd
    .solve(Matrix.columnVector([...b]))
    .to1DArray()
    .map((v, j) => v / (sizes[j] as number));
  const residual = rows.map(
    (r, i) => r.reduce((s, v, j) => s + v * (x[j] as number), 0) - (b[i] as number),
  );
  const gradient = sizes.map(
    (s, j) =>
      Math.abs(rows.reduce((g, r, i) => g + (r[j] as number) * (residual[i] as number), 0)) / s,
  );
  if (!(Math.max(...gradient) <= AT_LEAST * Math.hypot(...b))) return { x: null, why: 'solver' };
  const v = svd.rightSingularVectors;
  const inverse = sizes.map((si, i) =>
    sizes.map((sj, j) => {
      let sum = 0;
      for (let k = 0; k < n; k++)
        sum += (v.get(i, k) * v.get(j, k)) / (svd.diagonal[k] as number) ** 2;
      return sum / (si * sj);
    }),
  );
  return { x, sse: residual.reduce((s, r) => s + r * r, 0), inverse };
}
