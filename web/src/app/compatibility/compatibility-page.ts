import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { Router, RouterLink } from '@angular/router';
import { catchError, debounceTime, of, Subject, switchMap } from 'rxjs';
import { PROVENANCE_LABELS, VERSION_LABELS, type OutcomeEntry } from '@ruddy/core/api';
import { OUTCOMES } from '@ruddy/core/log';
import type { ApiProblem } from '../data/api';
import { SetupsData } from '../data/setups';
import { OUTCOME_WORDS } from '../record/outcome-form';
import { counted, day, orEmpty } from '../shared/format';

/** The compatibility log as a plain list: what was connected, under which versions, and what happened. */
@Component({
  imports: [RouterLink, MatButtonModule, MatCheckboxModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './compatibility-page.html',
  styleUrl: './compatibility-page.scss',
})
export class CompatibilityPage {
  readonly #data = inject(SetupsData);
  readonly #router = inject(Router);
  readonly #reload = new Subject<{ q: string; outcome: string; newest: boolean }>();
  readonly q = input('', { transform: orEmpty });
  readonly outcome = input('', { transform: orEmpty });
  readonly newest = input('', { transform: orEmpty });
  readonly outcomes = OUTCOMES;
  readonly words = OUTCOME_WORDS;
  readonly provenance = PROVENANCE_LABELS;
  readonly rows = signal<OutcomeEntry[] | null>(null);
  readonly next = signal<string | null>(null);
  readonly problem = signal<string | null>(null);
  readonly day = day;
  readonly headline = computed(() => {
    const rows = this.rows();
    if (!rows) return 'Reading the log …';
    const good = rows.filter((r) => r.outcome === 'works' || r.outcome === 'care').length;
    const more = this.next() ? ' so far; there are more' : '';
    return rows.length === 0
      ? '0 outcomes fit.'
      : `${counted(rows.length, 'outcome')}${more}: ${good} worked, ${rows.length - good} did not.`;
  });

  constructor() {
    this.#reload
      .pipe(
        debounceTime(120),
        switchMap((f) =>
          this.#data.outcomes(f).pipe(
            catchError((e: ApiProblem) => {
              this.problem.set(e.message);
              return of(null);
            }),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((page) => {
        if (!page) return;
        this.problem.set(null);
        this.rows.set(page.items);
        this.next.set(page.next);
      });
    effect(() => this.#reload.next(this.#filter()));
  }

  filter(query: Record<string, string | null>): void {
    void this.#router.navigate([], { queryParams: query, queryParamsHandling: 'merge', replaceUrl: true });
  }

  more(): void {
    const cursor = this.next();
    if (!cursor) return;
    this.#data.outcomes({ ...this.#filter(), cursor }).subscribe({
      next: (page) => {
        this.rows.update((r) => [...(r ?? []), ...page.items]);
        this.next.set(page.next);
      },
      error: (e: ApiProblem) => this.problem.set(e.message),
    });
  }

  versions(e: OutcomeEntry): string {
    return (Object.keys(VERSION_LABELS) as (keyof typeof VERSION_LABELS)[])
      .flatMap((k) => (e.versions[k] ? [`${VERSION_LABELS[k].toLowerCase()} ${e.versions[k]}`] : []))
      .join(', ');
  }

  status(e: OutcomeEntry): string {
    return e.correctedBy ? 'corrected' : e.superseded ? 'older versions' : 'stands';
  }

  #filter(): { q: string; outcome: string; newest: boolean } {
    return { q: this.q(), outcome: this.outcome(), newest: this.newest() === '1' };
  }
}
