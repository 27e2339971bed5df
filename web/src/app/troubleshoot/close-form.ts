import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { type CauseId, type Outcome, OUTCOMES } from '@ruddy/core/base';
import { CAUSE_WORDS } from '@ruddy/core/troubleshoot/text';
import { OUTCOME_WORDS } from '../plan/record/outcome-form';
import { Choice } from '../platform/shared/choice';
import { TroubleStore } from './trouble-store';

/** The end of a search: solved, or kept unsolved with what was tried; the log learns of it when asked to. */
@Component({
  selector: 'rb-close-form',
  imports: [MatButtonModule, Choice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 id="close-h" tabindex="-1">{{ title() }}</h2>
    <article class="sheet">
      <p>{{ says() }}</p>
      <label
        >In words
        <input #words maxlength="300" autocomplete="off" />
      </label>
      <p id="log-l">Write it to the compatibility log as</p>
      <rb-choice
        label="Outcome for the log"
        [options]="outcomes"
        [value]="outcome()"
        (chosen)="outcome.set($any($event))"
      />
      <p class="hint">
        Nothing chosen: it stays on Record of this setup only, and its counts move the figures here.
      </p>
      @if (provisional()) {
        <label class="tick"
          ><input type="checkbox" #away checked (change)="retire.set(away.checked)" /> Put this
          setup aside: it was only made for the search</label
        >
      }
      <div class="actions">
        <button mat-flat-button type="button" class="tall" (click)="close(words.value)">
          {{ cause() ? 'Close it as solved' : 'Keep it unsolved' }}
        </button>
        <button mat-button type="button" class="tall" (click)="back.emit()">Go on looking</button>
        @if (!cause()) {
          <button mat-button type="button" class="tall" (click)="discard(words.value)">
            Discard it: begun by mistake
          </button>
        }
      </div>
    </article>
  `,
  styles: `
    article {
      padding: 16px;
      display: grid;
      gap: 12px;
      margin-top: 12px;
    }
    label:not(.tick) {
      display: grid;
      gap: 4px;
    }
    .actions {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
    .tall {
      min-height: 56px;
    }
  `,
})
export class CloseForm {
  readonly store = inject(TroubleStore);
  /** The cause it is solved by; null keeps it unsolved. */
  readonly cause = input<CauseId | null>(null);
  readonly back = output();
  readonly closed = output();
  readonly outcome = signal<Outcome | null>(null);
  readonly retire = signal(true);
  readonly outcomes = OUTCOMES.map((value) => ({ value, label: OUTCOME_WORDS[value] }));
  readonly provisional = computed(() => this.store.current()?.said !== null);
  readonly title = computed(() => (this.cause() ? 'Solved' : 'Keep it unsolved'));
  readonly says = computed(() => {
    const c = this.cause();
    return c
      ? `Solved by: ${CAUSE_WORDS[c].what}. What was seen, tried and mended stays on Record.`
      : 'What was seen and tried stays on Record, so that nobody tries it again. A workshop that knows more may find it later.';
  });

  /** It stays on record and counts nowhere. */
  discard(words: string): void {
    this.store.close(
      { outcome: 'discarded', cause: null, words: words.trim() },
      { retire: this.provisional() && this.retire() },
    );
    this.closed.emit();
  }

  close(words: string): void {
    const cause = this.cause();
    const outcome = this.outcome();
    this.store.close(
      { outcome: cause ? 'solved' : 'unsolved', cause, words: words.trim() },
      { log: outcome ? { id: v7(), outcome } : null, retire: this.provisional() && this.retire() },
    );
    this.closed.emit();
  }
}
