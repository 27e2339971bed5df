import type { Range } from '../../base';

/** What a frame's time can hang on. */
export const STAGES = {
  cpu: 'processor',
  card: 'card',
  link: 'link',
  back: 'way back to the panel',
  cap: 'limit on frames',
} as const;
export type StageId = keyof typeof STAGES;
export const STAGE_IDS = Object.keys(STAGES) as StageId[];

export interface StageShare extends Range {
  readonly mid: number;
}
export type Shares = Readonly<Record<StageId, StageShare>>;

/** What was measured of a rig, as far as it tells stages apart. Times in ms. */
export interface Observed {
  /** Mean frame of the run in question, and how it scatters from frame to frame, as a share. */
  readonly ms: number;
  readonly jitter: number;
  /** The same title on the same rig at other sizes: pixels over those of the run in question, and mean frame. */
  readonly sizes: readonly { readonly ratio: number; readonly ms: number }[];
  /** The link's toll here; `sd` as a standard deviation. Null: no pair told it. */
  readonly toll:
    | { readonly mid: number; readonly sd: number }
    | { readonly lo: number; readonly hi: number }
    | null;
  /** What the way back takes; 0 without a panel. */
  readonly backMs: number;
  /** Load and watts of the card, as shares of all it has. */
  readonly load: number | null;
  readonly watts: number | null;
}

/** How surely a mean frame of a few repeats is the model's: their scatter and what the model leaves out. */
const MODEL = 0.012;
/** How the card's time grows with the pixels, and how usual each is. */
const EXPONENTS = [
  [0.7, 0.5],
  [0.78, 1],
  [0.85, 1.2],
  [0.92, 1],
  [1, 0.5],
] as const;
/** A meter of load is this far off, and misleads altogether this often. Watts tell less. Common practice, no published source. */
const LOAD = { sd: 0.03, misleads: 0.15 } as const;
const WATTS = { sd: 0.15, misleads: 0.3, idle: 0.25 } as const;
/** What the model leaves out of a share, whatever was measured: programs beside the title, clocks that wander. */
const LEFT_OUT = 0.02;
const STEPS = 72;
const LEAST = 0.12;
const MOST = 1.06;
/**
 * How much of the scatter of single frames the stages feel: less where a queue makes up for late ones, more where clocks change slowly.
 * Which it is cannot be seen, so each counts alike.
 */
const FELT = [0.5, 1, 1.6] as const;

const density = (x: number, sd: number) => Math.exp(-0.5 * (x / sd) ** 2);
const mixed = (x: number, m: { sd: number; misleads: number }) =>
  (1 - m.misleads) * density(x, m.sd) + m.misleads * 0.4;
const bell = (z: number) => Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI);
/** Standard normal below z. Source: Abramowitz and Stegun, 26.2.17 would be finer; a logistic is within 0.01 (Bowling and others, 2009). */
const below = (z: number) => 1 / (1 + Math.exp(-0.07056 * z ** 3 - 1.5976 * z));

/** Mean of the longer of two stages that scatter by a share `j`, and each one's part in it (C. E. Clark, Operations Research 9 (1961)). */
function longer(cpu: number, card: number, j: number): { ms: number; cpu: number; card: number } {
  const theta = j * Math.hypot(cpu, card);
  if (theta < 1e-9) return cpu >= card ? { ms: cpu, cpu, card: 0 } : { ms: card, cpu: 0, card };
  const d = (cpu - card) / theta;
  const p = below(d);
  const f = bell(d);
  const a = cpu * p + ((j * cpu) ** 2 / theta) * f;
  const b = card * (1 - p) + ((j * card) ** 2 / theta) * f;
  return { ms: a + b, cpu: a, card: b };
}

function tollWeight(o: Observed, link: number): number {
  if (link < -0.04 * o.ms) return 0;
  if (o.toll === null) return 1;
  if ('sd' in o.toll) return density(link - o.toll.mid, Math.hypot(o.toll.sd, MODEL * o.ms));
  const over = Math.max(0, o.toll.lo - link, link - o.toll.hi);
  return density(over, MODEL * o.ms);
}

interface Point {
  readonly w: number;
  readonly cpu: number;
  readonly card: number;
  readonly link: number;
}

/** Every pair of processor and card times with its weight and the shares that follow. */
function weigh(o: Observed, felt: number): Point[] {
  const points: Point[] = [];
  const back = Math.min(o.backMs, o.ms);
  const at = (i: number) => LEAST * (MOST / LEAST) ** (i / (STEPS - 1)) * o.ms;
  for (let i = 0; i < STEPS; i++)
    for (let k = 0; k < STEPS; k++) {
      const cpu = at(i);
      const card = at(k);
      const now = longer(cpu, card, felt);
      const link = o.ms - back - now.ms;
      let w = tollWeight(o, link);
      if (w === 0) continue;
      const busy = Math.min(1, card / o.ms);
      if (o.load !== null) w *= mixed(o.load - busy, LOAD);
      if (o.watts !== null) w *= mixed(o.watts - (WATTS.idle + (1 - WATTS.idle) * busy), WATTS);
      if (o.sizes.length > 0) {
        let sum = 0;
        for (const [e, prior] of EXPONENTS) {
          let one: number = prior;
          for (const s of o.sizes) {
            const other =
              longer(cpu, card * s.ratio ** e, felt).ms + Math.max(0, link) + back * s.ratio;
            one *= density((other - s.ms) / s.ms, Math.SQRT2 * MODEL);
          }
          sum += one;
        }
        w *= sum;
      }
      points.push({
        w,
        cpu: now.cpu / o.ms,
        card: now.card / o.ms,
        link: Math.max(0, link) / o.ms,
      });
    }
  return points;
}

