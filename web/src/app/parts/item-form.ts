import {
  ChangeDetectionStrategy,
  Component,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FormControl, FormGroup } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { HOW, ITEM_CONDITIONS } from '@ruddy/core/parts';
import { itemBody, type ItemBody, type ItemEntry } from '@ruddy/core/parts/contract';
import { Acts } from '../platform/kit/ask';
import { Field } from '../platform/kit/field';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';
import { readyToSend, zodForm } from '../platform/kit/problems';
import { CatalogueData } from './catalogue';

/** Rules of the fields; which item and part it is, the form does not hold. */
const fields = itemBody.omit({ id: true, partId: true, differs: true });

/** An item of a part: what stands on it, whose it is, what its packing claims. In: the part, and the item unless it is new. */
@Component({
  selector: 'rb-item-form',
  imports: [Field, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form
      #box
      class="grid"
      (submit)="$event.preventDefault(); store(box)"
      novalidate
      aria-label="Item"
    >
      @if (line(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
      @for (f of shown; track f[0].label) {
        <rb-field [meta]="f[0]" [control]="f[1]" [class.wide]="f[1] === form.controls.claim" />
      }
      <p class="acts">
        <button mat-flat-button type="submit">Save item</button>
        <button mat-button type="button" (click)="closed.emit()">Cancel</button>
      </p>
    </form>
  `,
  styles: `
    .grid {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(156px, 1fr));
      gap: 8px 12px;
    }
    .wide,
    .acts,
    .problem {
      grid-column: 1 / -1;
    }
  `,
})
export class ItemForm {
  readonly #data = inject(CatalogueData);
  readonly #acts = inject(Acts);
  readonly partId = input.required<string>();
  readonly item = input<ItemEntry | null>(null);
  readonly saved = output();
  readonly closed = output();
  readonly line = signal<string | null>(null);
  readonly form = new FormGroup(
    {
      label: new FormControl('', { nonNullable: true }),
      how: new FormControl<ItemBody['how']>('own', { nonNullable: true }),
      owner: new FormControl('', { nonNullable: true }),
      condition: new FormControl<ItemBody['condition']>(null),
      acquiredOn: new FormControl<string | null>(null),
      boughtFrom: new FormControl('', { nonNullable: true }),
      claim: new FormControl('', { nonNullable: true }),
      serial: new FormControl('', { nonNullable: true }),
      note: new FormControl('', { nonNullable: true }),
    },
    { validators: zodForm(fields) },
  );
  readonly shown: readonly (readonly [FieldMeta, FormControl])[] = [
    [
      { label: 'Label', input: 'text', max: 60, help: 'As it stands on it, like K-02 a' },
      this.form.controls.label,
    ],
    [{ label: 'Status', input: 'choice', options: optionsOf(HOW) }, this.form.controls.how],
    [
      { label: 'Owner', input: 'text', max: 60, placeholder: "the workshop's" },
      this.form.controls.owner,
    ],
    [
      {
        label: 'Condition',
        input: 'choice',
        placeholder: 'not set',
        options: optionsOf(ITEM_CONDITIONS),
      },
      this.form.controls.condition,
    ],
    [{ label: 'Owned since', input: 'day' }, this.form.controls.acquiredOn],
    [{ label: 'Bought from', input: 'text', max: 120 }, this.form.controls.boughtFrom],
    [
      { label: 'Claim on packaging or plug', input: 'text', max: 200, help: 'Word for word' },
      this.form.controls.claim,
    ],
    [
      { label: 'Serial number', input: 'text', max: 80, help: 'Never in a shared file' },
      this.form.controls.serial,
    ],
    [{ label: 'Note', input: 'text', max: 400 }, this.form.controls.note],
  ];

  constructor() {
    effect(() => {
      const item = this.item();
      untracked(() => this.form.reset(item ?? {}));
    });
  }

  store(box: HTMLElement): void {
    if (!readyToSend(this.form, box)) return;
    const item = this.item();
    const given = this.form.getRawValue();
    const call = item
      ? this.#data.patchItem(item.id, given, item.rev)
      : this.#data.addItem({ ...given, differs: {}, id: v7(), partId: this.partId() });
    this.#acts.send(this.form, call, {
      line: this.line,
      done: `${given.label.trim()} saved.`,
      then: () => this.saved.emit(),
    });
  }
}
