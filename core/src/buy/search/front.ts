/** A point of price against frames; `index` is the combination it stands for. */
export interface Point {
  readonly minor: number;
  readonly fps: number;
  readonly index: number;
}

/**
 * The combinations that nothing beats in both price and frames: cheapest first, each faster than the one before. Offered one by one;
 * of two alike the one `better` prefers stays, otherwise the lower index.
 *
 * Source: the maxima of a set of vectors, H. T. Kung, F. Luccio, F. P. Preparata, J. ACM 22 (1975).
 */
export class Front {
  readonly #minor: number[] = [];
  readonly #fps: number[] = [];
  readonly #index: number[] = [];
  #lastMinor = Infinity;
  #lastFps = -Infinity;
  readonly #better: (a: number, b: number) => boolean;

  constructor(better: (a: number, b: number) => boolean = (a, b) => a < b) {
    this.#better = better;
  }

  offer(minor: number, fps: number, index: number): void {
    // Most are beaten by what beat the one before them.
    if (this.#lastMinor <= minor && this.#lastFps > fps) return;
    // The last point that costs no more.
    let lo = 0;
    let hi = this.#minor.length;
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if ((this.#minor[mid] as number) <= minor) lo = mid + 1;
      else hi = mid;
    }
    const at = lo - 1;
    const there = at >= 0 ? (this.#fps[at] as number) : -Infinity;
    if (there > fps) {
      this.#lastMinor = this.#minor[at] as number;
      this.#lastFps = there;
      return;
    }
    if (there === fps) {
      // Cheaper and as fast stays; exactly alike is a matter of evidence.
      if (this.#minor[at] === minor && this.#better(index, this.#index[at] as number))
        this.#index[at] = index;
      return;
    }
    // A point of the same price is beaten, and so are dearer ones that are no faster.
    const from = at >= 0 && this.#minor[at] === minor ? at : lo;
    let to = from;
    while (to < this.#fps.length && (this.#fps[to] as number) <= fps) to++;
    this.#minor.splice(from, to - from, minor);
    this.#fps.splice(from, to - from, fps);
    this.#index.splice(from, to - from, index);
  }

  points(): Point[] {
    return this.#minor.map((minor, i) => ({
      minor,
      fps: this.#fps[i] as number,
      index: this.#index[i] as number,
    }));
  }
}

/**
 * Knee of a front: the point farthest from the chord between its first and last, both axes scaled to 0 to 1. Of several
 * equally far the cheapest. Source: I. Das, On characterizing the "knee" of the Pareto curve, Structural Optimization 18
 * (1999).
 *
 * @param points the front, by rising price (minor units) and frames/s
 * @returns index of the knee; null with fewer than three points
 * @example kneeOf([{ minor: 100, fps: 10 }, { minor: 200, fps: 50 }, { minor: 300, fps: 55 }]) // => 1
 */
export function kneeOf(points: readonly Pick<Point, 'minor' | 'fps'>[]): number | null {
  const first = points[0];
  const last = points[points.length - 1];
  if (points.length < 3 || !first || !last) return null;
  const width = last.minor - first.minor;
  const height = last.fps - first.fps;
  let best: number | null = null;
  let most = 0;
  points.forEach((p, i) => {
    // The chord runs from (0, 0) to (1, 1): how far above it a point lies is its height less its place.
    const far = (p.fps - first.fps) / height - (p.minor - first.minor) / width;
    if (far > most + 1e-12) {
      most = far;
      best = i;
    }
  });
  return best;
}

/** One step along a front: what it costs more and what it gives. */
export interface FrontStep {
  readonly moreMinor: number;
  readonly moreFps: number;
  /** Frames/s for each 100 units of money. */
  readonly per100: number;
}

/**
 * Steps along a front.
 *
 * @param points the front, by rising price (minor units) and frames/s
 * @param unit minor units in one unit of the currency, 100 for cents
 * @returns money, frames/s and frames/s for each 100 units, one step fewer than points
 * @example stepsOf([{ minor: 10000, fps: 10 }, { minor: 20000, fps: 50 }], 100) // => [{ moreMinor: 10000, moreFps: 40, per100: 40 }]
 */
export function stepsOf(
  points: readonly Pick<Point, 'minor' | 'fps'>[],
  unit: number,
): FrontStep[] {
  return points.slice(1).map((p, i) => {
    const before = points[i] as Pick<Point, 'minor' | 'fps'>;
    const moreMinor = p.minor - before.minor;
    const moreFps = p.fps - before.fps;
    return { moreMinor, moreFps, per100: (moreFps * 100 * unit) / moreMinor };
  });
}

/**
 * Upper hull of a front, along which each step gives less for its money than the one before. Source: monotone chain,
 * A. M. Andrew, Information Processing Letters 9 (1979).
 *
 * @param points the front, by rising price (minor units) and frames/s
 * @returns indices of the hull, first to last
 * @example upperHull([{ minor: 100, fps: 10 }, { minor: 200, fps: 20 }, { minor: 300, fps: 60 }]) // => [0, 2]
 */
export function upperHull(points: readonly Pick<Point, 'minor' | 'fps'>[]): number[] {
  const hull: number[] = [];
  const at = (i: number) => points[i] as Pick<Point, 'minor' | 'fps'>;
  points.forEach((p, i) => {
    while (hull.length >= 2) {
      const a = at(hull[hull.length - 2] as number);
      const b = at(hull[hull.length - 1] as number);
      if ((b.fps - a.fps) * (p.minor - b.minor) > (p.fps - b.fps) * (b.minor - a.minor)) break;
      hull.pop();
    }
    hull.push(i);
  });
  return hull;
}

/** Where it stops paying: the last point worth its money, the next one that is not, and what that step gives. */
export interface Stops {
  readonly after: number;
  readonly next: number;
  readonly per100: number;
}

/**
 * Where more money stops paying: the first step along the upper hull whose frames/s for each 100 units are below the
 * threshold and less than half of those of the step before. Along the front itself a small poor step often comes before
 * a good one. Common practice, no published source.
 *
 * @param points the front, by rising price (minor units) and frames/s
 * @param unit minor units in one unit of the currency
 * @param threshold frames/s for each 100 units, a rule of the workshop
 * @returns indices of the points before and after that step, with its frames/s; null when no step is so poor
 */
export function stopsAt(
  points: readonly Pick<Point, 'minor' | 'fps'>[],
  unit: number,
  threshold: number,
): Stops | null {
  const hull = upperHull(points);
  const steps = stepsOf(
    hull.map((i) => points[i] as Pick<Point, 'minor' | 'fps'>),
    unit,
  );
  const at = steps.findIndex(
    (s, i) => i > 0 && s.per100 < (steps[i - 1] as FrontStep).per100 / 2 && s.per100 < threshold,
  );
  return at < 0
    ? null
    : {
        after: hull[at] as number,
        next: hull[at + 1] as number,
        per100: (steps[at] as FrontStep).per100,
      };
}
