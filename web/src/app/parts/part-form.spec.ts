import { TestBed, type ComponentFixture } from '@angular/core/testing';
import {
  attributesOf,
  cableSchema,
  hostSchema,
  isAsked,
  optionsOf,
  socketSchema,
} from '@ruddy/core/parts';
import { dropRuledOut, formOf, readForm } from './form-model';
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
    expect(Object.keys(m.group.controls)).toEqual(
      attributesOf(hostSchema)
        .map(([k]) => k)
        .filter((k) => k !== 'sockets'),
    );
    expect(Object.keys(m.sockets.controls[0]!.controls)).toEqual(
      attributesOf(socketSchema).map(([k]) => k),
    );
  });

  it.each([
    ['lengthMm', '1200 mm', 'is not a number'],
    ['lengthMm', '1,200', 'could mean two numbers'],
    ['lengthMm', '90000', 'from 50 to 60000 mm'],
    ['lengthMm', '900 to 700', 'low end must not be above'],
    ['markedGbps', '400', 'from 0.48 to 120'],
  ])('%s "%s" is refused at its field', (key, typed, words) => {
    const m = formOf('cable', cable);
    m.group.controls[key]?.setValue(typed);
    const { spec, errors } = readForm(m);
    expect(spec).toBeNull();
    expect([...errors.keys()]).toEqual([key]);
    expect(errors.get(key)).toContain(words);
  });

  it('asks what goes with the connector, and sends only that', () => {
    const m = formOf('cable', { ...cable, connector: 'oculink-4i' });
    const shown = m.fields.filter(([, meta]) => isAsked(meta, m.group.value)).map(([k]) => k);
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
    dropRuledOut(m.socketFields, g);
    expect(g.controls['standard']?.value).toBeNull();
    const standard = m.socketFields.find(([k]) => k === 'standard')![1];
    expect(optionsOf(standard, g.value).map((o) => o.value)).toEqual(['pcie', 'sata']);
  });

  it('takes a comma as the decimal mark', () => {
    const m = formOf('cable', cable);
    m.group.controls['markedGbps']?.setValue('0,48');
    expect(readForm(m).spec).toMatchObject({ markedGbps: 0.48 });
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

  beforeEach(async () => {
    fixture = TestBed.createComponent(PartForm);
    fixture.componentRef.setInput('kind', 'cable');
    fixture.componentRef.setInput('spec', cable);
    await fixture.whenStable();
  });

  it('shows a wrong value at its field and does not emit', async () => {
    const saved: unknown[] = [];
    fixture.componentInstance.saved.subscribe((s) => saved.push(s));
    const input = [...el().querySelectorAll('label')]
      .find((l) => l.textContent?.includes('Length'))
      ?.parentElement?.querySelector('input');
    input!.value = 'long';
    input!.dispatchEvent(new Event('input'));
    el().querySelector('form')?.dispatchEvent(new Event('submit'));
    await fixture.whenStable();
    expect(saved).toEqual([]);
    expect(el().querySelector('[role=alert]')?.textContent).toContain(
      'Nothing stored. Length: "long" is not a number',
    );
    expect(input!.getAttribute('aria-invalid')).toBe('true');
    input!.value = '900';
    input!.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    expect(el().querySelector('[role=alert]')).toBeNull();
    el().querySelector('form')?.dispatchEvent(new Event('submit'));
    expect(saved).toEqual([{ spec: { ...cable, lengthMm: 900 }, sources: {} }]);
  });

  it('WS-05 asks about an odd value once, before storing', async () => {
    const saved: { sources: Record<string, { kept: boolean }> }[] = [];
    fixture.componentInstance.saved.subscribe((s) => saved.push(s));
    const submit = async () => {
      el().querySelector('form')?.dispatchEvent(new Event('submit'));
      await fixture.whenStable();
    };
    const input = [...el().querySelectorAll('label')]
      .find((l) => l.textContent?.includes('Marked rate'))
      ?.parentElement?.querySelector('input');
    input!.value = '2.5';
    input!.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    expect(el().querySelector('.asks')?.textContent).toContain('2.5 GB/s would be 20 Gb/s');
    await submit();
    expect(saved).toEqual([]);
    const keep = [...el().querySelectorAll('button')].find((b) =>
      b.textContent?.includes('It is as said'),
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

  it('shows a refusal of the server beside its field', async () => {
    fixture.componentRef.setInput('refused', new Map([['model', 'exists already']]));
    await fixture.whenStable();
    expect(el().querySelector('.wrong')?.textContent).toBe('exists already');
  });
});
