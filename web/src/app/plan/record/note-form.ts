import {
  ChangeDetectionStrategy,
  Component,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { noteBody, type SetupEvent } from '@ruddy/core/compatibility/contract';
import type { ApiError } from '../../platform/api/api-client';
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
  imports: [MatButtonModule, WordAsks],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>
      {{
        corrects() ? 'Correct the note "' + corrects()!.text.slice(0, 40) + '"' : 'Or just a note'
      }}
    </h3>
    @if (problem(); as why) {
      <p class="problem" role="alert">{{ why }}</p>
    }
    <textarea
      #note
      rows="2"
      maxlength="2000"
      aria-label="Note"
      (input)="words.set(note.value)"
      [attr.aria-invalid]="problem() !== null"
    ></textarea>
    <rb-word-asks [words]="words()" />
    <div class="field">
      <label for="photo">Photo: where it lies</label>
      <input
        #photo
        id="photo"
        maxlength="300"
        autocomplete="off"
        placeholder="a file name or a place; it stays private"
      />
    </div>
    <p class="acts">
      <button mat-button type="button" (click)="add(note, photo)">
        {{ corrects() ? 'Store the correction' : 'Add the note' }}
      </button>
      @if (corrects()) {
        <button mat-button type="button" (click)="left.emit()">Leave it</button>
      }
    </p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
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
  readonly setupId = input.required<string>();
  readonly corrects = input<Mending | null>(null);
  readonly stored = output<SetupEvent[]>();
  readonly left = output();
  readonly words = signal('');
  readonly problem = signal<string | null>(null);
  readonly box = viewChild.required<ElementRef<HTMLTextAreaElement>>('note');

  constructor() {
    effect(() => {
      const c = this.corrects();
      if (!c) return;
      untracked(() => {
        const box = this.box().nativeElement;
        box.value = c.text;
        this.words.set(c.text);
        box.focus();
      });
    });
  }

  add(box: HTMLTextAreaElement, photo: HTMLInputElement): void {
    const body = noteBody.safeParse({
      id: v7(),
      text: box.value,
      happenedOn: this.#clock.today(),
      photo: photo.value,
      corrects: this.corrects()?.id ?? null,
    });
    if (!body.success)
      return this.problem.set(`Nothing stored. ${body.error.issues[0]?.message ?? ''}`);
    this.#data.addNote(this.setupId(), body.data).subscribe({
      next: (r) => {
        box.value = '';
        photo.value = '';
        this.words.set('');
        this.problem.set(null);
        this.stored.emit(r.items);
      },
      error: (e: ApiError) => this.problem.set(`Nothing stored. ${e.message}`),
    });
  }
}
