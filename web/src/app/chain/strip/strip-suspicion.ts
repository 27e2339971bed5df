import { PLACES, wholePercents } from '@ruddy/core/troubleshoot';
import { PLACE_WORDS } from '@ruddy/core/troubleshoot/text';
import type { ShownPosterior } from '../suspicion';
import type { StripModel, StripPosterior } from './strip-model';
import { STRIP_NODES, role, type StripNodeKey } from './strip-piers';

/** The strip as a search shows it: suspicion under every bank and pier, the likeliest cause over the most suspect part. */
export function withPosterior(m: StripModel, shown: ShownPosterior): StripModel {
  const whole = wholePercents(PLACES.map((p) => shown.places[p]));
  const percent = Object.fromEntries(PLACES.map((p, i) => [p, whole[i] ?? 0])) as Record<
    StripNodeKey | 'elsewhere',
    number
  >;
  const most = [...STRIP_NODES, 'elsewhere' as const].reduce((a, b) =>
    percent[b] > percent[a] ? b : a,
  );
  const { elsewhere, ...piers } = percent;
  const hops = m.hops.map((h) => ({ ...h, line2: '', overhead: null }));
  const told = {
    ...m,
    mode: 'suspicion' as const,
    hops,
    picture: '',
    suspicion: { piers, elsewhere, most, cause: shown.cause },
  };
  return { ...told, pinchLine: posteriorLine(told.suspicion) };
}

/** "Most suspect: cable, 52 %; dock 17 %, elsewhere 4 %." */
export function posteriorLine(s: StripPosterior): string {
  const all = [
    ...STRIP_NODES.map((p) => [role(p).toLowerCase(), s.piers[p]] as const),
    [PLACE_WORDS.elsewhere, s.elsewhere] as const,
  ];
  const [first, ...rest] = all.filter(([, p]) => p > 0).sort((a, b) => b[1] - a[1]);
  const others = rest.map(([name, p]) => `${name} ${p} %`).join(', ');
  return first
    ? `Most suspect: ${first[0]}, ${first[1]} %${others ? `; ${others}` : ''}. Likeliest cause: ${s.cause}.`
    : '';
}

/** "suspicion 52 %" as the text of a part says it. */
export const posteriorOf = (m: StripModel, key: StripNodeKey): string | null =>
  m.suspicion ? `suspicion ${m.suspicion.piers[key]} %` : null;
