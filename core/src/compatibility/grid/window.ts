/** What of a long row of equal things is drawn: those in view and a few beyond, so that scrolling shows no gap. */
export interface RowWindow {
  readonly from: number;
  /** One past the last. */
  readonly to: number;
}

/**
 * The part of a row of things that is drawn.
 * @param n how many things there are
 * @param size of each, px
 * @param offset at which the view begins, px
 * @param view its width, px
 * @param beyond how many more are drawn on each side
 * @returns first and after the last, never outside 0 to n
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

/**
 * The offset at which a thing is whole in a view.
 * @param i its index
 * @param size of each thing, px
 * @param offset at which the view stands, px
 * @param view its width, px
 * @returns px; unchanged where it is whole already
 * @example offsetFor(10, 10, 0, 50) // => 60
 */
export function offsetFor(i: number, size: number, offset: number, view: number): number {
  if (i * size < offset) return i * size;
  return (i + 1) * size > offset + view ? (i + 1) * size - view : offset;
}
