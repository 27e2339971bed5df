import { chanceOf } from '../chance';

/** A made rig with a made title. Times in ms, at 1920x1080 for the card; its truth is stated, never read back. */
export interface MadeRig {
  readonly seed: number;
  readonly cpuMs: number;
  readonly cardMs: number;
  readonly exponent: number;
  readonly trafficMB: number;
  readonly trips: number;
  /** Share of the picture that goes back when a panel shows it. */
  readonly kappa: number;
  /** Frames the processor may be ahead of the card: 1 to 3. */
  readonly depth: number;
  readonly jitter: number;
  /** Clock states of the card as shares of its best, and how long one lasts, ms. */
  readonly clocks: readonly number[];
  readonly clockMs: number;
  /** Things that run beside the title: how many a second, and how long each holds the processor. */
  readonly burstsPerS: number;
  readonly burstMs: number;
  readonly linkGbps: number;
  readonly upGbps: number;
  readonly latencyUs: number;
  /** A second link of the same host, or a slot, to make a pair with. */
  readonly otherGbps: number;
  readonly boardW: number;
  /** What the card draws at full load of what it may. */
  readonly fullShare: number;
  readonly capFps: number | null;
}

/** A rig drawn from a seed: ranges wide enough that each stage limits about as often. */
export function makeRig(seed: number): MadeRig {
  const c = chanceOf(seed * 2654435761);
  const linkGbps = c.pick([13.4, 16, 22, 26, 26, 26, 32, 52]);
  return {
    seed,
    cpuMs: c.between(3.5, 12),
    cardMs: c.between(2, 9),
    exponent: c.between(0.75, 0.95),
    trafficMB: c.between(3, 36),
    trips: c.between(50, 500),
    kappa: c.between(0.55, 0.85),
    depth: c.pick([1, 2, 3]),
    jitter: c.between(0.03, 0.1),
    clocks: [1, c.between(0.96, 0.995), c.between(0.93, 0.97)],
    clockMs: c.between(300, 2000),
    burstsPerS: c.between(0, 0.4),
    burstMs: c.between(2, 9),
    linkGbps,
    upGbps: linkGbps * 0.97,
    latencyUs: 2.2,
    otherGbps: c.pick([252, 126, linkGbps > 40 ? 26 : 57.3]),
    boardW: Math.round(c.between(110, 320)),
    fullShare: c.between(0.9, 1),
    capFps: null,
  };
}
