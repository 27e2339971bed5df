import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { StatedFigureEntry } from '@ruddy/core/runs/contract';
import { statedFigureText } from '@ruddy/core/runs/text';
import { Confirm } from '../platform/kit/confirm';
import { day } from '../platform/shared/format';
import { StatedStore } from './stated-store';

/** Figures that people stated with this setup, or of titles it runs; each can be removed. */
@Component({
  selector: 'rb-stated-list',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (store.problem(); as why) {
      <p class="problem" role="alert">{{ why }}</p>
    }
    @if (figures().length > 0) {
      <h3>Stated figures {{ figures().length }}</h3>
      <ul>
        @for (f of figures(); track f.id) {
          <li>
            <strong>{{ f.title }}</strong>, {{ f.words }}
            <span class="hint">{{ f.from }}</span>
            <button
              mat-button
              type="button"
              [attr.aria-label]="'Remove ' + f.title + ', ' + f.words"
              (click)="remove(f.entry)"
            >
              Remove
            </button>
          </li>
        }
      </ul>
    }
  `,
  styles: `
    ul {
      list-style: none;
      padding: 0;
      display: grid;
      gap: 4px;
    }
  `,
})
export class StatedList {
  readonly #confirm = inject(Confirm);
  readonly store = inject(StatedStore);
  readonly figures = computed(() =>
    this.store.figures().map((entry) => ({
      id: entry.id,
      entry,
      title: entry.title,
      words: statedFigureText(entry),
      from: [day(entry.at), entry.note].filter((s) => s !== '').join(', '),
    })),
  );

  remove(entry: StatedFigureEntry): void {
    this.#confirm.before(
      {
        title: `Remove the stated figure of ${entry.title}?`,
        loses: `${statedFigureText(entry)}.`,
        more: 'Forecasts no longer rest on it.',
        act: 'Remove',
      },
      () => this.store.remove(entry.id),
    );
  }
}
