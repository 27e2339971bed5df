import { setTimeout } from 'node:timers/promises';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { inSnapshot, inTransaction, outsideTransaction } from '../src/platform/db/transaction';
import { start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
  await h.db.query('CREATE TABLE marks (n int PRIMARY KEY, xid text)');
});
afterAll(() => h.close());

const add = (n: number) => h.db.query('INSERT INTO marks (n) VALUES ($1)', { bind: [n] });
const count = async (from = 0, to = 1e9) => {
  const [row] = await h.db.query<{ n: number }>(
    'SELECT count(*)::int AS n FROM marks WHERE n BETWEEN $1 AND $2',
    { type: QueryTypes.SELECT, bind: [from, to] },
  );
  return row?.n;
};
const backend = async () => {
  const [row] = await h.db.query<{ id: number }>('SELECT pg_backend_pid() AS id', {
    type: QueryTypes.SELECT,
  });
  return row?.id;
};
const failing = (n: number, more = () => Promise.resolve()) =>
  inTransaction(async () => {
    await add(n);
    await more();
    throw new Error('let go');
  });

describe('transactions', () => {
  it('queries take the current one without being handed it', async () => {
    await expect(failing(1)).rejects.toThrow('let go');
    expect(await count(1, 1)).toBe(0);
    const [first, second] = await inTransaction(async () => [await backend(), await backend()]);
    expect(second).toBe(first);
  });

  it('one inside another joins it, even when every connection is taken', async () => {
    const both = (n: number) =>
      inTransaction(async () => {
        const outer = await backend();
        return inTransaction(async () => [outer, await backend(), await add(n)]);
      });
    const found = await Promise.all(Array.from({ length: 12 }, (_, i) => both(100 + i)));
    for (const [outer, inner] of found) expect(inner).toBe(outer);
    expect(await count(100, 111)).toBe(12);
  });

  it('fifty at once stay apart', async () => {
    const one = (n: number) =>
      inTransaction(async () => {
        await add(n);
        await setTimeout(n % 5);
        await Promise.all([add(n + 100), add(n + 200)]);
        if (n % 2 === 1) throw new Error('odd');
        return count(n + 100, n + 100);
      });
    const found = await Promise.allSettled(Array.from({ length: 50 }, (_, i) => one(1000 + i)));
    expect(found.filter((f) => f.status === 'rejected')).toHaveLength(25);
    expect(await count(1000, 1299)).toBe(75);
  });

  it('what is written outside outlives a rollback', async () => {
    await expect(
      failing(2, () => outsideTransaction(() => add(3)).then(() => undefined)),
    ).rejects.toThrow();
    expect([await count(2, 2), await count(3, 3)]).toEqual([0, 1]);
  });

  it('a snapshot sees one moment whatever others write', async () => {
    await inSnapshot(async () => {
      const before = await count();
      await outsideTransaction(() => add(4));
      expect(await count()).toBe(before);
    });
    expect(await count(4, 4)).toBe(1);
  });
});
