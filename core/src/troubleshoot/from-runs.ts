import { mean } from '../base';
import type { RunClass } from '../runs';
import type { Answer } from './bayes';

/** A run as it is looked at here: its title, what it was made with, and its frames. */
export interface RunLooked {
  readonly title: string;
  /** Engine of the title, where known. */
  readonly engine?: string;
  readonly facts: Readonly<Record<string, string>>;
  /** What it is among its repeats, where that is known. */
  readonly class?: Pick<RunClass, 'slot' | 'generated' | 'capFps' | 'counts'>;
  readonly stats: { readonly averageFps: number } | null;
}

/** How the frames of one title answer when only the size or only the preset is changed. */
export interface Independence {
  readonly title: string;
  readonly changed: 'resolution' | 'preset';
  readonly from: string;
  readonly to: string;
  readonly fps: readonly [number, number];
  /** Null: in between, it does not tell. */
  readonly flat: boolean | null;
}

/** Less than this much faster at the lighter end is flat, more than the other is not. Judgement, no published source. */
export const FLAT_BELOW = 1.08;
export const FALLS_ABOVE = 1.25;

const pixels = (resolution: string): number | null => {
  const m = /^(\d+)\s*[x×]\s*(\d+)$/.exec(resolution);
  return m ? Number(m[1]) * Number(m[2]) : null;
};
/** Presets from light to heavy, as they are commonly called. */
const PRESETS = ['lowest', 'low', 'medium', 'high', 'very high', 'ultra', 'highest'];
const heaviness = (changed: 'resolution' | 'preset', word: string): number | null => {
  if (changed === 'resolution') return pixels(word);
  const at = PRESETS.indexOf(word.toLowerCase());
  return at < 0 ? null : at;
};

/** A run in a slot says nothing of this link; one that a limit held, that was generated or that does not count, nothing of the rig. */
function tells({ class: its }: RunLooked): boolean {
  return !its || (!its.slot && !its.generated && its.capFps === null && its.counts);
}

/** Runs alike in everything but one setting. */
function groups(runs: readonly RunLooked[], changed: 'resolution' | 'preset'): RunLooked[][] {
  const by = new Map<string, RunLooked[]>();
  for (const r of runs) {
    if (!tells(r) || r.stats === null || heaviness(changed, r.facts[changed] ?? '') === null)
      continue;
    const key = JSON.stringify(Object.entries(r.facts).filter(([f]) => f !== changed));
    by.set(key, [...(by.get(key) ?? []), r]);
  }
  return [...by.values()];
}

function pairOf(list: readonly RunLooked[], changed: 'resolution' | 'preset'): Independence[] {
  const words = [...new Set(list.map((r) => r.facts[changed] ?? ''))];
  const sorted = words.sort((a, b) => (heaviness(changed, a) ?? 0) - (heaviness(changed, b) ?? 0));
  const from = sorted[0];
  const to = sorted[sorted.length - 1];
  const title = list[0]?.title;
  if (from === undefined || to === undefined || from === to || title === undefined) return [];
  const fps = (word: string) =>
    mean(list.flatMap((r) => (r.facts[changed] === word ? [r.stats?.averageFps ?? 0] : [])));
  const light = fps(from);
  const heavy = fps(to);
  const ratio = light / heavy;
  const flat = ratio < FLAT_BELOW ? true : ratio > FALLS_ABOVE ? false : null;
  return [{ title, changed, from, to, fps: [light, heavy], flat }];
}

/** Titles of one engine: how many are flat over sizes, how many fall. */
export interface EngineSeen {
  readonly engine: string;
  readonly flat: number;
  readonly falling: number;
}

function enginesOf(
  runs: readonly RunLooked[],
  flat: ReadonlySet<string>,
  falling: ReadonlySet<string>,
): EngineSeen[] {
  const engine = statedEngines(runs);
  const names = [...new Set(engine.values())].sort();
  const count = (of: ReadonlySet<string>, name: string) =>
    [...of].filter((t) => engine.get(t) === name).length;
  const seen = names
    .map((name) => ({ engine: name, flat: count(flat, name), falling: count(falling, name) }))
    .filter((e) => e.flat + e.falling > 0);
  // One engine alone is compared with nothing.
  return seen.length > 1 ? seen : [];
}

/** The engine of each title of which it is stated. */
function statedEngines(runs: readonly RunLooked[]): ReadonlyMap<string, string> {
  return new Map(runs.flatMap((r) => (r.engine ? [[r.title, r.engine] as const] : [])));
}

/** Does a title of another engine show the fault too? Only titles whose engines are stated and differ answer that; null: none do. */
function otherEngine(
  flat: ReadonlySet<string>,
  falling: ReadonlySet<string>,
  engine: ReadonlyMap<string, string>,
): boolean | null {
  const of = (titles: ReadonlySet<string>) =>
    new Set([...titles].flatMap((t) => engine.get(t) ?? []));
  const ill = of(flat);
  const well = of(falling);
  if ([...ill].some((a) => [...well].some((b) => a !== b))) return true;
  return falling.size === 0 && ill.size > 1 ? false : null;
}

/**
 * What runs at hand already answer: do the frames of a title change with the size, and with the preset, when nothing
 * else does? One title flat while another of a stated other engine falls on the same chain puts the fault at the
 * title. Only runs alike in every other fact are compared.
 * @param runs that are not retracted
 * @returns pairs of runs, answers to tests, and engines
 */
export function runAnswers(runs: readonly RunLooked[]): {
  pairs: Independence[];
  answers: Answer[];
  engines: EngineSeen[];
} {
  const pairs = (['resolution', 'preset'] as const).flatMap((c) =>
    groups(runs, c).flatMap((g) => pairOf(g, c)),
  );
  const told = (changed: Independence['changed']) =>
    pairs.filter((p) => p.changed === changed && p.flat !== null);
  const answers: Answer[] = [];
  for (const [changed, test] of [
    ['resolution', 'resolutions'],
    ['preset', 'presets'],
  ] as const) {
    const all = told(changed);
    if (all.length > 0 && all.every((p) => p.flat === all[0]?.flat))
      answers.push({ test, yes: all[0]?.flat === true });
  }
  const sizes = told('resolution');
  const titles = (flat: boolean) =>
    new Set(sizes.filter((p) => p.flat === flat).map((p) => p.title));
  const flat = titles(true);
  const falling = titles(false);
  const other = otherEngine(flat, falling, statedEngines(runs));
  if (other !== null) answers.push({ test: 'other-title', yes: other });
  return { pairs, answers, engines: enginesOf(runs, flat, falling) };
}
