import { describe, expect, it } from 'vitest';
import {
  evidenceOfRuns,
  evidenceOfStated,
  type FrameEvidence,
  forecastTitle,
  lastDigitOf,
  ratioOf,
  type RigFacts,
  type Said,
  type StatedFigure,
} from '../src/runs';
import { statedFigureBody } from '../src/runs/contract';
import { statedFigureText } from '../src/runs/text';
import { rigOf, runsOf } from './make-groups';

const index = (v: number) => ({ lo: v, hi: v });
const RIG: RigFacts = { ...rigOf('host', 'card'), hostIndex: index(100), cardIndex: index(100) };
const FASTER: RigFacts = { ...RIG, card: 'faster card', cardIndex: null };
const SETTINGS = {
  resolution: '2560x1440',
  preset: '',
  upscaling: '',
  rayTracing: null,
  capFps: null,
  powerMode: '',
  screenPath: 'outside',
} as const;
const OTHER = { rig: RIG, resolution: '2560x1440', screenPath: 'outside' } as const;
const figure = (said: Said, more: Partial<StatedFigure> = {}): StatedFigure => ({
  id: 'one',
  titleId: 'Title',
  rig: FASTER,
  settings: SETTINGS,
  said,
  ...more,
});
const faster = { kind: 'ratio', amount: 31, how: 'faster', about: false, other: OTHER } as const;

describe('a stated figure', () => {
  it.each([
    [61, 1],
    [61.5, 0.1],
    [0.25, 0.01],
  ])('%d is known to its last digit', (typed, step) => {
    expect(lastDigitOf(typed)).toBeCloseTo(step, 9);
  });

  // By the words themselves: 25 % slower is three quarters, whole per cents are known to half of one.
  it.each([
    ['faster', 31, 1.31, 0.005 / 1.31],
    ['slower', 25, 0.75, 0.005 / 0.75],
    ['times', 2.5, 2.5, 0.05 / 2.5],
  ] as const)('%s by %d is a ratio of frames', (how, amount, ratio, rounding) => {
    const found = ratioOf({ amount, how, about: false });
    expect(found.ratio).toBeCloseTo(ratio, 9);
    expect(found.rounding).toBeCloseTo(rounding, 9);
  });

  it.each<[Said, Partial<FrameEvidence>]>([
    [{ kind: 'frames', fps: 61.5, about: true }, { kind: 'stated', lastDigit: 0.1 } as never],
    [{ kind: 'bound', fps: 45, side: 'at-most' }, { kind: 'bound', side: 'at-most' } as never],
    [{ kind: 'points', points: 9000 }, { kind: 'points', benchmark: 'Title' } as never],
    [faster, { kind: 'ratio', ratio: 1.31 } as never],
  ])('%o is evidence of its kind', (said, evidence) => {
    expect(evidenceOfStated(figure(said))).toMatchObject({ ...evidence, id: 'stated one' });
  });

  it('held at a limit carries the limit of its settings', () => {
    const held = figure({ kind: 'held' }, { settings: { ...SETTINGS, capFps: 72 } });
    expect(evidenceOfStated(held)).toMatchObject({ kind: 'held', cell: { capFps: 72 } });
  });

  it('of cards alone names the cards, not a cell', () => {
    const { other: _picture, ...compared } = faster;
    void _picture;
    const said = { ...compared, kind: 'cards' as const, other: { rig: RIG } };
    const e = evidenceOfStated(figure(said));
    expect(e).toMatchObject({
      kind: 'card-ratio',
      card: { id: 'faster card' },
      other: { id: 'card' },
    });
    expect(statedFigureText(figure(said))).toBe('faster card: 31 % faster than card');
  });

  it('moves the forecast of a card nobody ran', () => {
    const measured = evidenceOfRuns(
      runsOf({ hostIndex: 100, cardIndex: 100, ms: [16, 16.1], resolution: '2560x1440' }),
    ).evidence;
    const fps = (evidence: readonly FrameEvidence[], rig: RigFacts) => {
      const title = { id: 'Title', name: 'Fen Rally', stated: null, evidence };
      const picture = {
        pixels: 2560 * 1440,
        panel: false,
        capFps: null,
        powerMode: '',
        preset: '',
        rayTracing: false,
      };
      const found = forecastTitle(rig, { title, picture, resolution: '2560x1440' }, false);
      return 'missing' in found ? null : found.forecast.fps.mid;
    };
    const run = measured[0] as Extract<FrameEvidence, { kind: 'runs' }>;
    // The figure is of the rig of the runs, but for the card.
    const own: RigFacts = { ...RIG, host: run.cell.host.id, card: run.cell.card.id };
    const said = { ...faster, other: { ...OTHER, rig: own } };
    const stated = evidenceOfStated(figure(said, { rig: { ...own, card: 'faster card' } }));
    const asked = { ...own, card: 'faster card', cardIndex: null };
    expect(fps(measured, asked)).toBeNull();
    const told = fps([...measured, stated], asked) ?? 0;
    expect(told / (1000 / 16.05)).toBeGreaterThan(1.2);
    expect(told / (1000 / 16.05)).toBeLessThan(1.42);
  });

  it.each([
    ['said/amount', { said: { ...faster, how: 'slower', amount: 100 } }],
    ['said/fps', { said: { kind: 'frames', fps: 0 } }],
    ['settings/resolution', { settings: { ...SETTINGS, resolution: '' } }],
    ['settings/capFps', { said: { kind: 'held' } }],
  ])('is refused at %s', (path, wrong) => {
    const id = '00000000-0000-7000-8000-000000000000';
    const rig = { setupId: id };
    const good = { id, titleId: id, rig, settings: SETTINGS, said: { kind: 'frames', fps: 60 } };
    expect(statedFigureBody.safeParse(good).success).toBe(true);
    const body: Record<string, unknown> = { ...good, ...wrong };
    const said = body['said'] as Record<string, unknown>;
    if (said['other']) body['said'] = { ...said, other: { ...OTHER, rig } };
    const found = statedFigureBody.safeParse(body);
    expect(found.error?.issues.map((i) => i.path.join('/'))).toContain(path);
  });
});
