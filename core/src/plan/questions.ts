import { type AttrPath, describePath } from '../chain';
import type { AttrMeta } from '../parts';
import { type JudgedArea, STOPPING_AREAS } from './areas';
import type { Evaluation } from './types';

/** Something worth finding out about a chain. */
export interface OpenQuestion {
  readonly path: AttrPath;
  /** The noun of the part it belongs to, and what is known of the attribute. */
  readonly part: string;
  readonly meta: AttrMeta;
  /** The first area it leaves open; null for one that only narrows a figure. */
  readonly area: JudgedArea | null;
  /** It can turn the verdict. */
  readonly decides: boolean;
}

/** What of a judgement its questions are made from. */
export interface Asking {
  readonly predicted: Pick<Evaluation['predicted'], 'areas' | 'verdict'>;
  readonly toVerify: Evaluation['toVerify'];
}

/** Minutes of a question whose effort is unknown: it is asked after the others of its area. */
const UNTIMED = 60;

/**
 * What to find out, what decides the verdict first: by area in the order they are checked, those that can stop the
 * chain before the others, and within an area what takes the fewest minutes. Slots that hold nothing are no
 * questions: they are chosen.
 * @param e what is judged
 * @returns questions
 */
export function questionsOf(e: Asking): OpenQuestion[] {
  const open = e.predicted.areas.filter((a) => a.state === 'open' || a.state === 'care');
  const stopping = (a: (typeof open)[number]) =>
    a.state === 'open' && STOPPING_AREAS.includes(a.area);
  const ordered = [...open.filter(stopping), ...open.filter((a) => !stopping(a))];
  const minutes = (p: AttrPath) => describePath(p).meta?.findOut?.minutes ?? UNTIMED;
  // What can stop the chain is asked before what only narrows a figure of the same area.
  const stops = (p: AttrPath) => (e.predicted.verdict.wouldDecide.includes(p) ? 0 : 1);
  const seen = new Set<AttrPath>();
  const of = (
    paths: readonly AttrPath[],
    area: JudgedArea | null,
    decides: boolean,
  ): OpenQuestion[] =>
    [...paths]
      .sort((a, b) => stops(a) - stops(b) || minutes(a) - minutes(b))
      .flatMap((path) => {
        const { part, meta } = describePath(path);
        if (meta === null || seen.has(path)) return [];
        seen.add(path);
        return [{ path, part, meta, area, decides }];
      });
  const decides = new Set(e.toVerify.filter((v) => v.decides).map((v) => v.path));
  return [
    ...ordered.flatMap((a) => of(a.open, a.area, true)),
    ...of([...decides], null, true),
    ...of(
      e.toVerify.map((v) => v.path),
      null,
      false,
    ),
  ];
}

/**
 * The questions that can turn the verdict or close an area.
 * @param e what is judged
 * @returns questions, in the order of `questionsOf`
 */
export function decidingOf(e: Asking): OpenQuestion[] {
  return questionsOf(e).filter((q) => q.decides);
}
