import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { frameStats } from '../src/runs';
import { bundleSchema } from '../src/workshop/contract';
// The generator of the demo runs and its stated truth: plain scripts that know nothing of the core.
import { makeRuns, meanFrame } from '../../demo/make-runs.mjs';
import { FRAMES, REPEAT } from '../../demo/rigs.mjs';

const demo = bundleSchema.parse(
  JSON.parse(readFileSync(new URL('../../demo/observatory.json', import.meta.url), 'utf8')),
);
const values = new Map(
  demo.captures.map((c) => {
    const bytes = gunzipSync(Buffer.from(c.data, 'base64'));
    return [c.sha256, Float32Array.from({ length: c.n }, (_, i) => bytes.readFloatLE(4 * i))];
  }),
);
const framesOf = (run: (typeof demo.runs)[number], channel = 'frames') =>
  values.get(run.channels.find((c) => c.channel === channel)?.sha256 ?? '');

describe('the demo runs', () => {
  it('are those the generator makes', () => {
    const made = makeRuns();
    expect(demo.runs.map((r) => r.id)).toEqual(made.runs.map((r: { id: string }) => r.id));
    expect(demo.captures.map((c) => c.sha256)).toEqual(
      made.captures.map((c: { sha256: string }) => c.sha256),
    );
  });

  it('belong to at least eight setups', () => {
    expect(
      new Set(demo.runs.filter((r) => r.kind === 'frames').map((r) => r.setupId)).size,
    ).toBeGreaterThanOrEqual(8);
  });

  it.each(
    FRAMES.map(
      (rig, i) => [`${rig.setup} ${rig.title} ${rig.settings.resolution} ${i}`, rig, i] as const,
    ),
  )('%s shows its stated truth', (_, rig, i) => {
    const runs = demo.runs.filter((r) => r.id.startsWith(`run.${rig.setup.slice(6)}.${i}.`));
    expect(runs).toHaveLength(rig.n);
    for (const r of runs) {
      const s = frameStats(framesOf(r)!);
      const odd = rig.odd;
      // Four standard deviations of a repeat; what is odd about a rig comes on top.
      if (!odd?.hitch && !odd?.start)
        expect(Math.abs(s.meanMs / meanFrame(rig) - 1)).toBeLessThan(4 * REPEAT);
      if (odd?.hitch) expect(s.period?.seconds).toBeCloseTo(odd.hitch.every, 0);
      else expect(s.period).toBeNull();
      expect(s.startS).toBe(odd?.start ?? 0);
      expect(s.cap?.fps ?? 0).toBe(rig.cap ?? 0);
      if (odd?.generated) expect(framesOf(r, 'shown')).toHaveLength(2 * s.frames);
    }
  });
});
