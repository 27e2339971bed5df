import { describe, expect, it } from 'vitest';
import { asRange, formatWhole, length, percent, rate } from '../src/base/text';
import { formula, SOURCES } from '../src/chain/text';
import { type Evaluation, NO_EVIDENCE, NO_TALLY } from '../src/plan';
import { verdictSentence, minutesOf, VERDICT_LABELS } from '../src/plan/text';
import { directChain, dock, EMPTY, host, judge, plainChain, tunnelChain } from './make';

describe('figures', () => {
  it.each([
    [{ lo: 26.002, hi: 26.002 }, '26.0'],
    [{ lo: 16, hi: 26 }, '16.0 to 26.0'],
    [{ lo: 0, hi: 16 }, 'up to 16.0'],
    [{ lo: 15.96, hi: 16.04 }, '16.0'],
    [{ lo: 0, hi: Infinity }, 'not known'],
    [null, 'not known'],
  ])('a rate of %j reads "%s"', (r, words) => {
    expect(rate(r)).toBe(words);
  });

  it.each([
    [800, '800 mm'],
    [1000, '1.0 m'],
    [1200, '1.2 m'],
    [1250, '1.25 m'],
  ])('a length of %i mm reads "%s"', (mm, words) => {
    expect(length({ lo: mm, hi: mm })).toBe(words);
  });

  it('a length that may be nothing reads "up to"', () => {
    expect(length({ lo: 0, hi: 2000 })).toBe('up to 2.0 m');
    expect(length({ lo: 700, hi: 900 })).toBe('700 mm to 900 mm');
  });

  it('percent, lanes and minutes', () => {
    expect(percent({ lo: 0.615, hi: 0.615 })).toBe('62');
    expect(percent({ lo: 0.5, hi: 0.75 })).toBe('50 to 75');
    expect(formatWhole({ lo: 2, hi: 4 })).toBe('2 to 4');
    expect([minutesOf(1), minutesOf(10)]).toEqual(['1 minute', '10 minutes']);
    expect(asRange(7)).toEqual({ lo: 7, hi: 7 });
  });
});

describe('the main sentence', () => {
  const evidence = { ...NO_EVIDENCE, exact: { ...NO_TALLY, n: 4, works: 3, fails: 1 } };
  const cases: [string, Evaluation][] = [
    ['works', judge(tunnelChain(), { evidence })],
    ['care by a bottleneck', judge(tunnelChain({ cable: { lengthMm: 1200 } }))],
    [
      'care by a possible bottleneck',
      judge(tunnelChain({ socket: { controller: 'separate', pcieGen: 3, lanes: null } })),
    ],
    [
      'care without one',
      judge({
        ...tunnelChain(),
        path: [
          ...(tunnelChain().path ?? []),
          { key: 'b', spec: { ...tunnelChain().path![0]!.spec, lengthMm: 60 } },
        ],
      }),
    ],
    ['blocked by the port', judge(plainChain())],
    ['blocked by the cable', judge(tunnelChain({ cable: { markedGbps: 0.48 } }))],
    [
      'blocked by the plugs',
      judge({ ...tunnelChain(), dock: dock({ connector: 'oculink-4i', uplink: 'oculink' }) }),
    ],
    ['unknown tunnelling', judge(tunnelChain({ socket: { tunnelling: null } }))],
    ['unknown standard', judge(tunnelChain({ socket: { standard: null, tunnelling: null } }))],
    ['two parts missing', judge({ ...tunnelChain(), dock: null, card: null })],
    ['nothing at all', judge(EMPTY)],
    [
      'contradicted',
      judge(directChain(), {
        evidence: { ...NO_EVIDENCE, exact: { ...NO_TALLY, n: 3, fails: 3 } },
      }),
    ],
  ];

  it.each(cases)('%s: verdict first, a number, at most 24 words', (_name, e) => {
    const s = verdictSentence(e);
    expect(s).toMatch(/\d|no part/);
    expect(s).not.toMatch(/undefined|NaN|null/);
    expect(s.split(' ').length).toBeLessThanOrEqual(24);
    const { state } = e.predicted.verdict;
    const clash = e.findings.some((f) => f.code === 'log/contradiction');
    if (!clash) expect(s.startsWith(VERDICT_LABELS[state])).toBe(true);
  });

  it('says the part, the figure and what it is compared with', () => {
    expect(verdictSentence(cases[1]![1])).toBe(
      'Works with care: the cable holds this chain to 16.0 Gb/s, 62 % of the 26.0 the rest can carry.',
    );
    expect(verdictSentence(cases[5]![1])).toBe(
      "Won't work: the cable is marked 0.5 Gb/s, so 0 Gb/s of PCIe reach the dock.",
    );
    expect(verdictSentence(cases[9]![1])).toBe(
      'Not enough known: the dock and the card are not chosen yet; 2 of 4 parts are.',
    );
  });

  it('names the port by where a hand finds it', () => {
    const c = plainChain();
    expect(
      verdictSentence(
        judge({
          ...c,
          host: host({ standard: 'usb-c', tunnelling: 'no', position: 'back, upper' }),
        }),
      ),
    ).toContain('the back, upper port');
  });
});

