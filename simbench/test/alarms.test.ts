import { describe, expect, it } from 'vitest';
import { ALARM_IDS, FALSE_ALARMS } from '@ruddy/core/runs';
import { makeRig, runRig } from '../src/frames';
import { falseAlarms } from './false-alarms';
import { LONG, scaled } from '../../scripts/lib/test-scale.mjs';

/** Seeds from here on were not looked at while the alarms were made. */
const UNSEEN = 300_001;

describe('alarms', () => {
  it('are raised on fewer than 5 of 100 clean rigs', () => {
    const n = scaled(40);
    const counts = falseAlarms(UNSEEN, n);
    for (const id of ALARM_IDS) expect(counts[id] / n, id).toBeLessThanOrEqual(LONG ? 0.05 : 0.13);
    expect(FALSE_ALARMS.rigs).toBeGreaterThanOrEqual(n);
  });
});

describe('the generator of rigs', () => {
  const bare = { ...makeRig(7), jitter: 0, burstsPerS: 0, clocks: [1], trips: 0, depth: 2 };
  const ask = { width: 1920, height: 1080, seconds: 5, repeat: 1 };
  const meanOf = (rig: typeof bare) => {
    const { frames } = runRig(rig, ask);
    return frames.reduce((a, b) => a + b, 0) / frames.length;
  };

  it('gives the longer stage and the link without scatter', () => {
    const rig = { ...bare, cpuMs: 9, cardMs: 4, trafficMB: 13, linkGbps: 26 };
    // 9 + 13 * 8 / 26 = 13 ms; repeats differ by up to 2 % as a whole.
    expect(Math.abs(meanOf(rig) / 13 - 1)).toBeLessThan(0.02);
  });

  it('holds frames to a limit, repeatable, and pays returns', () => {
    const rig = { ...bare, cpuMs: 4, cardMs: 4, trafficMB: 2, capFps: 60 };
    expect(meanOf(rig)).toBeCloseTo(1000 / 60, 1);
    expect([...runRig(bare, ask).frames]).toEqual([...runRig(bare, ask).frames]);
    const way = runRig(bare, { ...ask, panel: true });
    expect(way.frames.length).toBeLessThan(runRig(bare, ask).frames.length);
  });
});
