import {
  forecastFrame,
  type FrameCell,
  type FrameEvidence,
  type FrameLook,
  framePosterior,
  type FramePosterior,
  limiterOf,
  normalQuantile,
  type StatedTitle,
  drawLn,
  viewCell,
} from '@ruddy/core/runs';
import {
  measure,
  type Regime,
  type TargetKind,
  trueShares,
  ZOO_STAGES,
  type ZooScene,
  type ZooStage,
  type ZooTitle,
} from '../src/zoo';

const LOOKS: Readonly<Record<ZooScene['look'], Omit<FrameLook, 'id'>>> = {
  high: { preset: 'high', rayTracing: false, scale: 1 },
  low: { preset: 'low', rayTracing: false, scale: 1 },
  ultra: { preset: 'ultra', rayTracing: false, scale: 1 },
  traced: { preset: 'high', rayTracing: true, scale: 1 },
  upscaled: { preset: 'high', rayTracing: false, scale: 2 / 3 },
};
const exact = (v: number) => ({ lo: v, hi: v });

/** A scene as a person would enter it: indices and tabulated rates instead of the true ones. */
export function cellOf(w: ZooTitle, s: ZooScene): FrameCell {
  const host = w.hosts[s.host];
  const card = w.cards[s.card];
  const link = w.links[s.link];
  return {
    host: { id: host.id, index: host.index === null ? null : exact(host.index) },
    card: {
      id: card.id,
      index: exact(card.index),
      memoryGB: s.memory ? card.memoryGB : null,
      integrated: false,
    },
    link: { id: link.id, down: exact(link.down), up: exact(link.up), latencyMs: link.latencyMs },
    look: { id: s.look, ...LOOKS[s.look] },
    pixels: s.pixels,
    panel: s.panel,
    capFps: s.capFps,
    processorClock: s.processorClock,
    cardPower: s.cardPower,
  };
}

/** Medians of frame times lie below their means by about this share (common practice, no published source). */
const MEDIAN_BELOW = 0.02;

/** What was measured in a regime, as evidence. */
export function evidenceOf(w: ZooTitle, regime: Regime): FrameEvidence[] {
  return regime.runs.flatMap((s, i): FrameEvidence[] => {
    const cell = cellOf(w, s);
    const { ms, load } = measure(w, s, 1);
    if (s.capFps !== null && ms <= 1000 / s.capFps + 1e-9)
      return [{ id: `held ${i}`, kind: 'held', cell }];
    const shown = regime.median ? ms * Math.exp(-MEDIAN_BELOW) : ms;
    return [
      {
        id: `run ${i}`,
        kind: 'runs',
        cell,
        ms: [shown],
        average: regime.median ? 'median' : 'mean',
      },
      ...(regime.load ? [{ id: `load ${i}`, kind: 'load' as const, cell, load }] : []),
    ];
  });
}

/** A forecast of what was then measured. */
export interface TargetResult {
  readonly regime: string;
  readonly kind: TargetKind;
  /** ln of the forecast less ln of what was measured. */
  readonly error: number;
  /** Half-width of the raw 80 % band, as ln. */
  readonly width: number;
  /** Where the measured value lies among the draws, as a standard normal quantile. */
  readonly place: number;
  readonly inside: Readonly<Record<50 | 80 | 95, boolean>>;
  /** The same error of a straight line in pixels through the same runs; null where there is none. */
  readonly line: number | null;
}
/** What was said of a limiter. */
export interface LimiterResult {
  readonly regime: string;
  readonly pair: Regime['pair'];
  readonly said: 'stage' | 'equal' | 'open' | 'cap';
  /** Raw chance of the likeliest stage, the shown one, and whether it is the true one. */
  readonly raw: number;
  readonly shown: number;
  readonly right: boolean;
  /** The link was named. */
  readonly link: boolean;
  /** True shares inside their 80 % bands, of those that matter. */
  readonly bands: readonly boolean[];
}
export interface StudyResult {
  readonly targets: readonly TargetResult[];
  readonly limiters: readonly LimiterResult[];
}

const sameRig = (a: ZooScene, b: ZooScene) =>
  a.host === b.host &&
  a.card === b.card &&
  a.link === b.link &&
  a.look === b.look &&
  a.panel === b.panel &&
  a.capFps === null;

