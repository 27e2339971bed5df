import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { NoForecast, TitleForecast } from '@ruddy/core/runs';
import type { StatedFigureEntry } from '@ruddy/core/runs/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { addPart, addSetup, start, type Harness } from './harness';
import { title } from './make-runs';

let h: Harness;
let setup: Setup;
let titleId: string;
beforeEach(async () => {
  h = await start();
  setup = await addSetup(h, 'Stated');
  titleId = await title(h, 'Fen Rally');
});
afterEach(() => h.close());

const at = (resolution: string) => ({ resolution });
const body = (more: object = {}) => ({
  id: randomUUID(),
  titleId,
  rig: { setupId: setup.id },
  settings: at('2560x1440'),
  said: { kind: 'frames', fps: 61 },
  ...more,
});
const state = (more: object = {}) => h.api.post('/api/stated-figures').send(body(more));
const list = async (query = '') =>
  (await h.api.get(`/api/stated-figures${query}`)).body.items as StatedFigureEntry[];
const expected = async () =>
  (
    await h.api
      .post('/api/forecasts')
      .send({ setupId: setup.id, frames: { titleIds: [titleId], resolutions: ['2560x1440'] } })
  ).body.items as (TitleForecast | NoForecast)[];

describe('stated figures', () => {
  it('are evidence of forecasts at once, and no more when removed', async () => {
    expect((await expected())[0]).toMatchObject({ missing: ['title'] });
    const r = await state();
    expect(r.status).toBe(201);
    const [found] = (await expected()) as TitleForecast[];
    expect(found?.forecast.fps.mid).toBeGreaterThan(58);
    expect(found?.forecast.fps.mid).toBeLessThan(64);
    expect((await h.api.delete(`/api/stated-figures/${r.body.id}`)).status).toBe(200);
    expect((await expected())[0]).toMatchObject({ missing: ['title'] });
    expect((await h.api.delete(`/api/stated-figures/${r.body.id}`)).status).toBe(404);
  });

  it('keep the rig as it stood, or another card', async () => {
    const card = await addPart(h, 'card', { model: 'Second' });
    const other = {
      rig: { setupId: setup.id, cardId: card.id, slot: true },
      ...at('2560x1440'),
      screenPath: null,
    };
    await state({ said: { kind: 'ratio', amount: 12, how: 'slower', other } });
    const [kept] = await list(`?setupId=${setup.id}`);
    expect(kept?.rig).toMatchObject({ slot: false, host: expect.stringContaining('H Stated') });
    const said = kept?.said as Extract<StatedFigureEntry['said'], { kind: 'ratio' }>;
    expect(said.other.rig).toMatchObject({
      slot: true,
      card: expect.stringContaining('Second'),
      host: 'another desktop',
    });
    expect(await list(`?titleId=${randomUUID()}`)).toEqual([]);
  });

  it('the same id twice is answered, not doubled', async () => {
    const once = body();
    expect((await h.api.post('/api/stated-figures').send(once)).status).toBe(201);
    expect((await h.api.post('/api/stated-figures').send(once)).status).toBe(200);
    expect(await list()).toHaveLength(1);
  });

  it.each([
    ['titleId', { titleId: randomUUID() }],
    ['settings/resolution', { settings: at('') }],
    ['said/fps', { said: { kind: 'frames', fps: -1 } }],
  ])('are refused at %s', async (path, wrong) => {
    const r = await state(wrong);
    expect(r.status).toBe(422);
    expect(r.body.errors.map((e: { path: string }) => e.path)).toContain(path);
    expect(await list()).toEqual([]);
  });

  it('a card is not held against itself', async () => {
    const said = {
      kind: 'cards',
      amount: 10,
      how: 'faster',
      other: { rig: { setupId: setup.id } },
    };
    const r = await state({ said });
    expect(r.status).toBe(422);
    expect(r.body.errors[0].path).toBe('said/other/rig/cardId');
  });

  it('a side is not held against itself', async () => {
    const other = { rig: { setupId: setup.id }, ...at('2560x1440'), screenPath: null };
    const said = { kind: 'ratio', amount: 10, how: 'faster', other };
    const r = await state({ said });
    expect(r.status).toBe(422);
    expect(r.body.errors[0].message).toMatch(/^Both sides are the same/);
    expect(
      (await state({ said: { ...said, other: { ...other, ...at('3840x2160') } } })).status,
    ).toBe(201);
  });

  it('leave in the file of everything and come back', async () => {
    await state({ note: 'a review' });
    const file = (await h.api.get('/api/bundle')).body;
    expect(file.statedFigures).toHaveLength(1);
    const there = await start();
    try {
      const r = await there.api.post('/api/bundle').send(file);
      expect(r.status).toBeLessThan(300);
      const back = (await there.api.get('/api/stated-figures')).body.items;
      expect(back).toMatchObject([{ note: 'a review', said: { kind: 'frames', fps: 61 } }]);
    } finally {
      await there.close();
    }
  });
});

describe('runs that cannot be made', () => {
  const path = () => `/api/setups/${setup.id}/impossible-runs`;
  it('are remembered with their setup until they can', async () => {
    const say = (impossible: boolean) =>
      h.api.post(path()).send({ experiment: 'size:3840x2160', impossible });
    expect((await say(true)).body.items).toEqual(['size:3840x2160']);
    expect((await say(true)).body.items).toEqual(['size:3840x2160']);
    expect((await h.api.get(path())).body.items).toEqual(['size:3840x2160']);
    expect((await say(false)).body.items).toEqual([]);
    const odd = await h.api.post(path()).send({ experiment: 'fly', impossible: true });
    expect(odd.status).toBe(422);
    expect((await h.api.get(`/api/setups/${randomUUID()}/impossible-runs`)).status).toBe(404);
  });
});
