import type { FrameCell } from './cell';
import type { FrameEvidence } from './evidence';
import { type Effort, REFINED_EFFORT } from './particles';
import { type FramePosterior, framePosterior } from './posterior';
import { NOTHING_STATED, type StatedTitle } from './priors';

/** What is known of a title: all that its posterior depends on. */
export interface KnownOfTitle {
  readonly titleId: string;
  readonly evidence: readonly FrameEvidence[];
  readonly stated: StatedTitle | null;
  /** The thorough answer, which takes several times as long as the first one. */
  readonly refined: boolean;
}

/** A refined posterior of 30 parameters takes about 2 MB. */
const MAX_KEPT = 32;
const kept = new Map<string, FramePosterior>();

/**
 * The posterior of a title. The newest are kept by everything they depend on: the same question again costs nothing.
 * @param known what is known of the title, and how thoroughly to compute
 * @param nearTo the cell that is asked, where more is known than can be computed with
 * @returns the posterior
 */
export function posteriorOf(known: KnownOfTitle, nearTo?: FrameCell): FramePosterior {
  const { titleId, evidence, refined } = known;
  const stated = known.stated ?? NOTHING_STATED;
  const key = JSON.stringify([titleId, evidence, stated, refined]);
  const found = kept.get(key);
  if (found) {
    kept.delete(key);
    kept.set(key, found);
    return found;
  }
  const effort: { effort?: Effort } = refined ? { effort: REFINED_EFFORT } : {};
  const made = framePosterior({ titleId, evidence, stated, ...(nearTo && { nearTo }), ...effort });
  if (kept.size >= MAX_KEPT) kept.delete(kept.keys().next().value as string);
  kept.set(key, made);
  return made;
}
