import { estimateText, figureText, noneShown, pluralize } from '../../base/text';
import { type Alarm, FALSE_ALARMS } from '../limiter/alarms';
import type { Elasticity } from '../limiter/elasticity';
import type { LimiterEvidence } from '../limiter/evidence';
import type { Limiter, LimiterAdvice, Swap } from '../limiter/limiter';
import { type StageId, STAGES } from '../limiter/shares';
import type { Fit, FitTerm } from '../model/fit';
import type { Forecast, NoForecast } from '../model/forecast-types';
import type { Score } from '../model/held';
import type { MeasuredPair, NoPair } from '../model/pairs';
import type { TollRead } from '../model/toll';
import { tollText } from './toll-figure';

const ms = (v: number) => `${figureText(v, 2)} ms`;
const percent = (share: number) => `${Math.round(share * 100)} %`;

/** What the page of runs says first where the toll is known: what it costs, and what a desktop slot gives. */
export function tollSentence(
  t: TollRead,
  here: { fps: number; resolution: string },
  slotFps: number | null,
): string {
  if (t.basis === 'interval')
    return `The link costs ${tollText(t)}: with another processor on the other side more cannot be told without a sweep of resolutions.`;
  if (t.lo !== null && t.hi !== null && noneShown({ lo: t.lo, hi: t.hi }))
    return `No cost of the link shown: ${tollText(t)}.`;
  const than = slotFps === null ? '' : ` where a desktop slot gives ${figureText(slotFps)}`;
  const lost =
    slotFps === null
      ? ''
      : ` – ${percent(here.fps / slotFps)} of, ${percent(1 - here.fps / slotFps)} lost`;
  return `The link costs ${tollText(t)}: ${figureText(here.fps)} frames/s at ${here.resolution}${than}${lost}.`;
}

export const BASIS_WORDS: Readonly<Record<TollRead['basis'], string>> = {
  slot: 'against a desktop slot with the same processor',
  links: 'between two links of the same host',
  highest: 'at the highest resolution, where the card decides',
  interval: 'an interval: another processor, no sweep',
};

export function pairText(p: MeasuredPair): string {
  const what = {
    slot: 'desktop slot',
    links: 'the other link',
    panel: "the host's panel against the outside screen",
  }[p.kind];
  return p.kind === 'panel' ? what : `${what}${p.foreign ? ', another processor' : ''}`;
}
export const NO_PAIR_WORDS: Readonly<Record<NoPair['why'], string>> = {
  capped: 'a limit held the frames of one side',
  generated: 'frames were generated',
  inside: 'internal graphics against the outside card: everything differs',
  'rate-unknown': 'the rate of one link is not known',
};
export const INSEPARABLE_WORDS = {
  'traffic-trips': 'Traffic and round trips look alike here: their sum is what is known.',
  'link-processor': 'Processor and link look alike here; only a swap tells them apart.',
} as const;

/** One line of evidence, with its number. */
export function evidenceText(e: LimiterEvidence): string {
  switch (e.code) {
    case 'memory-clock':
      return `Memory clock ${Math.round(e.mhz)} MHz, usually ${Math.round(e.usual)}: a power state. Mend that first.`;
    case 'cap':
      return `Frames look held to ${figureText(e.fps)} frames/s in ${percent(e.share)} of the seconds.`;
    case 'flat-sizes':
      return `Flat from ${e.from} to ${e.to}: ${e.ratio.toFixed(2)} times the time for ${e.pixels.toFixed(2)} times the pixels.`;
    case 'grows':
      return `Grows from ${e.from} to ${e.to}: ${e.ratio.toFixed(2)} times the time for ${e.pixels.toFixed(2)} times the pixels.`;
    case 'flat-cards':
      return `Flat over cards: ${e.ratio.toFixed(2)} times the frames of ${e.other} or less.`;
    case 'lows-flat':
      return `Beside ${e.other} the averages differ ${e.averages.toFixed(2)} times, the 1 % lows ${e.lows.toFixed(2)} times.`;
    case 'card-load':
      return `Card load ${Math.round(e.percent)} %${e.low ? ', under 90: it waits' : ': busy'}.`;
    case 'card-watts':
      return `Card draws ${Math.round(e.watts)} of ${Math.round(e.of)} W, ${percent(e.watts / e.of)}${e.low ? ': it waits' : ''}.`;
    case 'processor-hot':
      return `Processor at ${Math.round(e.c)} °C: it may hold itself back.`;
    case 'toll':
      return noneShown(e.toll)
        ? `No link overhead shown: ${tollText({ ...e.toll, basis: e.basis })}.`
        : `The link overhead is ${tollText({ ...e.toll, basis: e.basis })}, ${percent(e.share)} of the frame.`;
    case 'no-pair':
      return 'No pair of runs measures the link overhead yet.';
    case 'back':
      return `The picture on its way back to the panel takes ${ms(e.ms)}, ${percent(e.share)} of the frame.`;
  }
}

