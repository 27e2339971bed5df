import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import {
  MatAutocompleteModule,
  type MatAutocompleteSelectedEvent,
} from '@angular/material/autocomplete';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatIconModule } from '@angular/material/icon';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import { catchError, debounceTime, map, of, Subject, switchMap } from 'rxjs';
import { findTerms, type Term } from '@ruddy/core/base/text';
import type { SearchHit } from '@ruddy/core/plan/contract';
import { ApiClient } from '../api/api-client';

/** Search over setups and parts, from any page. */
@Component({
  selector: 'rb-search-box',
  imports: [MatAutocompleteModule, MatFormFieldModule, MatIconModule, MatInputModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <mat-form-field>
      <mat-icon matPrefix svgIcon="search" />
      <input
        #box
        matInput
        type="search"
        placeholder="Search parts, setups"
        aria-label="Search parts and setups"
        [matAutocomplete]="auto"
        (input)="typed(box.value)"
        (keydown.escape)="box.blur()"
      />
    </mat-form-field>
    <mat-autocomplete #auto="matAutocomplete" [displayWith]="show" (optionSelected)="open($event)">
      @for (t of terms(); track t.id) {
        <mat-option [value]="t">
          {{ t.term }}
          <span class="hint">{{ t.means }}</span>
        </mat-option>
      }
      @for (h of hits(); track h.id) {
        <mat-option [value]="h">
          {{ h.name }}
          <span class="hint">{{ h.detail }}</span>
        </mat-option>
      }
      @if (asked() && hits().length === 0 && terms().length === 0) {
        <mat-option disabled>No match</mat-option>
      }
    </mat-autocomplete>
  `,
  styles: `
    mat-form-field {
      width: 100%;
    }
  `,
})
export class SearchBox {
  readonly #api = inject(ApiClient);
  readonly #router = inject(Router);
  readonly #words = new Subject<string>();
  readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');
  readonly asked = signal(false);
  /** Words of the trade that begin so, whatever others call them. */
  readonly terms = signal<Term[]>([]);
  readonly hits = toSignal(
    this.#words.pipe(
      debounceTime(150),
      switchMap((q) =>
        q === ''
          ? of([])
          : this.#api.call('GET /api/search', { query: { q } }).pipe(
              map((r) => r.items),
              catchError(() => of([])),
            ),
      ),
      takeUntilDestroyed(),
    ),
    { initialValue: [] as SearchHit[] },
  );

  typed(words: string): void {
    const w = words.trim().toLowerCase();
    const names = (t: Term) => [t.term, ...t.also].map((n) => n.toLowerCase());
    this.terms.set(
      w.length < 2
        ? []
        : findTerms(w)
            .filter((t) => names(t).some((n) => n.startsWith(w)))
            .slice(0, 2),
    );
    this.asked.set(words.trim() !== '');
    this.#words.next(words.trim());
  }

  focus(): void {
    this.box().nativeElement.focus();
  }

  readonly show = (h: SearchHit | Term | string): string => (typeof h === 'string' ? h : '');

  open(e: MatAutocompleteSelectedEvent): void {
    const hit = e.option.value as SearchHit | Term;
    this.box().nativeElement.value = '';
    this.typed('');
    if ('means' in hit) void this.#router.navigate(['/glossary'], { queryParams: { q: hit.term } });
    else
      void this.#router.navigateByUrl(
        hit.kind === 'setup' ? `/setups/${hit.id}/plan` : `/parts/${hit.kind}/${hit.id}`,
      );
  }
}
