import { columns, type MinMaxColumn, type MinMaxDecimation } from '@ruddy/core/runs';

export interface TraceLine {
  readonly color: string;
  readonly dash: readonly number[];
  readonly pyramid: MinMaxDecimation;
  /** Added to its times. */
  readonly shiftMs: number;
}
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** What each line shows in a stretch of time, a column a pixel. */
export function traceColumns(
  lines: readonly TraceLine[],
  fromMs: number,
  toMs: number,
  width: number,
): (MinMaxColumn | null)[][] {
  return lines.map((l) => columns(l.pyramid, fromMs - l.shiftMs, toMs - l.shiftMs, width));
}

/** The highest frame that is drawn, so that no spike leaves the picture. */
export function highest(drawn: readonly (readonly (MinMaxColumn | null)[])[]): number {
  let most = 0;
  for (const line of drawn) for (const c of line) if (c && c.most > most) most = c.most;
  return most;
}

/**
 * Draw traces: for each pixel a bar from the shortest to the longest frame that touches it, pale, and the median over it as a line.
 * `y`: from ms to pixels.
 */
export function drawTrace(
  ctx: CanvasRenderingContext2D,
  box: Box,
  lines: readonly TraceLine[],
  drawn: readonly (readonly (MinMaxColumn | null)[])[],
  y: (ms: number) => number,
): void {
  for (const [i, line] of lines.entries()) {
    const list = drawn[i] ?? [];
    ctx.fillStyle = line.color;
    ctx.globalAlpha = lines.length > 1 ? 0.3 : 0.5;
    for (const [x, c] of list.entries())
      if (c) ctx.fillRect(box.left + x, y(c.most), 1, Math.max(1, y(c.least) - y(c.most)));
    ctx.globalAlpha = 1;
    ctx.strokeStyle = line.color;
    ctx.lineWidth = 1.5;
    ctx.setLineDash([...line.dash]);
    ctx.beginPath();
    let down = false;
    for (const [x, c] of list.entries()) {
      if (!c) down = false;
      else if (down) ctx.lineTo(box.left + x + 0.5, y(c.median));
      else {
        ctx.moveTo(box.left + x + 0.5, y(c.median));
        down = true;
      }
    }
    ctx.stroke();
    ctx.setLineDash([]);
  }
}
