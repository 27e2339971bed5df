import type { Range } from '../../base';

/**
 * What is taken where nothing was measured. Bands, because titles differ that much. Common practice, no published source; calibration
 * replaces them.
 */
export const START = {
  exponent: { mid: 0.85, lo: 0.7, hi: 1 },
  kappa: { mid: 0.7, lo: 0.5, hi: 0.9 },
  trips: { mid: 300, lo: 100, hi: 1000 },
  trafficMB: { mid: 10, lo: 3, hi: 25 },
  touched: { mid: 0.02, lo: 0.005, hi: 0.05 },
} as const satisfies Record<string, Range & { mid: number }>;

/** How much more a title sends at a preset than at the usual one; a quarter to a third more with ray tracing. Common practice, no published source. */
export const PRESETS = { low: 0.7, medium: 1, high: 1.2, ultra: 1.4 } as const;
export const RAY_TRACING = 1.3;
/** How far a stage of another host or card may lie from what their indices promise, as a share. Common practice, no published source. */
export const INDEX_BAND = 0.1;
/** What the index of a host or card is stated against; by definition. */
export const REFERENCE_INDEX = 100;

/**
 * Latency of the link, microseconds: a direct link, and what each tunnel adds (from memory of what has been measured, no published
 * source).
 */
export const LATENCY_US = { direct: 1, tunnel: 1.2 } as const;
/** A toll that needs more than this a frame, MB, is more than traffic explains (common practice, no published source). */
export const MAX_TRAFFIC_MB = 40;

/** How much more is sent at a preset, by its first letters, and with ray tracing; 1 where the preset is not among those known. */
export function presetFactor(preset: string, rayTracing: boolean): number {
  const found = Object.entries(PRESETS).find(([name]) =>
    preset.trim().toLowerCase().startsWith(name),
  );
  return (found?.[1] ?? 1) * (rayTracing ? RAY_TRACING : 1);
}
