import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { of, throwError } from 'rxjs';
import type { CostBody, CostGrounds } from '@ruddy/core/buy/contract';
import { chainSchema } from '@ruddy/core/chain';
import type { Setup } from '@ruddy/core/setups/contract';
import { CatalogueData } from '../parts/catalogue';
import { costParts, PlanCost } from './plan-cost';
import { SetupEditor } from '../setups/setup-editor';
import { storedSetup } from '../setups/stored-setup';
import { Preview } from '../setups/preview';

const chain = chainSchema.parse({ host: null, socket: null, path: [], dock: null, card: null });
const setup: Setup = {
  ...storedSetup,
  slots: { ...storedSetup.slots, dock: 'd', card: 'c', spares: [{ part: 's', purpose: '' }] },
};
const price = (partId: string, minor: number) => ({
  id: partId,
  partId,
  itemId: null,
  kind: 'offer' as const,
  minor,
  currency: 'EUR',
  condition: null,
  onDate: '2026-11-01',
  source: '',
  note: '',
  withIds: [],
  beforeMinor: null,
  discountPercent: null,
  origin: 'own' as const,
  recordedAt: '',
});
const grounds = (body: CostBody): CostGrounds => ({
  asOf: '2026-11-20',
  oldDays: 60,
  parts: body.parts.map((p) => ({ ...p, kind: 'card', name: p.id })),
  allInOne: [],
  names: {},
  prices: [price('d', 20_000), price('c', 40_000), price('x', 10_000)],
  rates: [],
  pieces: [],
});

describe('PL-19 the money of the open setup', () => {
  const fields = signal<Setup | null>(setup);
  const now = signal<unknown>(null);
  const cost = vi.fn((body: CostBody) => of(grounds(body)));

  beforeEach(() => {
    vi.useFakeTimers();
    cost.mockClear();
    now.set(null);
    fields.set(setup);
    const judgement = signal({ chain });
    TestBed.configureTestingModule({
      providers: [
        PlanCost,
        { provide: CatalogueData, useValue: { cost } },
        { provide: SetupEditor, useValue: { fields, stored: fields } },
        { provide: Preview, useValue: { now, shown: judgement, before: judgement } },
      ],
    });
  });
  afterEach(() => vi.useRealTimers());
  const settle = async () => {
    TestBed.tick();
    await vi.advanceTimersByTimeAsync(200);
  };

  it("counts the plan's parts, again only when they change", async () => {
    expect(costParts(setup).map((p) => p.id)).toEqual(['d', 'c']);
    const plan = TestBed.inject(PlanCost);
    expect(plan.cost()).toBeNull();
    await settle();
    expect(plan.cost()?.totalMinor).toBe(60_000);
    fields.set({ ...setup, cost: { ...setup.cost, shippingMinor: 500 }, notes: 'x' });
    await settle();
    expect([plan.cost()?.totalMinor, cost.mock.calls.length]).toEqual([60_500, 1]);
  });

  it('while something is tried, both sums stand', async () => {
    const plan = TestBed.inject(PlanCost);
    await settle();
    expect(plan.before()).toBeNull();
    now.set({ patch: { slots: { card: 'x' } } });
    await settle();
    expect([plan.cost()?.totalMinor, plan.before()?.totalMinor]).toEqual([30_000, 60_000]);
  });

  it('failing prices are said, and the sum before kept', async () => {
    const plan = TestBed.inject(PlanCost);
    await settle();
    cost.mockReturnValueOnce(throwError(() => new Error('The server was not reached')) as never);
    fields.set({ ...setup, slots: { ...setup.slots, card: 'x' } });
    await settle();
    expect([plan.problem(), plan.cost()?.totalMinor]).toEqual([
      'The server was not reached',
      20_000,
    ]);
  });
});
