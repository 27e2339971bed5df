import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  FormControl,
  FormGroup,
  type FormGroupDirective,
  ReactiveFormsModule,
} from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { noteBody, type SetupEvent } from '@ruddy/core/compatibility/contract';
import { Acts } from '../../platform/kit/ask';
import { Field } from '../../platform/kit/field';
import type { FieldMeta } from '../../platform/kit/meta';
import { readyToSend, zodForm } from '../../platform/kit/problems';
import { SetupsData } from '../../setups/setups';
import { ServerClock } from '../../platform/shared/server-clock';
import { WordAsks } from '../../platform/shared/word-asks';

export interface Mending {
  id: string;
  text: string;
}

/** A note, and where a photo of it lies. A note may correct an earlier one; both stay. */
@Component({
  selector: 'rb-note-form',
  imports: [ReactiveFormsModule, MatButtonModule, Field, WordAsks],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>
      {{ corrects() ? 'Correct the note "' + corrects()!.text.slice(0, 40) + '"' : 'Add a note' }}
    </h3>
    @if (problem(); as why) {
      <p class="problem" role="alert">{{ why }}</p>
    }
    <form [formGroup]="form" #of="ngForm" (ngSubmit)="add(of)" aria-label="Note">
      <rb-field [meta]="text" [control]="form.controls.text" />
      <rb-word-asks [words]="words()" />
      <rb-field [meta]="photo" [control]="form.controls.photo" />
      <p class="acts">
        <button mat-stroked-button type="submit">
          {{ corrects() ? 'Save correction' : 'Add note' }}
        </button>
        @if (corrects()) {
          <button mat-button type="button" (click)="left.emit()">Cancel</button>
        }
      </p>
    </form>
  `,
  styles: `
    :host,
    form {
      display: grid;
      gap: 8px;
    }
    .acts {
      display: flex;
      gap: 8px;
    }
  `,
})
export class NoteForm {
  readonly #data = inject(SetupsData);
  readonly #clock = inject(ServerClock);
  readonly #acts = inject(Acts);
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly setupId = input.required<string>();
  readonly corrects = input<Mending | null>(null);
  readonly stored = output<SetupEvent[]>();
  readonly left = output();
  readonly text: FieldMeta = { label: 'Note', input: 'area', max: 2000 };
  readonly photo: FieldMeta = {
    label: 'Photo',
    input: 'text',
    max: 300,
    placeholder: 'a file name or a place',
    help: 'Stays private',
  };
  readonly form = new FormGroup(
    {
      text: new FormControl('', { nonNullable: true }),
      photo: new FormControl('', { nonNullable: true }),
    },
    { validators: zodForm(noteBody, (raw: object) => this.#body(raw, null)) },
  );
  readonly #raw = toSignal(this.form.valueChanges);
  readonly words = computed(() => this.#raw()?.text ?? '');
  readonly problem = signal<string | null>(null);

  constructor() {
    effect(() => {
      const c = this.corrects();
      if (!c) return;
      untracked(() => {
        this.form.patchValue({ text: c.text });
        this.#el.querySelector('textarea')?.focus();
      });
    });
  }

  add(of: FormGroupDirective): void {
    if (!readyToSend(this.form, this.#el)) return;
    const body = noteBody.parse(this.#body(this.form.getRawValue(), this.corrects()?.id ?? null));
    this.#acts.send(this.form, this.#data.addNote(this.setupId(), body), {
      line: this.problem,
      done: 'Note added.',
      then: (r) => {
        of.resetForm();
        this.stored.emit(r.items);
      },
    });
  }

  #body(raw: object, corrects: string | null): unknown {
    return { ...raw, id: v7(), happenedOn: this.#clock.today(), corrects };
  }
}
