import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { readingSchema } from '@ruddy/core/bring-up';
import type { BringUp } from '@ruddy/core/bring-up/contract';
import { evaluate } from '@ruddy/core/plan';
import type { TroubleNote } from '@ruddy/core/troubleshoot';
import type { TroubleRow } from '@ruddy/core/troubleshoot/contract';
import { OfflineQueue } from '../platform/queue/offline-queue';
import { BringUpRun } from '../bring-up/bring-up-run';
import { LinkReadings } from '../bring-up/link-readings';
import { SetupEditor } from '../setups/setup-editor';
import { storedSetup } from '../setups/stored-setup';
import { Posterior } from '../chain/suspicion';
import { chainOf, words } from '../plan/spec-help';
import { TroubleshootPage } from './troubleshoot-page';

const ID = storedSetup.id;
const SEARCH = '00000000-0000-7000-8000-0000000000ab';
const EMPTY: BringUp = {
  setup: storedSetup,
  attempts: [],
  steps: [],
  tried: [],
  good: null,
  times: [],
};
const at = '2026-11-20T17:00:00Z';
const search = (...notes: TroubleNote[]): TroubleRow => ({
  id: SEARCH,
  at,
  by: 'this machine',
  from: { kind: 'symptom', what: '' },
  said: null,
  notes: notes.map((note, i) => ({
    id: `00000000-0000-7000-8000-00000000000${i}`,
    at,
    note: note as TroubleRow['notes'][number]['note'],
  })),
});
const seen = (
  ...symptoms: Extract<TroubleNote, { what: 'seen' }>['symptoms'][number][]
): TroubleNote => ({
  what: 'seen',
  symptoms,
});

