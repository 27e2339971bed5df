import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormControl, FormGroup, type ValidatorFn } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { SOFTWARE_NAMES, type SoftwareRole } from '@ruddy/core/parts';
import { factBody, type FactBody, type ItemEntry } from '@ruddy/core/parts/contract';
import { Acts } from '../platform/kit/ask';
import { Field } from '../platform/kit/field';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';
import { readyToSend, zodForm } from '../platform/kit/problems';
import { ServerClock } from '../platform/shared/server-clock';
import { WordAsks } from '../platform/shared/word-asks';
import { CatalogueData } from './catalogue';

const KINDS: FieldMeta = {
  label: 'Finding',
  input: 'choice',
  options: [
    { value: 'measured', label: 'Measured rate' },
    { value: 'version', label: 'Installed version' },
    { value: 'fault', label: 'Fault' },
  ],
};
const RATE: FieldMeta = { label: 'Rate', input: 'number', unit: 'Gb/s' };
const ROLE: FieldMeta = {
  label: 'Software',
  input: 'choice',
  options: optionsOf(SOFTWARE_NAMES),
};
const WORDS = { measured: 'Where and how', version: 'Version', fault: 'What is wrong' } as const;
const wordsMeta = (kind: FactBody['kind']): FieldMeta => ({
  label: WORDS[kind],
  input: 'text',
  max: 200,
});
const WORDS_META = {
  measured: wordsMeta('measured'),
  version: wordsMeta('version'),
  fault: wordsMeta('fault'),
};

type Given = Pick<FactBody, 'kind' | 'gbps' | 'words'> & {
  role: SoftwareRole;
  happenedOn: string | null;
};

/** What the form states: a rate, or a version with its software, or words. */
const stated = ({ kind, gbps, role, words, happenedOn }: Given) => ({
  kind,
  happenedOn,
  gbps: kind === 'measured' ? gbps : null,
  role: kind === 'version' ? role : null,
  words,
});

/** Stands for the ids while the fields are judged. */
const ANY_ID = v7();
const rules = zodForm(factBody, (raw: Given) => ({ ...stated(raw), id: ANY_ID, itemId: ANY_ID }));
const rateOrRules: ValidatorFn = (group) => {
  const { kind, gbps } = group.getRawValue() as Given;
  return kind === 'measured' && gbps === null
    ? { zod: { gbps: 'Enter the measured rate in Gb/s' } }
    : rules(group);
};

/** Something found on an item: a rate measured through it, a version installed on it, a fault. It stays; a mistake is noted as another one. */
@Component({
  selector: 'rb-fact-form',
  imports: [Field, MatButtonModule, WordAsks],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form
      #box
      (submit)="$event.preventDefault(); store(box)"
      novalidate
      [attr.aria-label]="'Finding on ' + item().label"
    >
      @if (line(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
      <rb-field [meta]="kinds" [control]="form.controls.kind" />
      @if (kind() === 'measured') {
        <rb-field [meta]="rate" [control]="form.controls.gbps" />
      }
      @if (kind() === 'version') {
        <rb-field [meta]="role" [control]="form.controls.role" />
      }
      <rb-field [meta]="wordsMeta[kind()]" [control]="form.controls.words" />
      <rb-field [meta]="on" [control]="form.controls.happenedOn" />
      <rb-word-asks [words]="words()" />
      <p>
        <button mat-flat-button type="submit">Save finding</button>
        <button mat-button type="button" (click)="closed.emit()">Cancel</button>
      </p>
    </form>
  `,
  styles: `
    form {
      display: grid;
      gap: 8px;
      padding: 8px;
      background: var(--sunk);
    }
  `,
})
export class FactForm {
  readonly #data = inject(CatalogueData);
  readonly #acts = inject(Acts);
  readonly #clock = inject(ServerClock);
  readonly item = input.required<ItemEntry>();
  readonly noted = output();
  readonly closed = output();
  readonly kinds = KINDS;
  readonly rate = RATE;
  readonly role = ROLE;
  readonly wordsMeta = WORDS_META;
  readonly on: FieldMeta = { label: 'Date', input: 'day' };
  readonly line = signal<string | null>(null);
  readonly form = new FormGroup(
    {
      kind: new FormControl<FactBody['kind']>('measured', { nonNullable: true }),
      gbps: new FormControl<number | null>(null),
      role: new FormControl<SoftwareRole>('dockFirmware', { nonNullable: true }),
      words: new FormControl('', { nonNullable: true }),
      happenedOn: new FormControl<string | null>(this.#clock.today()),
    },
    { validators: rateOrRules },
  );
  readonly kind = toSignal(this.form.controls.kind.valueChanges, {
    initialValue: 'measured' as const,
  });
  readonly words = toSignal(this.form.controls.words.valueChanges, { initialValue: '' });

  store(box: HTMLElement): void {
    if (!readyToSend(this.form, box)) return;
    const body = factBody.parse({
      ...stated(this.form.getRawValue()),
      id: v7(),
      itemId: this.item().id,
    });
    this.#acts.send(this.form, this.#data.addFact(body), {
      line: this.line,
      then: () => this.noted.emit(),
    });
  }
}
