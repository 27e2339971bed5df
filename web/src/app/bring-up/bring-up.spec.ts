import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import type { Type } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import type { StepId } from '@ruddy/core/base';
import type { BringUp, StepRow } from '@ruddy/core/bring-up/contract';
import type { Chain } from '@ruddy/core/chain';
import { evaluate } from '@ruddy/core/plan';
import { NO_DOCKED } from '@ruddy/core/setups';
import { OfflineQueue } from '../platform/queue/offline-queue';
import { FieldHarness } from '../platform/kit/testing/field-harness';
import { provideDays } from '../platform/kit/days';
import { BringUpRun } from './bring-up-run';
import { LinkReadings } from './link-readings';
import { SetupEditor } from '../setups/setup-editor';
import { storedSetup } from '../setups/stored-setup';
import { chainOf, words } from '../plan/spec-help';
import { BeginPanel } from './begin-panel';
import { ProfilesPanel } from './profiles-panel';
import { StepsView } from './steps-view';

const ID = storedSetup.id;
const ATTEMPT = '00000000-0000-7000-8000-0000000000aa';
const setup = { ...storedSetup, slots: { ...storedSetup.slots, host: 'h', dock: 'd', card: 'c' } };
const EMPTY: BringUp = { setup, attempts: [], steps: [], tried: [], good: null, times: [] };
const begun: BringUp = {
  ...EMPTY,
  attempts: [
    {
      id: ATTEMPT,
      no: 1,
      purpose: 'bring-up',
      order: 'all-off',
      driver: 'before',
      build: '',
      startedAt: '2026-11-20T17:00:00Z',
      ended: null,
    },
  ],
};

const stored = (step: StepId): StepRow => ({
  id: `00000000-0000-7000-8000-0000000000${step.length}`,
  attempt: ATTEMPT,
  no: 1,
  step,
  state: 'done',
  reason: '',
  symptom: null,
  about: step === 'recovery-key' ? { host: 'Alder X' } : {},
  noted: [],
  wrong: null,
  at: '2026-11-20T18:00:00Z',
  by: 'this machine',
});

