import { describe, expect, it } from 'vitest';
import { quantile } from '../src/base';
import {
  adviseRuns,
  type Bands,
  forecastFrame,
  type FrameCard,
  type FrameCell,
  type FrameEvidence,
  type FrameHost,
  type FrameLink,
  framePosterior,
  informationOf,
  limiterOf,
  overheadDraws,
  overheadOf,
  REFINED_EFFORT,
  sharesOf,
  stageWork,
  viewCell,
} from '../src/runs/frame-model';
import { discrepancy } from '../src/runs/frame-model/discrepancy';
import { DOCK, exactly, HD, QHD, ran, SLOT, titleCell as cell, UHD } from './make-title';

/**
 * Check values of the design: an independent program of the same equations, 2,000 particles. Two seeds of that program differ by up to a
 * few percent where the runs leave much open, so middles are held to 3 % and ends to 6 %.
 */
const EFFORT = { particles: 3000, moves: 6, lastMoves: 24 };
const know = (...evidence: FrameEvidence[]) =>
  framePosterior({ titleId: 'check', evidence, effort: EFFORT });
const fpsAt = (posterior: ReturnType<typeof know>, c: FrameCell) =>
  forecastFrame(posterior, c, { calibrated: false }).fps;

function isNear(found: Bands, mid: number, lo: number, hi: number) {
  const off = (a: number, b: number) => Math.abs(a / b - 1);
  expect(off(found.mid, mid), `middle ${found.mid} for ${mid}`).toBeLessThan(0.03);
  expect(off(found[80].lo, lo), `low end ${found[80].lo} for ${lo}`).toBeLessThan(0.06);
  expect(off(found[80].hi, hi), `high end ${found[80].hi} for ${hi}`).toBeLessThan(0.06);
}
const PAIR = [ran(cell({ link: SLOT }), 166), ran(cell(), 73)];

