import { ChangeDetectionStrategy, Component, computed, effect, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { Router, RouterLink } from '@angular/router';
import { PROVENANCE_LABELS, VERSION_LABELS, type OutcomeEntry } from '@ruddy/core/api';
import { OUTCOMES } from '@ruddy/core/log';
import { PagedList } from '../data/paged-list';
import { SetupsData, type OutcomeFilter } from '../data/setups';
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
  readonly q = input('', { transform: orEmpty });
  readonly outcome = input('', { transform: orEmpty });
  readonly newest = input('', { transform: orEmpty });
  readonly outcomes = OUTCOMES;
  readonly words = OUTCOME_WORDS;
  readonly provenance = PROVENANCE_LABELS;
  readonly list = new PagedList<OutcomeEntry, OutcomeFilter>((f) => this.#data.outcomes(f));
  readonly rows = this.list.rows;
  readonly day = day;
  readonly headline = computed(() => {
    const rows = this.rows();
    if (!rows) return 'Reading the log …';
    const good = rows.filter((r) => r.outcome === 'works' || r.outcome === 'care').length;
    const more = this.list.next() ? ' so far; there are more' : '';
    return rows.length === 0
      ? '0 outcomes fit.'
      : `${counted(rows.length, 'outcome')}${more}: ${good} worked, ${rows.length - good} did not.`;
  });

  constructor() {
    effect(() => this.list.load({ q: this.q(), outcome: this.outcome(), newest: this.newest() === '1' }));
  }

  filter(query: Record<string, string | null>): void {
    void this.#router.navigate([], { queryParams: query, queryParamsHandling: 'merge', replaceUrl: true });
  }

  versions(e: OutcomeEntry): string {
    return (Object.keys(VERSION_LABELS) as (keyof typeof VERSION_LABELS)[])
      .flatMap((k) => (e.versions[k] ? [`${VERSION_LABELS[k].toLowerCase()} ${e.versions[k]}`] : []))
      .join(', ');
  }

  status(e: OutcomeEntry): string {
    return e.correctedBy ? 'corrected' : e.superseded ? 'older versions' : 'stands';
  }
}
