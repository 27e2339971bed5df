import { describe, expect, it } from 'vitest';
import {
  cellOfAsk,
  evidenceOfRuns,
  type FrameAsk,
  forecastTitle,
  type MissingForForecast,
  type RigFacts,
  scoreForecasts,
  statedTitle,
} from '../src/runs';
import { rigOf, runsOf } from './make-groups';

const PICTURE = {
  pixels: 2560 * 1440,
  panel: false,
  capFps: null,
  powerMode: '',
  preset: '',
  rayTracing: false,
};
const STATED = statedTitle({ cpuMs: 8, cardMs: 7, trafficMB: 9, workingGB: 0 });
const known = (index: number) => ({ lo: index, hi: index });
const RIG: RigFacts = { ...rigOf('host', 'card'), hostIndex: known(100), cardIndex: known(100) };
const runs = [
  ...runsOf({ hostIndex: 100, cardIndex: 100, ms: [10, 10.1] }),
  ...runsOf({ hostIndex: 100, cardIndex: 100, resolution: '3840x2160', ms: [21] }),
];
const ask = (more: Partial<FrameAsk['title']> = {}, picture = {}): FrameAsk => ({
  resolution: '2560x1440',
  picture: { ...PICTURE, ...picture },
  title: {
    id: 'Title',
    name: 'Fen Rally',
    evidence: evidenceOfRuns(runs).evidence,
    stated: null,
    ...more,
  },
});
const missing = (rig: RigFacts, a: FrameAsk): readonly MissingForForecast[] | null => {
  const found = forecastTitle(rig, a, false);
  return 'missing' in found ? found.missing : null;
};

describe('frames to expect of a title on a rig', () => {
  it('between two measured sizes they lie between their frames', () => {
    const found = forecastTitle(RIG, ask(), false);
    if ('missing' in found) throw new Error(found.missing.join());
    const { fps, basis } = found.forecast;
    expect(basis).toBe('near');
    expect(fps.mid).toBeGreaterThan(1000 / 21);
    expect(fps.mid).toBeLessThan(100);
    expect(found.overhead?.ms.mid).toBeGreaterThan(0);
  });

  it('a measured cell forecasts as itself', () => {
    const found = forecastTitle(RIG, ask({}, { pixels: 1920 * 1080 }), false);
    if ('missing' in found) throw new Error(found.missing.join());
    expect(found.forecast.basis).toBe('measured');
    expect(Math.abs(found.forecast.ms.mid / 10.05 - 1)).toBeLessThan(0.02);
  });

  it('what is missing is named: title, link, host, card', () => {
    const bare = rigOf('other', 'another');
    expect(missing(RIG, ask())).toBeNull();
    expect(missing(RIG, ask({ evidence: [] }))).toEqual(['title']);
    expect(missing(RIG, ask({ evidence: [], stated: STATED }))).toBeNull();
    expect(missing({ ...bare, down: null }, ask())).toEqual(['link', 'host', 'card']);
    expect(missing({ ...RIG, hostIndex: null, cardIndex: null }, ask())).toBeNull();
  });

  it('without a preset it is the look of most runs', () => {
    expect(cellOfAsk(RIG, ask()).look.preset).toBe('high');
    expect(cellOfAsk(RIG, ask({}, { preset: 'Low' })).look.preset).toBe('low');
    expect(cellOfAsk(RIG, ask({ evidence: [] })).look.preset).toBe('other');
  });

  it('without a power mode it is that of most runs', () => {
    const quiet = runs.map((r) => ({ ...r, settings: { ...r.settings, powerMode: 'quiet' } }));
    const a = ask({ evidence: evidenceOfRuns(quiet).evidence });
    expect(cellOfAsk(RIG, a).host.id).toBe('host, quiet');
    expect(cellOfAsk(rigOf('hostess', 'card'), a).host.id).toBe('hostess');
    const asked = { ...a, picture: { ...a.picture, powerMode: 'full' } };
    expect(cellOfAsk(RIG, asked).host.id).toBe('host, full');
  });
});

describe('how well forecasts held', () => {
  const bands = (mid: number, half: number) => ({
    mid,
    50: { lo: mid - half / 2, hi: mid + half / 2 },
    80: { lo: mid - half, hi: mid + half },
    95: { lo: mid - 2 * half, hi: mid + 2 * half },
  });

  it('counts hits of each band, over all and by width', () => {
    const s = scoreForecasts([
      { fps: bands(61, 2), measured: 60.2 },
      { fps: bands(100, 6), measured: 90 },
      { fps: bands(50, 10), measured: 58 },
    ]);
    expect(s).toMatchObject({ n: 3, within: 1, held: { 50: 1, 80: 2, 95: 3 } });
    expect(s.byWidth.narrow).toEqual({ n: 1, held: { 50: 1, 80: 1, 95: 1 } });
    expect(s.byWidth.middling).toEqual({ n: 1, held: { 50: 0, 80: 0, 95: 1 } });
    expect(s.byWidth.wide).toEqual({ n: 1, held: { 50: 0, 80: 1, 95: 1 } });
    expect(s.bias).toBeCloseTo(61 / 60.2 - 1, 9);
  });

  it('of none nothing is said', () => {
    expect(scoreForecasts([])).toMatchObject({ n: 0, within: 0, bias: null });
  });
});
