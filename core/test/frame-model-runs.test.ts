import { describe, expect, it } from 'vitest';
import { mean } from '../src/base';
import {
  answerModel,
  cellOfRun,
  drawnScale,
  evidenceOfRuns,
  experimentsAround,
  type FrameStats,
  type ModelQuestion,
  presetGroup,
  simulateFrames,
  SMOOTH,
} from '../src/runs';
import {
  advisedText,
  bandsText,
  basisText,
  experimentText,
  fpsText,
  frameEvidenceText,
  frameLimiterText,
  linkCostSentence,
  overheadText,
  restsOnText,
  unusedText,
  usedText,
} from '../src/runs/text';
import { runsOf } from './make-groups';
import { CARD, HD, QHD, ran, SLOT, titleCell as cell, UHD } from './make-title';

describe('runs as evidence', () => {
  it('repeats share a cell, other sizes and links have their own', () => {
    const runs = [
      ...runsOf({ ms: [10, 10.2, 9.9] }),
      ...runsOf({ ms: [12], resolution: '3840x2160' }),
      ...runsOf({ ms: [7], link: 'slot', sameProcessor: 'yes' }),
    ];
    const { evidence, unused } = evidenceOfRuns(runs);
    expect(unused).toEqual([]);
    expect(evidence.map((e) => e.kind)).toEqual(['runs', 'runs', 'runs']);
    expect(evidence.map((e) => (e.kind === 'runs' ? e.ms.length : 0)).sort()).toEqual([1, 1, 3]);
  });

  it('a foreign desktop is a host of its own, without an index', () => {
    const [run] = runsOf({ ms: [7], link: 'slot', sameProcessor: 'no' });
    const own = runsOf({ ms: [10] })[0]!;
    expect(cellOfRun(run!, null).host.id).not.toBe(cellOfRun(own, null).host.id);
    expect(cellOfRun(run!, null).host.index).toBeNull();
  });

  it('graphics inside cross no link; a limit that held is a bound', () => {
    const [inside] = runsOf({ ms: [30], deviceSet: 'inside' });
    expect(cellOfRun(inside!, null).card).toMatchObject({ integrated: true, memoryGB: null });
    const stats = { meanMs: 16.7, cap: { fps: 60, share: 1 } } as FrameStats;
    const held = evidenceOfRuns(
      runsOf({ ms: [16.7] }).map((r) => ({ ...r, kind: 'frames' as const, stats })),
    );
    expect(held.evidence.map((e) => e.kind)).toEqual(['held']);
  });

  it('what tells nothing is left out, each with its reason', () => {
    const off = (change: object) => runsOf({ ms: [10] }).map((r) => ({ ...r, ...change }));
    const [run] = runsOf({ ms: [10] });
    const { context, settings } = run!;
    const lists = [
      runsOf({ ms: [10], generation: 'on' }),
      runsOf({ ms: [10], resolution: '' }),
      off({ context: { ...context, disturbs: 'clearly' } }),
      off({ settings: { ...settings, deviceSet: 'processor' } }),
      off({ kind: 'none', stats: null, result: null }),
      off({ rig: { ...run!.rig, card: '' } }),
    ];
    const reasons = lists.map((runs) => evidenceOfRuns(runs).unused[0]?.why);
    expect(reasons).toEqual([
      'generated',
      'no-resolution',
      'disturbed',
      'processor-only',
      'no-frames',
      'no-card',
    ]);
    for (const why of reasons) expect(unusedText(why!)).not.toBe('');
  });

  it('points of a test and load of the card count, too', () => {
    const points = runsOf({ ms: [10] }).map((r) => ({
      ...r,
      kind: 'score' as const,
      stats: null,
      result: { value: 12_000, unit: 'points' },
    }));
    expect(evidenceOfRuns(points).evidence.map((e) => e.kind)).toEqual(['points']);
    const loaded = runsOf({ ms: [10, 10] }).map((r) => ({
      ...r,
      sensors: { 'card-load': { mean: 80, p95: 90, most: 95 } },
    }));
    const load = evidenceOfRuns(loaded).evidence.find((e) => e.kind === 'load');
    expect(load?.load).toBeCloseTo(0.8, 12);
  });

  it.each([
    ['Ultra', 'ultra'],
    ['very high', 'ultra'],
    ['High', 'high'],
    ['medium', 'medium'],
    ['very low', 'low'],
    ['my own', 'other'],
    ['', 'other'],
  ])('the preset "%s" is of the group %s', (word, group) => {
    expect(presetGroup(word)).toBe(group);
  });

  it.each([
    ['quality', 2 / 3],
    ['balanced', 0.58],
    ['ultra performance', 1 / 3],
    ['performance', 0.5],
    ['67 %', 0.67],
    ['', 1],
    ['none', 1],
  ])('upscaling "%s" draws %f of the width', (word, scale) => {
    expect(drawnScale(word)).toBe(scale);
  });
});

