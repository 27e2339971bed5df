import { scaleLinear } from 'd3-scale';
import { area, curveMonotoneX } from 'd3-shape';
import type { Range } from '@ruddy/core/base';
import { STRIP_NODES, type StripNodeKey, type StripHop, type StripModel } from './strip-model';

export const WIDTH = 1232;
export const HEIGHT = 184;
/** Left edge and width of each bank and pier. */
export const BOXES: Record<StripNodeKey, { x: number; w: number }> = {
  system: { x: 1, w: 88 },
  port: { x: 152, w: 112 },
  cable: { x: 416, w: 104 },
  dock: { x: 672, w: 112 },
  card: { x: 936, w: 112 },
  screen: { x: 1119, w: 112 },
};
export const DECK = { top: 48, bottom: 112, middle: 80, legs: 140 };
const FULL_PX = 48;
const MIN_PX = 3;
const UNKNOWN_PX = 20;
/** Half of the gap torn into a blocked hop. */
const TEAR = 8;
const NECK_PX = 96;

export interface Ribbon {
  readonly kind:
    'solid' | 'outer' | 'unknown' | 'torn' | 'core' | 'line' | 'ticks' | 'stub' | 'hollow';
  readonly path: string;
}
export interface HopPicture {
  readonly hop: StripHop;
  readonly ribbons: readonly Ribbon[];
  readonly teeth: readonly { x: number; y: number; points: 'down' | 'up' }[];
  readonly labelX: number;
  readonly box: { x: number; w: number };
}

interface Point {
  x: number;
  h: number;
}

function thickness(m: StripModel) {
  const scale = scaleLinear().domain([0, m.scaleGbps]).range([0, FULL_PX]).clamp(true);
  return (gbps: number) => Math.max(MIN_PX, scale(gbps));
}

/** Height of the scale bar that stands for 16 Gb/s. */
export function scaleBarPx(m: StripModel): number {
  return thickness(m)(16);
}

const band = area<Point>()
  .x((p) => p.x)
  .y0((p) => DECK.middle + p.h / 2)
  .y1((p) => DECK.middle - p.h / 2)
  .curve(curveMonotoneX);

function shape(points: Point[]): string {
  return band(points) ?? '';
}

/** Gaps between neighbouring piers that a hop runs over, host side first. */
function gaps(h: StripHop): { x0: number; x1: number; left: StripNodeKey; right: StripNodeKey }[] {
  const keys = STRIP_NODES.slice(STRIP_NODES.indexOf(h.from), STRIP_NODES.indexOf(h.to) + 1);
  return keys.slice(1).map((right, i) => {
    const left = keys[i] as StripNodeKey;
    return { x0: BOXES[left].x + BOXES[left].w, x1: BOXES[right].x, left, right };
  });
}

function ribbonPoints(
  gap: ReturnType<typeof gaps>[number],
  h: StripHop,
  px: (g: number) => number,
  pick: keyof Range,
): Point[] {
  const at = px(h.usable?.[pick] ?? 0);
  const full = px(Math.max(h.full?.[pick] ?? 0, h.usable?.[pick] ?? 0));
  const neck = Math.min(NECK_PX, (gap.x1 - gap.x0) * 0.75);
  if (h.neckAt === gap.right)
    return [
      { x: gap.x0, h: full },
      { x: gap.x1 - neck, h: full },
      { x: gap.x1 - 10, h: at },
      { x: gap.x1, h: at },
    ];
  if (h.neckAt === gap.left)
    return [
      { x: gap.x0, h: at },
      { x: gap.x0 + 10, h: at },
      { x: gap.x0 + neck, h: full },
      { x: gap.x1, h: full },
    ];
  return [
    { x: gap.x0, h: h.neckAt === null ? at : full },
    { x: gap.x1, h: h.neckAt === null ? at : full },
  ];
}

function tornRibbons(gap: { x0: number; x1: number }, height: number): Ribbon[] {
  const top = DECK.middle - height / 2;
  const bottom = DECK.middle + height / 2;
  const mid = (gap.x0 + gap.x1) / 2;
  const l = mid - TEAR;
  const r = mid + TEAR;
  const steps = [0, 0.25, 0.5, 0.75, 1].map((t) => top + (bottom - top) * t);
  const tooth = (x: number, sign: number) =>
    steps.map((y, i) => `L${x + (i % 2 ? sign * 7 : 0)},${y}`).join('');
  return [
    { kind: 'torn', path: `M${gap.x0},${top}${tooth(l, -1)}L${gap.x0},${bottom}Z` },
    { kind: 'torn', path: `M${gap.x1},${top}${tooth(r, 1)}L${gap.x1},${bottom}Z` },
  ];
}

