import type { Rig } from './rigs.mjs';
export function meanFrame(rig: Rig): number;
export function makeRuns(): { runs: { id: string }[]; captures: { sha256: string }[] };
