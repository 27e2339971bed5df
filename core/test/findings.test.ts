import { describe, expect, it } from 'vitest';
import { RuleBook } from '../src/house';
import { joinLink, worlds } from '../src/link';
import { bodyFacts, CHECKS, FINDING_CODES, runChecks, type FindingCode } from '../src/plan';
import { sentence } from '../src/texts';
import { EMPTY, judge, plainChain } from './make';
import { lan, PROVOKED, whole, type Case } from './provoked';

const codesOf = (c: Case) => judge(c.chain, c.context).findings;

/** How many attributes differ between two cases; a part put in or taken out is one. */
function differing(a: unknown, b: unknown): number {
  if (Object.is(a, b)) return 0;
  const both = typeof a === 'object' && typeof b === 'object' && a !== null && b !== null;
  if (!both || Array.isArray(a) !== Array.isArray(b)) return 1;
  if (Array.isArray(a) && a.length !== (b as unknown[]).length) return 1;
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...keys].reduce((n, k) => n + differing((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k]), 0);
}

/** Pairs that differ in more than one attribute because another kind of link, or the log, is the nearest there is. */
const WIDER: readonly FindingCode[] = ['link/all-off', 'link/looks-like-video', 'log/contradiction'];

describe('every finding', () => {
  it('is in the table once', () => {
    expect(PROVOKED.map(([code]) => code).sort()).toEqual(Object.keys(FINDING_CODES).sort());
  });

  it.each(PROVOKED)('%s is made, and not with one attribute changed', (code, made, nearest) => {
    const found = codesOf(made).filter((f) => f.code === code);
    expect(found).not.toHaveLength(0);
    for (const f of found) expect(f.certainty).toBe(code === 'plan/unchosen' ? 'possible' : 'certain');
    expect(codesOf(nearest).map((f) => f.code)).not.toContain(code);
    const apart = differing([made.chain, made.context], [nearest.chain, nearest.context]);
    expect(apart).toBeGreaterThan(0);
    if (!WIDER.includes(code)) expect(apart).toBe(1);
  });

  it.each(PROVOKED)('%s has words: what, why, what to do', (code, made) => {
    for (const f of codesOf(made).filter((x) => x.code === code)) {
      const s = sentence(f);
      for (const words of [s.what, s.why, s.todo]) {
        expect(words.length).toBeGreaterThan(9);
        expect(words).not.toMatch(/undefined|NaN|Infinity|\[object| {2}/);
      }
    }
  });

  it('a check makes only the codes it declares, and reads only what it declares', () => {
    const chains = [...PROVOKED.map(([, c]) => c), { chain: plainChain() }, { chain: EMPTY }];
    for (const { chain, context } of chains) {
      const rules = new RuleBook({});
      const body = bodyFacts(chain, { asOf: '2026-11-20', ...context }, (id) => rules.get(id));
      for (const w of worlds(chain, rules)) {
        const facts = { ...w.facts, ...body, link: joinLink(w.facts, rules) };
        for (const check of CHECKS) for (const d of runChecks([check], facts, rules)) expect(check.codes).toContain(d.code);
      }
    }
  });
});

describe('what nobody stated', () => {
  it('PL-01 never decides the verdict: a bare chain still works, and one known side asks for the other', () => {
    const bare = judge(whole({ card: { lengthMm: null } }));
    expect(bare.predicted.verdict.state).toBe('works');
    expect(bare.toVerify).toContainEqual({ path: 'card/lengthMm', decides: false });
    expect(judge(whole({ card: { lengthMm: null }, dock: { innerLengthMm: null } })).toVerify.map((v) => v.path)).not.toContain(
      'card/lengthMm',
    );
  });

  it('PL-10 a range that reaches over the limit may stop it, and names what to measure', () => {
    const e = judge(whole({ card: { lengthMm: { lo: 290, hi: 310 } } }));
    expect(e.predicted.verdict).toMatchObject({ state: 'unknown', because: ['fit/too-big'], wouldDecide: ['card/lengthMm'] });
  });

  it('PL-04 says which network is left when the radio card goes', () => {
    const words = (has: 'yes' | 'no') =>
      codesOf(lan(has))
        .map((f) => sentence(f).why)
        .join(' ');
    expect(words('yes')).toContain('the LAN socket is left');
    expect(words('no')).toContain('no LAN socket');
  });
});