const here = cell();
const hand = {
  sizes: [
    { name: '1920x1080', pixels: HD },
    { name: '2560x1440', pixels: QHD },
  ],
  panel: true,
  links: [{ setupId: 'other', name: 'Other setup', link: SLOT }],
  cards: [CARD, { ...CARD, id: 'second card' }],
};

describe('runs that could be made', () => {
  it('change one thing each, none that is there already', () => {
    const ids = experimentsAround(here, hand).map((e) => e.id);
    expect(ids).toEqual([
      'size:2560x1440',
      'preset:low',
      'preset:ultra',
      'screen:panel',
      'link:other',
      'card:second card',
      'clock:80',
      'power:80',
    ]);
    const capped = experimentsAround({ ...here, capFps: 60, panel: true }, hand);
    expect(capped.map((e) => e.id)).toContain('uncap:');
    expect(capped.map((e) => e.id)).toContain('screen:outside');
  });

  it('are told in words', () => {
    const words = experimentsAround({ ...here, capFps: 60 }, hand).map((e) =>
      experimentText(e.id, () => 'Other setup'),
    );
    expect(words.every((w) => w.startsWith('the same '))).toBe(true);
    expect(words).toContain('the same over the link of Other setup');
    expect(words).toContain('the same without the limit on frames');
  });
});

const question = (evidence: ModelQuestion['evidence'], refined = false): ModelQuestion => ({
  titleId: 'title',
  evidence,
  stated: null,
  here,
  cells: [cell({ pixels: UHD }), cell({ panel: true })],
  experiments: experimentsAround(here, hand),
  refined,
});

