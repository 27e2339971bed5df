import { ComponentHarness, HarnessPredicate, type TestKey } from '@angular/cdk/testing';
import { MatButtonToggleGroupHarness } from '@angular/material/button-toggle/testing';
import { MatCheckboxHarness } from '@angular/material/checkbox/testing';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatInputHarness } from '@angular/material/input/testing';
import { MatSelectHarness } from '@angular/material/select/testing';

/** An `rb-field` as a test uses it: found by its label, typed into, chosen from, read. */
export class FieldHarness extends ComponentHarness {
  static readonly hostSelector = 'rb-field';

  static byLabel(label: string): HarnessPredicate<FieldHarness> {
    return new HarnessPredicate(FieldHarness, {}).add(`label ${label}`, (f) => f.isCalled(label));
  }

  readonly #field = this.locatorForOptional(MatFormFieldHarness);
  readonly #input = this.locatorForOptional(MatInputHarness);
  readonly #select = this.locatorForOptional(MatSelectHarness);
  readonly #toggles = this.locatorForOptional(MatButtonToggleGroupHarness);
  readonly #flag = this.locatorForOptional(MatCheckboxHarness);

  /** Whether this is its label; the words of a checkbox or a row of buttons count as well. */
  async isCalled(label: string): Promise<boolean> {
    const field = await this.#field();
    if (!field) return (await (await this.host()).text()).includes(label);
    return (await field.getLabel())?.replace(/ ?\*$/, '') === label;
  }

  /** Types a text and leaves the field. */
  async type(text: string, ...keys: TestKey[]): Promise<void> {
    const input = await this.#input();
    if (!input) throw new Error('this field has no text box');
    await input.setValue(text);
    if (keys.length > 0) await (await input.host()).sendKeys(...keys);
    await input.blur();
  }

  /** Chooses an option by its words. */
  async choose(...options: string[]): Promise<void> {
    const select = await this.#select();
    for (const text of options)
      if (select) await select.clickOptions({ text });
      else await (await (await this.#toggles())?.getToggles({ text }))?.[0]?.check();
  }

  /** Words of the options of a choice, as they are offered. */
  async options(): Promise<string[]> {
    const select = await this.#select();
    await select?.open();
    return Promise.all(((await select?.getOptions()) ?? []).map((o) => o.getText()));
  }

  async check(): Promise<void> {
    await (await this.#flag())?.check();
  }

  async value(): Promise<string> {
    const input = await this.#input();
    return input ? input.getValue() : ((await (await this.#select())?.getValueText()) ?? '');
  }

  async placeholder(): Promise<string> {
    return (await (await this.#input())?.getPlaceholder()) ?? '';
  }

  async hint(): Promise<string> {
    return ((await (await this.#field())?.getTextHints()) ?? []).join(' ');
  }

  async error(): Promise<string> {
    return ((await (await this.#field())?.getTextErrors()) ?? []).join(' ');
  }
}
