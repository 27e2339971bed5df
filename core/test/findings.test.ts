import { describe, expect, it } from 'vitest';
import { RuleBook } from '../src/base';
import { joinLink, completions } from '../src/chain';
import {
  bodyFacts,
  CHECKS,
  FINDING_CODES,
  type FindingCode,
  type JudgedArea,
  runChecks,
} from '../src/plan';
import { sentence } from '../src/plan/text';
import { EMPTY, judge, plainChain, type Over } from './make';
import { lan, PROVOKED, whole, type Case } from './provoked';

const codesOf = (c: Case) => judge(c.chain, c.context).findings;

/** How many attributes differ between two cases; a part put in or taken out is one. */
function differing(a: unknown, b: unknown): number {
  if (Object.is(a, b)) return 0;
  const both = typeof a === 'object' && typeof b === 'object' && a !== null && b !== null;
  if (!both || Array.isArray(a) !== Array.isArray(b)) return 1;
  if (Array.isArray(a) && a.length !== (b as unknown[]).length) return 1;
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...keys].reduce(
    (n, k) => n + differing((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k]),
    0,
  );
}

/** Pairs that differ in more than one attribute because another kind of link, or the log, is the nearest there is. */
const WIDER: readonly FindingCode[] = [
  'link/all-off',
  'link/looks-like-video',
  'log/contradiction',
];

/** A slot nobody chose, and a rule of thumb about lengths: only a choice or a reading settles them. */
const NEVER_CERTAIN: readonly FindingCode[] = ['plan/unchosen', 'cable/direct-long'];

describe('every finding', () => {
  it('is in the table once', () => {
    expect(PROVOKED.map(([code]) => code).sort()).toEqual(Object.keys(FINDING_CODES).sort());
  });

  it.each(PROVOKED)('%s is made, and not with one attribute changed', (code, made, nearest) => {
    const found = codesOf(made).filter((f) => f.code === code);
    expect(found).not.toHaveLength(0);
    for (const f of found)
      expect(f.certainty).toBe(NEVER_CERTAIN.includes(code) ? 'possible' : 'certain');
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

  it('checks make only the codes and read only the facts they declare', () => {
    const chains = [...PROVOKED.map(([, c]) => c), { chain: plainChain() }, { chain: EMPTY }];
    for (const { chain, context } of chains) {
      const rules = new RuleBook({});
      const body = bodyFacts(chain, { asOf: '2026-11-20', ...context }, (id) => rules.get(id));
      for (const w of completions(chain, rules)) {
        const facts = { ...w.facts, ...body, link: joinLink(w.facts, rules) };
        for (const check of CHECKS)
          for (const d of runChecks([check], facts, rules))
            expect(Object.keys(check.findings)).toContain(d.code);
      }
    }
  });
});

describe('what nobody stated', () => {
  it('PL-01 an unstated size, plug, watt or supply leaves its area open', () => {
    const open: [Over, JudgedArea, string][] = [
      [{ card: { lengthMm: null } }, 'room', 'card/lengthMm'],
      [{ dock: { innerSlots: null } }, 'room', 'dock/innerSlots'],
      [{ card: { plugs16Pin: null } }, 'plugs', 'card/plugs16Pin'],
      [{ card: { boardW: null } }, 'watts', 'card/boardW'],
      [{ dock: { supplyW: null } }, 'watts', 'dock/supplyW'],
      [{ dock: { supply: null } }, 'plugs', 'dock/supply'],
      [{ system: { outsideCards: null } }, 'software', 'system/outsideCards'],
      [{ socket: { tunnelling: null } }, 'link', 'host/sockets/left/tunnelling'],
    ];
    for (const [over, area, path] of open) {
      const e = judge(whole(over));
      expect([area, e.predicted.verdict.state]).toEqual([area, 'unknown']);
      const found = e.predicted.areas.find((a) => a.area === area);
      expect([area, found?.state, found?.open]).toEqual([
        area,
        'open',
        expect.arrayContaining([path]),
      ]);
      expect(e.predicted.coverage.known).toBeLessThan(e.predicted.coverage.of);
      expect(e.toVerify).toContainEqual({ path, decides: true });
    }
  });

  it('PL-12 PL-13 what cannot stop a chain needs care while unknown', () => {
    for (const over of [
      { dock: { airflowCfm: null } },
      { dock: { chargeOutW: null } },
      { socket: { chargeInW: null } },
    ]) {
      const e = judge(whole(over));
      expect(e.predicted.verdict.state).toBe('care');
      expect(e.predicted.areas.filter((a) => a.state === 'open')).toHaveLength(1);
    }
  });

  it('PL-11 plugs without supply stop, as do sockets short of watts', () => {
    const state = (over: Over) =>
      judge(whole(over))
        .predicted.areas.filter((a) => a.state === 'stops')
        .map((a) => a.area);
    expect(state({ dock: { supply: 'separate' } })).toEqual(['plugs']);
    expect(state({ dock: { supply: 'none' } })).toEqual(['plugs']);
    expect(state({ card: { boardW: 90, plugs8Pin: 0 } })).toEqual(['watts']);
    expect(state({ card: { boardW: 75, plugs8Pin: 0 } })).toEqual([]);
    expect(state({ card: { boardW: 400, plugs8Pin: 2 }, dock: { supplyW: 850 } })).toEqual([
      'watts',
    ]);
    expect(state({ card: { boardW: 375, plugs8Pin: 2 }, dock: { supplyW: 850 } })).toEqual([]);
  });

  it('areas that do not apply are not counted: an open board', () => {
    const e = judge(whole({ dock: { form: 'open-board', retention: 'clamp', maxWeightG: 2000 } }));
    expect(e.predicted.areas.filter((a) => a.state === 'none').map((a) => a.area)).toEqual([
      'room',
      'air',
      'picture',
    ]);
    expect(e.predicted.coverage).toEqual({ known: 6, of: 6 });
  });

  it('PL-10 a range over the limit may stop, and names its measure', () => {
    const e = judge(whole({ card: { lengthMm: { lo: 290, hi: 310 } } }));
    expect(e.predicted.verdict).toMatchObject({
      state: 'unknown',
      because: ['fit/too-big'],
      wouldDecide: ['card/lengthMm'],
    });
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
