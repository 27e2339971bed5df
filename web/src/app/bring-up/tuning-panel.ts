import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormControl, FormGroup, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { dockedSchema, type Tuning } from '@ruddy/core/setups';
import { tuningWords } from '@ruddy/core/setups/text';
import { SetupEditor } from '../setups/setup-editor';
import { day } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { readyToSend } from '../platform/kit/problems';

/** Tuning one step at a time: what was changed, from what to what, and what the same run gained. */
@Component({
  selector: 'rb-tuning-panel',
  imports: [Field, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ol>
      @for (t of steps(); track $index; let i = $index) {
        <li>
          {{ day(t.on) }}: {{ words(t) }}
          <button
            mat-button
            type="button"
            (click)="drop(i)"
            [attr.aria-label]="'Remove: ' + t.what"
          >
            Remove
          </button>
        </li>
      } @empty {
        <li class="quiet">0 tuning steps noted.</li>
      }
    </ol>
    <form #box (submit)="$event.preventDefault(); add(box)" novalidate aria-label="A tuning step">
      @for (f of fields; track f[0].label) {
        <rb-field [meta]="f[0]" [control]="f[1]" />
      }
      <button mat-stroked-button type="submit">Add tuning step</button>
    </form>
    @if (problem(); as why) {
      <p class="problem" role="alert">Not saved. {{ why }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    ol {
      list-style: none;
    }
    form {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
      gap: 8px;
      align-items: end;
    }
  `,
})
export class TuningPanel {
  readonly #editor = inject(SetupEditor);
  readonly #clock = inject(ServerClock);
  readonly day = day;
  readonly words = tuningWords;
  readonly problem = signal<string | null>(null);
  readonly form = new FormGroup({
    what: new FormControl('', { nonNullable: true, validators: Validators.required }),
    from: new FormControl('', { nonNullable: true }),
    to: new FormControl('', { nonNullable: true }),
    gainPercent: new FormControl<number | null>(null),
  });
  readonly fields: readonly (readonly [FieldMeta, FormControl])[] = [
    [{ label: 'Changed', input: 'text', max: 80 }, this.form.controls.what],
    [{ label: 'From', input: 'text', max: 40 }, this.form.controls.from],
    [{ label: 'To', input: 'text', max: 40 }, this.form.controls.to],
    [
      { label: 'Gained in the same run', input: 'number', unit: '%' },
      this.form.controls.gainPercent,
    ],
  ];
  readonly steps = computed(() => this.#editor.fields()?.docked.tuning ?? []);

  add(box: HTMLElement): void {
    const d = this.#editor.fields()?.docked;
    if (!d || !readyToSend(this.form, box)) return;
    const step = { ...this.form.getRawValue(), on: this.#clock.today() };
    const next = dockedSchema.safeParse({ ...d, tuning: [...d.tuning, step] });
    if (!next.success) return this.problem.set(next.error.issues[0]?.message ?? 'not a step');
    this.problem.set(null);
    this.#editor.change({ docked: next.data });
    this.form.reset();
    box.querySelector('input')?.focus();
  }

  drop(index: number): void {
    const d = this.#editor.fields()?.docked;
    if (d)
      this.#editor.change({
        docked: { ...d, tuning: d.tuning.filter((_: Tuning, i) => i !== index) },
      });
  }
}
