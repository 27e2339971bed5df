import type { Finding, VerdictState } from '../plan';
import { REASONS, type Reason } from './types';

/**
 * What is known of a combination in one number: a bit for each reason to leave it out, four for what may stop it, one for care. Bits of
 * several partial judgements are joined by "or", as their findings are joined by a union.
 */
export const BIT = Object.fromEntries(REASONS.map((r, i) => [r, 1 << i])) as Readonly<Record<Reason, number>>;
const MAYBE_AT = REASONS.length;
const MAYBE = { link: 1 << MAYBE_AT, power: 2 << MAYBE_AT, fit: 4 << MAYBE_AT, software: 8 << MAYBE_AT } as const;
export const CARE = 16 << MAYBE_AT;
export const STOPS = BIT.link | BIT.power | BIT.fit | BIT.software;
const OPEN = MAYBE.link | MAYBE.power | MAYBE.fit | MAYBE.software;
/** Everything that leaves a combination out. */
export const FAILS = REASONS.reduce((all, r) => all | BIT[r], 0);

function subjectOf(f: Finding): keyof typeof MAYBE {
  if (f.area === 'power' || f.area === 'fit') return f.area;
  return f.area === 'software' ? 'software' : 'link';
}

/** The bits of some findings. `unsure`: what may stop it leaves it out as well. */
export function bitsOf(found: readonly Finding[], unsure: boolean): number {
  let bits = 0;
  for (const f of found) {
    if (f.severity === 'care') bits |= CARE;
    if (f.severity !== 'blocks') continue;
    const subject = subjectOf(f);
    bits |= f.certainty === 'certain' ? BIT[subject] : MAYBE[subject] | (unsure ? 0 : BIT.unsure);
  }
  return bits;
}

/** The verdict: the same order as of a judged chain. */
export function stateOf(bits: number): VerdictState {
  if (bits & STOPS) return 'blocked';
  if (bits & OPEN) return 'unknown';
  return bits & CARE ? 'care' : 'works';
}

/** The reasons among some bits. */
export function reasonsOf(bits: number): Reason[] {
  return REASONS.filter((r) => bits & BIT[r]);
}

/** How many reasons leave it out. */
export function countOf(bits: number): number {
  let n = 0;
  for (let b = bits & FAILS; b !== 0; b &= b - 1) n++;
  return n;
}
