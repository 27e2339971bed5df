import { rate } from '@ruddy/core/base/text';
import { role, type StripNode, type StripHop, type StripModel } from './strip-model';
import { posteriorOf } from './strip-suspicion';
import { OVERHEAD_LABEL, overheadLine } from './strip-overhead';

/** One part in words: "Cable: K-07, 1.2 m passive, marked 40. Chosen." */
export function nodeText(p: StripNode): string {
  const body = [p.name, ...p.facts].filter((s) => s !== '').join(', ');
  const under = p.under && p.under.length > 0 ? ` ${p.under.join(', ')}.` : '';
  return `${p.role}: ${body ? `${body}. ` : ''}${p.state.charAt(0).toUpperCase()}${p.state.slice(1)}.${under}`;
}

function stateWord(h: StripHop): string {
  if (h.state === 'blocked') return 'Blocked';
  if (h.state === 'unknown') return 'Not known';
  if (h.state === 'waiting' || h.state === 'lost') return h.state === 'lost' ? 'Lost' : 'Waiting';
  if (h.state === 'not used') return 'Not used';
  return h.pinch ? 'Bottleneck' : 'Expected';
}

/** One hop in words, with both directions. */
export function hopText(h: StripHop): string {
  const through =
    h.through.length > 0
      ? ` through ${h.through.map((k) => role(k).toLowerCase()).join(', ')}`
      : '';
  const ends = `${role(h.from)} to ${role(h.to)}${through}`;
  if (h.measured) return `${ends}: ${h.measured.clause}. ${stateWord(h)}.`;
  if (h.overhead !== null)
    return `${ends}: ${h.line1 === OVERHEAD_LABEL ? '' : `${h.line1}. `}${h.overhead}.`;
  const clause = h.usable
    ? `${rate(h.usable)} Gb/s usable to the card, ${rate(h.up)} back, expected`
    : 'rate not known';
  return `${ends}: ${h.line1}. ${clause}. ${stateWord(h)}.`;
}

/** The paragraph a screen reader hears first. */
export function summaryText(m: StripModel): string {
  const loads = m.loads.length > 0 ? ` ${m.loads.map((l) => `${l.words}.`).join(' ')}` : '';
  const known =
    m.notKnown.length > 0 ? ` ${m.notKnown.length} not known: ${m.notKnown.join(', ')}.` : '';
  const hops = `${m.hops.length} ${m.hops.length === 1 ? 'hop' : 'hops'} from system to card.`;
  return `${m.name}, ${m.mode === 'overhead' ? 'link overhead' : m.mode}. ${m.verdict}. ${hops} ${m.pinchLine}${known}${loads}`;
}

const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);

/** The strip in words, in the order of the picture: a part, the hop that leaves it, the next part. */
export function stripList(m: StripModel): string[] {
  const suspect = (p: StripNode) =>
    m.suspicion ? `${nodeText(p)} ${capital(posteriorOf(m, p.key) ?? '')}.` : nodeText(p);
  return m.piers.flatMap((p) => [
    suspect(p),
    ...(p.key === 'dock' ? m.loads.map((l) => `Hangs from the dock: ${l.words}.`) : []),
    ...m.hops.filter((h) => h.from === p.key).map(hopText),
    ...(p.key === 'screen' && m.suspicion
      ? [`Elsewhere: suspicion ${m.suspicion.elsewhere} %.`]
      : []),
    ...(p.key === 'card' && m.mode === 'overhead' && m.rope !== ''
      ? [`Card to the panel: ${m.rope}.`]
      : []),
  ]);
}

/** One line to paste: "System =53.4= Host port =16.0 bottleneck= [Cable] = Dock =26.7= Card - Screen (Gb/s usable, expected)". */
export function copyLine(m: StripModel): string {
  const parts = m.piers.map((p, i) => {
    const hop = m.hops.find((h) => h.from === p.key);
    const inside = m.hops.some((h) => h.through.includes(p.key));
    const name = inside ? `[${p.role}]` : p.role;
    if (i === m.piers.length - 1) return name;
    if (p.key === 'card')
      return m.picture ? `${name} -${m.picture.split(' ')[0]} picture- ` : `${name} - `;
    if (!hop) return inside ? `${name} = ` : `${name} `;
    const mark =
      hop.state === 'blocked' ? 'blocked' : `${rate(hop.usable)}${hop.pinch ? ' bottleneck' : ''}`;
    return `${name} =${mark}= `;
  });
  return `${parts.join('')} (Gb/s usable, ${m.mode === 'live' ? 'live' : 'expected'})${m.mode === 'overhead' ? `; ${overheadLine(m)}` : ''}${m.suspicion ? `; ${m.pinchLine}` : ''}`;
}

/** What a screen reader is told when a change moved the pinch: null when it stayed where and what it was. */
export function bottleneckMoved(before: StripModel, after: StripModel): string | null {
  const from = bottleneckOf(before);
  const to = bottleneckOf(after);
  if (!to || (from?.part === to.part && from.rate === to.rate)) return null;
  const was = from ? `, was ${from.rate}` : '';
  if (!from || from.part === to.part) return `Bottleneck at the ${to.part}: ${to.rate} Gb/s${was}.`;
  return `Bottleneck moved from the ${from.part} to the ${to.part}: ${to.rate} Gb/s${was}.`;
}

function bottleneckOf(m: StripModel): { part: string; rate: string } | null {
  const hop = m.hops.find((h) => h.pinch && h.neckAt !== null);
  return hop?.neckAt && hop.usable
    ? { part: role(hop.neckAt).toLowerCase(), rate: rate(hop.usable) }
    : null;
}
