/** Pixels of 1920x1080, the size stage times of a title are stated at; by definition. */
export const REFERENCE_PIXELS = 1920 * 1080;
/** ms it takes to carry one MB at one Gb/s: arithmetic, 8 bits a byte. */
export const MS_PER_MB_GBPS = 8;
/** Bytes of a pixel on its way back to the panel. */
const PIXEL_BYTES = 4;
/** A card keeps about a tenth of its memory for itself (common practice, no published source). */
const USABLE_MEMORY = 0.9;

/** What a title asks of a rig, each frame. Stage times are those of this very host and card. */
export interface FrameParams {
  readonly cpuMs: number;
  /** At 1920x1080. */
  readonly cardMs: number;
  /** How the card's time grows with the pixels, as a power of them. */
  readonly exponent: number;
  /** MB a frame over the link, host to card. */
  readonly trafficMB: number;
  /** Share of that traffic that overlaps with drawing, 0 to 1. */
  readonly streamed: number;
  /** Times a frame in which one side waits for the other. */
  readonly trips: number;
  /** What of the picture goes back when the panel shows it: 1 is every pixel of every frame. */
  readonly kappa: number;
  /** GB it wants to have in the card's memory at 1920x1080. */
  readonly workingGB: number;
  /** Share of what does not fit there that is touched each frame. */
  readonly touched: number;
}
/** What the frame model needs of a rig. Rates are usable Gb/s. */
export interface FrameRig {
  readonly downGbps: number;
  readonly upGbps: number;
  readonly latencyUs: number;
  /** GB; null: taken as enough. */
  readonly memoryGB: number | null;
}
export interface Scene {
  readonly pixels: number;
  /** The picture goes back to the host's panel. */
  readonly panel: boolean;
  readonly capFps: number | null;
}

/** The terms of one frame, ms. */
export interface FrameTerms {
  readonly cpu: number;
  readonly card: number;
  /** Traffic that overlaps with drawing: it counts only where it is the longest. */
  readonly streamed: number;
  readonly traffic: number;
  readonly trips: number;
  readonly overflow: number;
  readonly back: number;
  /** Period of a cap; 0 without. */
  readonly cap: number;
  /** The whole frame. */
  readonly ms: number;
  /** What holds it: the cap, the streamed traffic, or stages with their toll. */
  readonly regime: 'toll' | 'saturated' | 'capped';
}

/** How a title's wants grow with the picture: most of them are there at any size (common practice, no published source). */
const growth = (pixels: number) => 0.85 + 0.15 * (pixels / REFERENCE_PIXELS);

/**
 * The time of a frame: the longest of processor, card and streamed traffic, and on top of it the toll: the rest of the traffic, the
 * round trips, what does not fit the card's memory, and the way back to a panel; never less than the period of a cap.
 * The toll is a time, nearly the same at every resolution, so it is a large share of a short frame and a small one of a long frame.
 * Common practice, no published source; checked in the tests against what practitioners measured.
 *
 * Worked example: 7.5 ms of drawing, 25 MB a frame at 26 Gb/s: 7.5 + 25 * 8 / 26 = 15.2 ms, 66 frames/s.
 */
export function frameTerms(p: FrameParams, rig: FrameRig, scene: Scene): FrameTerms {
  const wholeMs = (p.trafficMB * MS_PER_MB_GBPS) / rig.downGbps;
  const streamed = p.streamed * wholeMs;
  const traffic = (1 - p.streamed) * wholeMs;
  const card = p.cardMs * (scene.pixels / REFERENCE_PIXELS) ** p.exponent;
  const over =
    rig.memoryGB === null
      ? 0
      : Math.max(0, p.workingGB * growth(scene.pixels) - USABLE_MEMORY * rig.memoryGB);
  const overflow = (p.touched * over * 1000 * MS_PER_MB_GBPS) / rig.downGbps;
  const back = scene.panel ? (p.kappa * pictureMB(scene.pixels) * MS_PER_MB_GBPS) / rig.upGbps : 0;
  const trips = (p.trips * rig.latencyUs) / 1000;
  const free = Math.max(p.cpuMs, card, streamed) + traffic + trips + overflow + back;
  const cap = scene.capFps ? 1000 / scene.capFps : 0;
  const regime = cap > free ? 'capped' : streamed > Math.max(p.cpuMs, card) ? 'saturated' : 'toll';
  return {
    cpu: p.cpuMs,
    card,
    streamed,
    traffic,
    trips,
    overflow,
    back,
    cap,
    ms: Math.max(free, cap),
    regime,
  };
}

/** One whole picture on its way back to a panel, MB. */
export function pictureMB(pixels: number): number {
  return (pixels * PIXEL_BYTES) / 1e6;
}

/** Pixels of "2560x1440"; null where nothing was said. */
export function pixelsOf(resolution: string): number | null {
  const m = /^(\d+)x(\d+)$/.exec(resolution);
  return m ? Number(m[1]) * Number(m[2]) : null;
}

/** What the link itself adds to a frame, ms: traffic, trips and overflow. The way back is told apart. */
export function linkToll(t: FrameTerms): number {
  return t.traffic + t.trips + t.overflow;
}
