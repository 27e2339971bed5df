export const STANDARD_RESOLUTIONS = ['1920x1080', '2560x1440', '3840x2160'] as const;

/**
 * Pixels of a resolution.
 * @param resolution width and height in pixels with an x between
 * @returns the pixels; null where nothing was said
 * @example pixelsOf('2560x1440') // => 3686400
 */
export function pixelsOf(resolution: string): number | null {
  const m = /^(\d+)x(\d+)$/.exec(resolution);
  return m ? Number(m[1]) * Number(m[2]) : null;
}
