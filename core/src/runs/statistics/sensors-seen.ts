import { quantile } from '../../base';
import type { Sensor } from '../capture/types';

/** What a sensor showed over a run, its cut left out: mean, the value 95 of 100 stay below, and the most. */
export interface SensorSeen {
  readonly mean: number;
  readonly p95: number;
  readonly most: number;
  /** Means of its first and its last third; absent where it has fewer than three values. */
  readonly thirds?: { readonly first: number; readonly last: number };
}
export type SensorsSeen = Readonly<Partial<Record<Sensor, SensorSeen>>>;

const meanOf = (values: Float32Array) => values.reduce((a, b) => a + b, 0) / values.length;

/**
 * What a sensor showed.
 * @param values in the order of time; what was not measured is not finite and left out; not modified
 * @returns in the unit of the sensor; null without any value
 */
export function sensorSeen(values: Float32Array): SensorSeen | null {
  const known = values.filter((v) => Number.isFinite(v));
  if (known.length === 0) return null;
  const third = Math.floor(known.length / 3);
  const thirds = third > 0 && {
    thirds: { first: meanOf(known.subarray(0, third)), last: meanOf(known.subarray(-third)) },
  };
  const mean = meanOf(known);
  const sorted = known.sort();
  return {
    mean,
    p95: quantile(sorted, 0.95),
    most: sorted[sorted.length - 1] as number,
    ...thirds,
  };
}
