import { describe, expect, it } from 'vitest';
import { RuleBook } from '../src/base';
import { joinLink, completions } from '../src/chain';
import { chainKey } from '../src/compatibility';
import { bodyFacts, type Check, NO_EVIDENCE, NO_TALLY, runChecks, whatIf } from '../src/plan';
import { verdictSentence } from '../src/plan/text';
import { cable, EMPTY, host, judge, plainChain, tunnelChain } from './make';

describe('PL-01 what is not known', () => {
  it('an unknown tunnelling flag is "not enough known" and named', () => {
    const e = judge(tunnelChain({ socket: { tunnelling: null } }));
    expect(e.predicted.verdict).toEqual({
      state: 'unknown',
      because: ['link/no-tunnel'],
      wouldDecide: ['host/sockets/left/tunnelling'],
    });
    expect(e.toVerify[0]).toEqual({ path: 'host/sockets/left/tunnelling', decides: true });
    expect(verdictSentence(e)).toBe(
      'Not enough known. Watts fine at 319 of 450 W. Not known: link. First: whether the left port tunnels PCIe, 10 minutes.',
    );
  });

  it('a port nobody looked at asks for its standard first', () => {
    const e = judge(tunnelChain({ socket: { standard: null, tunnelling: null } }));
    expect(e.predicted.verdict.state).toBe('unknown');
    expect(e.predicted.verdict.wouldDecide[0]).toBe('host/sockets/left/standard');
  });

  it('one of two standards, both of which tunnel, is enough', () => {
    const e = judge(tunnelChain({ socket: { standard: { oneOf: ['usb4-40', 'thunderbolt-4'] } } }));
    expect(e.predicted.verdict.state).toBe('works');
  });

  it('an unknown cable mark can decide, and takes a minute', () => {
    const e = judge(tunnelChain({ cable: { markedGbps: null } }));
    expect(e.predicted.verdict).toMatchObject({
      state: 'unknown',
      wouldDecide: ['path/a/markedGbps'],
    });
    expect(verdictSentence(e)).toContain('First: marked rate of the cable, 1 minute.');
  });

  it('while it is open whether anything passes, nobody is told how much', () => {
    const pinched = (over: object) =>
      judge(tunnelChain({ cable: { lengthMm: 1200 }, ...over })).findings.filter(
        (f) => f.code === 'link/pinch',
      );
    expect(pinched({})).toHaveLength(1);
    expect(pinched({ socket: { tunnelling: null } }).some((f) => f.certainty === 'certain')).toBe(
      false,
    );
    expect(pinched({ cable: { lengthMm: 2500 } })).toEqual([
      expect.objectContaining({ certainty: 'certain' }),
    ]);
  });

  it('an unknown length gives a range and asks for a measure', () => {
    const e = judge(tunnelChain({ cable: { lengthMm: null } }));
    expect(e.predicted.verdict.state).toBe('care');
    expect(e.predicted.link.usable?.down).toMatchObject({
      lo: expect.closeTo(16.0, 1),
      hi: expect.closeTo(26.0, 1),
    });
    expect(e.toVerify).toEqual([{ path: 'path/a/lengthMm', decides: true }]);
  });

  it('nobody is sent to measure what is known, however little it promises', () => {
    expect(judge(tunnelChain({ cable: { lengthMm: 2500 } })).toVerify).toEqual([]);
  });

  it('two cables of one model are two questions', () => {
    const c = tunnelChain({ cable: { markedGbps: null } });
    const e = judge({ ...c, path: [...c.path!, { key: 'b', spec: c.path![0]!.spec }] });
    expect(e.findings.filter((f) => f.code === 'cable/no-data').map((f) => f.hangsOn)).toEqual([
      ['path/a/markedGbps'],
      ['path/b/markedGbps'],
    ]);
  });

  it('an unknown construction is the question, not the length that is known', () => {
    const e = judge(tunnelChain({ cable: { construction: null, lengthMm: 1500 } }));
    expect(e.toVerify.map((v) => v.path)).toEqual(['path/a/construction']);
  });
});

