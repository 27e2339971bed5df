import { wilson } from '../../base';
import { rate } from '../../base/text';
import {
  type EvidenceSummary,
  type Expectation,
  failures,
  successes,
  type Tally,
} from '../../plan';
import { VERDICT_LABELS } from '../../plan/text';
import type { Claim, ClaimJudged } from '../claims/claims';
import { CLAIM_MEASURES, TAGS } from '../claims/measure';
import type { CellPredicted } from '../grid/cell';
import type { Reliability } from '../log/reliability';
import type { SharedAttribute } from '../log/weights';

const pc = (share: number) => (share * 100).toFixed(0);
const round = (v: number) => String(Math.round(v * 100) / 100);

/** Of fewer cases than this only the count is told: a share of so few says nothing. */
const MIN_SHARE = 5;

/**
 * Outcomes in words: counts before shares, with Wilson's interval; of fewer than five the count alone.
 * @param t counts of outcomes
 * @returns "5 of 6 worked (44 to 97 %)"
 */
export function seenWords(t: Pick<Tally, 'n' | 'works' | 'care' | 'unreliable' | 'fails'>): string {
  if (t.n === 0) return 'Nothing seen of exactly this chain';
  if (t.n === 1)
    return `One entry only: it ${successes(t as Tally) === 1 ? 'worked' : 'failed'}. It counts, but it proves little`;
  const k = successes(t as Tally);
  const head =
    k === 0
      ? `All ${t.n} failed`
      : failures(t as Tally) === 0
        ? `All ${t.n} worked`
        : `${k} of ${t.n} worked`;
  if (t.n < MIN_SHARE) return head;
  const w = wilson(k, t.n);
  return `${head} (${pc(w.lo)} to ${pc(w.hi)} %)`;
}

/**
 * What the log says of a chain: seen, hearsay apart from it, and how many near ones there are.
 * @param e counts and weights
 * @returns one sentence
 */
export function evidenceWords(e: EvidenceSummary): string {
  const told = e.told.n === 0 ? '' : `; reported by others: ${e.told.worked} of ${e.told.n} worked`;
  const near =
    e.near.n === 0
      ? 'no near chain is logged'
      : `${e.near.n} near ${e.near.n === 1 ? 'entry' : 'entries'}`;
  return `${seenWords(e.exact)}${told}; ${near}.`;
}

/**
 * What is to be expected, and of what.
 * @param x the expectation
 * @param e counts and weights it rests on
 * @returns one sentence
 */
export function expectationWords(x: Expectation, e: EvidenceSummary): string {
  if (e.near.n === 0 && e.exact.n === 0 && e.told.n === 0)
    return 'Nothing is known: any share from 0 to 100 % is possible.';
  const all = e.exact.n + e.near.n;
  if (all < MIN_SHARE)
    return `Too few entries for a share: ${e.exact.n} of this chain, ${e.near.n} near ones.`;
  const near =
    x.prior === null
      ? 'without near ones'
      : `near ones alone say ${pc(x.prior)} % and weigh as ${round(x.strength)} of ${round(e.near.weight)} entries`;
  return `Expected to work in ${pc(x.mean)} % of cases (${pc(x.lo)} to ${pc(x.hi)} %); ${near}.`;
}

export const SHARE_WORDS: Readonly<Record<SharedAttribute, string>> = {
  host: 'same host',
  link: 'same kind of port',
  dock: 'same dock or adapter',
  family: 'same card family',
};

/**
 * What an entry shares with a chain; the rest differs.
 * @param shares attributes
 * @returns words
 */
export function sharesWords(shares: readonly SharedAttribute[]): string {
  return shares.length === 0 ? 'shares nothing' : shares.map((s) => SHARE_WORDS[s]).join(', ');
}

/**
 * Hours in use and between drops.
 * @param r reliability; null without hours
 * @returns one sentence
 */
