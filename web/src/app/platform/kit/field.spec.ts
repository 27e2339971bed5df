import { Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { FormControl } from '@angular/forms';
import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { MatButtonToggleGroupHarness } from '@angular/material/button-toggle/testing';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatInputHarness } from '@angular/material/input/testing';
import { MatSelectHarness } from '@angular/material/select/testing';
import { Field } from './field';
import type { FieldMeta } from './meta';

@Component({ imports: [Field], template: `<rb-field [meta]="meta()" [control]="control" />` })
class Host {
  readonly meta = signal<FieldMeta>({
    label: 'Length',
    input: 'number',
    unit: 'mm',
    min: 40,
    max: 500,
    unsure: true,
    help: 'With a tape',
  });
  readonly control = new FormControl<unknown>(null);
}

async function shown(meta?: FieldMeta) {
  const fixture = TestBed.createComponent(Host);
  if (meta) fixture.componentInstance.meta.set(meta);
  const loader = TestbedHarnessEnvironment.loader(fixture);
  await fixture.whenStable();
  return { loader, control: fixture.componentInstance.control };
}

describe('a field', () => {
  it('holds the number that was typed and shows limits and help', async () => {
    const { loader, control } = await shown();
    const box = await loader.getHarness(MatInputHarness);
    expect(await box.getPlaceholder()).toBe('not sure');
    const field = await loader.getHarness(MatFormFieldHarness);
    expect(await field.getTextHints()).toEqual(['40–500. With a tape']);
    await box.setValue('240');
    expect(control.value).toBe(240);
    await box.setValue('220 to 260');
    expect(control.value).toEqual({ lo: 220, hi: 260 });
    control.setValue(300);
    expect(await box.getValue()).toBe('300');
  });

  it('keeps unreadable input, says why, leaves the last value', async () => {
    const { loader, control } = await shown();
    const box = await loader.getHarness(MatInputHarness);
    await box.setValue('240');
    await (await box.host()).sendKeys('x');
    await box.blur();
    expect([await box.getValue(), control.value, control.invalid]).toEqual(['240x', 240, true]);
    const field = await loader.getHarness(MatFormFieldHarness);
    expect((await field.getTextErrors())[0]).toContain('"240x" is not a number');
    await box.setValue('250');
    await box.blur();
    expect([control.value, control.valid]).toEqual([250, true]);
  });

  it('offers a choice with "Not sure", and few options as toggles', async () => {
    const options = [
      { value: 'yes', label: 'Yes' },
      { value: 'no', label: 'No' },
    ];
    const list = await shown({ label: 'Tunnels', input: 'choice', options, unsure: true });
    const select = await list.loader.getHarness(MatSelectHarness);
    await select.open();
    expect(await Promise.all((await select.getOptions()).map((o) => o.getText()))).toEqual([
      'Not sure',
      'Yes',
      'No',
    ]);
    await select.clickOptions({ text: 'No' });
    expect(list.control.value).toBe('no');
    const few = await shown({ label: 'Tunnels', input: 'toggle', options });
    const group = await few.loader.getHarness(MatButtonToggleGroupHarness);
    await (await group.getToggles({ text: 'Yes' }))[0]?.check();
    expect(few.control.value).toBe('yes');
  });
});
