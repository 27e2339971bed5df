import { middleOf, type Range, tQuantile } from '../../base';
import type { Fit, FitValues, Stage } from './fit';
import type { Asked, Ready } from './forecast-types';
import { MS_PER_MB_GBPS, pictureMB, REFERENCE_PIXELS } from './model';
import { hostInMode, middleRig, type RigFacts } from './rig';
import { INDEX_BAND, START } from './start';

const spread = (s: Stage, by: number, band: number): Stage => ({
  mid: s.mid * by,
  lo: s.lo * by * (1 - band),
  hi: s.hi * by * (1 + band),
});

/** A stage of this very host or card, or of the one whose index is nearest, scaled by the indices. */
function reach<S extends Stage>(
  own: string,
  bareName: string,
  index: Range | null,
  stages: Readonly<Record<string, S>>,
  indices: Readonly<Record<string, number>>,
): { stage: S; by: number; name: string; near: boolean } | null {
  if (stages[own]) return { stage: stages[own], by: 1, name: own, near: false };
  // The same host in another power mode: nearer than any other host, but not the same.
  const alike = Object.keys(stages).find((name) => name.startsWith(`${bareName}, `));
  if (bareName !== '' && alike)
    return { stage: stages[alike] as S, by: 1, name: alike, near: true };
  if (!index) return null;
  const mine = middleOf(index);
  const near = Object.entries(stages)
    .flatMap(([name, stage]) =>
      indices[name] ? [{ name, stage, by: indices[name] / mine, near: true }] : [],
    )
    // A stage that is known to a point is worth more than one that is only bounded.
    .sort(
      (a, b) =>
        Number(a.stage.lo !== a.stage.hi) - Number(b.stage.lo !== b.stage.hi) ||
        Math.abs(Math.log(a.by)) - Math.abs(Math.log(b.by)),
    );
  return near[0] ?? null;
}

/** A title on a rig as its calibration has it, or what it says nothing of. `workingGB`: what it wants in memory, where somebody said. */
export function fromFit(
  fit: Fit,
  workingGB: number,
  rig: RigFacts,
  asked: Asked,
): Ready | ('host' | 'card')[] {
  const hostName = rig.slot ? rig.host : hostInMode(rig.host, asked.powerMode);
  const main = setOf(fit, fit.main, rig, hostName, workingGB);
  if (Array.isArray(main)) return main;
  const setsOf = () =>
    [fit.main, ...fit.others].flatMap((v) => {
      const s = setOf(fit, v, rig, hostName, workingGB);
      return Array.isArray(s) ? [] : [s.params];
    });
  const t = fit.df > 0 ? tQuantile(0.025, fit.df) : 2;
  const back = asked.panel
    ? (pictureMB(asked.pixels) * MS_PER_MB_GBPS) / (middleRig(rig)?.upGbps ?? 1)
    : 0;
  const half = (ms: number) => {
    const { host, card } = main.params;
    const cardMs = card.mid * (asked.pixels / REFERENCE_PIXELS) ** fit.main.exponent;
    const row = fit.free.map((name) => {
      if (name === `host ${main.hostFrom}`) return host.mid >= cardMs ? main.hostBy : 0;
      if (name === `card ${main.cardFrom}`)
        return host.mid < cardMs
          ? main.cardBy *
              (asked.pixels / (fit.main.cards[main.cardFrom]?.atPixels ?? 1)) ** fit.main.exponent
          : 0;
      if (name === 'traffic') return MS_PER_MB_GBPS / (middleRig(rig)?.downGbps ?? 1);
      if (name === 'exponent') {
        const at = fit.main.cards[main.cardFrom]?.atPixels ?? 1;
        return host.mid < cardMs ? cardMs * Math.log(asked.pixels / at) : 0;
      }
      if (name === 'trips') return rig.latencyUs / 1000;
      return name === 'kappa' ? back : 0;
    });
    const variance = row.reduce(
      (s, r, i) => s + r * row.reduce((x, q, j) => x + q * (fit.covariance[i]?.[j] ?? 0), 0),
      0,
    );
    return t * Math.sqrt(Math.max(0, variance) + (fit.sd * ms) ** 2);
  };
  return {
    main: main.params,
    // Who asks for the middle alone pays for no band.
    get sets() {
      return setsOf();
    },
    basis: main.near ? 'near' : 'measured',
    half,
  };
}

function setOf(fit: Fit, v: FitValues, rig: RigFacts, hostName: string, workingGB: number) {
  const host = reach(hostName, rig.host, rig.hostIndex, v.hosts, fit.hostIndex);
  const card = reach(rig.card, '', rig.cardIndex, v.cards, fit.cardIndex);
  const missing: ('host' | 'card')[] = [
    ...(host ? [] : ['host' as const]),
    ...(card ? [] : ['card' as const]),
  ];
  if (!host || !card) return missing;
  const toReference = (REFERENCE_PIXELS / card.stage.atPixels) ** v.exponent;
  const params = {
    cpuMs: 0,
    cardMs: 0,
    exponent: v.exponent,
    trips: v.trips,
    kappa: v.kappa,
    workingGB,
    touched: START.touched.mid,
    trafficMB: v.trafficMB + v.streamedMB,
    streamed: v.streamedMB / Math.max(1e-9, v.trafficMB + v.streamedMB),
    host: spread(host.stage, host.by, host.near ? INDEX_BAND : 0),
    card: spread(card.stage, card.by * toReference, card.near ? INDEX_BAND : 0),
  };
  const near = host.near || card.near;
  return {
    params,
    near,
    hostFrom: host.name,
    cardFrom: card.name,
    hostBy: host.by,
    cardBy: card.by,
  };
}