export function reliabilityWords(r: Reliability | null): string {
  if (!r) return 'No hours in use noted yet.';
  const hours = (h: number) => (h < 10 ? h.toFixed(1) : h.toFixed(0));
  const seen = [
    r.drops > 0 ? `${r.drops} ${r.drops === 1 ? 'drop' : 'drops'}` : '',
    r.freezes > 0 ? `${r.freezes} ${r.freezes === 1 ? 'freeze' : 'freezes'}` : '',
  ]
    .filter((s) => s !== '')
    .join(' and ');
  if (seen === '')
    return `0 drops and freezes in ${hours(r.hours)} hours: at most 3 in that time, so at least ${hours(r.between.lo)} hours between two (95 %).`;
  const to = r.between.hi === null ? 'open above' : `${hours(r.between.hi)}`;
  return `${seen} in ${hours(r.hours)} hours: one in ${hours(r.between.mid as number)} hours (${hours(r.between.lo)} to ${to}).`;
}

/**
 * The ends of a claim.
 * @param c the claim
 * @returns words with their unit
 */
export function claimRange(c: Pick<Claim, 'measure' | 'lo' | 'hi'>): string {
  const { unit } = CLAIM_MEASURES[c.measure];
  if (c.lo !== null && c.hi !== null) return `${round(c.lo)} to ${round(c.hi)} ${unit}`;
  return c.lo !== null
    ? `at least ${round(c.lo)} ${unit}`
    : `at most ${round(c.hi as number)} ${unit}`;
}

/**
 * The conditions of a claim.
 * @param c the claim
 * @returns words; empty without conditions
 */
export function claimWhere(c: Pick<Claim, 'where'>): string {
  return c.where.map((w) => `${TAGS[w.tag].toLowerCase()} has "${w.has}"`).join(', ');
}

/**
 * What the log says of a claim: counts, where it never holds, and whether that is more than chance.
 * @param c the claim
 * @param j its judgement
 * @returns sentences
 */
export function claimWords(c: Claim, j: ClaimJudged): string {
  if (j.n === 0) return 'Nothing measured yet that it speaks of.';
  const range = claimRange(c);
  if (CLAIM_MEASURES[c.measure].share) {
    const share = j.n < MIN_SHARE ? '' : ` (${pc(j.share.lo)} to ${pc(j.share.hi)} %)`;
    const head = `${j.within} of ${j.n} worked${share}`;
    if (j.state === 'holds') return `${head}: ${range} holds.`;
    return j.state === 'fails'
      ? `${head}: ${range} does not hold.`
      : `${head}: ${range} cannot be told yet.`;
  }
  const never = j.never.slice(0, 3).map((x) => x.value);
  const but = never.length === 0 ? '' : `; never at ${never.join(', ')}`;
  const head = `Holds (${range}) in ${j.within} of ${j.n} ${j.n === 1 ? 'measurement' : 'measurements'}${but}`;
  return j.n === 1 ? `${head}. One measurement proves little.` : `${head}.`;
}

export const CLAIM_STATES: Readonly<Record<ClaimJudged['state'], string>> = {
  none: 'not measured',
  one: 'one only',
  holds: 'mostly holds',
  fails: 'mostly does not hold',
  open: 'open',
};

/**
 * What is predicted for a pair.
 * @param p the prediction
 * @returns words
 */
export function cellWords(p: CellPredicted): string {
  if (p.state === 'no-port')
    return 'No port of the host takes the plug of the dock; an adapter may';
  return p.down && (p.state === 'works' || p.state === 'care')
    ? `${VERDICT_LABELS[p.state]}, ${rate(p.down)} Gb/s`
    : VERDICT_LABELS[p.state];
}

/**
 * A version hold that is left, or about to be; shown before the act.
 * @param p the hold and the version now
 * @returns the sentence
 */
export function pinWords(p: {
  readonly name: string;
  readonly version: string;
  readonly reason: string;
  readonly now: string;
}): string {
  return `${p.name} is pinned at ${p.version}${p.reason ? ` (${p.reason})` : ''}; ${p.now} leaves it.`;
}
