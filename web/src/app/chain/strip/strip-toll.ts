import { figureText } from '@ruddy/core/base/text';
import { tollText } from '@ruddy/core/runs/text';
import type { ShownToll } from '../run-toll';
import type { StripHop, StripModel } from './strip-model';

/** Over the hop that carries it. */
export const TOLL_LABEL = 'link overhead at the bottleneck';
const NONE = 'no link overhead here';

function words(t: ShownToll): string {
  if (!t.link) return 'not measured: no pair of runs';
  return tollText({ ...t.link, ...(t.link.interval && { basis: 'interval' as const }) });
}

/** The clause of the hop that carries the toll, as it is read out. */
function clause(t: ShownToll): string {
  if (!t.link) return 'carries the link overhead, not measured: no pair of runs tells it';
  return `carries the link overhead, ${words(t).replace(/ \(±([\d.]+)\)$/, ', give or take $1')}`;
}

/** The strip as the page of runs shows it: the toll at the pinch, and on the rope what the way back takes. Everything else stays plain. */
export function withToll(m: StripModel, t: ShownToll): StripModel {
  const at = m.hops.find((h) => h.pinch)?.index ?? m.hops.find((h) => h.usable !== null)?.index;
  const hops = m.hops.map((h): StripHop =>
    h.index === at
      ? { ...h, line1: TOLL_LABEL, line2: words(t), toll: clause(t) }
      : { ...h, line2: h.state === 'blocked' || h.state === 'unknown' ? h.line2 : '', toll: NONE },
  );
  const rope = t.back ? `picture to panel ${figureText(t.back.mid, 2)} ms` : m.rope;
  const told = { ...m, mode: 'toll' as const, hops, rope };
  return { ...told, pinchLine: `${tollLine(told)}. ${m.pinchLine}` };
}

/** Both marks in one line, for the slim strip and for copying. */
export function tollLine(m: StripModel): string {
  const hop = m.hops.find((h) => h.line1 === TOLL_LABEL);
  return [`Link overhead ${hop?.line2 ?? 'not measured'}`, m.rope]
    .filter((s) => s !== '')
    .join('; ');
}
