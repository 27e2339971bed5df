import { randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { SearchModel } from '../src/buy/models/search';
import { PartModel } from '../src/parts/models/part';
import { MemberModel } from '../src/platform/access/models/member';
import { createOnce, exists, sameText } from '../src/platform/db/rows';
import { THIS_MACHINE } from '../src/platform/access/actor';
import { addPart, NOW, start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

const search = (id: string, name = 'A search') => ({
  id,
  origin: 'own' as const,
  createdAt: NOW,
  createdBy: THIS_MACHINE.id,
  name,
  ask: { text: `it's "quoted" \\ and $1` } as unknown as SearchModel['ask'],
});

describe('rows', () => {
  it('createOnce creates one row of many at once and says which', async () => {
    const id = randomUUID();
    const created = await Promise.all(
      Array.from({ length: 6 }, (_, i) => createOnce(SearchModel, search(id, `Search ${i}`))),
    );
    expect(created.filter(Boolean)).toHaveLength(1);
    expect(await SearchModel.count({ where: { id } })).toBe(1);
  });

  it('createOnce writes defaults and any text as it is', async () => {
    const id = randomUUID();
    await createOnce(SearchModel, search(id));
    const row = await SearchModel.findByPk(id);
    expect([row?.rev, row?.ask]).toEqual([1, search(id).ask]);
  });

  it('exists tells of a row by its id', async () => {
    const part = await addPart(h, 'dock');
    expect(await exists(PartModel, part.id)).toBe(true);
    expect(await exists(PartModel, randomUUID())).toBe(false);
  });

  it('sameText compares in any case, as the index on names does', async () => {
    const [row] = await MemberModel.findAll({ limit: 1 });
    const found = await MemberModel.findOne({ where: sameText('name', row!.name.toUpperCase()) });
    expect(found?.id).toBe(row!.id);
    expect(await MemberModel.findOne({ where: sameText('name', `${row!.name}'`) })).toBeNull();
  });

  it('generated columns are read and cannot be written', async () => {
    const part = await addPart(h, 'card', { maker: 'Fenwick', model: 'G1' });
    const row = await PartModel.findByPk(part.id);
    expect(row?.maker).toBe('Fenwick');
    expect(() => row?.set('maker', 'Other')).toThrow('generated');
  });

  it('a bigint beyond 2^53 is refused, never rounded', async () => {
    const read = (n: string) =>
      h.db.query<{ n: number }>(`SELECT ${n}::bigint AS n`, { type: QueryTypes.SELECT });
    expect((await read('9007199254740991'))[0]?.n).toBe(Number.MAX_SAFE_INTEGER);
    await expect(read('9007199254740993')).rejects.toThrow('does not fit a number');
  });
});
