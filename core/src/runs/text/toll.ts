import { estimateText, figureText } from '../../base/text';
import { type Alarm, FALSE_ALARMS } from '../limiter/alarms';
import type { Elasticity } from '../limiter/elasticity';
import type { LimiterEvidence } from '../limiter/evidence';
import type { Fit, FitTerm } from '../model/fit';
import type { Forecast, NoForecast } from '../model/forecast-types';
import type { Score } from '../model/held';
import type { MeasuredPair, NoPair } from '../model/pairs';

const percent = (share: number) => `${Math.round(share * 100)} %`;

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
/** One line of evidence, with its number. */
export function evidenceText(e: LimiterEvidence): string {
  switch (e.code) {
    case 'memory-clock':
      return `Memory clock ${Math.round(e.mhz)} MHz, usually ${Math.round(e.usual)}: a power state. Mend that first.`;
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
  }
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
