import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Ranking, resultOf, type ScoutResult, Views } from '@ruddy/core/buy';
import type { ScoutGrounds, SearchEntry } from '@ruddy/core/buy/contract';
import type { HostSpec } from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import type { Evaluation } from '@ruddy/core/plan';
import type { TitleForecast } from '@ruddy/core/runs';
import type { ProfileEntry } from '@ruddy/core/runs/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { start, type Harness } from './harness';

describe('scout', () => {
  let h: Harness;
  let hostId = '';
  let titleId = '';
  beforeAll(async () => {
    h = await start({ demo: true });
    const hosts = (await h.api.get('/api/parts?kind=host&limit=100')).body as { items: Part[] };
    hostId = hosts.items.find((p) => (p.spec as HostSpec).model === 'L-13')?.id ?? '';
    const titles = (await h.api.get('/api/profiles')).body as { items: ProfileEntry[] };
    titleId = titles.items.find((t) => t.name === 'Marsh Lanterns')?.id ?? '';
  });
  afterAll(() => h.close());
  const grounds = async (over: object = {}) =>
    (
      await h.api
        .post('/api/scout/grounds')
        .send({ hostId, titleId, ...over })
        .expect(200)
    ).body as ScoutGrounds;

  it("the server's thread finds the same as the core", async () => {
    const ask = { hostId, titleId, own: 'none', limits: { budgetMinor: 120_000 } };
    const res = await h.api.post('/api/scout').send(ask).expect(200);
    const { result, outright } = res.body as { result: ScoutResult; outright: { name: string }[] };
    const ranking = new Ranking((await grounds(ask)).input);
    ranking.step(Infinity, () => 0);
    const here = JSON.parse(
      JSON.stringify(resultOf(ranking, new Views(ranking, true))),
    ) as ScoutResult;
    expect(result.fronts).toEqual(here.fronts);
    expect(result.ranked.map((r) => r.index)).toEqual(here.ranked.map((r) => r.index));
    expect(result.done).toBe(result.total);
    expect(outright.map((o) => o.name).sort()).toContain('Staithewright T-5');
  });

  it('judges and forecasts a set as Plan does', async () => {
    const { input } = await grounds({ own: 'none' });
    const ranking = new Ranking(input);
    ranking.step(Infinity, () => 0);
    const best = resultOf(ranking, new Views(ranking, true)).ranked[0];
    const { ids } = best!;
    const chain = {
      host: { id: hostId },
      socket: ids.socket,
      path: ids.path.map((id) => ({ id })),
      dock: ids.dock ? { id: ids.dock } : null,
      card: { id: ids.card },
    };
    const { body } = await h.api.post('/api/evaluate').send({ chain });
    const { state } = (body as { evaluation: Evaluation }).evaluation.predicted.verdict;
    expect([state, 'care']).toContain(best?.state);
    const frames = { titleIds: [titleId], resolutions: ['2560x1440'] };
    const told = await h.api.post('/api/forecasts').send({ chain, frames, refined: true });
    const [forecast] = told.body.items as TitleForecast[];
    expect(forecast?.forecast.fps.mid).toBe(best?.fps[0]);
  });

  it('pieces at hand cost nothing: none, free, or all', async () => {
    const owned = async (own: string) =>
      (await grounds({ own })).input.docks.filter((d) => d.owned).map((d) => d.name);
    expect(await owned('none')).toEqual([]);
    expect((await owned('all')).length).toBeGreaterThan((await owned('free')).length);
  });

  it('adds a price only with a rate, shipping of its source', async () => {
    const { input } = await grounds({ own: 'none' });
    const dock = input.docks.find((d) => d.name === 'Quillmere D-4');
    // 249.00 new and 199.00 old: the young one counts, with 6.90 shipping.
    expect(dock?.minor).toBe(25_590);
    const dollars = await grounds({ own: 'none', currency: 'CHF' });
    expect(dollars.input.docks.every((d) => d.minor === null)).toBe(true);
  });

  it('refuses what is not there, at its place', async () => {
    const bad = await h.api.post('/api/scout/grounds').send({ hostId: randomUUID(), titleId });
    expect([bad.status, JSON.stringify(bad.body)]).toEqual([
      422,
      expect.stringContaining('hostId'),
    ]);
    const title = await h.api.post('/api/scout').send({ hostId, titleId: randomUUID() });
    expect([title.status, JSON.stringify(title.body)]).toEqual([
      422,
      expect.stringContaining('titleId'),
    ]);
    await h.api
      .post('/api/scout')
      .send({ hostId, titleId, limits: { budgetMinor: -1 } })
      .expect(422);
  });

  it('keeps searches with limits under revisions, and in the bundle', async () => {
    const id = randomUUID();
    const ask = { hostId, titleId, limits: { portable: true } };
    const made = await h.api.post('/api/searches').send({ id, name: 'Mine', ask }).expect(201);
    expect((made.body as SearchEntry).ask.limits.portable).toBe(true);
    await h.api.post('/api/searches').send({ id, name: 'Mine', ask }).expect(200);
    await h.api.patch(`/api/searches/${id}`).send({ name: 'Other' }).expect(428);
    const next = await h.api
      .patch(`/api/searches/${id}`)
      .set('If-Match', '"1"')
      .send({ name: 'Other' })
      .expect(200);
    expect(next.body).toMatchObject({ name: 'Other', rev: 2 });
    const file = (await h.api.get('/api/bundle').expect(200)).body as {
      searches: { id: string; name: string }[];
      feeds: unknown[];
    };
    expect(file.searches.map((s) => s.name)).toContain('Other');
    expect(file.feeds).toHaveLength(2);
    await h.api.delete(`/api/searches/${id}`).expect(200);
    await h.api.delete(`/api/searches/${id}`).expect(404);
  });

  it('a set becomes a plan with its very parts', async () => {
    const { input } = await grounds();
    const ranking = new Ranking(input);
    ranking.step(Infinity, () => 0);
    const row = resultOf(ranking, new Views(ranking, true)).ranked[0];
    const { ids } = row!;
    const slots = {
      host: hostId,
      socket: ids.socket,
      path: ids.path,
      dock: ids.dock,
      card: ids.card,
    };
    const res = await h.api
      .post('/api/setups')
      .send({ id: randomUUID(), name: 'From scout', slots })
      .expect(201);
    expect((res.body as Setup).slots).toMatchObject(slots);
  });

  it('whole machines are told with their frames, processor and graphics apart', async () => {
    const body = { frames: { titleIds: [titleId], resolutions: ['2560x1440'] }, currency: 'EUR' };
    const res = await h.api.post('/api/scout/machines').send(body).expect(200);
    const items = (
      res.body as { items: { name: string; netMinor: number; fps: { mid: number } }[] }
    ).items;
    const of = (name: string) => items.find((i) => i.name === name);
    // 1249 less 650 again.
    expect(of('Staithewright T-5')?.netMinor).toBe(59_900);
    expect(of('Staithewright T-5')?.fps.mid ?? 0).toBeGreaterThan(
      of('Staithewright T-3')?.fps.mid ?? 0,
    );
  });
});
