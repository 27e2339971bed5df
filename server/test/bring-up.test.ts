import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { OutcomeEntry, SetupEvent } from '@ruddy/core/compatibility/contract';
import { NOTHING_INSTALLED } from '@ruddy/core/parts';
import type { Setup } from '@ruddy/core/setups/contract';
import { bench, at, problem, up } from './bench';
import { addPart, addSetup, start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

const { begin, note, read, begun } = bench(() => h);

describe('BU-02 and BU-03 steps and what is met at them', () => {
  it('a step is kept with its place; the setup is building', async () => {
    const { setup, attempt } = await begun('Steps');
    const r = await note(setup, attempt, 'save-work', { about: { dock: 'Alder D' } });
    expect(r.status).toBe(201);
    expect(up(r).steps).toMatchObject([
      { step: 'save-work', state: 'done', no: 1, about: { dock: 'Alder D' }, by: 'this machine' },
    ]);
    expect(up(r).setup.state).toBe('building');
    expect(await read(setup)).toEqual(r.body);
  });

  it('times of steps are told from three attempts on', async () => {
    const minutes = [4, 6, 11];
    for (const [i, m] of minutes.entries()) {
      const day = `2026-11-0${i + 1}`;
      const { setup, attempt } = await begun(`Timed ${i}`, { happenedAt: `${day}T10:00:00.000Z` });
      expect((await read(setup)).times).toEqual([]);
      await note(setup, attempt, 'place', {
        happenedAt: `${day}T10:${String(m).padStart(2, '0')}:00.000Z`,
      });
    }
    const { setup } = await begun('Timed after');
    expect((await read(setup)).times).toEqual([{ step: 'place', minutes: 6, n: 3 }]);
  });

  it('versions and settings change the setup, with before and after', async () => {
    const { setup, attempt } = await begun('Versions');
    const r = await note(setup, attempt, 'read-versions', {
      installed: { driver: '41.2', systemBuild: '6118' },
      settings: { approval: 'always' },
    });
    expect(up(r).setup.installed).toEqual({
      ...NOTHING_INSTALLED,
      driver: '41.2',
      systemBuild: '6118',
    });
    expect(up(r).setup.settings.approval).toBe('always');
    const again = await note(setup, attempt, 'driver-before', { installed: { driver: '41.5' } });
    expect(up(again).steps[1]?.noted).toEqual([{ what: 'driver', from: '41.2', to: '41.5' }]);
    const { items } = (await h.api.get(at(setup, 'record'))).body as { items: SetupEvent[] };
    const versions = items.filter((e) => e.kind === 'version').map((e) => e.body);
    expect(versions).toContainEqual({ what: 'driver', from: '41.2', to: '41.5', attempt });
    // A change of the driver is told once, as the fact it is.
    expect(
      items.filter((e) => e.kind === 'parts' && JSON.stringify(e.body).includes('driver')),
    ).toEqual([]);
    expect(items.filter((e) => e.kind === 'parts').map((e) => e.body)).toContainEqual({
      changes: [{ slot: 'approval', from: '', to: 'always' }],
    });
  });

  it('what was not changed is noted as read, and makes no revision', async () => {
    const { setup, attempt } = await begun('Same');
    await note(setup, attempt, 'read-versions', { installed: { driver: '41.2' } });
    const { setup: before } = await read(setup);
    const r = await note(setup, attempt, 'driver-before', { installed: { driver: '41.2' } });
    expect(up(r).steps[1]?.noted).toEqual([{ what: 'driver', from: '41.2', to: '41.2' }]);
    expect(up(r).setup.rev).toBe(before.rev);
  });

  it.each([
    [{ state: 'skipped' }, 'reason', 'Reason: say why this step is left out'],
    [{ state: 'failed' }, 'symptom', 'What was seen: choose it, or say it in words'],
    [{ step: 'dance' }, 'step', ''],
    [{ settings: { approval: 'perhaps' } }, 'settings/approval', ''],
    [
      { installed: { driver: 'x'.repeat(61) } },
      'installed/driver',
      'Version: at most 60 characters',
    ],
    [
      { step: 'print', outcome: { id: randomUUID(), outcome: 'works' } },
      'outcome',
      'Only the last step writes the entry',
    ],
    [{ happenedAt: '2027-01-01T00:00:00Z' }, 'happenedAt', 'This would be in the future'],
    [
      { state: 'failed', symptom: 'low-copy', ends: true },
      'ends',
      'An attempt is over with a step that is done or skipped',
    ],
  ])('%j is refused at its place and nothing is stored', async (over, path, message) => {
    const { setup, attempt } = await begun(`Refused ${randomUUID()}`);
    const before = await read(setup);
    const r = await note(setup, attempt, 'save-work', over);
    expect(r.status).toBe(422);
    expect(problem(r).errors?.[0]?.path).toBe(path);
    if (message) expect(problem(r).errors?.[0]?.message).toBe(message);
    expect(await read(setup)).toEqual(before);
  });

  it('a repeated post is answered once; a foreign id is refused', async () => {
    const { setup, attempt } = await begun('Twice');
    const id = randomUUID();
    const first = await note(setup, attempt, 'save-work', { id });
    const second = await note(setup, attempt, 'save-work', { id });
    expect([first.status, second.status]).toEqual([201, 200]);
    expect(up(second).steps).toHaveLength(1);
    expect((await note(setup, attempt, 'print', { id: attempt })).status).toBe(409);
    expect((await note(setup, randomUUID(), 'print')).status).toBe(404);
  });

  it('two at one bench stand under numbers without a gap', async () => {
    const { setup, attempt } = await begun('Both');
    const steps = ['save-work', 'print', 'place', 'dock-dead', 'card-seat', 'card-hold'];
    const all = await Promise.all(
      steps.map((s, i) =>
        note(setup, attempt, s, {
          installed: i % 2 ? { driver: `4${i}` } : { systemBuild: `6${i}` },
        }),
      ),
    );
    expect(all.map((r) => r.status)).toEqual(steps.map(() => 201));
    const seqs = await h.rows<{ seq: number }>(
      'SELECT seq FROM events WHERE setup_id = $1 ORDER BY seq',
      [setup.id],
    );
    expect(seqs.map((r) => r.seq)).toEqual(seqs.map((_, i) => i + 1));
    const { installed } = (await read(setup)).setup;
    expect(installed.driver).not.toBe('');
    expect(installed.systemBuild).not.toBe('');
  });

  it('facts stay as they are', async () => {
    const { setup, attempt } = await begun('Fixed');
    await note(setup, attempt, 'save-work');
    await expect(
      h.rows(`UPDATE events SET body = '{}' WHERE setup_id = $1`, [setup.id]),
    ).rejects.toThrow('append-only');
    await expect(
      h.rows(`DELETE FROM events WHERE setup_id = $1 AND kind = 'step'`, [setup.id]),
    ).rejects.toThrow('append-only');
  });
});

describe('BU-07 attempts and orders', () => {
  it('another attempt ends the one before, failed or left', async () => {
    const { setup, attempt } = await begun('Attempts', { order: 'any-time' });
    await note(setup, attempt, 'plug-cable', { state: 'failed', symptom: 'crash-on-plug' });
    const second = up(await begin(setup));
    expect(second.attempts.map((a) => [a.no, a.order, a.ended?.outcome, a.ended?.worked])).toEqual([
      [1, 'any-time', 'failed', false],
      [2, 'all-off', undefined, undefined],
    ]);
    const third = up(await begin(setup));
    expect(third.attempts[1]?.ended).toMatchObject({ outcome: 'left', worked: null });
    // What was left says nothing of its order.
    expect(third.tried.map((t) => [t.order, t.worked])).toEqual([['any-time', false]]);
    const late = await note(setup, attempt, 'print');
    expect([late.status, problem(late).title]).toEqual([409, 'Attempt 1 is over']);
  });

  it('tries count by host and kind of link, under their build', async () => {
    const { setup, attempt } = await begun('Host A');
    await note(setup, attempt, 'read-versions', { installed: { systemBuild: '6118' } });
    await note(setup, attempt, 'listed');
    await h.api
      .post(at(setup, `attempts/${attempt}/end`))
      .send({ id: randomUUID(), outcome: 'failed', reason: 'too loud' });
    const dock = await addPart(h, 'dock', { model: 'D other' });
    const twin = (
      await h.api
        .post('/api/setups')
        .send({ id: randomUUID(), name: 'Host A again', slots: { ...setup.slots, dock: dock.id } })
    ).body as Setup;
    const other = await addSetup(h, 'Host B');
    expect((await read(twin)).tried).toMatchObject([
      { order: 'all-off', worked: true, build: '6118', setup: 'Host A' },
    ]);
    expect((await read(other)).tried).toEqual([]);
    // Another kind of port of the same host is another row.
    const port = await h.api
      .patch(`/api/setups/${twin.id}`)
      .set('If-Match', '"1"')
      .send({ slots: { socket: 'right' } });
    expect((await read(port.body as Setup)).tried).toEqual([]);
  });

  it('a try from before counts until it is retracted', async () => {
    const setup = await addSetup(h, 'Earlier');
    const id = randomUUID();
    const tried = { id, order: 'host-first', on: '2026-10-04', build: '6116', worked: true };
    expect(up(await h.api.post(at(setup, 'tries')).send(tried)).tried).toMatchObject([
      { order: 'host-first', build: '6116', worked: true },
    ]);
    expect(
      (await h.api.post(at(setup, 'tries')).send({ ...tried, id: randomUUID(), on: '2026-12-01' }))
        .status,
    ).toBe(422);
    const back = await h.api
      .post(at(setup, 'struck'))
      .send({ id: randomUUID(), corrects: id, reason: 'that was the other laptop' });
    expect(up(back).tried).toEqual([]);
    expect(
      (
        await h.api
          .post(at(setup, 'struck'))
          .send({ id: randomUUID(), corrects: id, reason: 'again' })
      ).status,
    ).toBe(409);
    const { items } = (await h.api.get(at(setup, 'record'))).body as { items: SetupEvent[] };
    expect(items.find((e) => e.kind === 'struck')).toMatchObject({
      corrects: id,
      body: { reason: 'that was the other laptop' },
    });
  });

  it('nothing can be begun without parts', async () => {
    const empty = (await h.api.post('/api/setups').send({ id: randomUUID(), name: 'Empty' }))
      .body as Setup;
    expect(problem(await begin(empty)).detail).toContain('no parts yet');
    expect((await h.api.get(`/api/setups/${randomUUID()}/bring-up`)).status).toBe(404);
  });
});

describe('BU-10 and CO-08 the last step', () => {
  it('writes the entry with versions, and the setup is live', async () => {
    const { setup, attempt } = await begun('Last');
    await note(setup, attempt, 'listed', { installed: { driver: '41.2' } });
    const outcome = { id: randomUUID(), outcome: 'works', note: 'at last', good: true };
    const r = await note(setup, attempt, 'log-entry', {
      outcome,
      ends: true,
      installed: { systemBuild: '6118' },
    });
    expect(up(r).attempts[0]?.ended).toMatchObject({ outcome: 'passed', worked: true });
    expect(up(r).good).toMatchObject({
      installed: { driver: '41.2', systemBuild: '6118' },
      names: { host: 'Alder H Last' },
    });
    expect(up(r).setup.state).toBe('live');
    const { items } = (await h.api.get(`/api/outcomes?setupId=${setup.id}`)).body as {
      items: OutcomeEntry[];
    };
    expect(items).toMatchObject([
      {
        outcome: 'works',
        order: 'all-off',
        versions: { driver: '41.2', system: '6118' },
        note: 'at last',
      },
    ]);
  });

  it('two alike of one day count once, then nothing more', async () => {
    const { setup, attempt } = await begun('Same day');
    const outcome = () => ({ id: randomUUID(), outcome: 'works' });
    await note(setup, attempt, 'log-entry', { outcome: outcome(), ends: true });
    const second = up(await begin(setup)).attempts[1]!.id;
    const r = await note(setup, second, 'log-entry', {
      outcome: outcome(),
      ends: true,
      installed: { driver: '' },
    });
    expect([r.status, problem(r).title]).toEqual([409, 'This outcome is already logged']);
    const now = await read(setup);
    expect(now.attempts[1]?.ended).toBeNull();
    expect(now.steps.filter((s) => s.attempt === second)).toEqual([]);
  });

  it('a later mark stands; one deleted leaves the earlier', async () => {
    const setup = await addSetup(h, 'Good');
    const first = randomUUID();
    const second = randomUUID();
    await h.api.post(at(setup, 'good')).send({ id: first });
    expect(
      up(await h.api.post(at(setup, 'good')).send({ id: second, note: 'after the fair' })).good?.id,
    ).toBe(second);
    const back = await h.api
      .post(at(setup, 'struck'))
      .send({ id: randomUUID(), corrects: second, reason: 'it was not' });
    expect(up(back).good?.id).toBe(first);
  });

  it('outcomes and steps of another setup are not retracted so', async () => {
    const { setup, attempt } = await begun('Strikes');
    const r = await note(setup, attempt, 'log-entry', {
      outcome: { id: randomUUID(), outcome: 'care' },
    });
    const strike = (corrects: string, where = setup) =>
      h.api.post(at(where, 'struck')).send({ id: randomUUID(), corrects, reason: 'no' });
    expect(problem(await strike(up(r).steps[0]!.id)).detail).toContain(
      'A fact of the kind "step" is not deleted',
    );
    const { items } = (await h.api.get(`/api/outcomes?setupId=${setup.id}`)).body as {
      items: OutcomeEntry[];
    };
    expect((await strike(items[0]!.id)).status).toBe(422);
    const other = await addSetup(h, 'Other strikes');
    expect((await strike(up(r).steps[0]!.id, other)).status).toBe(422);
    expect(
      (
        await h.api
          .post(at(setup, 'struck'))
          .send({ id: randomUUID(), corrects: attempt, reason: ' ' })
      ).status,
    ).toBe(422);
  });
});
