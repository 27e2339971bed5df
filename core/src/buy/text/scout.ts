import type { Money } from '../../base';
import type { RowView, ScoutResult } from '../search/result';
import type { EvidenceProximity, RejectReason } from '../search/types';
import type { WayRow, Worth } from '../search/worth';
import { moneyShort } from './money';

/** Why something is left out, in words after "left out:". */
export const REASON_WORDS: Readonly<Record<RejectReason, string>> = {
  link: 'nothing passes its link',
  power: 'its supply does not bear the card',
  fit: 'the card does not go in',
  software: 'refused by software or firmware',
  unsure: 'not enough known',
  'no-frames': 'no frames can be told',
  'no-price': 'a part has no price',
  budget: 'over the money',
  target: 'too few frames',
  charging: 'charges the host too little',
  noise: 'too loud',
  size: 'too long',
  opening: 'the host must be opened',
  portable: 'not portable',
  'own-port': "a maker's own port",
  repackaged: 'wants a repackaged driver',
  unproven: 'nobody saw it work',
  soldered: 'its card is soldered in and is another one',
};
/** What would let it in. */
export const ADMIT_WORDS: Readonly<Partial<Record<RejectReason, string>>> = {
  unsure: 'what is not enough known',
  budget: 'more money',
  target: 'fewer frames',
  charging: 'less charging',
  noise: 'more noise',
  size: 'a longer dock',
  opening: 'opening the host',
  portable: 'what stays in place',
  'own-port': "a maker's own port",
  repackaged: 'a repackaged driver',
  unproven: 'what nobody saw',
};
export const SCOUT_GRADES: Readonly<Record<EvidenceProximity, string>> = {
  here: 'seen here',
  near: 'near one seen',
  predicted: 'predicted',
};

const short = (resolution: string) => `${resolution.split('x')[1] ?? resolution}p`;
const cash = (minor: number, currency: string) => moneyShort({ minor, currency } satisfies Money);

/**
 * Names of the parts of a combination.
 *
 * @param r a row with its names
 * @returns dock, card and path in words
 */
export function comboName(r: Pick<RowView, 'names'>): string {
  const { dock, card, path } = r.names;
  return dock === 'no dock' ? `${card} in ${path}` : `${dock} with ${card} over ${path}`;
}

/**
 * Main sentence of a search.
 *
 * @param r its result so far
 * @param working whether it is still running
 * @returns the sentence
 */
export function scoutHeadline(r: ScoutResult, working: boolean): string {
  const best = r.ranked[0];
  const looked = `${r.done.toLocaleString('en')} of ${r.total.toLocaleString('en')} looked at`;
  if (!best) {
    if (working) return `Searching: ${looked}, nothing fits so far.`;
    if (!r.nearest) return 'Nothing to search: no dock, card and cable meet a port of this host.';
    const { row, admits } = r.nearest;
    const words = admits && ADMIT_WORDS[admits];
    const alone = r.left.find((l) => l.reason === admits)?.alone ?? 0;
    const miss = `Nothing fits. Nearest miss: ${comboName(row)}`;
    return words
      ? `${miss}; allowing ${words} admits ${alone}.`
      : `${miss}: ${row.fails.map((f) => REASON_WORDS[f]).join(', ')}.`;
  }
  const fps = Math.round(best.fps[0] ?? 0);
  const what = `${comboName(best)}: ${fps} frames/s at ${short(r.fronts[0]?.resolution ?? '')} ${best.minor === 0 ? 'with parts at hand' : `for ${cash(best.minor, r.currency)}`}, ${SCOUT_GRADES[best.grade]}`;
  return working ? `${looked}. First so far: ${what}.` : `First: ${what}.`;
}

/**
 * Where more money stops paying, and what each step gives.
 *
 * @param r result of the search
 * @param k index of the resolution
 * @returns the sentence; says so when no step is that poor
 */
export function stopsWords(r: ScoutResult, k: number): string {
  const front = r.fronts[k];
  if (!front || front.points.length === 0)
    return `At ${short(front?.resolution ?? '')}: nothing fits.`;
  const at = short(front.resolution);
  if (front.points.length === 1)
    return `At ${at}: only one choice is not beaten in both price and frames.`;
  if (front.stops === null)
    return `At ${at}: more money still pays, up to the dearest of ${front.points.length} choices.`;
  const { after, next, per100 } = front.stops;
  const [last, dearer] = [front.points[after], front.points[next]].map((p) =>
    p ? `${p.names.card} in ${p.names.dock}` : '',
  );
  return `At ${at} it stops paying after ${last ?? ''}: up to ${dearer ?? ''} each 100 gives ${per100.toFixed(1)} frames/s.`;
}

const WAYS: Record<WayRow['kind'], string> = {
  set: 'this set',
  keep: 'what is there',
  laptop: 'laptop',
  desktop: 'desktop',
};

/**
 * Verdict on buying, with the line that decided.
 *
 * @param w the comparison
 * @param currency ISO 4217 code
 * @returns the sentence
 */
export function worthSentence(w: Worth, currency: string): string {
  const { set, rival } = w;
  if (w.worth && set.netMinor !== null && set.netMinor <= 0)
    return `Worth it: ${gain(set)} for nothing more than what is there.`;
  const cost = set.netMinor === null ? '' : cash(set.netMinor, currency);
  const name = rival ? `${WAYS[rival.kind]}${rival.name ? ` ${rival.name}` : ''}` : '';
  switch (w.by) {
    case 'unknown':
      return 'Not enough known to say whether it is worth it: its price or its frames are missing.';
    case 'band':
      return `Not worth it: its gain over ${name} lies inside the band of what can be told.`;
    case 'as-good-for-less':
      return `Not worth it: the ${name} is as good on every stated need for ${rival?.netMinor === null || !rival ? '' : cash(rival.netMinor, currency)}, less than ${cost}.`;
    case 'only-way':
      return `Worth it: ${gain(set)} for ${cost}, and nothing else keeps every stated need.`;
    case 'cost-per-frame': {
      const a = set.perFrameMinor;
      const b = rival?.perFrameMinor ?? null;
      if (a === null || b === null) return `Worth it: ${gain(set)} for ${cost}.`;
      const than = a <= b ? 'less' : 'more';
      const tail = a <= b ? '' : ', but nothing is as good for less';
      return `Worth it: a frame/s gained costs ${cash(Math.round(a), currency)}, ${than} than ${cash(Math.round(b), currency)} with the ${name}${tail}.`;
    }
  }
}

function gain(w: WayRow): string {
  return w.gainFps === null ? 'frames not told' : `${Math.round(w.gainFps)} frames/s gained`;
}