describe('check values of the frame model', () => {
  it('slot 166, dock 73: the link costs 7.65 ms and limits', () => {
    const p = know(...PAIR);
    const overhead = overheadDraws(viewCell(p, cell()), SLOT).sort();
    expect(quantile(overhead, 0.5)).toBeCloseTo(7.65, 0);
    expect(Math.abs(quantile(overhead, 0.5) / 7.65 - 1)).toBeLessThan(0.01);
    const { limiter, shares } = limiterOf(p, cell());
    expect(limiter).toEqual({ kind: 'stage', stage: 'link', chance: 0.98, unlessTrafficMB: null });
    expect(Math.abs(shares[0]!.share - 0.79)).toBeLessThan(0.02);
    isNear(fpsAt(p, cell({ pixels: QHD })), 68.5, 63.4, 72.6);
    isNear(fpsAt(p, cell({ pixels: UHD })), 55.3, 45.5, 67.6);
  });

  it('the slot at two further sizes narrows the dock there', () => {
    const p = know(
      ...PAIR,
      ran(cell({ link: SLOT, pixels: QHD }), 132),
      ran(cell({ link: SLOT, pixels: UHD }), 80),
    );
    isNear(fpsAt(p, cell({ pixels: QHD })), 65.6, 62.8, 70.9);
    isNear(fpsAt(p, cell({ pixels: UHD })), 49.4, 45.1, 57.8);
    // 64 and 49 frames/s were measured at the bench (common practice, no published source): within 5 %.
    expect(Math.abs(fpsAt(p, cell({ pixels: QHD })).mid / 64 - 1)).toBeLessThan(0.05);
    expect(Math.abs(fpsAt(p, cell({ pixels: UHD })).mid / 49 - 1)).toBeLessThan(0.05);
    const { limiter, shares } = limiterOf(p, cell({ pixels: UHD }));
    expect(limiter).toEqual({ kind: 'open', likely: ['link', 'card'] });
    expect(Math.abs(shares[0]!.chance - 0.63)).toBeLessThan(0.12);
  });

  it('a foreign desktop leaves the overhead an interval', () => {
    const desktop: FrameHost = { id: 'another desktop', index: null };
    const p = know(ran(cell({ link: SLOT, host: desktop }), 166), ran(cell(), 73));
    const overhead = overheadDraws(viewCell(p, cell()), SLOT).sort();
    expect(Math.abs(quantile(overhead, 0.5) - 3.9)).toBeLessThan(0.3);
    expect(Math.abs(quantile(overhead, 0.1) - 0.7)).toBeLessThan(0.3);
    expect(Math.abs(quantile(overhead, 0.9) - 7.5)).toBeLessThan(0.3);
    const { limiter } = limiterOf(p, cell());
    expect(limiter).toEqual({ kind: 'open', likely: ['processor', 'link'] });
  });

  it('outside 116, panel 93: the way back costs 2.1 ms', () => {
    const p = know(ran(cell(), 116), ran(cell({ panel: true }), 93));
    const back = stageWork(viewCell(p, cell({ panel: true })), 'panel').sort();
    expect(Math.abs(quantile(back, 0.5) - 2.1)).toBeLessThan(0.1);
  });

  it('two links of one host tell a third', () => {
    const direct: FrameLink = {
      id: 'direct',
      down: exactly(57.3),
      up: exactly(56.5),
      latencyMs: 0.001,
    };
    const p = know(ran(cell({ link: direct }), 127), ran(cell(), 110));
    const link = stageWork(viewCell(p, cell()), 'link').sort();
    expect(Math.abs(quantile(link, 0.5) / 3.4 - 1)).toBeLessThan(0.05);
    isNear(fpsAt(p, cell({ link: SLOT })), 132, 128, 137);
    expect(limiterOf(p, cell()).limiter).toEqual({ kind: 'open', likely: ['processor', 'card'] });
  });

  it('flat over three sizes: the processor, unless the title sends much', () => {
    const p = know(
      ran(cell(), 45),
      ran(cell({ pixels: QHD }), 44.8),
      ran(cell({ pixels: UHD }), 44.5),
    );
    const { limiter } = limiterOf(p, cell());
    expect(limiter).toMatchObject({ kind: 'stage', stage: 'processor' });
    expect(limiter.kind === 'stage' && limiter.unlessTrafficMB).toBeGreaterThan(40);
    isNear(fpsAt(p, cell({ pixels: 3440 * 1440 })), 44.8, 44, 45.7);
  });

  it('"31 % faster" carries to a card that never ran', () => {
    const b: FrameCard = { id: 'b', index: null, memoryGB: null, integrated: false };
    const p = know(ran(cell(), 63), {
      id: 'told',
      kind: 'ratio',
      cell: cell({ card: b }),
      other: cell(),
      ratio: 1.31,
      rounding: 0,
      about: false,
    });
    isNear(fpsAt(p, cell({ card: b })), 82.1, 78.7, 85.6);
  });

  it('held at a limit: free it is higher, limited 60', () => {
    const p = know(
      { id: 'held', kind: 'held', cell: cell({ capFps: 60 }) },
      ran(cell({ pixels: UHD }), 41),
    );
    isNear(fpsAt(p, cell()), 87, 66, 114);
    const held = forecastFrame(p, cell({ capFps: 60 }));
    expect(held.fps.mid).toBeCloseTo(60, 9);
    expect(held.capped).toBeGreaterThan(0.9);
    expect(limiterOf(p, cell({ capFps: 60 })).limiter).toMatchObject({ kind: 'cap', fps: 60 });
  });

  it('a single run already answers for other sizes and links', () => {
    const p = know(ran(cell(), 60));
    isNear(fpsAt(p, cell({ pixels: QHD })), 49.6, 40, 60);
    isNear(fpsAt(p, cell({ pixels: UHD })), 31.5, 21, 56);
    isNear(fpsAt(p, cell({ link: SLOT })), 66.5, 61, 84);
    expect(limiterOf(p, cell()).limiter.kind).toBe('open');
  });

  it('points of one benchmark carry a ratio', () => {
    const points = (c: FrameCell, value: number): FrameEvidence => ({
      id: `points ${value}`,
      kind: 'points',
      cell: c,
      benchmark: 'a benchmark',
      points: value,
    });
    const p = know(points(cell(), 12_000), points(cell({ link: SLOT }), 14_800), ran(cell(), 50));
    isNear(fpsAt(p, cell({ link: SLOT })), 61.6, 60.1, 63.1);
  });

  it('a bound pulls only from its side', () => {
    const p = know(
      {
        id: 'bound',
        kind: 'bound',
        cell: cell({ pixels: QHD }),
        fps: 60,
        side: 'at-most',
      },
      ran(cell({ link: SLOT, pixels: QHD }), 72),
    );
    isNear(fpsAt(p, cell({ pixels: QHD })), 56.6, 45, 64);
  });
});

