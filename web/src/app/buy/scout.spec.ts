import { TestBed } from '@angular/core/testing';
import { By } from '@angular/platform-browser';
import { provideRouter } from '@angular/router';
import type { RowView, ScoutResult } from '@ruddy/core/buy';
import type { ScoutGrounds } from '@ruddy/core/buy/contract';
import { type OpenQuestion, questionsOf } from '@ruddy/core/plan';
import { NEVER, of } from 'rxjs';
import { Answers } from '../plan/answers';
import { ScoutData } from './scout';
import { AnswerCard } from '../plan/answer-card';
import { ServerClock } from '../platform/shared/server-clock';
import { LeftPanel } from './left-panel';
import { scoutCalls } from './scout-calls';
import { scoutCsv } from './scout-csv';
import { ScoutStore, SCOUT_WORKER } from './scout-store';
import { freshAsk, limitsSet, NO_LIMITS } from './wanted';
import { catalogue } from '../../../../core/test/scout-catalogue';

const grounds: ScoutGrounds = {
  input: catalogue(5, { docks: 6, cards: 8, cables: 3 }),
  host: 'H',
  title: 'T',
  outright: [],
  left: {},
};
const ask = { ...freshAsk('h', 't', 'EUR'), limits: { ...NO_LIMITS, unsure: true } };

function storeOver(data: Partial<ScoutData>) {
  const calls = scoutCalls();
  TestBed.configureTestingModule({
    providers: [
      ScoutStore,
      { provide: ScoutData, useValue: data },
      { provide: SCOUT_WORKER, useValue: () => ({ calls, end: () => undefined }) },
    ],
  });
  return TestBed.inject(ScoutStore);
}

describe('a search in its store', () => {
  it('shows interim results, and other limits reuse them', async () => {
    let asked = 0;
    const d = storeOver({
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
    const d = storeOver({ grounds: () => NEVER });
    void d.search(ask);
    expect(d.working()).toBe(true);
    d.stop();
    expect([d.working(), d.stopped(), d.result()]).toEqual([false, true, null]);
  });

  it('keeps pins by their parts', async () => {
    const d = storeOver({ grounds: () => of(grounds) });
    await d.search(ask);
    const ids = d.result()?.ranked[0]?.ids ?? d.result()?.left[0]?.nearest?.ids;
    expect(ids).toBeDefined();
    await d.look([ids!, { ...ids!, card: 'gone' }]);
    expect(d.pinned().map((p) => p?.ids.card ?? null)).toEqual([ids?.card, null]);
  });
});

describe('what a search leaves out', () => {
  it('asks what decides the nearest miss and stores the answer', async () => {
    const d = storeOver({ grounds: () => of(grounds) });
    await d.search(ask);
    const result = d.result();
    const answerable = (q: OpenQuestion) => /^(dock|card)\//.test(q.path);
    const rows = [
      ...(result?.ranked ?? []),
      ...(result?.left ?? []).flatMap((l) => l.nearest ?? []),
    ];
    const asks = (r: RowView) => questionsOf(r.asking).filter((q) => q.decides);
    const row = rows.find((r) => asks(r).some(answerable));
    const question = row && asks(row).find(answerable);
    expect(question).toBeDefined();
    const kept = { ...row, fails: ['unsure'] as const };
    const part = { id: row?.ids.card, kind: 'card', rev: 1, sources: {}, spec: {} };
    const saved: object[] = [];
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        {
          provide: Answers,
          useValue: {
            save: (place: object, value: unknown) => {
              saved.push({ ...place, value });
              return of({ undo: () => of(part) });
            },
          },
        },
        { provide: ServerClock, useValue: { today: () => '2026-11-20' } },
      ],
    });
    const fixture = TestBed.createComponent(LeftPanel);
    let answered = 0;
    fixture.componentInstance.answered.subscribe(() => (answered += 1));
    const nearest = { row: kept, over: 1, admits: 'unsure' };
    fixture.componentRef.setInput('result', { ...result, nearest } as unknown as ScoutResult);
    fixture.componentRef.setInput('hostId', 'h');
    await fixture.whenStable();
    const cards = fixture.debugElement
      .queryAll(By.directive(AnswerCard))
      .map((c) => c.componentInstance as AnswerCard);
    const card = cards.find((c) => c.question().path === question?.path) as AnswerCard;
    expect(card.place()).not.toBeNull();
    const value = question?.meta.options?.[0]?.value ?? question?.meta.min ?? 1;
    card.form.controls.value.setValue(value);
    card.save();
    const id = question?.path.startsWith('dock/') ? row?.ids.dock : row?.ids.card;
    expect(saved).toEqual([
      { of: 'part', id, attr: question?.path.split('/')[1], socket: null, item: null, value },
    ]);
    expect(answered).toBe(1);
  });
});

describe('a search as a file', () => {
  it('has a row a set, whole units, and no formulas', async () => {
    const d = storeOver({ grounds: () => of(grounds) });
    await d.search({ ...ask, limits: { ...ask.limits, budgetMinor: null } });
    const r = d.result()!;
    const evil = {
      ...r,
      ranked: r.ranked.map((x) => ({ ...x, names: { ...x.names, dock: '=1+1' } })),
    };
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
