import { middleOf } from '../../base';
import { meanMsOf, type RunSeen } from '../comparison/groups';
import { pixelsOf } from '../resolutions';
import { classifyRuns, type RunClass } from '../repeats/classify';
import { DESKTOP, hostInMode, type RigFacts } from '../rig';
import type { RunSettings } from '../schema';
import { cellKey, type FrameCell, type FrameLink, type FrameLook, type PresetGroup } from './cell';
import type { FrameEvidence } from './evidence';
import { rateOf } from './priors';

/** Why a run tells the frame model nothing. */
export const UNUSED_RUNS = {
  'no-frames': 'It has no frame times and no frames/s',
  'no-resolution': 'Its resolution is not set',
  generated: 'Generated frames: the rate shown is not the rate drawn',
  disturbed: 'The capture clearly disturbed it',
  outlier: 'It lies far from its repeats',
  'left-out': 'It was said not to count',
  'processor-only': 'The processor alone computed it',
  'no-card': 'Its card is not known',
} as const;
export type UnusedRun = keyof typeof UNUSED_RUNS;

const PRESET_WORDS: readonly (readonly [RegExp, PresetGroup])[] = [
  [/^(very ?low|low|lowest|minimum)/, 'low'],
  [/^(medium|normal|standard)/, 'medium'],
  [/^(very ?high|ultra|extreme|highest|maximum|max)/, 'ultra'],
  [/^high/, 'high'],
];
/** Share of the width that is drawn, by the usual words of upscaling (common practice, no published source). */
const UPSCALING_WORDS: readonly (readonly [RegExp, number])[] = [
  [/ultra ?performance/, 1 / 3],
  [/performance/, 1 / 2],
  [/balanced/, 0.58],
  [/quality/, 2 / 3],
];

/**
 * Group of a preset by its word.
 * @param preset what a person typed
 * @returns the group; "other" for words of their own and for none
 * @example presetGroup('Ultra') // => 'ultra'
 */
export function presetGroup(preset: string): PresetGroup {
  const word = preset.trim().toLowerCase();
  return PRESET_WORDS.find(([pattern]) => pattern.test(word))?.[1] ?? 'other';
}

/**
 * Share of the picture's width that is drawn before upscaling.
 * @param upscaling what a person typed: a usual word, a percentage, or nothing
 * @returns a share up to 1
 * @example drawnScale('67 %') // => 0.67
 */
export function drawnScale(upscaling: string): number {
  const word = upscaling.trim().toLowerCase();
  const percent = /(\d{2,3})\s*%/.exec(word);
  if (percent) return Math.min(1, Math.max(0.2, Number(percent[1]) / 100));
  return UPSCALING_WORDS.find(([pattern]) => pattern.test(word))?.[1] ?? 1;
}

/** The settings that make a look. */
export type LookSettings = Pick<RunSettings, 'preset' | 'upscaling' | 'rayTracing'>;

/**
 * The look of a run's settings. Words that mean the same group and scale are one look only when they are the same words.
 * @param s preset, upscaling and ray tracing
 * @returns the look
 */
export function lookOfSettings(s: LookSettings): FrameLook {
  const words = [s.preset, s.upscaling].map((w) => w.trim().toLowerCase());
  const plain = /^(|off|none|no|native)$/.test(words[1]!) ? '' : words[1]!;
  const rayTracing = s.rayTracing === 'on';
  return {
    id: [words[0], plain, rayTracing ? 'ray tracing' : ''].join('|'),
    preset: presetGroup(s.preset),
    rayTracing,
    scale: drawnScale(plain),
  };
}

/**
 * The link of a rig. Links of the same rates and latency are one link to the model.
 * @param rig a chain as the frame model sees it
 * @returns the link
 */
export function linkOfRig(rig: Pick<RigFacts, 'down' | 'up' | 'latencyUs'>): FrameLink {
  const { down, up } = rig;
  const latencyMs = rig.latencyUs / 1000;
  const known = down !== null && down.lo > 0 && up !== null && up.lo > 0;
  const rate = known
    ? `${rateOf(down).toFixed(1)} and ${rateOf(up).toFixed(1)} Gb/s`
    : 'no known rate';
  return {
    id: `${rate}, ${latencyMs.toFixed(4)} ms`,
    down: known ? down : null,
    up: known ? up : null,
    latencyMs,
  };
}

/** What is asked of a rig beside what it is. */
export interface SceneAsked {
  readonly pixels: number;
  readonly panel: boolean;
  readonly capFps: number | null;
  readonly powerMode: string;
  readonly look: FrameLook;
  /** Graphics inside the processor draw. */
  readonly inside: boolean;
}

/**
 * A rig and a picture as a cell of the frame model.
 * @param rig a chain as the frame model sees it
 * @param asked the picture
 * @returns the cell
 */