describe('Troubleshoot, in the page', () => {
  let http: HttpTestingController;

  async function open(
    troubles: TroubleRow[],
    inputs: Record<string, string> = {},
    tables: object = {},
    readings: object[] = [],
  ) {
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        provideHttpClient(),
        provideHttpClientTesting(),
        ...[SetupEditor, LinkReadings, OfflineQueue, BringUpRun, Posterior],
      ],
    });
    http = TestBed.inject(HttpTestingController);
    TestBed.inject(SetupEditor).open(ID);
    http.expectOne(`/api/setups/${ID}`).flush(storedSetup);
    const chain = chainOf();
    http.match('/api/evaluate').forEach((r) =>
      r.flush({
        sentence: '',
        chain,
        evaluation: evaluate({ chain, context: { asOf: '2026-11-20', house: {} } }),
      }),
    );
    TestBed.inject(BringUpRun);
    const fixture = TestBed.createComponent(TroubleshootPage);
    for (const [k, v] of Object.entries(inputs)) fixture.componentRef.setInput(k, v);
    const settle = async () => {
      await fixture.whenStable();
      http.match((r) => r.url.endsWith('/bring-up')).forEach((r) => r.flush(EMPTY));
      http
        .match((r) => r.url.endsWith('/troubles') && r.method === 'GET')
        .forEach((r) => r.flush({ troubles }));
      http.match((r) => r.url.endsWith('/rules')).forEach((r) => r.flush({ items: [] }));
      http.match((r) => r.url.endsWith('/readings')).forEach((r) => r.flush({ items: readings }));
      http.match((r) => r.url.startsWith('/api/profiles')).forEach((r) => r.flush({ items: [] }));
      http
        .match((r) => r.url.startsWith('/api/runs'))
        .forEach((r) => r.flush({ items: [], next: null }));
      http
        .match('/api/faults/tables')
        .forEach((r) => r.flush({ figures: [], counts: {}, cases: 0, ...tables }));
      await fixture.whenStable();
    };
    await settle();
    await settle();
    return { el: fixture.nativeElement as HTMLElement, settle };
  }
  const button = (el: HTMLElement, name: RegExp) =>
    [...el.querySelectorAll('button')].find((b) => name.test(words(b)))!;
  const h1 = (el: HTMLElement) => words(el.querySelector('h1'));
  const sent = (path: string) =>
    http.expectOne(`/api/setups/${ID}/${path}`).request.body as Record<string, unknown>;

  beforeEach(() => {
    localStorage.clear();
    sessionStorage.clear();
  });
  afterEach(() => localStorage.clear());

  it('begins with ticked symptoms, counted before the server', async () => {
    const { el, settle } = await open([]);
    expect(h1(el)).toMatch(/^What do you see\? 0 of 35 chosen/);
    expect(button(el, /^Find the cause/).disabled).toBe(true);
    [...el.querySelectorAll('label')].find((l) => words(l) === 'The copy rate is low')!.click();
    await settle();
    expect(h1(el)).toMatch(/^1 thing seen/);
    button(el, /^Find the cause/).click();
    await settle();
    expect(sent('troubles')).toMatchObject({ symptoms: ['low-copy'], answers: [], said: null });
    expect(h1(el)).toMatch(/^Next: /);
    expect(words(el)).toContain('1 waiting');
  });

  it('an answer counts at once, timed, on the strip', async () => {
    const { el, settle } = await open([search(seen('low-copy'))]);
    const before = TestBed.inject(Posterior).shown();
    expect(Object.values(before!.places).reduce((a, b) => a + b, 0)).toBeCloseTo(1, 8);
    const what = words(el.querySelector('rb-next-panel .what'));
    button(el, /^Can't do this/).click();
    await settle();
    expect(sent(`troubles/${SEARCH}/notes`)).toMatchObject({
      note: { what: 'test', says: 'cannot', by: 'hand' },
    });
    expect(words(el.querySelector('rb-next-panel .what'))).not.toBe(what);
    expect(words(el)).toContain(`${what}: cannot be done`);
  });

  it('TR-08 a freeze shows ways back to a picture', async () => {
    const { el, settle } = await open([search(seen('crash-on-plug'))]);
    expect(h1(el)).toBe('First get a picture back, in 4 steps; the cause comes after.');
    expect(el.querySelector('rb-suspects-panel')).toBeNull();
    expect(TestBed.inject(Posterior).shown()).toBeNull();
    expect(words(el.querySelector('.caution'))).toContain('Work may be lost');
    button(el, /^The host does not start/).click();
    await settle();
    expect(sent(`troubles/${SEARCH}/notes`)).toMatchObject({
      note: { what: 'seen', symptoms: ['crash-on-plug', 'host-dead'] },
    });
    expect(el.querySelector('rb-suspects-panel')).not.toBeNull();
  });

  it('BU-10 what a failed step saw begins a search by itself', async () => {
    const { el, settle } = await open([], { see: 'router-no-card,nonsense', from: 'step:approve' });
    await settle();
    expect(sent('troubles')).toMatchObject({
      symptoms: ['router-no-card'],
      from: { kind: 'step', what: 'approve' },
    });
    expect(h1(el)).toMatch(/^(Next|Mend)/);
  });

  it("today's reading answers its tests, last month's does not", async () => {
    const copy = {
      value: 6,
      unit: 'Gb/s',
      direction: 'down',
      memory: 'pinned',
      repeats: 5,
      transferMB: 256,
    };
    const entry = (happenedAt: string) => ({
      id: '1',
      happenedAt,
      attempt: null,
      reading: readingSchema.parse({ load: 'load', copy }),
    });
    for (const [day, says] of [
      [new Date().toISOString(), ['copy-rate']],
      ['2026-10-01T10:00:00Z', []],
    ] as const) {
      TestBed.resetTestingModule();
      localStorage.clear();
      const { el, settle } = await open([], { see: 'low-copy' }, {}, [entry(day)]);
      await settle();
      const body = sent('troubles') as { answers: { test: string }[] };
      expect(body.answers.map((a) => a.test).filter((t) => t === 'copy-rate')).toEqual(says);
      button(el, /^Keep it unsolved …/)?.click();
      await settle();
    }
    TestBed.resetTestingModule();
    localStorage.clear();
    const { el, settle } = await open([search(seen('low-copy'))]);
    button(el, /^Keep it unsolved …/).click();
    await settle();
    button(el, /^Discard it/).click();
    await settle();
    expect(sent(`troubles/${SEARCH}/notes`)).toMatchObject({
      note: { what: 'closed', outcome: 'discarded' },
      retire: false,
    });
  });

  it('TR-05 says where parameters come from, and wants a reason', async () => {
    const counts = {
      'cause/cable-class': { k: 3, n: 3 },
      'symptom/low-copy/cable-class': { k: 2, n: 3 },
    };
    const { el, settle } = await open(
      [search(seen('low-copy'))],
      { cause: 'cable-class' },
      { counts, cases: 3 },
    );
    expect(words(el)).toContain('moved by 3 searches with the cause found');
    const row = [...el.querySelectorAll('tr')].find((r) =>
      words(r).startsWith('Seen: the copy rate is low'),
    )!;
    // (4 · 0.85 + 2) / 7
    expect(words(row)).toContain('77.1 %');
    expect(words(row)).toContain('log: 2 of 3');
    const [value, why] = [...row.querySelectorAll('input')] as [HTMLInputElement, HTMLInputElement];
    const type = (box: HTMLInputElement, text: string) => {
      box.value = text;
      box.dispatchEvent(new Event('input'));
    };
    type(value, '50');
    row.querySelector('button')!.click();
    await settle();
    expect(words(el.querySelector('p[role=alert]'))).toContain('give the reason');
    type(why, 'half of ours');
    row.querySelector('button')!.click();
    await settle();
    const put = http.expectOne('/api/faults/figures');
    expect([put.request.method, put.request.body]).toEqual([
      'PUT',
      { key: 'symptom/low-copy/cable-class', value: 0.5, reason: 'half of ours' },
    ]);
  });

  it('TR-04 solved asks for the end, caution before results', async () => {
    const sure: TroubleNote = {
      what: 'test',
      test: 'short-cable',
      says: 'yes',
      by: 'hand',
      words: '',
    };
    const { el, settle } = await open([search(seen('low-copy', 'router-slow'), sure)]);
    expect(h1(el)).toMatch(/^Mend the most suspect, \d+ %: the cable is too long/);
    button(el, /^Solved by this/).click();
    await settle();
    expect(sent(`troubles/${SEARCH}/notes`)).toMatchObject({
      note: { what: 'fix', cause: 'cable-class', result: 'solved' },
    });
    expect(words(el.querySelector('rb-close-form'))).toContain(
      'Solved by: The cable is too long or of a low class.',
    );
  });
});
