import type { Grow } from './grow';
import type { Sensor, SensorSeries } from './types';

/** Most values of one lane: a day of seconds and then some. */
const MOST = 200_000;

/**
 * Resamples sensor values to even steps: the mean of the values in each step. A step without values repeats the one before
 * when the gap is at most two steps, else it is NaN.
 *
 * @param sensor which sensor
 * @param times times of the values, ms, ascending
 * @param values one value each, in the unit of the sensor
 * @param dtMs length of a step, ms
 * @returns the series, starting at the first time
 */
export function evenLane(
  sensor: Sensor,
  times: Float64Array,
  values: Float64Array,
  dtMs: number,
): SensorSeries {
  const first = times[0] ?? 0;
  const n = Math.min(MOST, Math.floor(((times[times.length - 1] ?? first) - first) / dtMs) + 1);
  const sums = new Float64Array(n);
  const counts = new Uint32Array(n);
  for (let i = 0; i < times.length; i++) {
    const k = Math.floor(((times[i] as number) - first) / dtMs);
    if (k < 0 || k >= n) continue;
    sums[k] = (sums[k] as number) + (values[i] as number);
    counts[k] = (counts[k] as number) + 1;
  }
  const out = new Float32Array(n);
  let held = 0;
  for (let k = 0; k < n; k++) {
    const c = counts[k] as number;
    held = c > 0 ? 0 : held + 1;
    out[k] = c > 0 ? (sums[k] as number) / c : held <= 2 && k > 0 ? (out[k - 1] as number) : NaN;
  }
  return { sensor, t0Ms: first, dtMs, values: out };
}

/**
 * Median step between rows.
 *
 * @param times times of the rows, ms
 * @returns step, ms, at least 50
 */
export function usualStep(times: Grow): number {
  const view = times.view();
  const steps = Float64Array.from(view.subarray(1), (t, i) => t - (view[i] as number)).sort();
  return Math.max(50, Math.round(steps[steps.length >> 1] ?? 1000));
}
