import { type Fact, FACTS } from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';

/** What is told of a run beside its picture; the first are asked for when nobody said. */
const RUN_FACTS: readonly Fact[] = [
  'resolution',
  'preset',
  'upscaling',
  'generation',
  'rayTracing',
  'cap',
  'powerMode',
  'screenPath',
  'lid',
  'method',
  'deviceSet',
  'card',
  'cable',
  'driver',
  'build',
];
const ASKED = new Set<string>(RUN_FACTS.slice(0, 10).map((f) => FACTS[f]));

/** How a run was made, fact by fact: what was said, and what is asked for when nobody said it. */
export function runFactsOf(run: RunEntry | null): { name: string; value: string }[] {
  if (!run) return [];
  return RUN_FACTS.map((f) => ({ name: FACTS[f], value: run.facts[f] })).filter(
    (f) => f.value !== '' || ASKED.has(f.name),
  );
}
