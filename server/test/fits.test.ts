import { inTransaction } from '../src/platform/db/transaction';
import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type {
  FitEntry,
  Predictions,
  ProfileEntry,
  RunEntry,
  TollRow,
} from '@ruddy/core/runs/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { addSetup, NOW, start, type Harness } from './harness';
import { addRun, steady, title } from './make-runs';

let h: Harness;
let setup: Setup;
beforeEach(async () => {
  h = await start();
  setup = await addSetup(h, 'Tolls');
});
afterEach(() => h.close());

const SAME = {
  preset: 'High',
  upscaling: 'none',
  generation: 'off',
  rayTracing: 'off',
  capFps: 0,
  screenPath: 'outside',
};
/** A run whose frames take so long; through the link, or of the same card in a desktop slot. */
async function run(ms: number, resolution: string, slot = false): Promise<RunEntry> {
  const frames = steady(400, ms).map((v, i) => v * (1 + 0.05 * Math.sin(i)));
  const context = slot ? { norm: true, sameProcessor: 'yes', slotGen: 4, slotLanes: 16 } : {};
  return addRun(h, setup.id, frames, { settings: { ...SAME, resolution }, context });
}
/** Runs as a link of 5 ms would make them: cards that decide, a pair at two sizes. */
async function sweep(): Promise<void> {
  for (const [resolution, ms] of [
    ['1920x1080', 8],
    ['2560x1440', 13],
  ] as const)
    for (const more of [0, 0.05]) {
      await run(ms + more, resolution, true);
      await run(ms + 5 + more, resolution);
    }
}
const calibrate = async (titleId: string, more: object = {}) => {
  const r = await h.api.post(`/api/profiles/${titleId}/fits`).send({ id: randomUUID(), ...more });
  return { status: r.status, fit: r.body as FitEntry, body: r.body as { title: string } };
};
const profile = async (id: string) =>
  ((await h.api.get('/api/profiles')).body.items as ProfileEntry[]).find(
    (p) => p.id === id,
  ) as ProfileEntry;

describe('the rig of a run', () => {
  it("brings the rates of that day's chain and the slot's", async () => {
    const own = await run(12, '1920x1080');
    const norm = await run(8, '1920x1080', true);
    expect(own.rig.slot).toBe(false);
    expect(norm.rig).toMatchObject({ slot: true, latencyUs: 1 });
    // Gen4 x16 at 256 bytes: 252.06 * 256 / 276 * 0.98 = 229.1 Gb/s.
    expect(norm.rig.down?.lo).toBeCloseTo(229.1, 0);
  });

  it('averages meters after the cut, again when it moves', async () => {
    const lane = [50, 50, 90, 90, 90, 90];
    const { send } = await import('./make-runs');
    const channels = [
      { channel: 'frames', ...(await send(h, steady(300, 10))) },
      { channel: 'card-load', t0Ms: 0, dtMs: 500, ...(await send(h, lane)) },
    ];
    const entry = await addRun(h, setup.id, steady(300, 10), { channels });
    expect(entry.sensors?.['card-load']?.mean).toBeCloseTo(460 / 6, 3);
    const said = await h.api.post(`/api/runs/${entry.id}/said`).send({ id: randomUUID(), cutS: 1 });
    expect(said.body.sensors['card-load'].mean).toBeCloseTo(90, 3);
  });
});

describe('tolls', () => {
  it('are told from every pair, and stand in the list of setups', async () => {
    await sweep();
    const rows = (await h.api.get(`/api/setups/${setup.id}/tolls`)).body.items as TollRow[];
    expect(rows).toHaveLength(1);
    // The slot pays, too: 5 ms grow by 1 / (1 - link / slot).
    expect(rows[0]?.ms).toBeGreaterThan(5);
    expect(rows[0]).toMatchObject({ basis: 'slot', pairs: 2 });
    const list = (await h.api.get('/api/setups')).body.items as {
      id: string;
      toll: TollRow | null;
    }[];
    expect(list.find((s) => s.id === setup.id)?.toll?.ms).toBe(rows[0]?.ms);
    expect((await h.api.get(`/api/setups/${randomUUID()}/tolls`)).status).toBe(404);
  });
});

