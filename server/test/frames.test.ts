import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { forecastFrame, type NoForecast, posteriorOf, type TitleForecast } from '@ruddy/core/runs';
import type {
  LinkOverheadRow,
  ProfileEntry,
  RunEntry,
  SettledForecasts,
} from '@ruddy/core/runs/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { frameTitles } from '../src/runs/frame-titles';
import { addSetup, NOW, start, type Harness } from './harness';
import { addRun, steady, title } from './make-runs';

let h: Harness;
let setup: Setup;
beforeEach(async () => {
  h = await start();
  setup = await addSetup(h, 'Frames');
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

describe('link overheads', () => {
  it('are told for setups with runs, in one request', async () => {
    await sweep();
    const bare = await addSetup(h, 'Never run');
    const r = await h.api.get(`/api/link-overheads?setupIds=${setup.id},${bare.id}`);
    const rows = r.body.items as LinkOverheadRow[];
    expect(rows.map((x) => x.setupId)).toEqual([setup.id]);
    // 5 ms against a slot; the slot pays a little, too.
    expect(rows[0]?.ms.mid).toBeGreaterThan(4);
    expect(rows[0]?.ms.mid).toBeLessThan(7);
    expect(rows[0]?.ms.lo).toBeLessThan(rows[0]!.ms.mid);
    expect((await h.api.get('/api/link-overheads?setupIds=x')).status).toBe(400);
    expect((await h.api.get(`/api/link-overheads?setupIds=${randomUUID()}`)).body.items).toEqual(
      [],
    );
  });
});

describe('frames to expect', () => {
  const asked = async (frames: object, more: object = {}) =>
    (await h.api.post('/api/forecasts').send({ setupId: setup.id, frames, ...more })).body
      .items as (TitleForecast | NoForecast)[];

  it('come from all runs; a measured cell is itself', async () => {
    await sweep();
    const list = await asked({ resolutions: ['1920x1080', '3840x2160'] });
    expect(list.map((f) => f.resolution)).toEqual(['1920x1080', '3840x2160']);
    const [here, far] = list as TitleForecast[];
    expect(here?.forecast.basis).toBe('measured');
    expect(here?.forecast.ms.mid).toBeCloseTo(13.0, 0);
    expect(far?.forecast.basis).toBe('near');
    expect(far!.forecast.ms[80].lo).toBeLessThan(far!.forecast.ms.mid);
    expect(far!.forecast.ms.mid).toBeGreaterThan(18);
  });

  it('are the same to the last digit here and in the thread', async () => {
    await sweep();
    const [there] = (await asked({ resolutions: ['2560x1440'] })) as TitleForecast[];
    const [title] = await frameTitles(null);
    const known = { ...title!, titleId: title!.id, refined: false };
    const here = forecastFrame(posteriorOf(known), there!.forecast.cell);
    expect(there?.forecast).toEqual(JSON.parse(JSON.stringify(here)));
  });

  it('a run that is taken back counts no more', async () => {
    await sweep();
    const [before] = (await asked({ resolutions: ['3840x2160'] })) as TitleForecast[];
    const odd = await run(40, '3840x2160');
    const [now] = (await asked({ resolutions: ['3840x2160'] })) as TitleForecast[];
    expect(now?.forecast.basis).toBe('measured');
    const gone = await h.api
      .post(`/api/setups/${setup.id}/struck`)
      .send({ id: randomUUID(), corrects: odd.id, reason: 'wrong file' });
    expect(gone.status).toBeLessThan(300);
    const [after] = (await asked({ resolutions: ['3840x2160'] })) as TitleForecast[];
    expect(after?.forecast.fps).toEqual(before?.forecast.fps);
  });

  it('say what is missing, and refuse two chains', async () => {
    const id = await title(h, 'Never run');
    const list = await asked({ titleIds: [id], resolutions: ['1920x1080'] });
    expect(list[0]).toMatchObject({ missing: expect.arrayContaining(['title']) as unknown });
    const both = { setupId: setup.id, chain: {}, frames: { resolutions: ['1920x1080'] } };
    expect((await h.api.post('/api/forecasts').send(both)).status).toBe(422);
  });
});

describe('forecasts that were made before their run', () => {
  const settled = async (query = '') =>
    (await h.api.get(`/api/settled-forecasts${query}`)).body as SettledForecasts;

  it('are kept with their date; repeats and slots settle none', async () => {
    await sweep();
    const sofar = await settled();
    // The first run of all had nothing to be forecast from; the second size through the link had.
    expect(sofar.items.map((i) => i.resolution).sort()).toEqual(['1920x1080', '2560x1440']);
    h.clock.now = new Date(NOW.getTime() + 60_000);
    await run(23.4, '3840x2160');
    await run(23.5, '3840x2160');
    const after = await settled(`?setupId=${setup.id}`);
    expect(after.titles.map((t) => t.score.n)).toEqual([after.score.n]);
    expect(after.items).toHaveLength(3);
    expect(after.score.n).toBe(3);
    expect(after.items[0]).toMatchObject({
      resolution: '3840x2160',
      measured: expect.closeTo(1000 / 23.4, 0) as number,
      madeAt: '2026-11-20T18:01:00.000Z',
      evidence: 4,
      basis: 'near',
    });
    expect((await settled(`?setupId=${randomUUID()}`)).items).toEqual([]);
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
      .post('/api/forecasts')
      .send({ setupId: setup.id, frames: { titleIds: [id], resolutions: ['1920x1080'] } });
    // The parts of this setup state no index.
    expect(r.body.items[0].missing).toEqual(expect.arrayContaining(['host']));
  });
});
