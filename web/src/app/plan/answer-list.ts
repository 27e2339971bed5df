import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { OpenQuestion } from '@ruddy/core/plan';
import { AnswerCard } from './answer-card';
import type { AnswerTarget } from './answer-target';

/** So many questions are open at once. */
const FIRST = 4;

/** Questions about a chain, what decides first, each answered where it stands. The first are open; the others wait until they are asked for. */
@Component({
  selector: 'rb-answer-list',
  imports: [AnswerCard, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (q of asked(); track q.path) {
      <rb-answer-card [question]="q" [target]="target()" />
    }
    @if (questions().length > asked().length) {
      <button mat-stroked-button type="button" (click)="every.set(true)">
        Show all {{ questions().length }} questions
      </button>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
  `,
})
export class AnswerList {
  readonly questions = input.required<readonly OpenQuestion[]>();
  /** What they are about; the setup of this page where nothing is said. */
  readonly target = input<AnswerTarget | null>(null);
  readonly every = signal(false);
  readonly asked = computed(() =>
    this.every() ? this.questions() : this.questions().slice(0, FIRST),
  );
}
