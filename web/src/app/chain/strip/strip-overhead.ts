import { figureText } from '@ruddy/core/base/text';
import { shortOverheadText } from '@ruddy/core/runs/text';
import type { ShownOverhead } from '../run-overhead';
import type { StripHop, StripModel } from './strip-model';

/** Over the hop that carries it. */
export const OVERHEAD_LABEL = 'link overhead at the bottleneck';
const NONE = 'no link overhead here';

const words = (t: ShownOverhead) =>
  t.link ? `${shortOverheadText(t.link)} ms a frame` : 'not known yet';

/** The clause of the hop that carries the overhead, as it is read out. */
const clause = (t: ShownOverhead) => `carries the link overhead, ${words(t)}`;

/** The strip as the page of runs shows it: the overhead at the bottleneck, and on the rope what the way back takes. Everything else stays plain. */
export function withOverhead(m: StripModel, t: ShownOverhead): StripModel {
  const at = m.hops.find((h) => h.pinch)?.index ?? m.hops.find((h) => h.usable !== null)?.index;
  const hops = m.hops.map((h): StripHop =>
    h.index === at
      ? { ...h, line1: OVERHEAD_LABEL, line2: words(t), overhead: clause(t) }
      : {
          ...h,
          line2: h.state === 'blocked' || h.state === 'unknown' ? h.line2 : '',
          overhead: NONE,
        },
  );
  const rope = t.back ? `picture to panel ${figureText(t.back.mid, 2)} ms` : m.rope;
  const told = { ...m, mode: 'overhead' as const, hops, rope };
  return { ...told, pinchLine: `${overheadLine(told)}. ${m.pinchLine}` };
}

/** Both marks in one line, for the slim strip and for copying. */
export function overheadLine(m: StripModel): string {
  const hop = m.hops.find((h) => h.line1 === OVERHEAD_LABEL);
  return [`Link overhead ${hop?.line2 ?? 'not known yet'}`, m.rope]
    .filter((s) => s !== '')
    .join('; ');
}
