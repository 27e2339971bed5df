import { union, middleOf, type Range } from '../../base';
import type { Stage } from './fit';
import type {
  Asked,
  Banded,
  Forecast,
  NoForecast,
  Ready,
  TitleModel,
  TitleParams,
} from './forecast-types';
import { fromFit } from './from-fit';
import {
  type FrameParams,
  type FrameRig,
  frameTerms,
  type FrameTerms,
  linkToll,
  type Scene,
} from './model';
import { hostInMode, middleRig, type RigFacts } from './rig';
import { INDEX_BAND, presetFactor, REFERENCE_INDEX, START } from './start';

function fromStart(p: TitleParams, rig: RigFacts, asked: Asked): Ready | ('host' | 'card')[] {
  const missing: ('host' | 'card')[] = [
    ...(rig.hostIndex ? [] : ['host' as const]),
    ...(rig.cardIndex ? [] : ['card' as const]),
  ];
  if (!rig.hostIndex || !rig.cardIndex) return missing;
  const stage = (ms: number, index: Range): Stage => ({
    mid: (ms * REFERENCE_INDEX) / middleOf(index),
    lo: ((ms * REFERENCE_INDEX) / index.hi) * (1 - INDEX_BAND),
    hi: ((ms * REFERENCE_INDEX) / index.lo) * (1 + INDEX_BAND),
  });
  const traffic = p.trafficMB * presetFactor(asked.preset, asked.rayTracing);
  const base = {
    cpuMs: 0,
    cardMs: 0,
    streamed: 0,
    workingGB: p.workingGB * presetFactor(asked.preset, false),
    host: stage(p.cpuMs, rig.hostIndex),
    card: stage(p.cardMs, rig.cardIndex),
  };
  const ends = (e: 'lo' | 'hi', share: number, exponent: number) => ({
    ...base,
    exponent,
    trafficMB: traffic * share,
    trips: START.trips[e],
    kappa: START.kappa[e],
    touched: START.touched[e],
  });
  const middle = {
    ...ends('lo', 1, START.exponent.mid),
    trips: START.trips.mid,
    kappa: START.kappa.mid,
    touched: START.touched.mid,
  };
  const exponents = [START.exponent.lo, START.exponent.hi];
  return {
    main: middle,
    // Who asks for the middle alone pays for no band.
    get sets() {
      return exponents.flatMap((x) => [ends('lo', 0.7, x), ends('hi', 1.3, x)]);
    },
    basis: 'profile',
    half: () => 0,
  };
}

type Missing = NoForecast['missing'];

/** A title on a rig, whatever its link carries: ready to be computed at any rate, or what would have to be known. */
export function readyOf(model: TitleModel, rig: RigFacts, asked: Asked): Ready | Missing {
  const fit = model.fit && model.fit.refused === null ? model.fit : null;
  if (!fit && !model.params) return ['title'];
  const otherLook = fit !== null && asked.look !== null && asked.look !== fit.look;
  if (otherLook && !model.params) return ['look'];
  const tries = [
    ...(fit && !otherLook ? [fromFit(fit, model.params?.workingGB ?? 0, rig, asked)] : []),
    ...(model.params ? [fromStart(model.params, rig, asked)] : []),
  ];
  return tries.find((t): t is Ready => !Array.isArray(t)) ?? (tries[0] as Missing);
}

/** The terms of a frame of what is ready at one value of everything: the middle of a forecast. */
export function middleTerms(ready: Ready, rig: FrameRig, scene: Scene): FrameTerms {
  return frameTerms(
    { ...ready.main, cpuMs: ready.main.host.mid, cardMs: ready.main.card.mid },
    rig,
    scene,
  );
}

/**
 * Frames to expect of a title on a rig, with the band in which a run should lie: the ends of every assumed parameter and of every rate
 * that is not known exactly, and around them the scatter of the fit (95 %). In: what is known of the title, the rig, the frame asked
 * for. Out: the forecast, or what would have to be known for one.
 */