export function cellOfRig(rig: RigFacts, asked: SceneAsked): FrameCell {
  const foreign = rig.host === DESKTOP;
  const memoryGB = rig.memoryGB && middleOf(rig.memoryGB);
  return {
    host: {
      id: rig.slot ? rig.host : hostInMode(rig.host, asked.powerMode),
      index: foreign ? null : rig.hostIndex,
    },
    card: asked.inside
      ? { id: `inside ${rig.host}`, index: null, memoryGB: null, integrated: true }
      : { id: rig.card, index: rig.cardIndex, memoryGB, integrated: false },
    link: linkOfRig(rig),
    look: asked.look,
    pixels: asked.pixels,
    panel: asked.panel && !asked.inside,
    capFps: asked.capFps,
    processorClock: 1,
    cardPower: 1,
  };
}

function unusedReason(r: RunSeen, its: RunClass | undefined): UnusedRun | null {
  if (meanMsOf(r) === null && !isScore(r)) return 'no-frames';
  if (r.settings.deviceSet === 'processor') return 'processor-only';
  if (pixelsOf(r.settings.resolution) === null) return 'no-resolution';
  if (its?.generated) return 'generated';
  if (r.context.disturbs === 'clearly') return 'disturbed';
  if (its && !its.counts) return its.outlier ? 'outlier' : 'left-out';
  return r.rig.card === '' && r.settings.deviceSet !== 'inside' ? 'no-card' : null;
}

/** A result in points: it grows with frames/s by a factor that only the test's maker knows. */
const isScore = (r: RunSeen) =>
  r.kind === 'score' && r.result !== null && r.result.unit !== 'frames/s' && r.result.value > 0;

/**
 * The cell of a run; of one that a limit held, with that limit.
 * @param r a run whose resolution is known
 * @param capFps the limit that held it and most of its repeats, frames/s; null where none did
 * @returns the cell
 */
export function cellOfRun(r: RunSeen, capFps: number | null): FrameCell {
  return cellOfRig(r.rig, {
    pixels: pixelsOf(r.settings.resolution) ?? 0,
    panel: r.settings.screenPath === 'panel',
    capFps,
    powerMode: r.settings.powerMode,
    look: lookOfSettings(r.settings),
    inside: r.settings.deviceSet === 'inside',
  });
}

const PERCENT = 100;

/** Evidence of the runs of one cell. */
function evidenceOfCell(cell: FrameCell, runs: readonly RunSeen[]): FrameEvidence[] {
  const id = runs.map((r) => r.id).join(' ');
  if (cell.capFps !== null) return [{ id: `held ${id}`, kind: 'held', cell }];
  const ms = runs.flatMap((r) => meanMsOf(r) ?? []);
  const loads = runs.flatMap((r) => r.sensors?.['card-load']?.mean ?? []);
  const load = loads.reduce((a, b) => a + b, 0) / loads.length / PERCENT;
  return [
    ...(ms.length > 0
      ? [{ id: `runs ${id}`, kind: 'runs' as const, cell, ms, average: 'mean' as const }]
      : []),
    ...runs.flatMap((r) =>
      isScore(r)
        ? [
            {
              id: `points ${r.id}`,
              kind: 'points' as const,
              cell,
              benchmark: r.titleId,
              points: r.result!.value,
            },
          ]
        : [],
    ),
    ...(loads.length > 0
      ? [{ id: `load ${id}`, kind: 'load' as const, cell, load: Math.min(1, load) }]
      : []),
  ];
}

/** Evidence of a list of runs, by the runs it comes from. */
export interface EvidenceOfRuns {
  readonly evidence: readonly FrameEvidence[];
  readonly unused: readonly { readonly runId: string; readonly why: UnusedRun }[];
}

/**
 * What the runs of a title tell the frame model: repeats share a cell; runs that a limit held tell only that the rig could be faster.
 * Runs of other drivers, systems and firmware count as alike.
 * @param runs runs of one title, on any setup; not modified
 * @returns evidence, and the runs that tell nothing with the reason
 */
export function evidenceOfRuns(runs: readonly RunSeen[]): EvidenceOfRuns {
  const cells = new Map<string, { cell: FrameCell; runs: RunSeen[] }>();
  const unused: { runId: string; why: UnusedRun }[] = [];
  const classes = classifyRuns(runs);
  const ordered = [...runs].sort((a, b) => (a.id < b.id ? -1 : 1));
  for (const run of ordered) {
    const its = classes.get(run.id);
    const why = unusedReason(run, its);
    if (why) {
      unused.push({ runId: run.id, why });
      continue;
    }
    const cell = cellOfRun(run, its?.capFps ?? null);
    const key = cellKey(cell);
    const known = cells.get(key);
    if (known) known.runs.push(run);
    else cells.set(key, { cell, runs: [run] });
  }
  return {
    evidence: [...cells.values()].flatMap((c) => evidenceOfCell(c.cell, c.runs)),
    unused,
  };
}
