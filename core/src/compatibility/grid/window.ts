/** What of a long row of equal things is drawn: those in view and a few beyond, so that scrolling shows no gap. */
export interface RowWindow {
  readonly from: number;
  /** One past the last. */
  readonly to: number;
}

/**
 * The span of a row of `n` things of `size` px that is drawn when the view of `view` px begins at `offset` px, with `beyond` more on
 * each side. Never outside 0 to n.
 */
export function spanOf(
  n: number,
  size: number,
  offset: number,
  view: number,
  beyond: number,
): RowWindow {
  const from = Math.max(0, Math.min(n, Math.floor(offset / size) - beyond));
  return { from, to: Math.max(from, Math.min(n, Math.ceil((offset + view) / size) + beyond)) };
}

/** The offset at which thing `i` of `size` px is whole in a view of `view` px that stands at `offset`; unchanged when it is already. */
export function offsetFor(i: number, size: number, offset: number, view: number): number {
  if (i * size < offset) return i * size;
  return (i + 1) * size > offset + view ? (i + 1) * size - view : offset;
}
