import { tQuantile } from '../../base';
import type { FitTerm, FitTermKind, FitValues, Stage } from '../model/fit';
import { REFERENCE_PIXELS } from '../model/model';
import { START } from '../model/start';
import type { FixedParameters, Solution } from './design';

/** Every parameter of a fit with its value, its interval and how it stands. */
export function termsOf(
  main: FitValues,
  s: Solution,
  held: FixedParameters,
  sd: number,
  df: number,
): FitTerm[] {
  const t = df > 0 ? tQuantile(0.025, df) : null;
  const half = (name: string) => {
    const i = s.free.indexOf(name);
    return i < 0 || t === null ? null : t * sd * Math.sqrt(s.solved.inverse[i]?.[i] ?? 0);
  };
  const term = (
    kind: FitTermKind,
    of: string,
    value: number,
    name: string,
    state: FitTerm['state'],
  ): FitTerm => {
    const h = half(name);
    const wide = h !== null && h > Math.abs(value) / 2 && (kind === 'traffic' || kind === 'trips');
    return {
      kind,
      of,
      value,
      lo: h === null ? null : value - h,
      hi: h === null ? null : value + h,
      state: wide ? 'inseparable' : state,
    };
  };
  // Cards are told at one size, whatever sizes they ran at.
  const scale = (v: Stage & { atPixels?: number }) =>
    v.atPixels ? (REFERENCE_PIXELS / v.atPixels) ** main.exponent : 1;
  const stage = (
    kind: 'host' | 'card',
    list: Readonly<Record<string, Stage & { atPixels?: number }>>,
  ) =>
    Object.entries(list).map(([of, v]): FitTerm => {
      const by = scale(v);
      if (v.lo !== v.hi)
        return { kind, of, value: v.hi * by, lo: 0, hi: v.hi * by, state: 'bound' };
      const t = term(kind, of, v.mid, `${kind} ${of}`, 'fitted');
      return {
        ...t,
        value: t.value * by,
        lo: t.lo === null ? null : t.lo * by,
        hi: t.hi === null ? null : t.hi * by,
      };
    });
  const free = (name: string, else_: FitTerm['state']): FitTerm['state'] =>
    s.free.includes(name) ? 'fitted' : else_;
  const band = (b: { lo: number; hi: number }) => ({ lo: b.lo, hi: b.hi });
  const traffic = term(
    'traffic',
    '',
    main.trafficMB,
    'traffic',
    free('traffic', held.trafficMB === null ? 'fitted' : 'inseparable'),
  );
  return [
    ...stage('host', main.hosts),
    ...stage('card', main.cards),
    held.trafficMB !== null ? { ...traffic, ...band(START.trafficMB) } : traffic,
    ...(s.free.includes('streamed')
      ? [term('streamed', '', main.streamedMB, 'streamed', 'fitted')]
      : []),
    s.free.includes('trips')
      ? term('trips', '', main.trips, 'trips', 'fitted')
      : { kind: 'trips', of: '', value: main.trips, lo: null, hi: null, state: 'inseparable' },
    s.free.includes('kappa')
      ? term('kappa', '', main.kappa, 'kappa', 'fitted')
      : { kind: 'kappa', of: '', value: main.kappa, ...band(START.kappa), state: 'assumed' },
    s.free.includes('exponent')
      ? term('exponent', '', main.exponent, 'exponent', 'fitted')
      : {
          kind: 'exponent',
          of: '',
          value: main.exponent,
          ...band(START.exponent),
          state: 'assumed',
        },
  ];
}