export interface Judged {
  readonly shares: Shares;
  /** Chance that each stage has the largest share. */
  readonly largest: Readonly<Record<StageId, number>>;
  /** A pair told the toll: without one only how things usually are tells processor from link. */
  readonly paired: boolean;
}

/**
 * Shares of the stages in the mean frame time: by how much, in per cent, the frame changes when a stage changes by one; they sum to 1.
 * Every processor and card time on a grid is weighed by how well it explains what was measured: the mean frame, other sizes, the toll of
 * a pair, load and watts of the card; the link gets what is left of the frame. Out: the weighted mean of each share with the interval
 * that holds 95 % of the weight. Nothing is drawn by chance.
 */
export function judgeShares(o: Observed): Judged | null {
  const points = FELT.flatMap((f) => weigh(o, f * o.jitter));
  const back = Math.min(o.backMs, o.ms);
  const total = points.reduce((s, p) => s + p.w, 0);
  if (!(total > 1e-12)) return null;
  const backShare = back / o.ms;
  const largest = { cpu: 0, card: 0, link: 0, back: 0, cap: 0 };
  for (const p of points) {
    const list = [
      ['cpu', p.cpu],
      ['card', p.card],
      ['link', p.link],
      ['back', backShare],
    ] as const;
    const top = list.reduce((a, b) => (b[1] > a[1] ? b : a));
    largest[top[0]] += p.w / total;
  }
  const share = (pick: (p: (typeof points)[number]) => number): StageShare => {
    const mid = points.reduce((s, p) => s + p.w * pick(p), 0) / total;
    const sorted = points.map((p) => ({ v: pick(p), w: p.w })).sort((a, b) => a.v - b.v);
    const edge = (q: number) => {
      let sum = 0;
      for (const s of sorted) if ((sum += s.w) >= q * total) return s.v;
      return sorted[sorted.length - 1]?.v ?? mid;
    };
    return { mid, lo: edge(0.025), hi: edge(0.975) };
  };
  const shares = [share((p) => p.cpu), share((p) => p.card), share((p) => p.link)] as const;
  const scale = (1 - backShare) / Math.max(1e-9, shares[0].mid + shares[1].mid + shares[2].mid);
  const whole = shares.map((s) => ({
    mid: s.mid * scale,
    lo: Math.max(0, Math.min(s.lo, s.mid * scale) - LEFT_OUT),
    hi: Math.min(1, Math.max(s.hi, s.mid * scale) + LEFT_OUT),
  }));
  return {
    shares: {
      cpu: whole[0] as StageShare,
      card: whole[1] as StageShare,
      link: whole[2] as StageShare,
      back: { mid: backShare, lo: backShare, hi: backShare },
      cap: { mid: 0, lo: 0, hi: 0 },
    },
    largest,
    paired: o.toll !== null && 'sd' in o.toll,
  };
}

/** All of it: what holds the frames is the limit. */
export const CAPPED: Judged = {
  shares: {
    cpu: { mid: 0, lo: 0, hi: 0 },
    card: { mid: 0, lo: 0, hi: 0 },
    link: { mid: 0, lo: 0, hi: 0 },
    back: { mid: 0, lo: 0, hi: 0 },
    cap: { mid: 1, lo: 1, hi: 1 },
  },
  largest: { cpu: 0, card: 0, link: 0, back: 0, cap: 1 },
  paired: true,
};

/** Two shares closer than this are alike. */
export const ALIKE = 0.1;
/** Shares whose intervals are wider than this are not known well enough to be called alike. */
const KNOWN_WITHIN = 0.35;
/** A stage is named when it is the largest with at least this chance. */
const SURE = 0.6;
/** Processor from link without a pair: next to certain, or not at all. */
const SURE_UNPAIRED = 0.97;

export type Named =
  | { readonly says: 'named'; readonly stage: StageId; readonly chance: number }
  | {
      readonly says: 'cannot-tell';
      readonly between: readonly [StageId, StageId];
      readonly alike: boolean;
    };

/**
 * The stage with the largest share, or that it cannot be told: because the two largest are alike (within 10 of 100, each known within 35), or because what was
 * measured leaves both open.
 */
export function nameLimiter(j: Judged): Named {
  const order = [...STAGE_IDS].sort((a, b) => j.shares[b].mid - j.shares[a].mid);
  const top = order[0] as StageId;
  const next = order[1] as StageId;
  const gap = j.shares[top].mid - j.shares[next].mid;
  const swap = !j.paired && [top, next].every((s) => s === 'cpu' || s === 'link');
  const sure = j.largest[top] >= (swap ? SURE_UNPAIRED : SURE);
  if (gap >= ALIKE && sure) return { says: 'named', stage: top, chance: j.largest[top] };
  const known = [top, next].every((s) => j.shares[s].hi - j.shares[s].lo <= KNOWN_WITHIN);
  return { says: 'cannot-tell', between: [top, next], alike: gap < ALIKE && known };
}
