/** A mode on the wire. Pixels, lines, Hz, MHz. */
export interface Timing {
  readonly horizontalTotal: number;
  readonly verticalTotal: number;
  readonly pixelMHz: number;
}

const MIN_BLANK_US = 460;

function verticalBlank(heightPx: number, hz: number, least: number): number {
  const lineUs = (1e6 / hz - MIN_BLANK_US) / heightPx;
  return Math.max(Math.floor(MIN_BLANK_US / lineUs) + 1, least);
}

/** Lines of vertical sync by the shape of the picture, from memory of CVT 1.1, table 3-2. */
function syncLines(widthPx: number, heightPx: number): number {
  const shape = (w: number, h: number) => widthPx === Math.floor((heightPx * w) / h / 8) * 8;
  if (shape(4, 3)) return 4;
  if (shape(16, 9)) return 5;
  if (shape(16, 10)) return 6;
  return shape(5, 4) || shape(15, 9) ? 7 : 10;
}

/**
 * Timing of a mode with reduced blanking. Version 1: 160 pixels of horizontal blanking, clock in steps of
 * 0.25 MHz; version 2: 80 pixels, steps of 0.001 MHz. The clock is frame rate times totals, rounded down to the
 * step, as the standard's own sheet does; a program that rounds the line period first may differ by a step.
 *
 * Source: VESA Coordinated Video Timings 1.1 and 1.2, from memory.
 * @param widthPx visible pixels of a line
 * @param heightPx visible lines
 * @param hz frames per second
 * @param version of the reduced blanking
 * @returns totals, and the pixel clock in MHz
 * @example cvtReduced(1920, 1080, 60).pixelMHz // => 138.5
 */
export function cvtReduced(
  widthPx: number,
  heightPx: number,
  hz: number,
  version: 1 | 2 = 1,
): Timing {
  const width = version === 1 ? Math.floor(widthPx / 8) * 8 : widthPx;
  const least = version === 1 ? 3 + syncLines(width, heightPx) + 6 : 1 + 8 + 6;
  const horizontalTotal = width + (version === 1 ? 160 : 80);
  const verticalTotal = heightPx + verticalBlank(heightPx, hz, least);
  const step = version === 1 ? 0.25 : 0.001;
  const exact = (hz * horizontalTotal * verticalTotal) / 1e6;
  return { horizontalTotal, verticalTotal, pixelMHz: Math.floor(exact / step + 1e-6) * step };
}

/** Pixel clocks of CTA-861 modes, MHz, by width, height and frame rate; from memory. HDMI uses these where one exists. */
const CTA: Readonly<Record<string, number>> = {
  '1280x720@60': 74.25,
  '1920x1080@60': 148.5,
  '1920x1080@120': 297,
  '3840x2160@24': 297,
  '3840x2160@30': 297,
  '3840x2160@60': 594,
  '3840x2160@120': 1188,
  '7680x4320@60': 2376,
};

/**
 * The pixel clock of a mode on a plug.
 * @param plug HDMI uses its own timings where it has them
 * @param widthPx visible pixels of a line
 * @param heightPx visible lines
 * @param hz frames per second
 * @param version of the reduced blanking
 * @returns MHz
 * @example pixelMHz('displayport', 1920, 1080, 60, 1) // => 138.5
 */
export function pixelMHz(
  plug: 'displayport' | 'hdmi',
  widthPx: number,
  heightPx: number,
  hz: number,
  version: 1 | 2,
): number {
  const cta = plug === 'hdmi' ? CTA[`${widthPx}x${heightPx}@${Math.round(hz)}`] : undefined;
  return cta ?? cvtReduced(widthPx, heightPx, hz, version).pixelMHz;
}
