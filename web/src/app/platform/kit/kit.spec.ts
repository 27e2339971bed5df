import type { HarnessLoader } from '@angular/cdk/testing';
import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { Component, signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { FormControl, FormGroup } from '@angular/forms';
import { MatAutocompleteHarness } from '@angular/material/autocomplete/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { MatSelectHarness } from '@angular/material/select/testing';
import * as z from 'zod';
import { provideDays } from './days';
import { Field } from './field';
import type { FieldMeta } from './meta';
import { refused, zodForm } from './problems';
import { FieldHarness } from './testing/field-harness';

const schema = z.object({
  value: z.any(),
  on: z.iso.date({ error: 'Enter a date.' }).nullable(),
});

@Component({
  imports: [Field],
  template: `
    <rb-field [meta]="meta()" [control]="form.controls.value" />
    <rb-field [meta]="day" [control]="form.controls.on" />
  `,
})
class Host {
  readonly meta = signal<FieldMeta>({ label: 'Length', input: 'number' });
  readonly day: FieldMeta = { label: 'Tried on', input: 'day' };
  readonly form = new FormGroup(
    {
      value: new FormControl<unknown>(null),
      on: new FormControl<string | null>('2026-11-20'),
    },
    { validators: zodForm(schema) },
  );
}

let fixture: ComponentFixture<Host>;
let loader: HarnessLoader;

async function shown(meta: FieldMeta, locale = 'en-GB'): Promise<FieldHarness> {
  TestBed.configureTestingModule({
    imports: [MatIconTestingModule],
    providers: [provideDays(locale)],
  });
  fixture = TestBed.createComponent(Host);
  fixture.componentInstance.meta.set(meta);
  loader = TestbedHarnessEnvironment.loader(fixture);
  await fixture.whenStable();
  return loader.getHarness(FieldHarness.byLabel(meta.label));
}
const value = () => fixture.componentInstance.form.controls.value.value;
const dayField = () => loader.getHarness(FieldHarness.byLabel('Tried on'));

const LENGTH: FieldMeta = {
  label: 'Length',
  input: 'number',
  unit: 'mm',
  min: 40,
  max: 500,
  range: true,
  unsure: true,
  help: 'With a tape',
};
const YES_NO = [
  { value: 'yes', label: 'Yes' },
  { value: 'no', label: 'No' },
];

describe('a number field', () => {
  it('holds numbers and ranges and shows limits and help', async () => {
    const field = await shown(LENGTH);
    expect(await field.placeholder()).toBe('not sure');
    expect(await field.hint()).toBe('40–500; a range is allowed. With a tape');
    await field.type('65,5');
    expect(value()).toBe(65.5);
    await field.type('220 to 260');
    expect(value()).toEqual({ lo: 220, hi: 260 });
    fixture.componentInstance.form.controls.value.setValue(300);
    expect(await field.value()).toBe('300');
  });

  it('keeps unreadable text, says why, is not valid', async () => {
    const field = await shown(LENGTH);
    await field.type('1,200');
    expect(await field.value()).toBe('1,200');
    expect(fixture.componentInstance.form.controls.value.valid).toBe(false);
    expect(await field.error()).toContain('could mean two numbers');
    await field.type('250');
    expect([value(), await field.error()]).toEqual([250, '']);
  });

  it('refuses a range where none is allowed', async () => {
    const field = await shown({ label: 'Budget', input: 'number' });
    await field.type('2 to 4');
    expect(await field.error()).toBe('"2 to 4" is not a number');
  });
});

describe('a money field', () => {
  it('holds minor units of its currency', async () => {
    const euro = await shown({ label: 'Budget', input: 'money', unit: 'EUR' });
    await euro.type('38.50');
    expect(value()).toBe(3850);
    TestBed.resetTestingModule();
    const yen = await shown({ label: 'Budget', input: 'money', unit: 'JPY' });
    await yen.type('5400');
    expect(value()).toBe(5400);
    await yen.type('5.4');
    expect(await yen.error()).toContain('has more digits than JPY has');
  });
});

describe('a choice', () => {
  it('offers its options and "Not sure"', async () => {
    const field = await shown({ label: 'Tunnels', input: 'choice', options: YES_NO, unsure: true });
    expect(await field.options()).toEqual(['Not sure', 'Yes', 'No']);
    await field.choose('No');
    expect(value()).toBe('no');
  });

  it('shows few options side by side', async () => {
    const field = await shown({ label: 'Tunnels', input: 'toggle', options: YES_NO });
    await field.choose('Yes');
    expect(value()).toBe('yes');
  });

  it('holds several options', async () => {
    const field = await shown({ label: 'Uses', input: 'several', options: YES_NO });
    await field.choose('Yes', 'No');
    expect(value()).toEqual(['yes', 'no']);
  });

  it('finds one of many by typing', async () => {
    const options = Array.from({ length: 20 }, (_, i) => ({ value: i, label: `Cable ${i}` }));
    await shown({ label: 'Cable', input: 'choice', options });
    const box = await loader.getHarness(MatAutocompleteHarness);
    await box.enterText('19');
    expect(await Promise.all((await box.getOptions()).map((o) => o.getText()))).toEqual([
      'Cable 19',
    ]);
    await box.selectOption({ text: 'Cable 19' });
    expect([value(), await box.getValue()]).toEqual([19, 'Cable 19']);
  });

  it('stays open when many options come after it was opened', async () => {
    const meta: FieldMeta = { label: 'Cable', input: 'choice', placeholder: 'none' };
    await shown({ ...meta, options: [] });
    await (await loader.getHarness(MatSelectHarness)).open();
    const options = Array.from({ length: 20 }, (_, i) => ({ value: i, label: `Cable ${i}` }));
    fixture.componentInstance.meta.set({ ...meta, options });
    await fixture.whenStable();
    const box = await loader.getHarness(MatAutocompleteHarness);
    expect([await box.isFocused(), await box.isOpen()]).toEqual([true, true]);
  });
});

it('a flag holds true once it is checked', async () => {
  const field = await shown({ label: 'Show archived', input: 'flag' });
  await field.check();
  expect(value()).toBe(true);
});

it('lines hold one entry a line, without empty ones', async () => {
  const field = await shown({ label: 'Symptoms', input: 'lines' });
  await field.type('black screen\n\n  fan stops ');
  expect(value()).toEqual(['black screen', 'fan stops']);
});

describe('a date', () => {
  it.each([
    ['en-GB', '20 Nov 2026', '5/12/2026', '2026-12-05'],
    ['en-US', 'Nov 20, 2026', '12/5/2026', '2026-12-05'],
    ['de', '20. Nov. 2026', '5.12.2026', '2026-12-05'],
  ])('is shown and read in %s', async (locale, asShown, typed, stored) => {
    await shown({ label: 'Length', input: 'number' }, locale);
    const field = await dayField();
    expect(await field.value()).toBe(asShown);
    await field.type(typed);
    expect(fixture.componentInstance.form.controls.on.value).toBe(stored);
    await field.type('2026-12-06');
    expect(fixture.componentInstance.form.controls.on.value).toBe('2026-12-06');
  });

  it('that does not exist is refused', async () => {
    await shown({ label: 'Length', input: 'number' });
    const field = await dayField();
    await field.type('31.2.2026');
    expect(await field.error()).toBe('Not a date: write it like 20 Nov 2026 or 2026-11-20');
  });
});

it('what the server refused stands at the field until it changes', async () => {
  await shown({ label: 'Length', input: 'number' });
  const rest = refused(fixture.componentInstance.form, {
    type: 'urn:ruddy:problem:invalid',
    title: 'Not stored',
    status: 422,
    errors: [
      { path: 'value', message: 'Length: at most 500' },
      { path: 'elsewhere', message: 'The log is full' },
    ],
  });
  expect(rest).toEqual(['The log is full']);
  const field = await loader.getHarness(FieldHarness.byLabel('Length'));
  expect(await field.error()).toBe('Length: at most 500');
  await field.type('400');
  expect(await field.error()).toBe('');
});

describe('a field without a form', () => {
  @Component({
    imports: [Field],
    template: `<rb-field [meta]="meta()" [value]="value()" (changed)="sent.push($event)" />`,
  })
  class Alone {
    readonly meta = signal<FieldMeta>({ label: 'Budget', input: 'number', min: 1, max: 500 });
    readonly value = signal<unknown>(40);
    readonly sent: unknown[] = [];
  }

  async function alone(meta?: FieldMeta) {
    TestBed.configureTestingModule({ imports: [MatIconTestingModule], providers: [provideDays()] });
    const f = TestBed.createComponent(Alone);
    if (meta) f.componentInstance.meta.set(meta);
    await f.whenStable();
    const field = await TestbedHarnessEnvironment.loader(f).getHarness(FieldHarness);
    return { f, field, sent: f.componentInstance.sent };
  }
  const change = (f: ComponentFixture<unknown>) =>
    (f.nativeElement as HTMLElement)
      .querySelector('input')
      ?.dispatchEvent(new Event('change', { bubbles: true }));

  it('shows the value and sends what was typed once it is left', async () => {
    const { f, field, sent } = await alone();
    expect(await field.value()).toBe('40');
    await field.type('60');
    expect(sent).toEqual([]);
    change(f);
    expect(sent).toEqual([60]);
    f.componentInstance.value.set(60);
    await f.whenStable();
    change(f);
    expect(sent).toEqual([60]);
  });

  it('sends nothing unreadable or outside its limits, and says so', async () => {
    const { f, field, sent } = await alone();
    await field.type('many');
    change(f);
    expect(await field.error()).toContain('many');
    await field.type('501');
    change(f);
    expect(await field.error()).toBe('At most 500');
    expect(sent).toEqual([]);
  });

  it('sends a choice at once', async () => {
    const { f, field, sent } = await alone({ label: 'Quiet', input: 'choice', options: YES_NO });
    f.componentInstance.value.set('yes');
    await f.whenStable();
    expect(await field.value()).toBe('Yes');
    await field.choose('No');
    expect(sent).toEqual(['no']);
  });
});
