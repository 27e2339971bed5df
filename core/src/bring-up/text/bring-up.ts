import { capital, formatWhole, listed, percent, rate } from '../../base/text';
import { describePath } from '../../chain';
import type { Evaluation } from '../../plan';
import { attributeName } from '../../plan/text';
import type { CheckRow, RowState } from '../grading/compare';
import type { ReadMark } from '../grading/completeness';
import type { CopyGrade, NotGraded } from '../grading/grade';
import type { LinkCheck, Overall } from '../grading/link-check';
import type { ReasonId } from '../grading/reasons';
import { countsText } from './health';

export const GRADE_WORDS = {
  healthy: 'healthy',
  low: 'low',
  poor: 'poor',
  impossible: 'impossible',
} as const;

export const ROW_WORDS: Record<RowState, string> = {
  'as-expected': 'as expected',
  below: 'below expected',
  above: 'above expected',
  idle: 'idle, proves nothing',
  ignore: 'ignore',
  'not-read': 'not read',
  'not-known': 'nothing expected',
};

export const ROW_NAMES: Record<CheckRow['key'], string> = {
  router: "Link's own router",
  host: 'Host to its port controller',
  virtual: 'Bridge pair of the tunnel',
  card: 'Slot to card',
  inside: 'Inside the card',
};

export const NOT_GRADED_TEXTS: Record<NotGraded, string> = {
  'no-unit': 'Kept, not graded: say the unit. 3 GB/s and 3 Gb/s are eight times apart.',
  'no-direction': 'Kept, not graded: say the direction. The way back is slower.',
  'not-under-load':
    'Kept, not graded: read while idle, so it proves nothing. Put the card under load and read again.',
  'load-not-said': 'Kept, not graded: say whether the card was under load.',
  pageable:
    'Kept, not graded: pageable memory is copied once more on the way. Read again with pinned memory.',
  'memory-not-said': 'Kept, not graded: say whether the memory was pinned.',
  'nothing-expected': 'Kept, not graded: what this chain should carry is not known yet.',
};

export const REASON_TEXTS: Record<ReasonId, { what: string; todo: string }> = {
  'half-rate-cable': {
    what: 'The link runs at half rate: a cable too long or with an inflated label',
    todo: 'Swap the cable for a short one marked 40 and read the router again.',
  },
  'one-lane-cable': {
    what: 'The link came up with one lane: a damaged cable or plug',
    todo: 'Turn the plug round, then swap the cable.',
  },
  'wrong-port': {
    what: 'The dock may sit in the look-alike port',
    todo: 'Check the mark beside the port and move the cable, with dock and host as the maker says.',
  },
  'two-lane-host': {
    what: 'The host wires two lanes to its port, not four',
    todo: 'Read the span of the port controller; if it shows ×2 this is how the host is made.',
  },
  seating: {
    what: 'The card trained with fewer lanes: seating, riser or dirty contacts',
    todo: 'Mains out, wait, then seat the card again. Mind static; the maker of the dock has the last word.',
  },
  'narrow-path': {
    what: 'Lanes are lost on the way: cable, riser or a plug with a bent contact',
    todo: 'Everything off and mains out, then another cable or riser, and look into the plugs.',
  },
  'driver-clamp': {
    what: 'Driver or power state holds the slot at 2.5 GT/s under load',
    todo: 'Check the power setting of the driver, then read again under a heavy load.',
  },
  'slot-generation': {
    what: 'The slot trained to a slower generation',
    todo: 'Look for a generation setting in the firmware setup, then seat the card again with mains out.',
  },
  'marginal-cable': {
    what: 'The direct cable is at its limit: corrected errors come before a slower generation',
    todo: 'Everything off, mains out, then a shorter cable or fewer joints.',
  },
  'shared-traffic': {
    what: 'Hub, LAN, drive or a screen on the dock shared the link meanwhile',
    todo: 'Unplug what hangs on the dock and read again.',
  },
  'dock-firmware': {
    what: 'Older dock firmware may hold the rate down',
    todo: "Read the dock's firmware version and compare it with the maker's newest before any update.",
  },
  'controller-class': {
    what: "The dock's controller may be of an earlier class",
    todo: "Find the link chip's revision in the maker's data sheet; class A gives about 17.6 Gb/s and is healthy with it.",
  },
  'plan-wrong': {
    what: 'More than this chain can show: a part of the plan is not what is on the desk',
    todo: 'Compare the parts of the plan with the labels on the parts.',
  },
  unit: {
    what: 'The figure fits another unit',
    todo: 'Look at the unit again: 1 GB/s is 8 Gb/s.',
  },
};

export const SUPPORT_WORDS = {
  3: 'the readings show it',
  2: 'fits the readings',
  1: 'possible',
} as const;

const OVERALL: Partial<Record<Overall, string>> = {
  'no-card':
    'No card behind a link found: 0 of the graphics devices listed hang on a port of the host.',
  gone: 'The card fell off the bus: it answers with all ones. Power or cable first.',
  idle: 'Read while idle, so it proves nothing. Put the card under load and read again.',
};

/** "26.0 Gb/s" or a range of it. */
function expectedText(e: Evaluation): string {
  const { gen, lanes, copy } = e.predicted.link.readouts;
  const span = gen && lanes ? `×${formatWhole(lanes)} Gen${formatWhole(gen)}` : '';
  const rates = copy ? `${rate(copy.down)} Gb/s to the card` : '';
  return [span, rates].filter((s) => s !== '').join(' and ') || 'a rate not known yet';
}

