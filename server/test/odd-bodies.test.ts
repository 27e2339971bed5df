import { randomUUID } from 'node:crypto';
import * as fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { at, bench } from './bench';
import { start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());
const { begun, read } = bench(() => h);

/** Values nobody meant to send, in the place of any field. */
const odd = fc.oneof(
  fc.constantFrom(
    null,
    true,
    -1,
    1e300,
    '',
    ' ',
    'x'.repeat(5000),
    '\u0000',
    '\ud800',
    [],
    {},
    [[]],
    { $ne: 1 },
  ),
  fc.string(),
  fc.jsonValue({ maxDepth: 2 }),
);

describe('what nobody meant to send', () => {
  it('is refused with a place or answered, never half stored', async () => {
    const { setup, attempt } = await begun('Odd');
    const good: Record<string, Record<string, unknown>> = {
      attempts: { purpose: 'undock', order: 'all-off', driver: 'after' },
      [`attempts/${attempt}/end`]: { outcome: 'left', reason: '' },
      steps: {
        attempt,
        step: 'read-versions',
        state: 'done',
        reason: '',
        installed: { driver: '1' },
        settings: { lid: 'open' },
        wrong: null,
      },
      tries: { order: 'all-off', on: '2026-01-01', build: '6', worked: true },
      struck: { corrects: randomUUID(), reason: 'no' },
      good: { note: '' },
      notes: { text: 'x', happenedOn: '2026-01-01', photo: '' },
    };
    const paths = Object.keys(good);
    await fc.assert(
      fc.asyncProperty(fc.constantFrom(...paths), fc.nat(9), odd, async (path, field, value) => {
        const base = good[path] ?? {};
        const keys = [...Object.keys(base), 'id', 'surplus'];
        const key = keys[field % keys.length] ?? 'id';
        const before = await read(setup);
        const r = await h.api
          .post(at(setup, path))
          .send({ id: randomUUID(), ...base, [key]: value } as object);
        expect([path, key, r.status]).toEqual([
          path,
          key,
          expect.toSatisfy((s: number) => s < 500),
        ]);
        if (r.status === 422)
          expect((r.body as { errors: { path: string }[] }).errors.length).toBeGreaterThan(0);
        if (r.status >= 400) expect(await read(setup)).toEqual(before);
      }),
      { numRuns: 150 },
    );
    const gaps = await h.rows<{ seq: number }>(
      'SELECT seq FROM events WHERE setup_id = $1 ORDER BY seq',
      [setup.id],
    );
    expect(gaps.map((g) => g.seq)).toEqual(gaps.map((_, i) => i + 1));
  });

  it('odd or oversized bodies are refused before anything happens', async () => {
    const { setup } = await begun('No object');
    for (const body of ['[]', '"x"', '7', 'null', '{"id":']) {
      const r = await h.api
        .post(at(setup, 'steps'))
        .set('content-type', 'application/json')
        .send(body);
      expect([body, r.status >= 400 && r.status < 500]).toEqual([body, true]);
    }
    const long = await h.api
      .post(at(setup, 'steps'))
      .send({ id: randomUUID(), reason: 'x'.repeat(300_000) });
    expect(long.status).toBe(413);
  });
});
