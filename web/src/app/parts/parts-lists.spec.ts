import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatButtonHarness } from '@angular/material/button/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { of, Subject } from 'rxjs';
import type { PriceEntry } from '@ruddy/core/buy/contract';
import { cableSchema, hostSchema, PART_KINDS } from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import { CatalogueData } from './catalogue';
import { attrSaid, attrText } from './attr-text';
import { BulkEdit } from './bulk-edit';
import { columnsFor, filtersFor } from './list-columns';
import { PriceChart } from '../buy/price-chart';
import { ServerClock } from '../platform/shared/server-clock';
import { noted, SourceFields } from './source-fields';
import { FieldHarness } from '../platform/kit/testing/field-harness';
import { provideDays } from '../platform/kit/days';

const cable = cableSchema.parse({
  maker: 'Alder',
  model: 'K-1',
  connector: 'usb-c',
  lengthMm: 800,
  construction: { oneOf: ['passive', 'active'] },
});
const part = (over: object = {}): Part =>
  ({
    id: 'p',
    kind: 'cable',
    spec: cable,
    sources: {},
    rev: 1,
    origin: 'demo',
    createdAt: '',
    retiredAt: null,
    usedIn: 2,
    pieces: 1,
    ...over,
  }) as Part;

describe('PA-01 columns and filters of a kind', () => {
  it('every kind has the usual columns first and one for each attribute', () => {
    for (const kind of PART_KINDS) {
      const columns = columnsFor(kind);
      expect(columns.filter((c) => c.usual !== false).map((c) => c.key)).toEqual([
        'name',
        'about',
        'pieces',
        'used',
        'origin',
      ]);
      expect(new Set(columns.map((c) => c.key)).size).toBe(columns.length);
    }
  });

  it('cells say values in words; what is not known is a dash', () => {
    const text = (key: string, p = part()) =>
      columnsFor('cable')
        .find((c) => c.key === key)!
        .text(p);
    expect([
      text('name'),
      text('used'),
      text('pieces'),
      text('origin'),
      text('lengthMm'),
      text('construction'),
      text('markedGbps'),
    ]).toEqual(['Alder K-1', '2', '1', 'example', '800', 'Passive or Active', '–']);
    expect(text('name', part({ retiredAt: '2026-01-01T00:00:00Z' }))).toBe('Alder K-1 (archived)');
    const host = hostSchema.parse({
      maker: 'Alder',
      model: 'H',
      form: 'laptop',
      sockets: [{ key: 'a', connector: 'usb-c' }],
    });
    expect(
      columnsFor('host')
        .find((c) => c.key === 'sockets')!
        .text(part({ kind: 'host', spec: host })),
    ).toBe('1');
  });

  it('hosts narrow by sockets too, filters name their attribute', () => {
    const words = filtersFor('host').map((o) => o.value);
    expect(words).toEqual(
      expect.arrayContaining(['form:laptop', 'standard:usb4-40', 'connector:oculink-4i']),
    );
    for (const kind of PART_KINDS)
      for (const o of filtersFor(kind))
        expect(o.value).toMatch(/^[A-Za-z0-9]{1,40}:[A-Za-z0-9.-]{1,40}$/);
  });

  it('values are said with their unit, ranges whole', () => {
    const meta = { label: 'Length', input: 'number', unit: 'mm', unsure: true } as const;
    expect([
      attrText(meta, { lo: 1, hi: 2 }),
      attrSaid(meta, 800),
      attrSaid(meta, null),
      attrSaid({ ...meta, unsure: false }, ''),
    ]).toEqual(['1 to 2', '800 mm', 'not known', 'nothing']);
  });
});

