import { cellKey, type FrameCell } from './cell';
import { rateOf } from './priors';

/** Spreads of ln of the frame time that the equations get wrong, and the distances over which they fade (judgement, held by the zoo). */
const SIZE = { sd: 0.018, reach: 1.2 } as const;
const RATE = { sd: 0.018, reach: 1.5 } as const;
const SAME_CARD = 0.025;
const SAME_HOST = 0.03;
const SAME_PANEL = 0.015;
const SAME_LOOK = 0.025;
const SAME_CELL = 0.004;
/** Gb/s that stand for a link that is not crossed. */
const NO_LINK = 256;

const rate = (c: FrameCell) => (c.card.integrated ? NO_LINK : rateOf(c.link.down));

/**
 * Covariance of what the equations get wrong in two cells: a Gaussian process over size, link, card, host, panel and look.
 *
 * Source: M. C. Kennedy and A. O'Hagan, Journal of the Royal Statistical Society B 63 (2001), 425-464 (discrepancy of a model as a Gaussian process).
 * @param a a cell
 * @param b a cell
 * @returns covariance of ln of the frame time
 */
export function discrepancy(a: FrameCell, b: FrameCell): number {
  const size = Math.abs(Math.log(a.pixels / b.pixels));
  const link = Math.abs(Math.log(rate(a) / rate(b)));
  let k = SIZE.sd ** 2 * Math.exp(-size / SIZE.reach) + RATE.sd ** 2 * Math.exp(-link / RATE.reach);
  if (a.card.id === b.card.id) k += SAME_CARD ** 2;
  if (a.host.id === b.host.id) k += SAME_HOST ** 2;
  if (a.panel === b.panel) k += SAME_PANEL ** 2;
  if (a.look.id === b.look.id) k += SAME_LOOK ** 2;
  if (cellKey(a) === cellKey(b)) k += SAME_CELL ** 2;
  return k;
}
