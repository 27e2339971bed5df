import { inTransaction } from '../src/platform/db/transaction';
import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { RunEntry } from '@ruddy/core/runs/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { loadBundle } from '../src/workshop/bundle-load';
import { THIS_MACHINE } from '../src/platform/http/route';
import { addSetup, demoBundle, NOW, start, type Harness } from './harness';
import { addRun, packed, steady } from './make-runs';

let h: Harness;
let setup: Setup;
beforeEach(async () => {
  h = await start();
  setup = await addSetup(h, 'Runs');
});
afterEach(() => h.close());

const count = async (table: string) =>
  (await h.rows<{ n: number }>(`SELECT count(*)::int AS n FROM ${table}`))[0]?.n;

describe('runs in a bundle', () => {
  const exported = async () => (await h.api.get('/api/bundle')).body as Bundle;
  const load = (bundle: Bundle, origin: 'demo' | 'imported' = 'imported') =>
    inTransaction(() => loadBundle(bundle, { origin, by: THIS_MACHINE.id, now: NOW }));

  it('come back the same in an empty database', async () => {
    const run = await addRun(h, setup.id, [...steady(50, 40), ...steady(400, 10)], {
      saw: 'x',
      settings: { resolution: '1920x1080' },
    });
    await h.api.post(`/api/runs/${run.id}/said`).send({ id: randomUUID(), cutS: 2, saw: 'y' });
    const uneven = steady(400, 15.3).map((v, i) => v * (1 + 0.05 * Math.sin(i)));
    await addRun(h, setup.id, uneven, { settings: { resolution: '2560x1440' } });
    const file = await exported();
    expect(file.runs.map((r) => r.forecast?.basis)).toEqual([undefined, 'near']);
    expect(file.captures).toHaveLength(2);
    const other = await start();
    try {
      await inTransaction(() => loadBundle(file, { origin: 'own', by: THIS_MACHINE.id, now: NOW }));
      const again = (await other.api.get(`/api/runs/${run.id}`)).body as RunEntry;
      expect(again).toEqual((await h.api.get(`/api/runs/${run.id}`)).body);
      expect((await other.api.get('/api/bundle')).body).toEqual(file);
    } finally {
      await other.close();
    }
  });

  it('of earlier versions bring calibrations, which are read over', async () => {
    await addRun(h, setup.id, steady(400, 10), { settings: { resolution: '1920x1080' } });
    const file = await exported();
    const profiles = file.profiles.map((p) => ({
      ...p,
      fits: [{ id: 'fit.0', fit: { cells: 3 } }],
    }));
    const other = await start();
    try {
      await load({ ...file, profiles });
      expect((await other.api.get('/api/bundle')).body.profiles).toEqual(file.profiles);
    } finally {
      await other.close();
    }
  });

  it('with a value that was changed on the way are refused whole', async () => {
    await addRun(h, setup.id, steady(100, 10));
    const file = await exported();
    const broken = {
      ...file,
      captures: file.captures.map((c) => ({ ...c, data: packed([1, 2]).data.toString('base64') })),
    };
    await h.db.query('TRUNCATE run_channels, run_figures, captures');
    await expect(load(broken)).rejects.toThrow(/Not saved/);
    expect(await count('captures')).toBe(0);
  });

  it('leave with the demo, except those of kept setups', async () => {
    await load(demoBundle(), 'demo');
    const [dome] = await h.rows<{ id: string }>(`SELECT id FROM setups WHERE name = 'Dome desk'`);
    const note = await h.api
      .post(`/api/setups/${dome!.id}/notes`)
      .send({ id: randomUUID(), text: 'mine', happenedOn: '2026-11-01' });
    expect(note.status).toBeLessThan(300);
    expect(await count('runs')).toBeGreaterThan(40);
    await h.api.delete('/api/demo');
    const left = await h.rows<{ setup_id: string; origin: string }>(
      'SELECT DISTINCT setup_id, origin FROM runs',
    );
    expect(left).toEqual([{ setup_id: dome!.id, origin: 'adopted' }]);
    // Three titles and three synthetic tests were run on it.
    expect(await count('profiles')).toBe(6);
    expect(await count('captures')).toBe(
      await count('(SELECT DISTINCT sha256 FROM run_channels) x'),
    );
  });
});
