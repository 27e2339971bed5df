import { middleOf, type Range } from '../../base';
import { figureText, pluralize } from '../../base/text';
import type {
  Advised,
  AssumedOrMeasured,
  Banded,
  Bands,
  FrameCell,
  FrameEvidence,
  ForecastBasis,
  ForecastScore,
  FrameFactor,
  FrameForecast,
  FrameLimiter,
  FrameStage,
  LimiterAnswer,
  LinkOverhead,
  MissingForForecast,
  ModelAnswer,
  NoForecast,
  SettledForecast,
  UnusedReason,
} from '../frame-model';
import { UNUSED_RUNS, type UnusedRun } from '../frame-model';

export const FRAME_STAGE_NAMES: Readonly<Record<FrameStage, string>> = {
  processor: 'Processor',
  card: 'Card',
  link: 'Link',
  panel: 'Way back to the panel',
};
const small = (s: string) => s.charAt(0).toLowerCase() + s.slice(1);
const percent = (share: number) => `${Math.round(100 * share)} %`;
/** Until the thorough answer is there, chances are told in steps of 5 %. */
const chanceText = (chance: number, refined: boolean) =>
  refined ? percent(chance) : `${Math.min(95, 5 * Math.round(20 * chance))} %`;
const list = (words: readonly string[]) =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} or ${words.at(-1) ?? ''}`;

/**
 * What limits, in the only words that may be said of it.
 * @param answer what limits, with the shares
 * @param refined the thorough answer is there
 * @returns one or two sentences
 */
export function frameLimiterText(answer: LimiterAnswer, refined: boolean): string {
  const { limiter } = answer;
  switch (limiter.kind) {
    case 'cap':
      return `The limit of ${Number(limiter.fps.toFixed(1))} frames/s holds it back.`;
    case 'stage':
      return stageText(limiter, answer, refined);
    case 'equal': {
      const [a, b] = limiter.stages.map((s) => FRAME_STAGE_NAMES[s]);
      return `${a ?? ''} and ${small(b ?? '')} limit about equally (${chanceText(limiter.chance, refined)}).`;
    }
    case 'open':
      return `Cannot tell from these runs. Most likely the ${list(limiter.likely.map((s) => small(FRAME_STAGE_NAMES[s])))}.`;
  }
}

/**
 * What limits, in a few words for a table.
 * @param answer what limits
 * @param refined the thorough answer is there
 * @returns the words, with their chance where there is one
 */
export function limitedByText({ limiter }: LimiterAnswer, refined: boolean): string {
  const names = (stages: readonly FrameStage[]) => stages.map((s) => small(FRAME_STAGE_NAMES[s]));
  switch (limiter.kind) {
    case 'cap':
      return `held at ${Number(limiter.fps.toFixed(1))} frames/s`;
    case 'stage':
      return `${names([limiter.stage]).join('')} (${chanceText(limiter.chance, refined)})`;
    case 'equal':
      return `${names(limiter.stages).join(' and ')} (${chanceText(limiter.chance, refined)})`;
    case 'open':
      return `cannot tell; ${list(names(limiter.likely))}`;
  }
}

function stageText(
  limiter: Extract<FrameLimiter, { kind: 'stage' }>,
  answer: LimiterAnswer,
  refined: boolean,
): string {
  const name = FRAME_STAGE_NAMES[limiter.stage];
  const share = answer.shares.find((s) => s.stage === limiter.stage)?.share ?? 0;
  const unless =
    limiter.unlessTrafficMB === null
      ? ''
      : `, as long as the title sends less than ${figureText(limiter.unlessTrafficMB, 2)} MB a frame`;
  const gain = `1 % more ${small(name)} gives about ${share.toFixed(1)} %.`;
  return `${name} limits here (${chanceText(limiter.chance, refined)})${unless}. ${gain}`;
}

/** The two ends are further apart than the middle: then they are told alone. */
const isWide = (o: LinkOverhead) => o.ms[80].hi - o.ms[80].lo > o.ms.mid;

/**
 * "0.7 to 7.5 ms", "7.65 ms, 7.5 to 7.8".
 * @param overhead what the link costs
 * @returns the figure with its band, and the share of the frame
 */
export function overheadText(overhead: LinkOverhead): string {
  const { ms, share } = overhead;
  const band = `${figureText(ms[80].lo, 2)} to ${figureText(ms[80].hi, 2)}`;
  const figure = isWide(overhead) ? `${band} ms` : `${figureText(ms.mid, 2)} ms (${band})`;
  return `${figure} of a frame, ${percent(Math.max(0, share.mid))}`;
}

/**
 * What the page of runs says first: what the link costs, and what the same would give in a wide direct slot.
 * @param overhead what the link costs
 * @param here frames/s that were measured, and their resolution
 * @returns one sentence
 */
export function linkCostSentence(
  overhead: LinkOverhead,
  here: { readonly fps: number; readonly resolution: string },
): string {
  const { ms } = overhead;
  const band = `${figureText(Math.max(0, ms[80].lo), 2)} to ${figureText(ms[80].hi, 2)}`;
  const cost = isWide(overhead)
    ? `${band} ms a frame`
    : `${figureText(ms.mid, 2)} ms a frame (${band})`;
  const slot = (lost: number) => figureText(1000 / Math.max(0.1, 1000 / here.fps - lost));
  const inSlot = isWide(overhead)
    ? `${slot(Math.max(0, ms[80].lo))} to ${slot(ms[80].hi)}`
    : `about ${slot(ms.mid)}`;
  return `The link costs ${cost}: ${figureText(here.fps)} frames/s at ${here.resolution}, ${inSlot} in a wide direct slot.`;
}

/**
 * "78 frames/s (72 to 85)": the middle and the band that holds 80 of 100.
 * @param fps frames/s with its bands
 * @returns the middle and the band that holds 80 of 100
 */
export function fpsText(fps: Bands): string {
  return `${figureText(fps.mid)} (${figureText(fps[80].lo)} to ${figureText(fps[80].hi)})`;
}
const range = (r: Range) => `${figureText(r.lo)} to ${figureText(r.hi)}`;
/**
 * All bands of a forecast, for its detail.
 * @param fps frames/s with its bands
 * @returns one sentence
 */
export function bandsText(fps: Bands): string {
  return `50 of 100 such runs lie at ${range(fps[50])} frames/s, 80 at ${range(fps[80])}, 95 at ${range(fps[95])}.`;
}

const BASIS_WORDS: Readonly<Record<ForecastBasis, string>> = {
  measured: 'measured',
  stated: 'stated, not measured',
  near: 'near: this host, card and link at another size or setting',
  far: 'far: host, card or link by index or rate alone',
  start: 'start values: nothing was measured',
};
/**
 * What a forecast rests on, in one line.
 * @param f a forecast
 * @returns how near it is to a measurement
 */
export function basisText(f: FrameForecast): string {
  const link = f.unmeasuredLink
    ? '; rests on what titles usually send, not on this one: one run over another port would settle it'
    : '';
  return `${BASIS_WORDS[f.basis]}${f.basis === 'start' ? '' : link}`;
}

const FACTOR_NAMES: Readonly<Record<FrameFactor, string>> = {
  processor: "processor's time",
  card: "card's time",
  'fixed-share': 'what does not grow with the picture',
  'pixel-power': 'growth with pixels',
  traffic: 'MB sent a frame',
  'round-trips': 'round trips a frame',
  overlap: 'what overlaps with the link',
  panel: 'what goes back to a panel',
  'host-index': "the host's index",
  'card-index': "the card's index",
  'link-rate': 'the rate of the link',
  preset: 'cost of the preset',
  memory: 'memory it wants',
};
/**
 * What the runs measured and what is still assumed, in one line.
 * @param r what is measured and what is assumed
 * @returns one or two sentences
 */
export function restsOnText(r: AssumedOrMeasured): string {
  const names = (list: readonly FrameFactor[]) => list.map((f) => FACTOR_NAMES[f]).join(', ');
  const measured = r.measured.length > 0 ? `Measured: ${names(r.measured)}. ` : '';
  return `${measured}Assumed: ${r.assumed.length > 0 ? names(r.assumed) : 'nothing'}.`;
}

/**
 * What to run, without its minutes. `setupName`: of the setup an id stands for.
 * @param id id of an experiment
 * @param setupName name of a setup by its id
 * @returns what to run
 */
export function experimentText(id: string, setupName: (id: string) => string): string {
  const [kind, what = ''] = id.split(/:(.*)/s);
  switch (kind) {
    case 'size':
      return `the same at ${what}`;
    case 'preset':
      return `the same at the preset ${what}`;
    case 'screen':
      return what === 'panel'
        ? "the same on the host's own panel"
        : 'the same on a screen at the card';
    case 'link':
      return `the same over the link of ${setupName(what)}`;
    case 'card':
      return `the same with ${what}`;
    case 'clock':
      return `the same with the processor held to ${what} % of its clock`;
    case 'power':
      return `the same with the card held to ${what} % of its power limit`;
    default:
      return 'the same without the limit on frames';
  }
}

/**
 * The run that tells most, with its minutes and what it would likely settle; and two others.
 * @param advised runs, the best first
 * @param setupName name of a setup by its id
 * @param settled a limiter is named already
 * @returns a sentence, and the others in words
 */
export function advisedText(
  advised: readonly Advised[],
  setupName: (id: string) => string,
  settled: boolean,
): { first: string; others: string[] } {
  const [first, ...others] = advised;
  if (!first) {
    const none = settled
      ? 'nothing more is needed to tell what limits.'
      : 'no run you can make would settle this; live with the interval.';
    return { first: none, others: [] };
  }
  const minutes = (a: Advised) => pluralize(a.experiment.minutes, 'minute');
  const words = (a: Advised) => experimentText(a.experiment.id, setupName);
  const settles =
    !settled && first.settles !== null && first.settles >= 0.05
      ? `; settles it with about ${Math.round(20 * first.settles) * 5} %`
      : '';
  return {
    first: `${settled ? 'to be surer, ' : ''}run ${words(first)} (about ${minutes(first)}${settles}).`,
    others: others.map((a) => `${words(a)} (${minutes(a)})`),
  };
}

const UNUSED_REASONS: Readonly<Record<UnusedReason, string>> = {
  size: 'Its resolution is not known',
  rate: 'A rate of its link is not above 0',
  cap: 'Its limit is not above 0',
  scale: 'Its upscaling is not known',
  clock: 'A clock or power limit is not above 0',
  index: 'An index is not above 0',
  figure: 'A figure of it cannot be',
  same: 'It compares a card with itself',
  'no-cap': 'It was held, and its limit is not known',
  far: 'More is known nearer to this run',
};
/** Why a piece of evidence is left out. */
export const unusedText = (why: UnusedReason | UnusedRun): string =>
  why in UNUSED_RUNS ? UNUSED_RUNS[why as UnusedRun] : UNUSED_REASONS[why as UnusedReason];

const sizeText = (c: FrameCell) => {
  const width = KNOWN_WIDTHS.find(([, pixels]) => pixels === c.pixels)?.[0];
  return width ?? `${figureText(c.pixels / 1e6)} Mpixel`;
};
const KNOWN_WIDTHS = [
  ['1280x720', 1280 * 720],
  ['1280x800', 1280 * 800],
  ['1920x1080', 1920 * 1080],
  ['1920x1200', 1920 * 1200],
  ['2560x1440', 2560 * 1440],
  ['2560x1600', 2560 * 1600],
  ['3440x1440', 3440 * 1440],
  ['3840x2160', 3840 * 2160],
] as const;
function cellText(c: FrameCell): string {
  const card = c.card.integrated ? 'graphics inside the processor' : c.card.id;
  const rate = c.link.down ? `${figureText(middleOf(c.link.down))} Gb/s` : 'link not known';
  const link = c.card.integrated ? '' : `, ${rate}`;
  return `${c.host.id}, ${card}${link}, ${sizeText(c)}${c.panel ? ", host's panel" : ''}`;
}

/**
 * A piece of evidence in one line: the figure, then what it is of.
 * @param e evidence
 * @returns one line
 */
export function frameEvidenceText(e: FrameEvidence): string {
  switch (e.kind) {
    case 'runs': {
      const fps = (1000 * e.ms.length) / e.ms.reduce((a, b) => a + b, 0);
      return `${figureText(fps)} frames/s (${pluralize(e.ms.length, 'run')}): ${cellText(e.cell)}`;
    }
    case 'stated':
      return `${e.about ? 'about ' : ''}${figureText(e.fps)} frames/s stated: ${cellText(e.cell)}`;
    case 'ratio':
      return `${figureText(e.ratio)} times the frames of ${cellText(e.other)}: ${cellText(e.cell)}`;
    case 'card-ratio':
      return `${e.card.id} ${figureText(e.ratio)} times as fast as ${e.other.id}`;
    case 'points':
      return `${figureText(e.points)} points: ${cellText(e.cell)}`;
    case 'bound':
      return `${e.side === 'at-least' ? 'at least' : 'at most'} ${figureText(e.fps)} frames/s: ${cellText(e.cell)}`;
    case 'held':
      return `held at ${Number((e.cell.capFps ?? 0).toFixed(1))} frames/s: ${cellText(e.cell)}`;
    case 'load':
      return `card load ${percent(e.load)}: ${cellText(e.cell)}`;
  }
}

/**
 * How many pieces of evidence a model answer uses, in one line.
 * @param a an answer of the model
 * @returns one sentence
 */
export function usedText(a: ModelAnswer): string {
  const odd = a.contradictions.length;
  const verbs =
    odd === 1 ? 'does not fit the others and counts' : 'do not fit the others and count';
  const unlike = odd === 0 ? '' : `; ${odd} ${verbs} less`;
  return `From ${pluralize(a.used.length, 'piece')} of evidence${unlike}.`;
}

const MISSING_WORDS: Readonly<Record<MissingForForecast, string>> = {
  link: 'the rate of the link',
  host: 'a run on this host, or its single-thread index',
  card: 'a run with this card, or its frame index',
  title: 'a run or start values of the title',
};
/**
 * What would have to be known for a forecast.
 * @param f what is missing
 * @returns a few words
 */
export function missingText(f: NoForecast): string {
  return `needs ${f.missing.map((m) => MISSING_WORDS[m]).join(', ')}`;
}

/**
 * What the link costs a frame in short, for a list: "4.6 (4.1 to 5.2)", or the ends alone where they lie far apart.
 * @param ms median and one band, ms
 * @returns the figures without a unit
 */
export function shortOverheadText(ms: Banded): string {
  const band = `${figureText(Math.max(0, ms.lo), 2)} to ${figureText(ms.hi, 2)}`;
  return ms.hi - ms.lo > ms.mid ? band : `${figureText(ms.mid, 2)} (${band})`;
}

/**
 * A forecast against its run: "1440p forecast 61 (58 to 64), measured 60.2".
 * @param p the forecast and what was measured, frames/s
 * @returns a few words
 */
export function settledText(p: SettledForecast & { readonly resolution: string }): string {
  return `${p.resolution} forecast ${fpsText(p.fps)}, measured ${figureText(p.measured)}`;
}

/**
 * How well forecasts held that were made before their runs.
 * @param s the score
 * @returns one sentence
 */
export function scoreText(s: ForecastScore): string {
  if (s.n === 0) return 'No forecast has met its run yet.';
  const { held, n, within } = s;
  return `Within 5 % in ${within} of ${n}; inside the 50, 80 and 95 % bands in ${held[50]}, ${held[80]} and ${held[95]}.`;
}

/**
 * The same by the width of the 80 % band, one line a width that there is.
 * @param s the score
 * @returns lines
 */
export function widthTexts(s: ForecastScore): string[] {
  const names = { narrow: 'up to ±5 %', middling: '±5 to ±15 %', wide: 'over ±15 %' } as const;
  return (['narrow', 'middling', 'wide'] as const)
    .filter((width) => s.byWidth[width].n > 0)
    .map((width) => {
      const { n, held } = s.byWidth[width];
      return `80 % bands ${names[width]}: the run lay inside in ${held[80]} of ${n}.`;
    });
}
