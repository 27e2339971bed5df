import { asRange, capital, figure, listed, partNoun, percent, rate } from '../../base/text';
import { type AreaVerdict, STOPPING_AREAS } from '../areas';
import { successes } from '../evidence/tally';
import { type OpenQuestion, questionsOf } from '../questions';
import type { Evaluation } from '../types';
import type { Finding } from '../finding';
import { AREA_NOUNS } from './areas';
import { sentence } from './finding';

function logged(e: Evaluation): string {
  const t = e.observed?.exact;
  if (!t || t.n === 0) return 'nothing is logged for this chain yet';
  if (t.n === 1) return `the one entry logged for it ${successes(t) === 1 ? 'worked' : 'failed'}`;
  return `${successes(t)} of ${t.n} like it worked`;
}

/**
 * Minutes in words.
 * @param n a whole number
 * @returns "1 minute", "10 minutes"
 */
export function minutesOf(n: number): string {
  return `${n} ${n === 1 ? 'minute' : 'minutes'}`;
}

function first(e: Evaluation, pick: (f: Finding) => boolean): Finding | undefined {
  return e.findings.find(pick);
}

function blocked(e: Evaluation): string {
  const f = first(e, (x) => x.severity === 'blocks' && x.certainty === 'certain');
  if (f?.code === 'link/no-tunnel')
    return `Won't work: the ${String(f.params['port'])} port carries 0 Gb/s of PCIe, so no cable or dock will make a card appear.`;
  if (f?.code === 'cable/no-data')
    return `Won't work: the cable is marked ${rate(asRange(f.params['marked']))} Gb/s, so 0 Gb/s of PCIe reach the dock.`;
  if (f?.code === 'cable/missing')
    return "Won't work: no cable joins the host and the dock, which has no fixed lead.";
  if (f?.code === 'link/plug-mismatch')
    return `Won't work: 0 Gb/s pass, because ${partNoun(f.params['a'])} and ${partNoun(f.params['b'])} have different plugs.`;
  return f ? `Won't work: ${stopper(f)}` : "Won't work.";
}

/** What stops it in one sentence with its figures: the first of why, led by what. */
function stopper(f: Finding): string {
  const { what, why } = sentence(f);
  return `${what.charAt(0).toLowerCase()}${what.slice(1)}. ${why}`;
}

function unknown(e: Evaluation): string {
  const open = e.findings
    .filter((f) => f.code === 'plan/unchosen')
    .map((f) => String(f.params['slot']));
  if (open.length === 4)
    return 'Not enough known: no part is chosen yet. Choose a host and its port first.';
  if (open.length === 0) return notKnownYet(e);
  const nouns = open.map(partNoun);
  const list = listed(nouns, 4);
  return `Not enough known: ${list} ${nouns.length > 1 ? 'are' : 'is'} not chosen yet; ${4 - nouns.length} of 4 parts are.`;
}

/** An area that does not stop the chain, with its figure where it has one. */
function fine(e: Evaluation, { area, state }: AreaVerdict): string {
  const { link, body } = e.predicted;
  const how = state === 'good' ? 'fine' : 'with care';
  if (area === 'link') return `link ${how} at ${rate(link.usable?.down)} Gb/s`;
  const fed = body.power.feeders.find((f) => f.feedsCard && f.load && f.rated);
  if (area === 'watts' && fed?.load && fed.rated)
    return `watts ${how} at ${figure(fed.load)} of ${figure(fed.rated)} W`;
  return `${AREA_NOUNS[area]} ${how}`;
}

/** What is fine with its figure, what is missing, and the answer that is worth finding out first. */
function notKnownYet(e: Evaluation): string {
  const stopping = e.predicted.areas.filter((a) => STOPPING_AREAS.includes(a.area));
  const good = stopping
    .filter((a) => a.state === 'good' || a.state === 'care')
    .filter((a) => a.area === 'link' || a.area === 'watts');
  const open = stopping.filter((a) => a.state === 'open').map((a) => AREA_NOUNS[a.area]);
  const known = good.map((a) => fine(e, a)).join(', ');
  const first = questionsOf(e)[0];
  const takes = first?.meta.findOut ? `, ${minutesOf(first.meta.findOut.minutes)}` : '';
  const ask = first ? ` First: ${askedFor(first)}${takes}.` : '';
  return `Not enough known. ${known ? `${capital(known)}. ` : ''}Not known: ${listed(open, 5)}.${ask}`;
}

/**
 * What is asked, inside a sentence.
 * @param question the attribute and its part
 * @returns "whether the left port tunnels PCIe", "length of the card"
 */
export function askedFor({
  path,
  part,
  meta,
}: Pick<OpenQuestion, 'path' | 'part' | 'meta'>): string {
  if (path.endsWith('/tunnelling')) return `whether the ${part} tunnels PCIe`;
  return `${meta.label.charAt(0).toLowerCase()}${meta.label.slice(1)} of the ${part}`;
}

function care(e: Evaluation): string {
  const clash = first(e, (f) => f.code === 'log/contradiction');
  if (clash) return `${sentence(clash).what}. ${sentence(clash).why}`;
  const pinch = first(e, (f) => f.code === 'link/pinch');
  if (pinch) {
    const p = pinch.params;
    const least = asRange(p['usable']);
    if (pinch.certainty === 'possible')
      return `Works with care: ${'part' in p ? partNoun(p['part']) : 'one part'} may hold this chain to ${least.lo.toFixed(1)} Gb/s; the rest can carry ${rate(asRange(p['rest']))}.`;
    return `Works with care: ${partNoun(p['part'])} holds this chain to ${rate(asRange(p['usable']))} Gb/s, ${percent(asRange(p['share']))} % of the ${rate(asRange(p['rest']))} the rest can carry.`;
  }
  const f = first(e, (x) => x.severity === 'care');
  const what = f ? sentence(f).what : 'something needs care';
  return `Works with care at ${rate(e.predicted.link.usable?.down)} Gb/s: ${what.charAt(0).toLowerCase()}${what.slice(1)}.`;
}

/** What was seen comes first where exactly this chain was seen under these versions. */
function works(e: Evaluation): string {
  const every = `every hop carries ${rate(e.predicted.link.usable?.down)} Gb/s or more`;
  const same = e.observed?.same;
  if (same && same.n > 0)
    return `Works: seen to work ${same.n === 1 && same.worked === 1 ? 'once' : `${same.worked} of ${same.n} times`} under these versions; ${every}.`;
  // Without the log at hand nothing is said of it.
  return e.observed ? `Works: ${every}, and ${logged(e)}.` : `Works: ${every}.`;
}

/**
 * The main sentence of a plan: verdict first, then the part that decides, the figure, and what it is compared with.
 * @param e the evaluation
 * @returns the sentence
 */
export function verdictSentence(e: Evaluation): string {
  const clash = first(e, (f) => f.code === 'log/contradiction');
  switch (e.predicted.verdict.state) {
    case 'blocked':
      return clash ? `${sentence(clash).what}. ${sentence(clash).why}` : blocked(e);
    case 'unknown':
      return unknown(e);
    case 'care':
      return care(e);
    case 'works':
      if (clash) return `${sentence(clash).what}. ${sentence(clash).why}`;
      return works(e);
  }
}