/** An outline with three upright ticks: it comes, and is not there yet. */
function waitingRibbons(g: { x0: number; x1: number }, height: number): Ribbon[] {
  const mid = (g.x0 + g.x1) / 2;
  const half = Math.max(height, UNKNOWN_PX) / 2 - 3;
  const ticks = [-10, 0, 10]
    .map((d) => `M${mid + d},${DECK.middle - half}V${DECK.middle + half}`)
    .join('');
  return [
    { kind: 'hollow', path: flat(g, Math.max(height, UNKNOWN_PX)) },
    { kind: 'ticks', path: ticks },
  ];
}

/** A stub from the host side with a torn edge, and the hollow rest. */
function lostRibbons(g: { x0: number; x1: number }, height: number): Ribbon[] {
  const top = DECK.middle - height / 2;
  const bottom = DECK.middle + height / 2;
  const end = g.x0 + (g.x1 - g.x0) * 0.4;
  const torn = [0, 0.25, 0.5, 0.75, 1]
    .map((t, i) => `L${end + (i % 2 ? 7 : 0)},${top + (bottom - top) * t}`)
    .join('');
  return [
    { kind: 'hollow', path: flat({ x0: end, x1: g.x1 }, height) },
    { kind: 'stub', path: `M${g.x0},${top}${torn}L${g.x0},${bottom}Z` },
  ];
}

function teeth(h: StripHop, px: (g: number) => number): HopPicture['teeth'] {
  if (!h.pinch || h.neckAt === null || h.state === 'blocked') return [];
  const beside = gaps(h).flatMap((g) =>
    g.right === h.neckAt ? [g.x1 - 7] : g.left === h.neckAt ? [g.x0 + 7] : [],
  );
  const half = px(h.usable?.hi ?? 0) / 2;
  return beside.flatMap((x) => [
    { x, y: DECK.middle - half - 1, points: 'down' as const },
    { x, y: DECK.middle + half + 1, points: 'up' as const },
  ]);
}

function picture(h: StripHop, px: (g: number) => number): HopPicture {
  const over = gaps(h);
  const first = over[0];
  const last = over[over.length - 1];
  const box = { x: first?.x0 ?? 0, w: (last?.x1 ?? 0) - (first?.x0 ?? 0) };
  const torn = over[Math.floor((over.length - 1) / 2)];
  const ribbons = over.flatMap((g): Ribbon[] => {
    if (h.state === 'blocked')
      return g === torn
        ? tornRibbons(g, UNKNOWN_PX)
        : [{ kind: 'unknown', path: flat(g, UNKNOWN_PX) }];
    if (h.state === 'not used') return [{ kind: 'line', path: `M${g.x0},${DECK.middle}H${g.x1}` }];
    if (h.state === 'waiting') return waitingRibbons(g, px(h.usable?.hi ?? 0));
    if (h.state === 'lost')
      return g === over[0]
        ? lostRibbons(g, px(h.usable?.hi ?? 0))
        : [{ kind: 'hollow', path: flat(g, px(h.usable?.hi ?? 0)) }];
    if (h.state === 'unknown' || !h.usable) return [{ kind: 'unknown', path: flat(g, UNKNOWN_PX) }];
    const low: Ribbon = { kind: 'solid', path: shape(ribbonPoints(g, h, px, 'lo')) };
    const gbps = h.measured?.gbps ?? null;
    // Measured is solid inside the expected outline: the gap is the shortfall.
    const core: Ribbon[] = gbps === null ? [] : [{ kind: 'core', path: flat(g, px(gbps)) }];
    return h.state === 'range'
      ? [{ kind: 'outer', path: shape(ribbonPoints(g, h, px, 'hi')) }, low, ...core]
      : [low, ...core];
  });
  return { hop: h, ribbons, teeth: teeth(h, px), labelX: box.x + box.w / 2, box };
}

function flat(g: { x0: number; x1: number }, height: number): string {
  return shape([
    { x: g.x0, h: height },
    { x: g.x1, h: height },
  ]);
}

/** Where everything of the picture goes, in a 1232 by 184 field. */
export function stripPicture(m: StripModel): HopPicture[] {
  const px = thickness(m);
  return m.hops.map((h) => picture(h, px));
}