describe('PA-01 many at once', () => {
  it('sends one attribute with its source, keeps refused input', async () => {
    const answers = new Subject<{ changed: number }>();
    const bulk = vi.fn<(ids: readonly string[], patch: object) => Subject<{ changed: number }>>(
      () => answers,
    );
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideDays('en-GB'), { provide: CatalogueData, useValue: { bulk } }],
    });
    const fixture = TestBed.createComponent(BulkEdit);
    fixture.componentRef.setInput('kind', 'cable');
    fixture.componentRef.setInput('ids', ['a', 'b']);
    const said: string[] = [];
    fixture.componentInstance.changed.subscribe((s) => said.push(s));
    const c = fixture.componentInstance;
    c.choose('lengthMm');
    await fixture.whenStable();
    const loader = TestbedHarnessEnvironment.loader(fixture);
    const length = await loader.getHarness(FieldHarness.byLabel('Length'));
    await length.type('1,200');
    c.store();
    expect(bulk.mock.calls.length).toBe(0);
    expect(await length.error()).toContain('"1,200" could mean two numbers');
    await length.type('1200');
    c.source.set({ from: 'label', on: '', note: '', kept: false });
    c.store();
    expect(bulk).toHaveBeenCalledWith(['a', 'b'], {
      spec: { lengthMm: 1200 },
      sources: { lengthMm: c.source() },
    });
    answers.error(new Error('Alder K-1: Length: too long'));
    expect([c.problem(), c.control.value, said]).toEqual([
      'Not saved. Alder K-1: Length: too long',
      1200,
      [],
    ]);
    bulk.mockReturnValueOnce(of({ changed: 2 }) as never);
    c.retire(true);
    expect(said).toEqual(['2 cables archived.']);
  });
});

describe('PA-01 where a value came from', () => {
  it('a source brings its date and note, none removes them', () => {
    const given = { from: 'measured' as const, on: '2026-11-03', note: ' tape ' };
    const measured = { from: 'measured', on: '2026-11-03', note: 'tape', kept: false };
    expect(noted(null, given)).toEqual(measured);
    expect(noted(null, { ...given, from: null })).toBeNull();
    // That an odd value was kept as said stays without a source.
    const kept = { from: 'measured' as const, on: '', note: '', kept: true };
    expect(noted(kept, { ...given, from: null })).toEqual({
      from: null,
      on: '',
      note: '',
      kept: true,
    });
  });

  it('is chosen in a dialog, today unless another date is given', async () => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideDays('en-GB')],
    });
    const fixture = TestBed.createComponent(SourceFields);
    fixture.componentRef.setInput('name', 'Length');
    const out: unknown[] = [];
    fixture.componentInstance.changed.subscribe((s) => out.push(s));
    await fixture.whenStable();
    const page = TestbedHarnessEnvironment.documentRootLoader(fixture);
    await (await page.getHarness(MatButtonHarness.with({ text: 'Add source' }))).click();
    await (await page.getHarness(FieldHarness.byLabel('Source'))).choose('measured');
    await (await page.getHarness(MatButtonHarness.with({ text: 'Use it' }))).click();
    const today = TestBed.inject(ServerClock).today();
    await vi.waitFor(() =>
      expect(out).toEqual([{ from: 'measured', on: today, note: '', kept: false }]),
    );
  });
});

describe('PA-07 prices drawn', () => {
  const price = (over: object): PriceEntry =>
    ({
      id: Math.random().toString(),
      kind: 'offer',
      minor: 50_000,
      currency: 'EUR',
      condition: 'new',
      onDate: '2026-01-01',
      withIds: [],
      ...over,
    }) as unknown as PriceEntry;
  let fixture: ComponentFixture<PriceChart>;
  const drawn = (prices: PriceEntry[], currency = 'EUR') => {
    fixture = TestBed.createComponent(PriceChart);
    fixture.componentRef.setInput('prices', prices);
    fixture.componentRef.setInput('currency', currency);
    return fixture.componentInstance.drawn();
  };

  it('lines for new, used and paid, on time and price axes', () => {
    const d = drawn([
      price({ onDate: '2026-03-01', minor: 40_000 }),
      price({}),
      price({ condition: 'used', minor: 20_000, onDate: '2026-02-01' }),
      price({ kind: 'paid', onDate: '2026-01-15' }),
    ]);
    expect(d?.series.map((s) => [s.key, s.points.length])).toEqual([
      ['new', 2],
      ['used', 1],
      ['paid', 1],
    ]);
    const [early, late] = d!.series[0]!.points;
    expect(late!.x).toBeGreaterThan(early!.x);
    expect(late!.y).toBeGreaterThan(early!.y);
    expect(fixture.componentInstance.money()(0)).toBe('€0');
  });

  it('a single price, day, currency, shipping or box draws nothing', () => {
    expect(drawn([price({})])).toBeNull();
    expect(drawn([price({}), price({})])).toBeNull();
    expect(drawn([price({}), price({ onDate: '2026-02-01' })], 'GBP')).toBeNull();
    expect(
      drawn([
        price({}),
        price({ onDate: '2026-02-01', kind: 'shipping' }),
        price({ onDate: '2026-02-01', withIds: ['x'] }),
      ]),
    ).toBeNull();
  });
});
