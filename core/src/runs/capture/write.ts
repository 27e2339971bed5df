import type { SensorSeries } from './types';

/** A run as it leaves in the open format; its schema is `captureFile` of the API. */
export interface CaptureFile {
  readonly format: 'ruddy-bridge/capture';
  readonly version: 1;
  readonly program: string;
  readonly startedAt: string | null;
  readonly frameMs: readonly number[];
  readonly shownMs: readonly number[] | null;
  readonly sensors: readonly {
    sensor: string;
    t0Ms: number;
    dtMs: number;
    values: (number | null)[];
  }[];
}

/**
 * Shortest decimal that reads back as the same float32.
 *
 * @param v a float32 value
 * @returns the decimal
 * @example shortest(Math.fround(16.67)) // => 16.67
 */
export function shortest(v: number): number {
  for (let digits = 6; digits < 10; digits++) {
    const s = Number(v.toPrecision(digits));
    if (Math.fround(s) === v) return s;
  }
  return v;
}

/**
 * Contents of a capture file (`ruddy-bridge/capture`, version 1).
 *
 * @param head name of the capturing program and start, ISO 8601
 * @param frames frame times, ms
 * @param shown times between shown pictures, ms; null when not captured
 * @param lanes sensor series; NaN is written as null
 * @returns an object for `JSON.stringify`
 */
export function captureFile(
  head: { program: string; startedAt: string | null },
  frames: Float32Array,
  shown: Float32Array | null,
  lanes: readonly SensorSeries[],
): CaptureFile {
  return {
    format: 'ruddy-bridge/capture',
    version: 1,
    ...head,
    frameMs: Array.from(frames, shortest),
    shownMs: shown && Array.from(shown, shortest),
    sensors: lanes.map((l) => ({
      sensor: l.sensor,
      t0Ms: l.t0Ms,
      dtMs: l.dtMs,
      values: Array.from(l.values, (v) => (Number.isNaN(v) ? null : shortest(v))),
    })),
  };
}