const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);
export const stageName = (s: StageId): string => capital(STAGES[s]);

/** What limits, in one line. */
export function limiterText(l: Limiter): string {
  if (l.named.says === 'named') {
    const s = l.judged.shares[l.named.stage];
    return `${stageName(l.named.stage)}, ${percent(s.mid)} of the frame (${percent(s.lo)} to ${percent(s.hi)}).`;
  }
  const [a, b] = l.named.between.map((s) => STAGES[s]);
  return l.named.alike
    ? `${capital(a ?? '')} and ${b ?? ''} alike: neither is the limit alone.`
    : `${capital(a ?? '')} or ${b ?? ''}: cannot be told from these runs.`;
}

const ADVICE: Readonly<Record<LimiterAdvice, string>> = {
  memory: 'Get the card out of its power state first: driver, power setting, then run again.',
  cap: 'Lift the limit and run again: it says nothing of the rig.',
  cpu: 'Raise the resolution or the detail for little; raise the power mode. A bigger card gains little here.',
  card: 'Lower the resolution or the detail, or upscale. A bigger card pays here.',
  link: 'A direct or faster link gains most. A bigger card gains little; more detail costs little.',
  back: 'Put the screen on the card: the picture then need not go back.',
  alike: 'Two stages are near: mending one alone gains only up to the other.',
};
export const adviceText = (l: Limiter): string => (l.swap ? swapText(l.swap) : ADVICE[l.advice]);

/** The cheapest run that decides. `name`: of the setup that has what it takes. */
export function swapText(s: Swap, name = ''): string {
  const how: Readonly<Record<Swap['what'], string>> = {
    sizes:
      'run the same at a resolution with at least 1.7 times, or less than 0.6 times, the pixels',
    screen: 'run the same on the screen at the card',
    link: `run the same over the link of ${name || 'the other setup'}`,
    slot: 'run the same with the card in a desktop slot, or over another link',
    power: 'run the same in another power mode of the host',
  };
  return `One swap decides, about ${pluralize(s.minutes, 'minute')}: ${how[s.what]}.`;
}

/** An alarm in one sentence, with its number. */
export function alarmText(a: Alarm): string {
  const n = (key: string, digits = 3) => figureText(Number(a.params[key]), digits);
  switch (a.id) {
    case 'rank-inversion':
      return `${String(a.params['card'])} is ${n('percent', 2)} % slower here than ${String(a.params['by'])}, the weaker card. Repeat, swap back, read the clocks.`;
    case 'worse-than-inside':
      return `${n('percent', 2)} % slower than the graphics inside the host. Is the outside card used at all?`;
    case 'flat-lows':
      return `With ${String(a.params['card'])} averages grow ${Number(a.params['averages']).toFixed(2)} times, 1 % lows ${Number(a.params['lows']).toFixed(2)} times: something else sets the lows.`;
    case 'starved':
      return `The card waits: ${[a.params['load'] === undefined ? '' : `load ${n('load')} %`, a.params['watts'] === undefined ? '' : `${n('watts')} % of its watts`].filter((s) => s !== '').join(', ')}, with clocks as usual.`;
    case 'cap':
      return `Frames look held to ${n('fps')} frames/s though no limit was said.`;
    case 'memory-clock':
      return `Memory clock ${n('mhz')} MHz where ${n('usual')} is usual: a power state.`;
    case 'periodic-hitch':
      return `A hitch every ${n('seconds', 2)} s, in ${n('percent', 2)} % of the gaps. Does it stay at other settings, or without capturing?`;
    case 'impossible':
      return a.params['sensor'] === 'toll'
        ? `Faster through the link than in a slot, by ${n('value', 2)} ms: look at settings, unit and direction.`
        : `A meter shows ${n('value')} where ${n('most')} is the most: look at unit and column.`;
    case 'beyond-traffic':
      return `A link overhead of ${n('ms', 2)} ms would take ${n('trafficMB')} MB a frame: more than traffic explains. Look for clocks, driver, a busy hub.`;
  }
}
export const FALSE_ALARM_WORDS = `Raised on ${FALSE_ALARMS.raised} of ${FALSE_ALARMS.rigs} made rigs where nothing was wrong.`;