describe('calibration', () => {
  it('is kept by day, serves forecasts, and is listed', async () => {
    await sweep();
    const id = await title(h);
    const made = await calibrate(id);
    expect([made.status, made.fit.fit.refused]).toEqual([201, null]);
    expect(made.fit.fit.cells).toBe(4);
    expect((await profile(id)).fittedAt).toBe(NOW.toISOString());
    expect((await h.api.get(`/api/profiles/${id}/fits`)).body.items).toHaveLength(1);
    const frames = { resolutions: ['1920x1080', '3840x2160'] };
    const r = await h.api.post('/api/evaluate').send({ setupId: setup.id, frames });
    const list = r.body.evaluation.predicted.forecasts as {
      resolution: string;
      ms: { mid: number; lo: number; hi: number };
    }[];
    expect(list.map((f) => f.resolution)).toEqual(frames.resolutions);
    expect(list[0]?.ms.mid).toBeCloseTo(13.0, 0);
    expect(list[1]!.ms.lo).toBeLessThan(list[1]!.ms.mid);
    expect(
      (await h.api.post('/api/evaluate').send({ setupId: setup.id })).body.evaluation.predicted
        .forecasts,
    ).toEqual([]);
  });

  it('names what it lacks: no run with a resolution, no title', async () => {
    const id = await title(h, 'Never run');
    expect(await calibrate(id)).toMatchObject({
      status: 422,
      body: { title: 'No run of this title tells of frames' },
    });
    expect((await calibrate(randomUUID())).status).toBe(404);
  });

  it('predicts later runs only: its own never count', async () => {
    await sweep();
    const id = await title(h);
    await calibrate(id);
    const none = (await h.api.get('/api/predictions')).body as Predictions;
    expect(none).toEqual({ items: [], score: { n: 0, within: 0, inBand: 0, bias: null } });
    h.clock.now = new Date(NOW.getTime() + 60_000);
    await addRun(h, setup.id, steady(400, 27.4), {
      settings: { ...SAME, resolution: '3840x2160' },
    });
    const after = (await h.api.get(`/api/predictions?setupId=${setup.id}`)).body as Predictions;
    expect(after.items).toHaveLength(1);
    expect(after.score.n).toBe(1);
    expect(after.items[0]?.measured).toBeCloseTo(1000 / 27.4, 1);
    expect(after.items[0]?.fitMadeAt).toBe(NOW.toISOString());
    // A run of the demo counts in the score of a demo setup and in no other.
    const scored = async () =>
      ((await h.api.get(`/api/predictions?setupId=${setup.id}`)).body as Predictions).score.n;
    await inTransaction(async () => {
      // Runs are facts: only past their triggers can one be made into what the demo brings.
      await h.db.query('SET LOCAL session_replication_role = replica');
      const bind = [after.items[0]?.runIds];
      await h.db.query(`UPDATE runs SET origin = 'demo' WHERE id = ANY ($1::uuid[])`, {
        bind,
      });
    });
    expect(await scored()).toBe(0);
    await h.db.query(`UPDATE setups SET origin = 'demo' WHERE id = $1::uuid`, { bind: [setup.id] });
    expect(await scored()).toBe(1);
    // A calibration made with that run does not predict it.
    h.clock.now = new Date(NOW.getTime() + 120_000);
    await calibrate(id);
    expect((await h.api.get('/api/predictions')).body.items[0].fitMadeAt).toBe(NOW.toISOString());
    expect((await h.api.get(`/api/predictions?setupId=${randomUUID()}`)).body.items).toEqual([]);
  });

  it('before a day leaves out what was recorded later', async () => {
    await sweep();
    const id = await title(h);
    h.clock.now = new Date(NOW.getTime() + 3_600_000);
    await run(30, '3840x2160');
    const made = await calibrate(id, { before: new Date(NOW.getTime() + 1000).toISOString() });
    expect(made.fit.fit.cells).toBe(4);
    expect((await calibrate(id)).fit.fit.cells).toBe(5);
  });
});

describe('what is said of a title', () => {
  it('is changed under its revision; start values serve where nothing was measured', async () => {
    const id = await title(h, 'Untried');
    const { rev } = await profile(id);
    const params = { cpuMs: 6, cardMs: 8, trafficMB: 10, workingGB: 4 };
    const patch = (ifMatch: number | null, body: object) => {
      const r = h.api.patch(`/api/profiles/${id}`);
      return (ifMatch === null ? r : r.set('If-Match', `"${ifMatch}"`)).send(body);
    };
    expect((await patch(null, { params })).status).toBe(428);
    expect((await patch(rev + 1, { params })).status).toBe(412);
    const done = await patch(rev, { params, year: 2021 });
    expect(done.body).toMatchObject({ params, year: 2021, rev: rev + 1 });
    expect((await patch(rev + 1, { params: { ...params, cpuMs: 0 } })).status).toBe(422);
    const r = await h.api
      .post('/api/evaluate')
      .send({ setupId: setup.id, frames: { titleIds: [id], resolutions: ['1920x1080'] } });
    // The parts of this setup state no index.
    expect(r.body.evaluation.predicted.forecasts[0].missing).toEqual(
      expect.arrayContaining(['host']),
    );
  });
});