describe('what the equations miss', () => {
  it('is most alike in one cell, less over size, rate, card', () => {
    const own = discrepancy(cell(), cell());
    // By hand: 2 x 0.018² + 0.025² + 0.03² + 0.015² + 0.025² + 0.004².
    expect(own).toBeCloseTo(0.003039, 9);
    const others = [
      cell({ pixels: UHD }),
      cell({ link: SLOT }),
      cell({ card: { id: 'other', index: null, memoryGB: null, integrated: false } }),
      cell({ panel: true }),
    ];
    for (const other of others) expect(discrepancy(cell(), other)).toBeLessThan(own);
  });
});

describe('answers of the frame model', () => {
  it('the same question twice gives the same bits', () => {
    const ask = () => forecastFrame(know(...PAIR), cell({ pixels: QHD }));
    expect(ask()).toEqual(ask());
  });

  it('the order of the evidence changes nothing', () => {
    const a = forecastFrame(know(...PAIR), cell({ pixels: UHD }));
    const b = forecastFrame(know(...[...PAIR].reverse()), cell({ pixels: UHD }));
    expect(a).toEqual(b);
  });

  it('a card 1 % faster brings what its share says', () => {
    const p = know(...PAIR, ran(cell({ link: SLOT, pixels: UHD }), 80));
    const at = cell({ pixels: UHD });
    const view = viewCell(p, at);
    const meanOf = (ln: Float64Array) => ln.reduce((a, b) => a + b, 0) / ln.length;
    const faster = viewCell(p, { ...at, cardPower: 1.01 });
    // The exponent of power is a parameter of its own: 0.7 in the middle.
    const change = (meanOf(view.ln) - meanOf(faster.ln)) / Math.log(1.01) / 0.7;
    const share =
      sharesOf(view)
        .filter((_, i) => i % 4 === 1)
        .reduce((a, b) => a + b, 0) / view.count;
    expect(Math.abs(change - share)).toBeLessThan(0.03);
  });

  it('a cell that ran forecasts as itself, others how near', () => {
    const p = know(...PAIR);
    const own = forecastFrame(p, cell());
    expect(own.basis).toBe('measured');
    expect(Math.abs(own.fps.mid / 73 - 1)).toBeLessThan(0.01);
    expect(forecastFrame(p, cell({ pixels: QHD })).basis).toBe('near');
    const other = forecastFrame(
      p,
      cell({ link: { ...DOCK, id: 'other dock', down: exactly(21), up: exactly(21) } }),
    );
    expect(other).toMatchObject({ basis: 'far', unmeasuredLink: true });
    expect(forecastFrame(know(), cell())).toMatchObject({ basis: 'start' });
  });

  it('the link costs what slot and dock differ, and more', () => {
    const p = know(...PAIR);
    const overhead = overheadOf(p, cell())!;
    expect(overhead.ms.mid).toBeGreaterThan(7.65);
    expect(overhead.ms.mid).toBeLessThan(10);
    expect(overhead.share.mid).toBeCloseTo(overhead.ms.mid / (1000 / 73), 1);
    expect(overhead.panelMs).toBeNull();
    const inside: FrameCard = { id: 'inside', index: null, memoryGB: null, integrated: true };
    expect(overheadOf(p, cell({ card: inside }))).toBeNull();
  });

  it('memory that does not fit makes frames longer, by a wide band', () => {
    const stated = { processorMs: null, cardMs: null, trafficMB: null, workingGB: 14 };
    const p = framePosterior({ titleId: 'memory', evidence: [ran(cell(), 60)], stated });
    const small = { id: 'small', index: exactly(100), integrated: false };
    const at = (memoryGB: number) => forecastFrame(p, cell({ card: { ...small, memoryGB } })).fps;
    expect(at(8).mid).toBeLessThan(0.8 * at(24).mid);
    expect(at(8)[80].hi / at(8)[80].lo).toBeGreaterThan(at(24)[80].hi / at(24)[80].lo);
  });

  it('above sixty cells those nearest to the question count', () => {
    const hosts = Array.from({ length: 70 }, (_, i) => ({ id: `h${i}`, index: exactly(60 + i) }));
    const evidence = hosts.map((host) => ran(cell({ host }), 40 + host.index.lo / 4));
    const p = framePosterior({ titleId: 'many', evidence, nearTo: cell({ host: hosts[69]! }) });
    expect(p.likelihood.cells).toHaveLength(60);
    expect(p.unused).toHaveLength(10);
    expect(p.unused[0]).toMatchObject({ why: 'far' });
    expect(p.evidence.some((e) => e.kind === 'runs' && e.cell.host.id === 'h69')).toBe(true);
  });

  it('impossible figures are left out, with the reason', () => {
    const p = know(
      ran(cell(), 60),
      { ...ran(cell({ pixels: QHD }), 50), id: 'a', ms: [NaN] } as FrameEvidence,
      ran(cell({ pixels: 0 }), 50),
      ran(cell({ link: { ...SLOT, down: exactly(0) } }), 50),
      { id: 'b', kind: 'held', cell: cell() },
    );
    expect(p.unused.map((u) => u.why).sort()).toEqual(['figure', 'no-cap', 'rate', 'size']);
    expect(p.evidence).toHaveLength(1);
  });

  it('a run unlike the others is found and counts less', () => {
    const sizes = [1280 * 720, HD, QHD, 3440 * 1440, UHD];
    const fine = sizes.map((pixels) => ran(cell({ pixels }), 60, 60.5, 59.8));
    expect(know(...fine).contradictions).toEqual([]);
    for (const fps of [31, 4]) {
      const odd = ran(cell({ pixels: 1600 * 900 }), fps, fps * 1.005);
      expect(know(...fine, odd).contradictions).toEqual([odd.id]);
    }
  });

  it('an unknown rate answers wide, not at all refused', () => {
    const unknown: FrameLink = { id: 'unknown', down: null, up: null, latencyMs: 0.0022 };
    const p = know(ran(cell({ link: SLOT }), 120));
    const wide = forecastFrame(p, cell({ link: unknown })).fps[80];
    const known = forecastFrame(p, cell()).fps[80];
    expect(wide.hi / wide.lo).toBeGreaterThan(known.hi / known.lo);
  });
});

