/**
 * Compare two version numbers of dotted integers ("36.1", "1.10.0"): below zero when `a` is older, above when newer, 0 when equal;
 * `null` when one of them is not such a number, so that nobody compares what cannot be compared. Missing places count as 0.
 *
 * Worked example: "1.9" is older than "1.10"; "1.0" equals "1".
 */
export function compareDotted(a: string, b: string): number | null {
  const [x, y] = [a, b].map((v) => (/^\d{1,9}(\.\d{1,9}){0,7}$/.test(v.trim()) ? v.trim().split('.').map(Number) : null));
  if (!x || !y) return null;
  for (let i = 0; i < Math.max(x.length, y.length); i++) {
    const d = (x[i] ?? 0) - (y[i] ?? 0);
    if (d !== 0) return d;
  }
  return 0;
}
