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
import { Choice } from '../platform/kit/choice';
import { TroubleStore } from './trouble-store';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';

/** The end of a search: solved, or kept unsolved with what was tried; the log learns of it when asked to. */
@Component({
  selector: 'rb-close-form',
  imports: [Choice, Field, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 id="close-h" tabindex="-1">{{ title() }}</h2>
    <article class="sheet">
      <p>{{ says() }}</p>
      <rb-field [meta]="wordsMeta" [live]="true" [value]="words()" (changed)="words.set($event)" />
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
        <rb-field [meta]="asideMeta" [value]="retire()" (changed)="retire.set($event)" />
      }
      <div class="actions">
        <button mat-flat-button type="button" class="tall" (click)="close(words())">
          {{ cause() ? 'Close it as solved' : 'Keep it unsolved' }}
        </button>
        <button mat-button type="button" class="tall" (click)="back.emit()">Go on looking</button>
        @if (!cause()) {
          <button mat-button type="button" class="tall" (click)="discard(words())">
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
  readonly words = signal('');
  readonly wordsMeta: FieldMeta = { label: 'In words', input: 'text', max: 300 };
  readonly asideMeta: FieldMeta = {
    label: 'Archive this setup: it was only made for the search',
    input: 'flag',
  };
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
