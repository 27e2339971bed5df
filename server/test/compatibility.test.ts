import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Page } from '@ruddy/core/base/contract';
import type { CompatRow } from '@ruddy/core/compatibility/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { addSetup, start, type Harness } from './harness';

let h: Harness;
let setups: Setup[] = [];
type Answer = Page<CompatRow> & { total: number };
const list = async (query = '') => (await h.api.get(`/api/compatibility${query}`)).body as Answer;

async function log(
  setup: Setup,
  outcome: string,
  happenedOn: string,
  versions: object = {},
  more: object = {},
) {
  const id = randomUUID();
  const r = await h.api
    .post(`/api/setups/${setup.id}/outcomes`)
    .send({ id, outcome, happenedOn, versions, ...more });
  if (r.status !== 201) throw new Error(JSON.stringify(r.body));
  return id;
}

beforeAll(async () => {
  h = await start();
  setups = [
    await addSetup(h, 'A'),
    await addSetup(h, 'B'),
    await addSetup(h, 'C', { socket: 'right' }),
  ];
  const [a, b, c] = setups as [Setup, Setup, Setup];
  await log(a, 'fails', '2026-03-01', { driver: '1' }, { symptoms: ['black screen'] });
  await log(a, 'works', '2026-04-01', { driver: '2' });
  await log(a, 'works', '2026-05-01', { driver: '2' });
  await log(b, 'fails', '2026-06-01');
  const wrong = await log(b, 'unreliable', '2026-06-02', { driver: '9' });
  await log(b, 'fails', '2026-06-03', { driver: '9' }, { corrects: wrong });
  await log(c, 'works', '2026-07-01');
});
afterAll(() => h.close());

describe('CO-02 the table of chains', () => {
  it('one row a chain, predicted and seen apart, newest status', async () => {
    const { items, total } = await list('?sort=host&dir=asc');
    expect([total, items.map((r) => r.host)]).toEqual([3, ['Alder H A', 'Alder H B', 'Alder H C']]);
    expect(items[0]).toMatchObject({
      predicted: { verdict: 'works', coverage: { known: 8, of: 8 } },
      seen: { n: 2, worked: 1, failed: 1 },
      now: { outcome: 'works', on: '2026-05-01', since: '2026-04-01', versions: { driver: '2' } },
      older: 1,
      entries: 3,
      contradicted: false,
      setups: [{ id: setups[0]?.id, name: 'A' }],
    });
    expect(items[0]?.predicted.down?.lo).toBeCloseTo(26.0, 1);
  });

  it('retries count once, corrected entries never, contradictions are said', async () => {
    const rows = (await list('?sort=host&dir=asc')).items;
    expect(rows[1]).toMatchObject({
      seen: { n: 2, worked: 0, failed: 2 },
      contradicted: true,
      entries: 2,
    });
    // A plain USB-C port that was seen to work contradicts too.
    expect(rows[2]).toMatchObject({
      predicted: { verdict: 'blocked' },
      seen: { worked: 1 },
      contradicted: true,
    });
  });

  it.each([
    ['newest', 'desc', ['C', 'B', 'A']],
    ['newest', 'asc', ['A', 'B', 'C']],
    ['share', 'asc', ['B', 'A', 'C']],
    ['n', 'desc', ['A', 'B', 'C']],
    ['card', 'desc', ['C', 'B', 'A']],
    ['port', 'asc', ['C', 'A', 'B']],
    ['dock', 'asc', ['A', 'B', 'C']],
  ])('sorted by %s, %s', async (sort, dir, expected) => {
    const got = (await list(`?sort=${sort}&dir=${dir}`)).items.map((r) => r.host.slice(-1));
    if (sort === 'n') expect(new Set(got.slice(0, 2))).toEqual(new Set(['A', 'B']));
    else expect(got).toEqual(expected);
  });

  it.each(['newest', 'host', 'port', 'n', 'share'])(
    'pages by %s hold every row once',
    async (sort) => {
      const seen: string[] = [];
      let next: string | null = null;
      do {
        const page: Answer = await list(`?sort=${sort}&limit=1${next ? `&cursor=${next}` : ''}`);
        seen.push(...page.items.map((r) => r.key));
        next = page.next;
      } while (next);
      expect([seen.length, new Set(seen).size]).toEqual([3, 3]);
    },
  );

  it('filters by words, outcome and standard together with the count', async () => {
    expect((await list('?q=black%20screen')).items.map((r) => r.host)).toEqual(['Alder H A']);
    expect((await list('?q=100%25')).total).toBe(0);
    expect((await list('?outcome=fails')).items.map((r) => r.host)).toEqual(['Alder H B']);
    expect((await list('?standard=usb-c')).items.map((r) => r.host)).toEqual(['Alder H C']);
    expect((await h.api.get('/api/compatibility?sort=colour')).status).toBe(400);
  });

  it('opens the entries of exactly one chain', async () => {
    const key = (await list('?q=black%20screen')).items[0]?.key ?? '';
    const r = await h.api.get('/api/outcomes').query({ chain: key });
    expect((r.body as { items: { happenedOn: string }[] }).items.map((e) => e.happenedOn)).toEqual([
      '2026-05-01',
      '2026-04-01',
      '2026-03-01',
    ]);
  });
});