describe('an answer of the model', () => {
  const pair = [ran(cell({ link: SLOT }), 166), ran(here, 73)];

  it('tells forecast, limiter, overhead and advice from one posterior', () => {
    const a = answerModel(question(pair));
    expect(a.used).toHaveLength(2);
    expect(a.forecasts).toHaveLength(2);
    expect(frameLimiterText(a.limiter, true)).toMatch(
      /^Link limits here \(98 %\)\. 1 % more link gives about 0\.8 %\.$/,
    );
    expect(frameLimiterText(a.limiter, false)).toMatch(/\(95 %\)/);
    expect(overheadText(a.overhead!)).toMatch(/^[89]\.\d ms \(.* to .*\) of a frame, 6\d %$/);
    expect(linkCostSentence(a.overhead!, { fps: 73, resolution: '1920x1080' })).toMatch(
      /^The link costs [89]\.\d ms a frame \(.* to .*\): 73\.0 frames\/s at 1920x1080, about \d+ in a wide direct slot\.$/,
    );
    expect(usedText(a)).toBe('From 2 pieces of evidence.');
    expect(restsOnText(a.restsOn)).toMatch(/Assumed: .*\.$/);
    expect(fpsText(a.here.fps)).toMatch(/^7[23]\.?\d* \(7\d.* to 7\d.*\)$/);
    expect(bandsText(a.here.fps)).toMatch(/^50 of 100 such runs lie at .* 95 at .*\.$/);
    expect(basisText(a.here)).toBe('measured');
    expect(basisText(a.forecasts[0]!)).toMatch(/^near/);
  });

  it('the same question again is the same answer; left-out evidence another', () => {
    const whole = answerModel(question(pair));
    expect(answerModel(question(pair)).here).toEqual(whole.here);
    const alone = answerModel(question(pair.slice(1)));
    expect(alone.limiter.limiter.kind).toBe('open');
    expect(frameLimiterText(alone.limiter, true)).toMatch(
      /^Cannot tell from these runs\. Most likely the .* or .*\.$/,
    );
    expect(overheadText(alone.overhead!)).toMatch(/^\d.* to .* ms of a frame/);
  });

  it('frames drawn from its middle last as long as it forecasts', () => {
    const a = answerModel(question(pair));
    a.medians.forEach((frame, i) => {
      const [drawn = 0] = simulateFrames(frame, SMOOTH, 1, 0.5);
      expect(Math.abs(drawn / a.forecasts[i]!.ms.mid - 1)).toBeLessThan(0.02);
    });
    expect(mean(a.medians.map((m) => m.processorMs))).toBeGreaterThan(0);
  });

  it('advice is told with minutes, and what it would settle', () => {
    const a = answerModel(question(pair.slice(1)));
    const open = advisedText(a.advised, () => '', false);
    expect(open.first).toMatch(
      /^run the same .* \(about \d+ minutes?(; settles it with about \d+ %)?\)\.$/,
    );
    expect(open.others.length).toBeLessThanOrEqual(2);
    expect(advisedText(a.advised, () => '', true).first).toMatch(/^to be surer, run/);
    expect(advisedText([], () => '', true).first).toMatch(/^nothing more/);
    expect(advisedText([], () => '', false).first).toMatch(/^no run you can make/);
  });

  it('every kind of evidence has a line of its own', () => {
    const at = { cell: here };
    const lines = [
      frameEvidenceText(pair[0]!),
      frameEvidenceText({ id: 'a', kind: 'stated', ...at, fps: 60, lastDigit: 1, about: true }),
      frameEvidenceText({
        id: 'b',
        kind: 'ratio',
        ...at,
        other: here,
        ratio: 1.31,
        rounding: 0,
        about: false,
      }),
      frameEvidenceText({
        id: 'c',
        kind: 'card-ratio',
        card: CARD,
        other: { ...CARD, id: 'x' },
        ratio: 2,
      }),
      frameEvidenceText({ id: 'd', kind: 'points', ...at, benchmark: 'b', points: 12_000 }),
      frameEvidenceText({ id: 'e', kind: 'bound', ...at, fps: 60, side: 'at-most' }),
      frameEvidenceText({ id: 'f', kind: 'held', cell: { ...here, capFps: 60 } }),
      frameEvidenceText({ id: 'g', kind: 'load', ...at, load: 0.69 }),
    ];
    expect(new Set(lines).size).toBe(lines.length);
    expect(lines[0]).toBe('166 frames/s (1 run): host, card, 107 Gb/s, 1920x1080');
    expect(lines[7]).toBe('card load 69 %: host, card, 26.0 Gb/s, 1920x1080');
  });

  it('two stages about equal, and a limit, have their words', () => {
    const shares = answerModel(question(pair)).limiter.shares;
    const equal = { kind: 'equal', stages: ['processor', 'card'], chance: 0.83 } as const;
    expect(frameLimiterText({ limiter: equal, shares }, true)).toBe(
      'Processor and card limit about equally (83 %).',
    );
    const cap = { kind: 'cap', fps: 60, chance: 0.98 } as const;
    expect(frameLimiterText({ limiter: cap, shares }, true)).toBe(
      'The limit of 60 frames/s holds it back.',
    );
    const processor = {
      kind: 'stage',
      stage: 'processor',
      chance: 0.96,
      unlessTrafficMB: 47,
    } as const;
    expect(frameLimiterText({ limiter: processor, shares }, true)).toMatch(
      /^Processor limits here \(96 %\), as long as the title sends less than 47 MB a frame\./,
    );
  });
});
