import { compareRuns, type MeasuredPair, type RunGroup, sameScene } from '../../runs';
import { fpsOf } from './measure';

/** What can be said of a title on a class of chains. */
export const TITLE_ASSESSMENTS = {
  worth: 'Worth it',
  'no-gain': 'No gain',
  broken: 'Broken',
  'wont-start': 'Will not start',
  'outside-screen': 'Needs an outside screen',
  delay: 'Sensitive to delay',
  memory: 'Hungry for memory',
} as const;
export type SayId = keyof typeof TITLE_ASSESSMENTS;
export const SAY_IDS = Object.keys(TITLE_ASSESSMENTS) as SayId[];

/** Something runs show of a title, with the figures it rests on. */
export interface FoundSay {
  readonly titleId: string;
  /** Link of the runs, in words. */
  readonly link: string;
  readonly say: SayId;
  readonly on: string;
  readonly n: number;
  readonly words: string;
}

/** What a gain must be to be worth the case on the desk, times; common practice, no published source. */
const WORTH = 1.15;
/** What the way back to the panel may cost before a screen of one's own is called for, share; common practice, no published source. */
const PANEL_LOSS = 0.15;

const newest = (...cells: readonly RunGroup[]) =>
  cells
    .flatMap((c) => c.runs.map((r) => r.happenedAt.slice(0, 10)))
    .sort()
    .at(-1) ?? '';
const count = (...cells: readonly RunGroup[]) => cells.reduce((n, c) => n + c.runs.length, 0);
const isInside = (c: RunGroup) => c.first.settings.deviceSet === 'inside';

/** The outside card against the host's own graphics, where both ran the same scene on one setup. */
function gains(cells: readonly RunGroup[]): FoundSay[] {
  return cells
    .filter((c) => !isInside(c) && !c.first.rig.slot)
    .flatMap((outside) =>
      cells
        .filter(
          (inside) =>
            isInside(inside) &&
            inside.first.setupId === outside.first.setupId &&
            sameScene(inside, outside),
        )
        .map((inside): FoundSay => {
          const ratio = compareRuns([fpsOf(inside)], [fpsOf(outside)]).of;
          return {
            titleId: outside.first.titleId,
            link: outside.first.facts.link,
            say: ratio >= WORTH ? 'worth' : 'no-gain',
            on: newest(inside, outside),
            n: count(inside, outside),
            words: `${ratio.toFixed(2)} times the host's own graphics at ${outside.first.facts.resolution}`,
          };
        }),
    );
}

function panels(pairs: readonly MeasuredPair[]): FoundSay[] {
  return pairs
    .filter((p) => p.kind === 'panel')
    .flatMap((p): FoundSay[] => {
      const lost = 1 - fpsOf(p.b) / fpsOf(p.a);
      if (lost < PANEL_LOSS) return [];
      return [
        {
          titleId: p.b.first.titleId,
          link: p.b.first.facts.link,
          say: 'outside-screen',
          on: newest(p.a, p.b),
          n: count(p.a, p.b),
          words: `${(lost * 100).toFixed(0)} % fewer frames on the panel at ${p.b.first.facts.resolution}`,
        },
      ];
    });
}

/** A title that needs more memory than a card had, by a stated value. */
function hungry(cells: readonly RunGroup[], wantsGB: ReadonlyMap<string, number>): FoundSay[] {
  return cells.flatMap((c): FoundSay[] => {
    const wants = wantsGB.get(c.first.titleId);
    const has = c.first.rig.memoryGB?.hi;
    if (wants === undefined || has === undefined || wants <= has) return [];
    return [
      {
        titleId: c.first.titleId,
        link: c.first.facts.link,
        say: 'memory',
        on: newest(c),
        n: count(c),
        words: `wants ${wants.toFixed(1)} GB, ${c.first.facts.card} has ${has}`,
      },
    ];
  });
}

/**
 * Assessments of titles from runs, one line a title, link and assessment: the one that rests on most runs.
 * @param cells groups of repeats of the titles
 * @param pairs of runs of the titles
 * @param wantsGB memory that titles want, GB, where stated
 * @returns assessments with their counts
 */
export function registerFromRuns(
  cells: readonly RunGroup[],
  pairs: readonly MeasuredPair[],
  wantsGB: ReadonlyMap<string, number>,
): FoundSay[] {
  const best = new Map<string, FoundSay>();
  for (const f of [...gains(cells), ...panels(pairs), ...hungry(cells, wantsGB)]) {
    const key = [f.titleId, f.link, f.say].join('\u0001');
    const known = best.get(key);
    if (!known || f.n > known.n || (f.n === known.n && f.on > known.on)) best.set(key, f);
  }
  return [...best.values()];
}
