import { describePath } from '../schema';
import { successes } from '../log';
import type { Evaluation, Finding } from '../plan';
import { asRange, percent, rate } from './figures';
import { partNoun, sentence } from './finding';

function logged(e: Evaluation): string {
  const t = e.observed?.exact;
  if (!t || t.n === 0) return 'nothing is logged for this chain yet';
  if (t.n === 1) return `the one entry logged for it ${successes(t) === 1 ? 'worked' : 'failed'}`;
  return `${successes(t)} of ${t.n} like it worked`;
}

/** "1 minute", "10 minutes". */
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
  if (f?.code === 'link/plug-mismatch')
    return `Won't work: 0 Gb/s pass, because ${partNoun(f.params['a'])} and ${partNoun(f.params['b'])} have different plugs.`;
  if (f && f.area !== 'link' && f.area !== 'cable') return `Won't work: ${stopper(f)}`;
  return "Won't work: 0 Gb/s of PCIe reach the card.";
}

/** What stops it in one sentence with its figures: the first of why, led by what. */
function stopper(f: Finding): string {
  const { what, why } = sentence(f);
  return `${what.charAt(0).toLowerCase()}${what.slice(1)}. ${why}`;
}

function unknown(e: Evaluation): string {
  const open = e.findings.filter((f) => f.code === 'plan/unchosen').map((f) => String(f.params['slot']));
  if (open.length === 4) return 'Not enough known: no part is chosen yet. Choose a host and its port first.';
  const decide = e.predicted.verdict.wouldDecide.find((p) => describePath(p).meta !== null);
  if (decide) {
    const { part, meta } = describePath(decide);
    const minutes = meta?.findOut ? ` Finding out takes ${minutesOf(meta.findOut.minutes)}.` : '';
    if (decide.endsWith('/tunnelling')) return `Not enough known: whether the ${part} tunnels PCIe decides it.${minutes}`;
    return `Not enough known: "${meta?.label.toLowerCase() ?? ''}" of the ${part} decides it.${minutes}`;
  }
  const nouns = open.map(partNoun);
  const list = nouns.length > 1 ? `${nouns.slice(0, -1).join(', ')} and ${nouns[nouns.length - 1]}` : (nouns[0] ?? 'a part');
  return `Not enough known: ${list} ${nouns.length > 1 ? 'are' : 'is'} not chosen yet; ${4 - nouns.length} of 4 parts are.`;
}

function care(e: Evaluation): string {
  const clash = first(e, (f) => f.code === 'log/contradiction');
  if (clash) return `${sentence(clash).what}. ${sentence(clash).why}`;
  const pinch = first(e, (f) => f.code === 'link/pinch');
  if (pinch) {
    const p = pinch.params;
    const may = pinch.certainty === 'certain' ? 'holds' : 'may hold';
    return `Works with care: ${partNoun(p['part'])} ${may} this chain to ${rate(asRange(p['usable']))} Gb/s, ${percent(asRange(p['share']))} % of the ${rate(asRange(p['rest']))} the rest can carry.`;
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
  return `Works: ${every}, and ${logged(e)}.`;
}

/** The main sentence of a plan: verdict first, then the part that decides, the figure, and what it is compared with. */
export function headline(e: Evaluation): string {
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
