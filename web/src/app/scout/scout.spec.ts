import { TestBed } from '@angular/core/testing';
import { NEVER, of } from 'rxjs';
import type { ScoutGrounds } from '@ruddy/core/api';
import { ScoutData } from '../data/scout';
import { scoutCalls } from './scout-calls';
import { scoutCsv } from './scout-csv';
import { ScoutDesk, SCOUT_WORKER } from './scout-desk';
import { freshAsk, limitsSet, NO_LIMITS } from './wanted';
import { catalogue } from '../../../../core/test/scout-catalogue';

const grounds: ScoutGrounds = {
  ...{ input: catalogue(5, { docks: 6, cards: 8, cables: 3 }), host: 'H', title: 'T', outright: [], left: {} },
};
const ask = { ...freshAsk('h', 't', 'EUR'), limits: { ...NO_LIMITS, unsure: true } };

function desk(data: Partial<ScoutData>) {
  const calls = scoutCalls();
  TestBed.configureTestingModule({
    providers: [
      ScoutDesk,
      { provide: ScoutData, useValue: data },
      { provide: SCOUT_WORKER, useValue: () => ({ calls, end: () => undefined }) },
    ],
  });
  return TestBed.inject(ScoutDesk);
}

describe('a search at its desk', () => {
  it('shows what is there while it works, and other limits ask nobody again', async () => {
    let asked = 0;
    const d = desk({
      grounds: () => {
        asked += 1;
        return of(grounds);
      },
    });
    await d.search(ask);
    const all = d.result();
    expect(all?.done).toBe(all?.total);
    expect(d.working()).toBe(false);
    await d.search({ ...ask, limits: { ...ask.limits, budgetMinor: 1 } });
    expect(asked).toBe(1);
    expect(d.result()?.kept ?? 0).toBeLessThanOrEqual(all?.kept ?? 0);
    await d.search({ ...ask, hostId: 'other' });
    expect(asked).toBe(2);
  });

  it('can be stopped, and a stopped one changes nothing any more', () => {
    const d = desk({ grounds: () => NEVER });
    void d.search(ask);
    expect(d.working()).toBe(true);
    d.stop();
    expect([d.working(), d.stopped(), d.result()]).toEqual([false, true, null]);
  });

  it('keeps pins by their parts', async () => {
    const d = desk({ grounds: () => of(grounds) });
    await d.search(ask);
    const ids = d.result()?.ranked[0]?.ids ?? d.result()?.left[0]?.nearest?.ids;
    expect(ids).toBeDefined();
    await d.look([ids!, { ...ids!, card: 'gone' }]);
    expect(d.pinned().map((p) => p?.ids.card ?? null)).toEqual([ids?.card, null]);
  });
});

describe('a search as a file', () => {
  it('has a row a set, the price in whole units, and no cell that runs', async () => {
    const d = desk({ grounds: () => of(grounds) });
    await d.search({ ...ask, limits: { ...ask.limits, budgetMinor: null } });
    const r = d.result()!;
    const evil = { ...r, ranked: r.ranked.map((x) => ({ ...x, names: { ...x.names, dock: '=1+1' } })) };
    const lines = (await scoutCsv(evil)).split('\r\n');
    expect(lines).toHaveLength(r.ranked.length + 1);
    expect(lines[0]).toContain('price_EUR');
    expect(lines.slice(1).every((l) => l.includes("'=1+1"))).toBe(true);
  });
});

it('limits that are set are counted without the money', () => {
  expect(limitsSet(NO_LIMITS)).toBe(0);
  expect(limitsSet({ ...NO_LIMITS, budgetMinor: 5, portable: true, noiseDb: 40 })).toBe(2);
});
