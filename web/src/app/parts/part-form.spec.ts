import { TestBed, type ComponentFixture } from '@angular/core/testing';
import {
  attributesOf,
  cableSchema,
  hostSchema,
  isAsked,
  optionsOf,
  socketSchema,
} from '@ruddy/core/parts';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { provideDays } from '../platform/kit/days';
import { FieldHarness } from '../platform/kit/testing/field-harness';
import { formOf, readForm, settle } from './form-model';
import { PartForm } from './part-form';

const cable = {
  maker: 'Alder',
  model: 'K-1',
  variant: '',
  connector: 'usb-c',
  construction: 'passive',
  lengthMm: 800,
  markedGbps: 40,
  markedW: null,
  pcieGen: null,
  family: '',
} as const;

describe('PA-01 a form made from the schema', () => {
  it('gives back what it was filled with, "not sure" and ranges too', () => {
    const spec = { ...cable, lengthMm: { lo: 700, hi: 900 }, construction: null };
    expect(readForm(formOf('cable', spec))).toEqual({ spec, errors: new Map() });
  });

  it('has a control for every attribute of the schema', () => {
    const m = formOf('host', { sockets: [{ key: 'left' }] } as never);
    expect(Object.keys(m.group.controls).sort()).toEqual(
      attributesOf(hostSchema)
        .map(([k]) => k)
        .sort(),
    );
    expect(Object.keys(m.sockets.controls[0]!.controls)).toEqual(
      attributesOf(socketSchema).map(([k]) => k),
    );
  });

  it.each([
    ['lengthMm', 90_000, 'from 50 to 60000 mm'],
    ['lengthMm', { lo: 900, hi: 700 }, 'low end must not be above'],
    ['markedGbps', 400, 'from 0.48 to 120'],
  ])('%s %j is refused at its field', (key, value, words) => {
    const m = formOf('cable', cable);
    m.group.controls[key]?.setValue(value);
    const { spec, errors } = readForm(m);
    expect(spec).toBeNull();
    expect([...errors.keys()]).toEqual([key]);
    expect(errors.get(key)).toContain(words);
  });

  it('what is wrong at a port is found by its place', () => {
    const port = { key: 'left', connector: 'usb-c', standard: 'usb4-40' };
    const m = formOf('host', {
      maker: 'Alder',
      model: 'H-1',
      form: 'laptop',
      sockets: [port, { ...port, key: '' }],
    } as never);
    expect([...readForm(m).errors.keys()]).toEqual(['sockets/1/key']);
  });

  it('asks what goes with the connector, and sends only that', () => {
    const m = formOf('cable', { ...cable, connector: 'oculink-4i' });
    const shown = m.fields
      .filter(([, meta]) => isAsked(meta, m.group.getRawValue()))
      .map(([k]) => k);
    expect(shown).toContain('pcieGen');
    expect(shown).not.toContain('markedGbps');
    expect(readForm(m).spec).toMatchObject({ markedGbps: null, connector: 'oculink-4i' });
  });

  it('another connector rules a standard out: it goes back to "not sure"', () => {
    const m = formOf('host', {
      sockets: [{ key: 'left', connector: 'usb-c', standard: 'usb4-40' }],
    } as never);
    const g = m.sockets.controls[0]!;
    g.controls['connector']?.setValue('m2');
    settle(m);
    expect(g.controls['standard']?.value).toBeNull();
    const standard = m.socketFields.find(([k]) => k === 'standard')![1];
    expect(optionsOf(standard, g.getRawValue()).map((o) => o.value)).toEqual(['pcie', 'sata']);
  });

  it('every attribute that matters says how to find out', () => {
    const silent = attributesOf(cableSchema).filter(
      ([k, m]) => m.unsure && !m.findOut && !['markedW'].includes(k),
    );
    expect(silent).toEqual([]);
    // How a host answers reads matters only to whoever measured it: left open, it is the usual.
    expect(
      attributesOf(socketSchema).filter(
        ([k, m]) => m.unsure && !m.findOut && k !== 'completionBytes',
      ),
    ).toEqual([]);
  });
});

describe('the form on the page', () => {
  let fixture: ComponentFixture<PartForm>;
  const el = () => fixture.nativeElement as HTMLElement;
  const field = (label: string) =>
    TestbedHarnessEnvironment.loader(fixture).getHarness(FieldHarness.byLabel(label));
  const submit = async () => {
    el().querySelector('form')?.dispatchEvent(new Event('submit'));
    await fixture.whenStable();
  };

  beforeEach(async () => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideDays('en-GB')],
    });
    fixture = TestBed.createComponent(PartForm);
    fixture.componentRef.setInput('kind', 'cable');
    fixture.componentRef.setInput('spec', cable);
    await fixture.whenStable();
  });

  it('shows a wrong value at its field and does not emit', async () => {
    const saved: unknown[] = [];
    fixture.componentInstance.saved.subscribe((s) => saved.push(s));
    const length = await field('Length');
    await length.type('long');
    await submit();
    expect(saved).toEqual([]);
    expect(el().querySelector('.problem[role=alert]')?.textContent).toContain(
      'Not saved. Length: "long" is not a number',
    );
    expect(await length.error()).toContain('"long" is not a number');
    await length.type('0,9');
    await length.type('900');
    expect(el().querySelector('.problem[role=alert]')).toBeNull();
    await submit();
    expect(saved).toEqual([{ spec: { ...cable, lengthMm: 900 }, sources: {} }]);
  });

  it('keeps the candidates of a choice that is not decided', async () => {
    const spec = { ...cable, construction: { oneOf: ['passive', 'active'] } };
    fixture.componentRef.setInput('spec', spec);
    const saved: { spec: unknown }[] = [];
    fixture.componentInstance.saved.subscribe((s) => saved.push(s));
    await fixture.whenStable();
    expect(await (await field('Construction')).value()).toBe('Passive or Active');
    await submit();
    expect(saved[0]?.spec).toEqual(spec);
  });

  it('WS-05 asks about an odd value once, before saving', async () => {
    const saved: { sources: Record<string, { kept: boolean }> }[] = [];
    fixture.componentInstance.saved.subscribe((s) => saved.push(s));
    const rate = await field('Marked rate');
    await rate.type('2.5');
    expect(await rate.hint()).toContain('2.5 GB/s would be 20 Gb/s');
    await submit();
    expect(saved).toEqual([]);
    const keep = [...el().querySelectorAll('button')].find((b) =>
      b.textContent?.includes('The values are right'),
    );
    keep?.click();
    expect(saved[0]).toMatchObject({
      spec: { markedGbps: 2.5 },
      sources: { markedGbps: { kept: true } },
    });
    fixture.componentRef.setInput('spec', { ...cable, markedGbps: 2.5 });
    fixture.componentRef.setInput('sources', saved[0]?.sources);
    await fixture.whenStable();
    await submit();
    expect(saved).toHaveLength(2);
  });

  it('shows a refusal at its field, and sends it again', async () => {
    const saved: unknown[] = [];
    fixture.componentInstance.saved.subscribe((s) => saved.push(s));
    fixture.componentRef.setInput('refused', new Map([['model', 'exists already']]));
    await fixture.whenStable();
    expect(await (await field('Model')).error()).toBe('exists already');
    await submit();
    expect(saved).toHaveLength(1);
  });

  it('a refusal that belongs to no field stands above the form', async () => {
    fixture.componentRef.setInput('refused', new Map([['sockets', 'Port "left" is used']]));
    await fixture.whenStable();
    expect(el().querySelector('.problem')?.textContent).toContain('Not saved. Port "left" is used');
  });
});