describe('what to run next', () => {
  const experiment = (id: string, c: FrameCell, minutes: number) => ({
    id,
    cell: c,
    against: null,
    minutes,
  });
  const sizes = [
    experiment('1440p', cell({ pixels: QHD }), 1),
    experiment('4k', cell({ pixels: UHD }), 1),
  ];
  const slot = experiment('slot', cell({ link: SLOT }), 35);

  it('tells more for its minutes first, never what was run', () => {
    const p = know(ran(cell(), 60));
    const advised = adviseRuns(p, { kind: 'limiter', cell: cell() }, [
      experiment('again', cell(), 1),
      slot,
      ...sizes,
    ]);
    expect(advised.map((a) => a.experiment.id)).not.toContain('again');
    expect(['1440p', '4k']).toContain(advised[0]!.experiment.id);
    expect(advised.every((a) => a.bits >= 0.05)).toBe(true);
    expect(advised[0]!.settles).toBeGreaterThan(0);
  });

  it('a processor held back tells the processor from the link', () => {
    const p = know(
      ran(cell(), 45),
      ran(cell({ pixels: QHD }), 44.8),
      ran(cell({ pixels: UHD }), 44.5),
    );
    const slower = cell({ processorClock: 0.8 });
    const clock = { id: 'clock', cell: slower, against: cell(), minutes: 5 };
    const repeat = experiment('720p', cell({ pixels: 1280 * 720 }), 1);
    const matter = { kind: 'limiter', cell: cell() } as const;
    expect(informationOf(p, matter, clock).bits).toBeGreaterThan(
      2 * informationOf(p, matter, repeat).bits,
    );
  });

  it('which of two is faster, and a figure, can be asked too', () => {
    const p = know(ran(cell(), 60));
    const a = cell({ pixels: UHD });
    const b = cell({ link: SLOT, pixels: UHD });
    const direct = experiment('a', a, 1);
    expect(informationOf(p, { kind: 'forecast', cell: a }, direct).bits).toBeGreaterThan(1);
    expect(informationOf(p, { kind: 'forecast', cell: a }, direct).settles).toBeNull();
    expect(informationOf(p, { kind: 'choice', a, b }, direct).bits).toBeGreaterThanOrEqual(0);
  });
});

describe('seeds', () => {
  it('a refined answer moves by little from seed to seed', () => {
    const evidence = [
      ...PAIR,
      ran(cell({ link: SLOT, pixels: QHD }), 132),
      ran(cell({ link: SLOT, pixels: UHD }), 80),
    ];
    const asked = [1, 2, 3, 4].map((seed) => {
      const p = framePosterior({ titleId: 's', evidence, effort: REFINED_EFFORT, seed });
      const at = cell({ pixels: UHD });
      return { fps: forecastFrame(p, at).fps.mid, chance: limiterOf(p, at).shares[0]!.chance };
    });
    const spread = (list: number[]) => (Math.max(...list) - Math.min(...list)) / 2;
    expect(spread(asked.map((a) => a.fps)) / 49).toBeLessThan(0.012);
    expect(spread(asked.map((a) => a.chance))).toBeLessThan(0.04);
  });
});