describe('bringing up, in the page', () => {
  let http: HttpTestingController;

  /** A component under the services of a setup's frame, with the answers of the server. */
  async function open<T>(component: Type<T>, answer: BringUp, chain: Chain = chainOf()) {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [
        provideRouter([{ path: '**', children: [] }]),
        provideHttpClient(),
        provideHttpClientTesting(),
        provideDays('en-GB'),
        SetupEditor,
        LinkReadings,
        OfflineQueue,
        BringUpRun,
      ],
    });
    http = TestBed.inject(HttpTestingController);
    const editor = TestBed.inject(SetupEditor);
    editor.open(ID);
    http.expectOne(`/api/setups/${ID}`).flush(answer.setup);
    const evaluation = evaluate({ chain, context: { asOf: '2026-11-20', house: {} } });
    http.match('/api/evaluate').forEach((r) => r.flush({ sentence: '', chain, evaluation }));
    const fixture = TestBed.createComponent(component);
    TestBed.inject(BringUpRun);
    await fixture.whenStable();
    http.match((r) => r.url.endsWith('/bring-up')).forEach((r) => r.flush(answer));
    http.match((r) => r.url.endsWith('/readings')).forEach((r) => r.flush({ items: [] }));
    http.match((r) => r.url.endsWith('/rules')).forEach((r) => r.flush({ items: [] }));
    await fixture.whenStable();
    return {
      fixture,
      el: fixture.nativeElement as HTMLElement,
      settle: () => fixture.whenStable(),
      run: TestBed.inject(BringUpRun),
    };
  }
  const button = (el: HTMLElement, name: string | RegExp) =>
    [...el.querySelectorAll('button')].find((b) =>
      typeof name === 'string' ? words(b) === name : name.test(words(b)),
    )!;

  beforeEach(() => localStorage.clear());
  afterEach(() => localStorage.clear());

  it('BU-01 a direct link shuts what is plugged live', async () => {
    const own = { connector: 'oculink-4i', standard: 'oculink', pcieGen: 4, lanes: 4 };
    const direct = chainOf({
      host: { maker: 'Alder', model: 'X', form: 'mini-pc', sockets: [{ key: 'left', ...own }] },
      path: [
        {
          key: 'a',
          spec: { maker: 'Alder', model: 'X', connector: 'oculink-4i', pcieGen: 4, lengthMm: 500 },
        },
      ],
      dock: {
        maker: 'Alder',
        model: 'X',
        form: 'open-board',
        connector: 'oculink-4i',
        uplink: 'oculink',
        slotGen: 4,
        slotLanes: 4,
      },
    });
    const { el } = await open(BeginPanel, EMPTY, direct);
    expect(words(el)).toContain('a direct link is never plugged live');
    expect(
      [...el.querySelectorAll('li button')].map((b) => (b as HTMLButtonElement).disabled),
    ).toEqual([false, false, false, true, true]);
  });

  it('BU-07 the order the log suggests is chosen, others possible', async () => {
    const tried = [true, true, false].map((worked, i) => ({
      id: `00000000-0000-7000-8000-00000000000${i}`,
      setupId: ID,
      setup: 'Desk',
      order: 'host-first' as const,
      build: '6118',
      worked,
      at: '2026-11-01T12:00:00Z',
    }));
    const known = { ...setup, installed: { ...setup.installed, systemBuild: '6118' } };
    const { el, settle, run } = await open(BeginPanel, { ...EMPTY, setup: known, tried });
    expect(words(el)).toContain(
      'This host under build 6118: host first 2 of 3 came up. So: host first.',
    );
    expect(run.order()).toBe('host-first');
    button(el, 'all off').click();
    await settle();
    expect(words(button(el, /^Begin/))).toBe('Begin attempt 1: all off');
  });

  it('nothing chosen: says where to begin', async () => {
    const { el } = await open(
      BeginPanel,
      { ...EMPTY, setup: storedSetup },
      chainOf({ host: null, socket: null, path: null, dock: null, card: null }),
    );
    expect(words(el)).toContain('This setup has no parts yet.');
    expect(el.querySelector('.main')).toBeNull();
  });

  it('BU-02 a step counts before the server confirmed it', async () => {
    const { el, settle, run } = await open(StepsView, begun);
    expect(words(el.querySelector('h2[tabindex]'))).toBe('1. Save your work');
    button(el, 'Done').click();
    await settle();
    expect(words(el.querySelector('h2[tabindex]'))).toBe('2. Recovery key at hand');
    const sent = http.expectOne(`/api/setups/${ID}/steps`);
    expect(sent.request.body).toMatchObject({
      attempt: ATTEMPT,
      step: 'save-work',
      state: 'done',
      ends: false,
    });
    button(el, 'Yes').click();
    await settle();
    button(el, 'Done').click();
    await settle();
    // The second waits for the first.
    expect(run.outbox.waiting().map((w) => w.body['step'])).toEqual(['save-work', 'recovery-key']);
    expect(run.outbox.waiting()[1]?.body['settings']).toEqual({
      encryption: 'yes',
      recoveryKey: null,
    });
  });

  it('one press in the short form settles the folded steps', async () => {
    const { el, settle, run } = await open(StepsView, {
      ...begun,
      times: [{ step: 'save-work', minutes: 7, n: 4 }],
    });
    expect(words(el.querySelector('rb-step-list .head'))).toContain('1 step by your own attempts');
    const full = el.querySelectorAll('rb-step-list li').length;
    button(el, 'Short').click();
    await settle();
    const heads = el.querySelectorAll('rb-step-list > ol > li');
    expect([heads.length >= 8, heads.length <= 12]).toEqual([true, true]);
    expect(el.querySelectorAll('rb-step-list li').length).toBe(full);
    const group = el.querySelectorAll('rb-step-card .with-it li').length;
    expect(group).toBeGreaterThan(0);
    expect(words(el.querySelector('rb-step-card h2'))).toMatch(/^1\. /);
    button(el, 'All done').click();
    await settle();
    const sent = run.outbox.waiting().map((w) => w.body['step']);
    expect(sent).toHaveLength(group + 1);
    expect(sent[0]).toBe('save-work');
    expect(words(el.querySelector('rb-step-card h2'))).toMatch(/^2\. /);
    button(el, 'Full').click();
    await settle();
    expect(el.querySelectorAll('rb-step-list details')).toHaveLength(0);
  });

  it('skipping wants a reason, failing what was seen; both are buttons', async () => {
    const { el, settle } = await open(StepsView, begun);
    button(el, 'Skip …').click();
    await settle();
    button(el, 'Skip with these words').click();
    await settle();
    expect(words(el.querySelector('[role=alert]'))).toBe(
      'Not noted: say why this step is left out.',
    );
    // Looking elsewhere leaves neither the question nor the refusal behind.
    button(el, /^3 ?Note the versions/).click();
    await settle();
    expect([el.querySelector('.ask'), el.querySelector('[role=alert]')]).toEqual([null, null]);
    button(el, /^Go to step 1/).click();
    await settle();
    button(el, 'Skip …').click();
    await settle();
    button(el, 'done before').click();
    await settle();
    expect(http.expectOne(`/api/setups/${ID}/steps`).request.body).toMatchObject({
      state: 'skipped',
      reason: 'done before',
    });
    button(el, 'Failed').click();
    await settle();
    button(el, 'The recovery key is asked for').click();
    await settle();
    expect(words(el.querySelector('rb-step-card .failed'))).toContain(
      'Encryption sees changed hardware. Type the key from paper',
    );
  });

  it('a refused step is said and stands open again', async () => {
    const { el, settle } = await open(StepsView, begun);
    button(el, 'Done').click();
    await settle();
    http.expectOne(`/api/setups/${ID}/steps`).flush(
      {
        type: 'about:blank',
        title: 'Attempt 1 is over',
        status: 409,
        detail: 'Attempt 1 is over; begin another to go on.',
      },
      { status: 409, statusText: 'x' },
    );
    await settle();
    expect(words(el.querySelector('[role=alert]'))).toBe(
      'Not saved. Attempt 1 is over; begin another to go on.',
    );
    expect(words(el.querySelector('h2[tabindex]'))).toBe('1. Save your work');
  });

  it('typed words survive a refusal and go when confirmed', async () => {
    const { el, settle, run } = await open(StepsView, begun);
    button(el, 'Done').click();
    await settle();
    http.expectOne(`/api/setups/${ID}/steps`).flush({ ...begun, steps: [stored('save-work')] });
    await settle();
    button(el, 'Yes').click();
    await settle();
    button(el, 'Done').click();
    await settle();
    http
      .expectOne(`/api/setups/${ID}/steps`)
      .flush(
        { type: 'about:blank', title: 'Not saved', status: 422 },
        { status: 422, statusText: 'x' },
      );
    await settle();
    expect(words(el.querySelector('h2[tabindex]'))).toBe('2. Recovery key at hand');
    expect(button(el, 'Yes').getAttribute('aria-pressed')).toBe('true');
    button(el, 'Done').click();
    await settle();
    const again = http.expectOne(`/api/setups/${ID}/steps`);
    expect(again.request.body).toMatchObject({ settings: { encryption: 'yes' } });
    again.flush({ ...begun, steps: [stored('save-work'), stored('recovery-key')] });
    await settle();
    expect(run.progress().done).toBe(2);
    button(el, /^2 ?Recovery key/).click();
    await settle();
    // The setup of this test never took it over, so that only a draft could still press it.
    expect(button(el, 'Yes').getAttribute('aria-pressed')).toBe('false');
  });

  it('BU-08 an unreadable figure stays marked, the other is kept', async () => {
    const { el, settle, fixture } = await open(ProfilesPanel, EMPTY);
    const field = (name: string) =>
      TestbedHarnessEnvironment.loader(fixture).getHarness(FieldHarness.byLabel(name));
    const type = async (name: string, text: string) => {
      await (await field(name)).type(text);
      el.querySelectorAll('input').forEach((i) =>
        i.dispatchEvent(new Event('change', { bubbles: true })),
      );
      await settle();
    };
    await type('Sustained power docked', '28,5');
    await type('Peak power docked', 'lots');
    const peak = await field('Peak power docked');
    expect(await peak.error()).toContain('"lots" is not a number');
    expect(await peak.value()).toBe('lots');
    expect(TestBed.inject(SetupEditor).fields()?.docked).toEqual({
      ...NO_DOCKED,
      docked: { ...NO_DOCKED.docked, sustainedW: 28.5 },
    });
    await type('Peak power docked', '');
    expect(await peak.error()).toBe('');
  });
});
