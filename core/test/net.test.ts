import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CAUSE_IDS, type CauseId, SYMPTOM_IDS, TEST_IDS, type TestId } from '../src/base';
import { TEST_GROUPS } from '../src/bench/text';
import { CAUTION_TEXTS } from '../src/bring-up/text';
import {
  CAUSES,
  chainFacts,
  netFor,
  NO_OBSERVATIONS,
  openTests,
  SYMPTOMS,
  TESTS,
} from '../src/troubleshoot';
import { CAUSE_WORDS, SYMPTOM_GROUPS, TEST_WORDS } from '../src/troubleshoot/text';
import { directChain, EMPTY, tunnelChain } from './make';

const CHAINS = [
  EMPTY,
  tunnelChain(),
  directChain(),
  tunnelChain({ socket: { controller: 'separate', standard: 'thunderbolt-3', tunnelling: null } }),
];
/** P(positive) of a test given a cause, as the net ships. */
const p = (t: TestId, c: CauseId) =>
  (TESTS[t].given as Partial<Record<CauseId, number>>)[c] ?? TESTS[t].q;

describe('TR-01 the net as data', () => {
  it('shares are shares, weights positive, tests take minutes', () => {
    for (const id of SYMPTOM_IDS)
      for (const row of [SYMPTOMS[id].given, SYMPTOMS[id].direct ?? {}])
        for (const share of Object.values(row)) expect(share > 0 && share < 1).toBe(true);
    for (const id of TEST_IDS) {
      const t = TESTS[id];
      expect([id, t.minutes > 0, t.q > 0 && t.q < 0.5]).toEqual([id, true, true]);
      for (const share of Object.values(t.given)) expect(share > 0 && share < 1).toBe(true);
    }
    for (const id of CAUSE_IDS) expect(CAUSES[id].w).toBeGreaterThan(0);
  });

  it('everything has words and stands once in its lists', () => {
    for (const id of CAUSE_IDS) expect(CAUSE_WORDS[id].what).not.toBe('');
    for (const id of TEST_IDS) expect(new Set(Object.values(TEST_WORDS[id])).size).toBe(4);
    expect(SYMPTOM_GROUPS.flatMap((g) => g.of).sort()).toEqual([...SYMPTOM_IDS].sort());
    expect(TEST_GROUPS.flatMap((g) => g.of).sort()).toEqual([...TEST_IDS].sort());
  });

  it('every cause is behind something seen, and some test names it', () => {
    for (const c of CAUSE_IDS) {
      if (c === 'none-of-these') continue;
      const seen = SYMPTOM_IDS.some(
        (s) => Math.max(SYMPTOMS[s].given[c] ?? 0, SYMPTOMS[s].direct?.[c] ?? 0) >= 0.3,
      );
      expect([c, seen, TEST_IDS.some((t) => p(t, c) >= 0.7 || p(t, c) <= 0.1)]).toEqual([
        c,
        true,
        true,
      ]);
    }
  });

  it('every cause is told from its neighbours three to one', () => {
    const apart = (t: TestId, a: CauseId, b: CauseId) => {
      const x = p(t, a);
      const y = p(t, b);
      return Math.max(x / y, y / x, (1 - x) / (1 - y), (1 - y) / (1 - x)) >= 3;
    };
    const missing: string[] = [];
    for (const s of SYMPTOM_IDS) {
      const near = CAUSE_IDS.filter((c) => (SYMPTOMS[s].given[c] ?? 0) >= 0.3);
      for (const a of near)
        for (const b of near)
          if (a < b && !TEST_IDS.some((t) => apart(t, a, b))) missing.push(`${s}: ${a}, ${b}`);
    }
    expect(missing).toEqual([]);
  });
});

describe('TR-02 nothing dangerous and nothing impossible is offered', () => {
  it('no test has risk 2 or 3, and care has its caution', () => {
    for (const id of TEST_IDS) {
      const t = TESTS[id];
      expect(t.risk).toBeLessThanOrEqual(1);
      if (t.risk === 1) expect(t.cautions?.length).toBeGreaterThan(0);
      for (const c of t.cautions ?? []) expect(CAUTION_TEXTS[c]).not.toBe('');
    }
  });

  it('every fix with a risk says its caution before the act', () => {
    for (const id of CAUSE_IDS)
      if (CAUSES[id].fix.risk >= 1)
        expect([id, CAUSES[id].fix.cautions.length > 0]).toEqual([id, true]);
    expect(CAUSES['mobile-chip'].fix).toMatchObject({ risk: 3, cautions: ['repackaged'] });
    expect(CAUSES['dock-firmware'].fix).toMatchObject({ risk: 2, cautions: ['flash'] });
    expect(CAUSES['both-graphics'].fix).toMatchObject({ risk: 2, cautions: ['no-screen'] });
  });

  // Facts of the trade, common practice without a published source: what a kind of link cannot have.
  it('a direct link has no router, a tunnel no direct cable', () => {
    const tunnel = netFor(tunnelChain());
    const direct = netFor(directChain());
    for (const t of [
      'router-listed',
      'approved',
      'security',
      'router-speed',
      'plug-later',
      'approve-anew',
    ] as const) {
      expect(tunnel.tests).toContain(t);
      expect(direct.tests).not.toContain(t);
    }
    expect(direct.tests).toContain('short-direct');
    expect(tunnel.tests).not.toContain('short-direct');
    expect(tunnel.causes).not.toContain('direct-live');
    expect(direct.causes).not.toContain('look-alike-port');
  });

  it('an unknown link keeps both kinds possible, without live plugging', () => {
    const net = netFor(EMPTY);
    expect(net.causes).toEqual(
      expect.arrayContaining(['direct-live', 'not-approved', 'look-alike-port']),
    );
    expect(net.tests).not.toContain('plug-later');
    expect(chainFacts(EMPTY, { form: null, port: 'oculink' }).tunnel).toBe(false);
    expect(chainFacts(EMPTY, { form: 'desktop', port: 'usb-c' })).toMatchObject({
      'surely-tunnel': true,
      panel: false,
      lid: false,
    });
  });

  it('open tests fit this chain, its symptoms and its parts', () => {
    const some = fc.uniqueArray(fc.constantFrom(...SYMPTOM_IDS), { minLength: 1, maxLength: 4 });
    fc.assert(
      fc.property(some, fc.constantFrom(...CHAINS), (symptoms, chain) => {
        const net = netFor(chain);
        for (const t of openTests(net, { ...NO_OBSERVATIONS, symptoms }, new Set())) {
          expect(net.facts[TESTS[t].on]).toBe(true);
          const { after, needsCard, same } = TESTS[t];
          if (after) expect(symptoms.some((s) => after.includes(s))).toBe(true);
          if (same) expect(symptoms).not.toContain(same);
          if (needsCard) expect(symptoms).not.toContain('nothing-listed');
        }
      }),
    );
  });
});