function copyText(c: CopyGrade): string {
  const share = c.share ? `${percent(c.share)} %` : '';
  const measured = c.gbps === null ? '' : c.gbps.toFixed(1);
  return `${measured} of ${rate(c.expected)} Gb/s${c.direction === 'up' ? ' back' : ''}, ${share}`;
}

function lower(words: string): string {
  return words.charAt(0).toLowerCase() + words.slice(1);
}

/**
 * Sentence on what would settle an open grade.
 *
 * @param c graded copy rate
 * @returns the sentence, naming the attribute to look up
 */
export function decidesText(c: CopyGrade): string {
  const path = c.decides.find((p) => describePath(p).meta !== null);
  if (!path) return 'The expected is a range, and its ends differ.';
  const { part, meta } = describePath(path);
  return `Knowing "${meta?.label.toLowerCase() ?? ''}" of the ${part} would decide it.`;
}

export const MARK_WORDS: Record<ReadMark, string> = {
  router: 'Router rate and lanes',
  slot: 'Slot width and generation',
  'copy-down': 'Copy rate to the card',
  'copy-up': 'Copy rate back',
  counters: 'Error counters',
};

/** What a reading above the expected contradicts, in one sentence; where to go on from there. */
function aboveText(check: LinkCheck): string {
  const { copy } = check;
  const over = check.rows.find((r) => r.state === 'above');
  const more =
    copy?.grade === 'impossible'
      ? copyText(copy)
      : over
        ? `${ROW_NAMES[over.key]} shows more than planned`
        : 'A reading';
  const names = listed(check.doubts.map(attributeName), 3);
  const fits = copy?.perhaps ? ` In ${copy.perhaps} it would be healthy.` : '';
  return `${more}: more than the plan allows.${names ? ` It contradicts: ${names}.` : ''}${fits}`;
}

/** Sentence from widths and generations alone: no rate, which was not measured. */
function shapeText(check: LinkCheck, e: Evaluation): string {
  const slot = check.rows.find((r) => r.key === 'card' && r.state === 'as-expected');
  const router = check.rows.some((r) => r.key === 'router' && r.state === 'as-expected');
  const { gen, lanes } = slot?.seen ?? { gen: null, lanes: null };
  const shown = [
    ...(router ? ['the router runs at its full rate'] : []),
    ...(slot
      ? [`the slot shows ${lanes === null ? '' : `×${lanes}`}${gen === null ? '' : ` Gen${gen}`}`]
      : []),
  ];
  const alike =
    !router && e.predicted.link.kind === 'tunnel' ? '; a half-rate cable looks the same here' : '';
  return `${capital(shown.join(' and ') || 'the spans are as expected')}. The rate is not read yet${alike}. Next: ${COPY_TEST}.`;
}
/** What measures the rate, and how long it takes; common practice, no published source. */
const COPY_TEST = 'copy rate to the card, 2 minutes';

/**
 * Main sentence of a link check.
 *
 * @param check the check; null before the first reading
 * @param e evaluation of the chain
 * @param reasonsNamed upper bound on reasons named
 * @returns the sentence
 */
export function linkCheckHeadline(
  check: LinkCheck | null,
  e: Evaluation,
  reasonsNamed = 3,
): string {
  if (!check) return `Nothing read yet. Under load this chain should show ${expectedText(e)}.`;
  const fixed = OVERALL[check.overall];
  if (fixed) return fixed;
  // What is only possible stays in the list below, unless there is nothing better.
  const strong = check.reasons.filter((r) => r.support > 1);
  const named = (strong.length > 0 ? strong : check.reasons).slice(0, reasonsNamed);
  const likely = named.map((r) => lower(REASON_TEXTS[r.id].what.split(':')[0] ?? ''));
  const first = likely.length > 0 ? ` Likeliest first: ${likely.join('; ')}.` : '';
  const { copy, counts } = check;
  if (check.overall === 'above') return aboveText(check);
  if (counts?.grade === 'poor')
    return `${countsText(counts)} Supply and power plugs first, then cable and joints.`;
  if (copy && copy.grade === 'open' && copy.ends)
    return `${copyText(copy)}: ${GRADE_WORDS[copy.ends.atHigh]} or ${GRADE_WORDS[copy.ends.atLow]}. ${decidesText(copy)}`;
  if (copy?.grade === 'impossible')
    return `${copyText(copy)}: impossible. Check unit and direction.`;
  if (copy && copy.grade !== 'not-graded') {
    const less = check.rows.some((r) => r.state === 'below')
      ? ', but a span shows less'
      : ', but errors are corrected too often';
    const beside = copy.grade === 'healthy' && check.overall === 'low' ? less : '';
    return `${copyText(copy)}: ${copy.grade}${beside}.${copy.grade === 'healthy' && !beside ? '' : first}`;
  }
  if (check.overall === 'low' && counts?.grade === 'low')
    return `${countsText(counts)} They come before a link falls a generation.`;
  if (check.overall === 'low') return `The link came up with less than expected.${first}`;
  const onlyCounts = counts && copy === null && check.rows.every((r) => r.state !== 'as-expected');
  if (check.overall === 'healthy' && onlyCounts) return countsText(counts);
  if (check.overall === 'healthy') return shapeText(check, e);
  return copy?.why
    ? NOT_GRADED_TEXTS[copy.why]
    : 'Read, but nothing in it can be held against this chain.';
}

/** Names the artefact once, where it may be mistaken for the bottleneck. */
export const ARTEFACT_TEXT =
  'The 2.5 GT/s ×4 shown for the tunnel\'s bridge is how the system writes it down, also in "available PCIe bandwidth, limited by 2.5 GT/s". It is not the bottleneck.';