describe('the working', () => {
  const lines = (e: Evaluation, hop: number) => {
    const h = e.predicted.link.hops[hop]!;
    const w = h.usable!.down.working;
    return [...(w.steps ?? []).map((s) => formula(s, h.raw!.down)), formula(w, h.usable!.down)];
  };

  it('shows each formula with the numbers in it', () => {
    expect(lines(judge(tunnelChain()), 0)).toEqual([
      '16 GT/s × 4 lanes × 128/130 = 63.02 Gb/s raw',
      '63.02 × 128 / (128 + 20) × 0.98 = 53.4 Gb/s usable',
    ]);
    expect(lines(judge(tunnelChain()), 1)).toEqual([
      'least of transport 38.79 (20 × 2 × 128/132), PCIe behind it 31.51 = 31.51 Gb/s raw',
      '31.51 × 128 / (128 + 24) × 0.98 = 26.0 Gb/s usable',
    ]);
    expect(lines(judge(directChain({ card: { pcieGen: 2 } })), 0)[0]).toBe(
      '5 GT/s × 4 lanes × 8/10 = 16.00 Gb/s raw',
    );
  });

  it('the numbers printed give the result printed', () => {
    for (const c of [
      tunnelChain(),
      tunnelChain({ cable: { markedGbps: 20 } }),
      directChain(),
      directChain({ dock: { slotLanes: 1 } }),
    ]) {
      const e = judge(c);
      e.predicted.link.hops.forEach((_h, i) => {
        const last = lines(e, i).at(-1) ?? '';
        const [, raw, payload, sum, header, share, result] =
          /^([\d.]+) × (\d+) \/ \((\d+) \+ (\d+)\) × ([\d.]+) = ([\d.]+)/.exec(last) ?? [];
        const again =
          ((Number(raw) * Number(payload)) / (Number(sum) + Number(header))) * Number(share);
        expect(again).toBeCloseTo(Number(result), 0);
      });
    }
  });

  it('a range, a broken hop and the chain have theirs', () => {
    expect(lines(judge(tunnelChain({ dock: { slotLanes: null } })), 2)[0]).toBe(
      'Gen3 ×1 to 16 = (7.88 to 126.03) Gb/s raw',
    );
    expect(lines(judge(plainChain()), 1)).toEqual(['nothing passes: 0.0 Gb/s']);
    const { usable } = judge(tunnelChain()).predicted.link;
    expect(formula(usable!.down.working, usable!.down)).toBe(
      'least of the hops = 26.0 Gb/s usable',
    );
  });

  it('names a source for every step', () => {
    for (const h of judge(tunnelChain()).predicted.link.hops)
      for (const w of [h.usable!.down.working, ...(h.usable!.down.working.steps ?? [])])
        expect(SOURCES[w.source]).toBeTruthy();
  });
});
