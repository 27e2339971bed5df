import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { catchError, of } from 'rxjs';
import type { PieceElsewhere } from '@ruddy/core/workshop/contract';
import { LoansData } from './people';
import { SetupEditor } from '../setups/setup-editor';

/** Items of this setup that are somewhere else as well: in another live setup, or lent for something else. */
@Component({
  selector: 'rb-items-elsewhere',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (p of items(); track p.place) {
      @if (p.liveIn.length > 0) {
        <p class="problem">
          {{ p.label }} stands in
          @for (s of p.liveIn; track s.id; let last = $last) {
            <a [routerLink]="['/setups', s.id, 'plan']">{{ s.name }}</a>{{ last ? '' : ', ' }}
          }
          too, which is active: one item cannot be in two places.
        </p>
      }
      @if (p.lent; as l) {
        @if (!l.here) {
          <p>
            {{ p.label }} is with {{ l.member }}{{ l.setup ? ', for ' + l.setup : '' }}:
            <a routerLink="/workshop/loans">loans</a>
          </p>
        }
      }
    }
  `,
})
export class ItemsElsewhere {
  readonly #loans = inject(LoansData);
  readonly #editor = inject(SetupEditor);
  readonly items = signal<readonly PieceElsewhere[]>([]);
  /** What the question hangs on, as it is stored: the setup, its state, the items it names. */
  readonly #asked = computed(() => {
    const s = this.#editor.stored();
    return s ? JSON.stringify([s.id, s.state, s.slots.items]) : null;
  });

  constructor() {
    effect(() => {
      if (this.#asked() === null) return;
      const id = untracked(() => this.#editor.stored())?.id;
      // What cannot be read is left out; the plan stands without it.
      if (id)
        this.#loans
          .elsewhere(id)
          .pipe(catchError(() => of({ items: [] })))
          .subscribe(({ items }) => this.items.set(items));
    });
  }
}