describe('incomplete chains', () => {
  it('nothing chosen is not enough known and says where to start', () => {
    const e = judge(EMPTY);
    expect(e.predicted.verdict.state).toBe('unknown');
    expect(e.predicted.link.usable).toBeNull();
    expect(verdictSentence(e)).toBe(
      'Not enough known: no part is chosen yet. Choose a host and its port first.',
    );
  });

  it("a certain blocker still says won't work while parts are missing", () => {
    const e = judge({
      ...EMPTY,
      host: host({ standard: 'usb-c', tunnelling: 'no' }),
      socket: 'left',
    });
    expect(e.predicted.verdict.state).toBe('blocked');
  });

  it('a missing card leaves the last hop unknown, capped by the rest', () => {
    const e = judge({ ...tunnelChain(), card: null });
    expect(e.predicted.link.hops[2]).toMatchObject({ state: 'unknown', unchosen: ['card'] });
    expect(e.predicted.link.hops[2]?.usable?.down.lo).toBe(0);
    expect(verdictSentence(e)).toBe(
      'Not enough known: the card is not chosen yet; 3 of 4 parts are.',
    );
  });
});

describe('the check registry', () => {
  it('a check that reads a slot it did not declare fails', () => {
    const sly: Check = {
      id: 'sly',
      reads: ['path'],
      searchGroup: 'none',
      findings: {},
      run: (facts) => (facts.dock ? [] : []),
    };
    const rules = new RuleBook({});
    const [w] = completions(tunnelChain(), rules);
    if (!w) throw new Error('a known chain has one world');
    const body = bodyFacts(tunnelChain(), { asOf: '2026-11-20' }, (id) => rules.get(id));
    const facts = { ...w.facts, ...body, link: joinLink(w.facts, rules) };
    expect(() => runChecks([sly], facts, rules)).toThrow('read "dock" without declaring it');
  });
});

describe('what was seen', () => {
  const seen = (works: number, fails: number) => ({
    ...NO_EVIDENCE,
    exact: { ...NO_TALLY, n: works + fails, works, fails, newest: '2026-10-14' },
  });

  it('the headline counts what was logged for exactly this chain', () => {
    expect(verdictSentence(judge(tunnelChain(), { evidence: seen(5, 1) }))).toBe(
      'Works: every hop carries 26.0 Gb/s or more, and 5 of 6 like it worked.',
    );
    expect(verdictSentence(judge(tunnelChain(), { evidence: seen(1, 0) }))).toContain(
      'the one entry logged for it worked',
    );
    const same = { ...seen(3, 0), same: { n: 2, worked: 2 } };
    expect(verdictSentence(judge(tunnelChain(), { evidence: same }))).toBe(
      'Works: seen to work 2 of 2 times under these versions; every hop carries 26.0 Gb/s or more.',
    );
  });

  it('a prediction most of the log contradicts needs care first', () => {
    const e = judge(tunnelChain(), { evidence: seen(1, 3) });
    expect(e.predicted.verdict.state).toBe('care');
    expect(verdictSentence(e)).toBe(
      'Predicted to work, seen to fail 3 of 4 times. Trust the log; the reason is not known.',
    );
    expect(verdictSentence(judge(tunnelChain(), { evidence: seen(0, 1) }))).toBe(
      'Predicted to work, seen to fail once. One entry only. It counts, but it proves little.',
    );
    expect(judge(tunnelChain(), { evidence: seen(2, 2) }).predicted.verdict.state).toBe('works');
  });

  it('a blocked chain that was seen to work is a contradiction too', () => {
    expect(verdictSentence(judge(plainChain(), { evidence: seen(2, 0) }))).toContain(
      'Predicted to fail, seen to work 2 of 2 times',
    );
  });

  it('CO-02 the chain key holds host, link kind, dock and card', () => {
    const key = chainKey(tunnelChain());
    expect(chainKey(tunnelChain({ cable: { lengthMm: 1200 } }))).toBe(key);
    expect(chainKey(tunnelChain({ card: { model: 'c-1 ' } }))).toBe(key);
    expect(chainKey(tunnelChain({ card: { model: 'C-2' } }))).not.toBe(key);
    expect(chainKey({ ...tunnelChain(), card: null })).toBeNull();
  });
});

describe('what if', () => {
  it('another cable moves the bottleneck from the cable to the dock', () => {
    const input = {
      chain: tunnelChain({ cable: { lengthMm: 1200 } }),
      context: { asOf: '2026-11-20', house: {} },
    };
    const w = whatIf(input, { path: [{ key: 'a', spec: cable({ lengthMm: 500 }) }] });
    expect(w.before.predicted.link.pinch.part).toBe('path');
    expect(w.after.predicted.link.pinch.part).toBe('dock');
    expect(w.changed).toMatchObject({
      verdict: true,
      pinch: true,
      usableGbps: expect.closeTo(10.0, 1),
    });
    expect(input.chain.path?.[0]?.spec.lengthMm).toBe(1200);
  });
});