export function elasticityText(e: Elasticity): string {
  const head = `Clock ${e.clockPercent >= 0 ? '+' : '−'}${figureText(Math.abs(e.clockPercent), 2)} %, speed ${e.speedPercent >= 0 ? '+' : '−'}${figureText(Math.abs(e.speedPercent), 2)} %`;
  if (e.says === 'same-clock') return `${head}: the clock did not change, so nothing follows.`;
  const value = `${head}: ${e.e.toFixed(2)} of it arrives (±${e.sd.toFixed(2)})`;
  const words = {
    card: 'the card sets the pace',
    part: 'the card sets the pace in part',
    other: 'something else sets the pace',
    'too-uncertain': 'too uncertain to say; repeat',
  };
  return `${value}: ${words[e.says]}.`;
}

const TERM_NAMES: Readonly<Record<FitTerm['kind'], string>> = {
  host: 'Processor',
  card: 'Card',
  traffic: 'Traffic',
  streamed: 'Streamed beside drawing',
  trips: 'Round trips',
  exponent: 'Growth with pixels, power',
  kappa: 'Of the picture that goes back',
};
const TERM_UNITS: Readonly<Record<FitTerm['kind'], string>> = {
  host: 'ms',
  card: 'ms at 1920x1080',
  traffic: 'MB a frame',
  streamed: 'MB a frame',
  trips: 'a frame',
  exponent: '',
  kappa: '',
};
export const TERM_STATES: Readonly<Record<FitTerm['state'], string>> = {
  fitted: 'fitted',
  bound: 'at most this: nowhere the longest stage',
  assumed: 'assumed',
  inseparable: 'not told apart by these runs',
};
export function termText(t: FitTerm): { name: string; value: string } {
  const range =
    t.lo === null || t.hi === null ? '' : ` (${figureText(t.lo)} to ${figureText(t.hi)})`;
  const value =
    t.state === 'bound' ? `up to ${figureText(t.value)}` : `${figureText(t.value)}${range}`;
  return {
    name: t.of ? `${TERM_NAMES[t.kind]} ${t.of}` : TERM_NAMES[t.kind],
    value: `${value} ${TERM_UNITS[t.kind]}`.trim(),
  };
}
const REFUSED: Readonly<Record<NonNullable<Fit['refused']>, string>> = {
  'too-few': 'Not used: fewer than three kinds of run.',
  'worse-than-constant': 'Not used: one constant link overhead predicts left-out runs better.',
  solver: 'Not used: the runs do not tell its figures apart.',
};
/** How a calibration stands, in one line. */
export function fitText(f: Fit): string {
  const from = `${f.runs} runs of ${f.cells} kinds over ${f.rates} ${f.rates === 1 ? 'rate' : 'rates'}`;
  if (f.refused) return `${REFUSED[f.refused]} Made from ${from}.`;
  const { left } = f;
  const error =
    left.rms === null
      ? 'nothing could be left out to test it'
      : `left-out runs missed by ${(left.rms * 100).toFixed(1)} % (${left.n} of ${left.of})`;
  const than =
    left.constantRms === null
      ? ''
      : `, one constant link overhead by ${(left.constantRms * 100).toFixed(1)} %`;
  return `Fitted to ${from}; ${error}${than}.`;
}

const MISSING: Readonly<Record<NoForecast['missing'][number], string>> = {
  link: 'the rate of the link',
  host: 'a run on this host, or its single-thread index',
  card: 'a run with this card, or its frame index',
  title: 'a calibration or start values of the title',
  look: 'runs at this preset',
};
export function missingText(f: NoForecast): string {
  return `needs ${f.missing.map((m) => MISSING[m]).join(', ')}`;
}

/** "77 ±2 frames/s", "0 to 127 frames/s" where nothing narrower is known. */
export function forecastText(f: Pick<Forecast, 'fps'>): string {
  return `${estimateText(f.fps, 0)} frames/s`;
}
export const FORECAST_BASIS: Readonly<Record<Forecast['basis'], string>> = {
  measured: 'from runs on this host and card',
  near: 'reached by an index from another host or card',
  profile: 'from start values alone',
};

/** "2160p predicted 61 ±2, measured 60.2." */
export function heldText(p: {
  resolution: string;
  predicted: { mid: number; lo: number; hi: number };
  measured: number;
}): string {
  return `${p.resolution} predicted ${estimateText(p.predicted, 0)}, measured ${figureText(p.measured)}`;
}
export function scoreText(s: Score): string {
  return s.n === 0
    ? 'No prediction has met its run yet.'
    : `Held within 5 % in ${s.within} of ${s.n}; inside their band in ${s.inBand} of ${s.n}.`;
}
