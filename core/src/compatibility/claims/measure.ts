import { mean } from '../../base';
import { meanMsOf, type MeasuredPair, type RunGroup, type RunSeen } from '../../runs';

/** What a claim can be about, with its unit. */
export const CLAIM_MEASURES = {
  lost: { name: 'Frames lost against a desktop slot', unit: '%', share: false },
  toll: { name: 'Time a frame takes longer than in a desktop slot', unit: 'ms', share: false },
  panel: { name: "Frames lost on the host's own panel", unit: '%', share: false },
  copy: { name: 'Copy rate to the card under load', unit: 'Gb/s', share: false },
  works: { name: 'Setups that work, of all that were logged', unit: '%', share: true },
} as const;
export type MeasureId = keyof typeof CLAIM_MEASURES;
export const MEASURE_IDS = Object.keys(CLAIM_MEASURES) as MeasureId[];

/** What a measurement was made with; what conditions and exceptions are told by. */
export const TAGS = {
  standard: 'Port',
  host: 'Host',
  dock: 'Dock',
  card: 'Card',
  system: 'System',
  resolution: 'Resolution',
  title: 'Title',
} as const;
export type TagId = keyof typeof TAGS;
export const TAG_IDS = Object.keys(TAGS) as TagId[];

export interface Measurement {
  /** In the unit of its measure; for shares 100 or 0. */
  readonly value: number;
  readonly on: string;
  readonly tags: Readonly<Partial<Record<TagId, string>>>;
  /** The setup it was made on, and what it is called there. */
  readonly setupId: string | null;
  readonly words: string;
}

function tagsOf(r: RunSeen): Measurement['tags'] {
  const { link, host, dock, card, system, resolution } = r.facts;
  return { standard: link, host, dock, card, system, resolution, title: r.title };
}

function ofPair(p: MeasuredPair, value: number): Measurement {
  const r = p.b.first;
  const on =
    p.b.runs
      .map((x) => x.happenedAt)
      .sort()
      .at(-1) ?? r.happenedAt;
  return {
    value,
    on: on.slice(0, 10),
    tags: tagsOf(r),
    setupId: r.setupId,
    words: `${r.title} at ${r.facts.resolution}${p.foreign ? ', another processor in the desktop' : ''}`,
  };
}

/**
 * Measurements out of pairs of runs: frames lost and time of a frame against a slot, and frames lost on the panel.
 * Frames lost are those against a whole desktop, as people state them, and say where another processor drove it; the
 * time of a frame is told only by a pair with the same processor, or that would be measured with it.
 * @param pairs of runs
 * @param measure which of the three
 * @returns percent or ms
 */
export function ofPairs(
  pairs: readonly MeasuredPair[],
  measure: 'lost' | 'toll' | 'panel',
): Measurement[] {
  const kind = measure === 'panel' ? 'panel' : 'slot';
  return pairs
    .filter((p) => p.kind === kind && (measure !== 'toll' || !p.foreign))
    .map((p) =>
      ofPair(p, measure === 'toll' ? p.difference.mid : (1 - mean(p.a.ms) / mean(p.b.ms)) * 100),
    );
}

/**
 * Frames/s of a group of repeats.
 * @param c the group
 * @returns the mean over its runs
 */
export function fpsOf(c: RunGroup): number {
  return mean(c.runs.map((r) => 1000 / (meanMsOf(r) as number)));
}