/** The frame time a straight line in pixels gives: least squares through the runs of the same rig. */
function lineMs(w: ZooTitle, regime: Regime, s: ZooScene): number | null {
  const points = regime.runs
    .filter((r) => sameRig(r, s))
    .map((r) => ({ x: r.pixels, y: measure(w, r, 1).ms }));
  if (new Set(points.map((p) => p.x)).size < 2) return null;
  const mean = (f: (p: { x: number; y: number }) => number) =>
    points.reduce((a, p) => a + f(p), 0) / points.length;
  const mx = mean((p) => p.x);
  const my = mean((p) => p.y);
  const slope = mean((p) => (p.x - mx) * (p.y - my)) / mean((p) => (p.x - mx) ** 2);
  return Math.max(0.1, my + slope * (s.pixels - mx));
}

function placeOf(posterior: FramePosterior, cell: FrameCell, ln: number): number {
  const draws = drawLn(viewCell(posterior, cell), 'run');
  const below = draws.reduce((n, d) => n + Number(d < ln), 0);
  return normalQuantile((below + 0.5) / (draws.length + 1));
}

function studyTarget(
  w: ZooTitle,
  regime: Regime,
  posterior: FramePosterior,
  target: Regime['targets'][number],
): TargetResult {
  const cell = cellOf(w, target.scene);
  // Another repeat than the runs: what a person would then measure.
  const measured = measure(w, target.scene, 2).ms;
  const ln = Math.log(measured);
  const raw = forecastFrame(posterior, cell, { calibrated: false }).ms;
  const shown = forecastFrame(posterior, cell).ms;
  const holds = (share: 50 | 80 | 95) => shown[share].lo <= measured && measured <= shown[share].hi;
  const line = lineMs(w, regime, target.scene);
  return {
    regime: regime.name,
    kind: target.kind,
    error: Math.log(shown.mid) - ln,
    width: Math.log(raw[80].hi / raw[80].lo) / 2,
    place: placeOf(posterior, cell, ln),
    inside: { 50: holds(50), 80: holds(80), 95: holds(95) },
    line: line === null ? null : Math.log(line) - ln,
  };
}

function studyLimiter(
  w: ZooTitle,
  regime: Regime,
  posterior: FramePosterior,
  scene: ZooScene,
): LimiterResult {
  const answer = limiterOf(posterior, cellOf(w, scene));
  const truth = trueShares(w, scene);
  const longest = ZOO_STAGES.reduce<ZooStage>((a, b) => (truth[b] > truth[a] ? b : a), 'processor');
  const best = [...answer.shares].sort((a, b) => b.chance - a.chance)[0]!;
  return {
    regime: regime.name,
    pair: regime.pair,
    said: answer.limiter.kind,
    raw: best.chance,
    shown: best.shown,
    right: best.stage === longest,
    link: answer.limiter.kind === 'stage' && answer.limiter.stage === 'link',
    bands: answer.shares
      .filter((s) => truth[s.stage] > 0.02 || s.share > 0.02)
      .map((s) => s.band.lo <= truth[s.stage] && truth[s.stage] <= s.band.hi),
  };
}

const WORKING = (w: ZooTitle): StatedTitle => ({
  processorMs: null,
  cardMs: null,
  trafficMB: null,
  workingGB: w.workingGB,
});

/** A world's runs in a regime, what the model forecasts and says of limiters, against what is then measured. */
export function studyRegime(w: ZooTitle, regime: Regime): StudyResult {
  const evidence = evidenceOf(w, regime);
  const memory = regime.runs.some((s) => s.memory);
  const posterior = framePosterior({
    titleId: `${w.mechanism} ${w.seed} ${regime.name}`,
    evidence,
    ...(memory ? { stated: WORKING(w) } : {}),
  });
  return {
    targets: regime.targets.map((t) => studyTarget(w, regime, posterior, t)),
    limiters: regime.limiters
      .filter((s) => s.capFps === null)
      .map((s) => studyLimiter(w, regime, posterior, s)),
  };
}

/** Share of a list for which something holds; NaN of none. */
export const shareOf = <T>(list: readonly T[], holds: (x: T) => boolean): number =>
  list.filter(holds).length / list.length;
/** Mean of the absolute errors, as a share. */
export const meanError = (list: readonly { readonly error: number }[]): number =>
  list.reduce((a, t) => a + Math.abs(Math.expm1(t.error)), 0) / list.length;