export function forecast(model: TitleModel, rig: RigFacts, asked: Asked): Forecast | NoForecast {
  const head = { titleId: model.id, title: model.name };
  const middle = middleRig(rig);
  const ready = readyOf(model, rig, asked);
  if ('length' in ready && ready.includes('title'))
    return { ...head, missing: ['title', ...(middle ? [] : (['link'] as const))] };
  if (!middle || !rig.down || !rig.up) return { ...head, missing: ['link'] };
  if ('length' in ready) return { ...head, missing: ready };
  const fit = model.fit && model.fit.refused === null ? model.fit : null;
  const scene = { pixels: asked.pixels, panel: asked.panel, capFps: asked.capFps };
  const at = (p: Ready['main'], end: 'mid' | 'lo' | 'hi') => {
    const params: FrameParams = { ...p, cpuMs: p.host[end], cardMs: p.card[end] };
    const slow = end === 'hi';
    const memoryGB =
      rig.memoryGB && (end === 'mid' ? middle.memoryGB : slow ? rig.memoryGB.lo : rig.memoryGB.hi);
    const rates = {
      downGbps: slow ? rig.down!.lo : rig.down!.hi,
      upGbps: slow ? rig.up!.lo : rig.up!.hi,
    };
    const safe = { downGbps: Math.max(1e-3, rates.downGbps), upGbps: Math.max(1e-3, rates.upGbps) };
    return frameTerms(params, end === 'mid' ? middle : { ...middle, ...safe, memoryGB }, scene);
  };
  const terms = middleTerms(ready, middle, scene);
  const ends = [ready.main, ...ready.sets].flatMap((p) => [at(p, 'lo'), at(p, 'mid'), at(p, 'hi')]);
  const band = (pick: (t: FrameTerms) => number, half: number): Banded => {
    const r = union(...[...ends, terms].map((t) => ({ lo: pick(t), hi: pick(t) })));
    return { mid: pick(terms), lo: Math.max(0, r.lo - half), hi: r.hi + half };
  };
  const half = ready.half(terms.ms);
  const ms = capped(
    band((t) => t.ms, half),
    terms,
  );
  const known = fit && ready.basis !== 'profile' ? fit.terms : null;
  const names = (states: readonly string[]) =>
    known
      ? known
          .filter((t) => states.includes(t.state) && concerns(t, rig, asked))
          .map((t) => (t.of ? `${t.kind} ${t.of}` : t.kind))
      : [];
  return {
    ...head,
    ms,
    fps: { mid: 1000 / ms.mid, lo: 1000 / ms.hi, hi: 1000 / Math.max(1e-6, ms.lo) },
    tollMs: band(linkToll, 0),
    backMs: band((t) => t.back, 0),
    terms,
    regime: terms.regime,
    basis: ready.basis,
    model: {
      params: { ...ready.main, cpuMs: ready.main.host.mid, cardMs: ready.main.card.mid },
      rig: middle,
      scene,
    },
    fitted: names(['fitted']),
    assumed: known
      ? names(['assumed', 'inseparable', 'bound'])
      : ['host', 'card', 'traffic', 'trips', 'exponent', 'kappa'],
  };
}

/** No frame is shorter than the period of a cap. */
function capped(ms: Banded, terms: FrameTerms): Banded {
  return terms.cap === 0
    ? ms
    : { mid: ms.mid, lo: Math.max(ms.lo, terms.cap), hi: Math.max(ms.hi, terms.cap) };
}

function concerns(t: { kind: string; of: string }, rig: RigFacts, asked: Asked): boolean {
  if (t.kind === 'card') return t.of === rig.card;
  if (t.kind === 'host') return t.of === hostInMode(rig.host, asked.powerMode) || t.of === rig.host;
  return t.kind !== 'kappa' || asked.panel;
}
