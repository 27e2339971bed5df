import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { of, Subject, throwError } from 'rxjs';
import type { Act, BenchState } from '@ruddy/core/bench';
import type { Bench, BenchReading, StreamEvent } from '@ruddy/core/bench/contract';
import { chainSchema } from '@ruddy/core/chain';
import { adapterSchema, cableSchema } from '@ruddy/core/parts';
import { evaluate } from '@ruddy/core/plan';
import { stripList } from '../chain/strip/strip-text';
import { stripPicture } from '../chain/strip/strip-geometry';
import type { BenchTaken } from '../bring-up/from-bench';
import { readingForm, takeFromBench } from '../bring-up/reading-form';
import { ApiError } from '../platform/api/api-client';
import { BenchStore } from './bench-store';
import { BenchesData } from '../setups/benches';
import { Live } from '../platform/api/live';
import { benchStrip } from './bench-strip';
import { FaultPanel } from './fault-panel';
import { LogPanel } from './log-panel';
import { SwitchPanel } from './switch-panel';
import { joined } from './table-panel';

const named = { maker: 'Alder', variant: '' };
const chain = chainSchema.parse({
  host: {
    ...named,
    model: 'H-1',
    form: 'laptop',
    sockets: [
      {
        key: 'left',
        connector: 'usb-c',
        standard: 'usb4-40',
        tunnelling: 'yes',
        controller: 'built-in',
        pcieGen: 4,
        lanes: 4,
      },
    ],
  },
  socket: 'left',
  path: [
    {
      key: 'a',
      spec: {
        ...named,
        model: 'K-1',
        connector: 'usb-c',
        construction: 'passive',
        lengthMm: 700,
        markedGbps: 40,
      },
    },
  ],
  dock: {
    ...named,
    model: 'D-1',
    form: 'enclosure',
    connector: 'usb-c',
    uplink: 'usb4-40',
    slotGen: 3,
    slotLanes: 4,
  },
  card: { ...named, model: 'C-1', pcieGen: 4, lanes: 16 },
});
const judgement = {
  sentence: '',
  chain,
  evaluation: evaluate({ chain, context: { asOf: '2026-11-20', house: {} } }),
};
const OFF: BenchState = {
  ms: 0,
  host: 'off',
  mains: false,
  dockOn: false,
  dockLamp: false,
  cardIn: true,
  plugsIn: true,
  screenIn: false,
  picture: false,
  plugged: null,
  driverIn: true,
  approval: 'none',
  security: 'user',
  load: false,
  traffic: false,
  stage: 'unplugged',
  since: 0,
  contact: null,
  kind: null,
  router: null,
  hostSpan: null,
  cardSpan: null,
  usable: null,
  downs: 0,
  corrected: 0,
};
const UP: BenchState = {
  ...OFF,
  ms: 50_000,
  host: 'on',
  mains: true,
  dockOn: true,
  dockLamp: true,
  plugged: 'left',
  stage: 'in-use',
  since: 40_000,
  contact: 1000,
  kind: 'tunnel',
  router: { laneGbps: 20, lanes: 2 },
  cardSpan: { gen: 3, lanes: 4 },
  load: true,
  usable: { down: 26, up: 25.3 },
};
const bench = (over: Partial<Bench> = {}): Bench => ({
  id: 'b',
  name: 'Table',
  seed: 1,
  setupId: null,
  setupName: null,
  speed: 0,
  origin: 'own',
  createdAt: '',
  log: [],
  seq: 0,
  host: '',
  dock: '',
  card: '',
  state: OFF,
  chain,
  faults: {},
  nextMs: null,
  ...over,
});

describe('the live strip', () => {
  const hop = (s: BenchState, i: number) => benchStrip('Table', judgement, s, 60_000).hops[i]!;

  it.each([
    ['nothing plugged', OFF, 'not used', 'line', 'Not used.'],
    [
      'on its way',
      { ...UP, stage: 'awaiting', cardSpan: null, usable: null },
      'waiting',
      'ticks',
      'Waiting.',
    ],
    [
      'lost',
      { ...UP, stage: 'lost', router: null, cardSpan: null, usable: null },
      'lost',
      'stub',
      'Lost.',
    ],
  ] as [string, BenchState, string, string, string][])(
    '%s is drawn and said',
    (_n, s, state, kind, word) => {
      expect(hop(s, 1).state).toBe(state);
      const model = benchStrip('Table', judgement, s, 60_000);
      expect(stripPicture(model)[1]?.ribbons.map((r) => r.kind)).toContain(kind);
      expect(stripList(model).join(' ')).toContain(word);
    },
  );

  it('shows router, span and rate, with time since contact', () => {
    expect([hop(UP, 1).line1, hop(UP, 1).line2]).toEqual([
      'up, under load, 0:59 since contact',
      'router 20 Gb/s × 2',
    ]);
    expect(hop(UP, 2).line2).toBe('Gen3 ×4 · 26.0 Gb/s');
    expect(
      stripPicture(benchStrip('Table', judgement, UP, 60_000))[2]?.ribbons.map((r) => r.kind),
    ).toContain('core');
  });

  it('the lamps stand under the dock', () => {
    const dock = benchStrip('Table', judgement, UP, 0).piers.find((p) => p.key === 'dock');
    expect(dock?.under).toEqual(['mains on · lamp on', 'host on']);
  });
});

describe('a path on the table', () => {
  const cable = (model: string) => cableSchema.parse({ ...named, model, connector: 'oculink-4i' });
  const adapter = adapterSchema.parse({
    ...named,
    model: 'T-1',
    hostEnd: 'm2',
    farEnd: 'oculink-4i',
  });

  it('a cable replaces a cable, an adapter goes before it', () => {
    expect(joined([], cable('K-1')).map((p) => p.model)).toEqual(['K-1']);
    expect(joined([cable('K-1')], cable('K-2')).map((p) => p.model)).toEqual(['K-2']);
    expect(joined([cable('K-1')], adapter).map((p) => p.model)).toEqual(['T-1', 'K-1']);
    expect(joined([adapter, cable('K-1')], cable('K-2')).map((p) => p.model)).toEqual([
      'T-1',
      'K-2',
    ]);
  });
});

describe('a reading from a bench in the form', () => {
  const copy = {
    unit: 'Gb/s',
    memory: 'pinned',
    transferMB: 256,
    repeats: 5,
    spreadPercent: 1.2,
    traffic: null,
    clocks: '',
  } as const;
  const reading: BenchReading = {
    state: UP,
    report: null,
    copy: {
      down: { ...copy, value: 24.8, direction: 'down' },
      up: { ...copy, value: 24.1, direction: 'up' },
    },
  };
  it('fills the asked direction or none, counters as counted', () => {
    const taken = (from: BenchTaken, way: 'down' | 'up' | null) => {
      const form = readingForm();
      takeFromBench(form, from, way);
      return form.getRawValue();
    };
    expect(taken({ reading, counts: null }, 'up')).toMatchObject({
      load: 'load',
      copy: { value: 24.1, direction: 'up', traffic: null },
    });
    expect(taken({ reading, counts: null }, null)).toMatchObject({
      load: 'load',
      copy: { value: null },
    });
    const counts = {
      correctedBefore: 0,
      correctedAfter: 9,
      fatalBefore: 0,
      fatalAfter: null,
      downs: 1,
      minutes: 10,
    };
    expect(taken({ reading: { ...reading, state: OFF }, counts }, null)).toMatchObject({
      load: 'load',
      counts,
    });
  });
});

describe('BE-01 the store', () => {
  function storeOver(over: Partial<Record<'act' | 'one', unknown>> = {}) {
    const events = new Subject<StreamEvent>();
    const acts: Act[] = [];
    const data = {
      one: () => of(bench()),
      act: (_id: string, a: Act) => (
        acts.push(a),
        of(bench({ state: { ...OFF, ms: 10, mains: true } }))
      ),
      clock: () => of(bench()),
      judge: () => of(judgement),
      ...over,
    };
    const live = { watch: () => events, connected: () => true };
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        BenchStore,
        { provide: BenchesData, useValue: data },
        { provide: Live, useValue: live },
      ],
    });
    const d = TestBed.inject(BenchStore);
    d.open('b');
    return { d, events, acts };
  }
  const line = (seq: number, state: BenchState): StreamEvent => ({
    kind: 'bench',
    topic: 'bench/b',
    event: { kind: 'line', seq, ms: state.ms, body: { code: 'mains-on', params: {}, state } },
  });

  it('takes streamed events once and never goes back', () => {
    const { d, events } = storeOver();
    events.next(line(1, { ...OFF, ms: 5, mains: true }));
    events.next(line(1, { ...OFF, ms: 9 }));
    events.next(line(2, { ...OFF, ms: 3 }));
    expect([d.state()?.ms, d.state()?.mains, d.log().length]).toEqual([5, true, 2]);
  });

  it('answers about a bench no longer open are dropped', () => {
    const late = new Subject<Bench>();
    const { d } = storeOver({
      one: (id: string) => (id === 'b' ? late : of(bench({ id, name: 'Other' }))),
    });
    d.open('c');
    late.next(bench());
    expect(d.bench()?.name).toBe('Other');
  });

  it('a refusal is said and leaves the bench unchanged', () => {
    const why = new ApiError({ type: '', title: 'This bench is full', status: 409 });
    const { d, events } = storeOver({ act: () => throwError(() => why) });
    d.act({ act: 'mains', on: true });
    expect([d.problem(), d.state()?.mains]).toEqual(['Not done. This bench is full', false]);
    events.next({ kind: 'gone', topic: 'bench/b', id: 'b' });
    expect(d.cleared()).toBe(true);
  });

  it('switches show state, offer acts and warn about power', async () => {
    const { d, acts, events } = storeOver();
    const fixture = TestBed.createComponent(SwitchPanel);
    await fixture.whenStable();
    const el = fixture.nativeElement as HTMLElement;
    const button = (name: string) => el.querySelector<HTMLButtonElement>(`[aria-label="${name}"]`);
    expect(el.querySelector('.caution')).toBeNull();
    expect([button('Host: Wake')?.disabled, button('Host: On')?.disabled]).toEqual([true, false]);
    button('Mains: In')?.click();
    expect(acts).toEqual([{ act: 'mains', on: true }]);
    events.next(line(1, UP));
    await fixture.whenStable();
    expect(el.querySelector('.caution')?.textContent).toContain('Power is on.');
    expect(d.state()?.stage).toBe('in-use');
  });

  it('only possible faults are offered, log lines are sentences', async () => {
    const { events } = storeOver();
    const fixture = TestBed.createComponent(FaultPanel);
    await fixture.whenStable();
    const options = fixture.componentInstance.faultMeta().options?.map((o) => o.value);
    expect(options).toContain('cable-half-rate');
    expect(options).not.toContain('direct-cable-margin');
    const log = TestBed.createComponent(LogPanel);
    events.next(line(1, { ...OFF, ms: 65_000 }));
    await log.whenStable();
    expect((log.nativeElement as HTMLElement).innerText ?? log.nativeElement.textContent).toContain(
      'Mains on.',
    );
  });
});
