import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { ruleProblem } from '@ruddy/core/base';
import type { RuleRow } from '@ruddy/core/plan/contract';
import type { ApiError } from '../platform/api/api-client';
import { HouseRulesData } from '../setups/house-rules';
import { pluralize, readNumber } from '../platform/shared/format';
import { WorkshopNav } from './workshop-nav';

/** Every number that a workshop may see differently: default, own value, unit, reason. */
@Component({
  imports: [WorkshopNav, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './rules-page.html',
  styleUrl: './rules-page.scss',
})
export class RulesPage {
  readonly #data = inject(HouseRulesData);
  readonly rows = signal<RuleRow[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly errors = signal<Readonly<Record<string, string>>>({});
  readonly said = signal<string | null>(null);
  readonly headline = computed(() => {
    const rows = this.rows();
    if (!rows) return 'Reading the rules …';
    const own = rows.filter((r) => r.value !== null).length;
    return own === 0
      ? `${rows.length} rules, all at their default.`
      : `${own} of ${pluralize(rows.length, 'rule')} set by this workshop.`;
  });

  constructor() {
    this.#load();
  }

  save(r: RuleRow, valueText: string, reason: string): void {
    const read = readNumber(valueText);
    const wrong = !read.ok
      ? `${r.label}: ${read.why}`
      : read.value === null
        ? `${r.label}: a number, or Back to the default`
        : ruleProblem(r.id, read.value);
    if (wrong || !read.ok) {
      this.#wrong(r.id, `Nothing stored. ${wrong ?? ''}`);
      return;
    }
    if (reason.trim() === '') {
      this.#wrong(r.id, 'Nothing stored. Reason: say why this differs from the default');
      return;
    }
    this.#put(r, read.value, reason);
  }

  reset(r: RuleRow): void {
    this.#put(r, null, '');
  }

  #put(r: RuleRow, value: number | null, reason: string): void {
    this.#data.putRule(r.id, { value, reason }, r.rev).subscribe({
      next: (row) => {
        this.errors.set({});
        this.rows.update((rows) => rows?.map((x) => (x.id === row.id ? row : x)) ?? null);
        this.said.set(
          value === null
            ? `${r.label}: back to the default ${r.default} ${r.unit}.`
            : `${r.label}: ${value} ${r.unit} from now on.`,
        );
      },
      error: (e: ApiError) => {
        this.#wrong(
          r.id,
          e.code === 'stale-revision'
            ? 'Nothing stored: this rule was changed elsewhere; the stored value is shown now.'
            : `Nothing stored. ${e.message}`,
        );
        if (e.code === 'stale-revision') this.#load();
      },
    });
  }

  #wrong(id: string, why: string): void {
    this.said.set(null);
    this.errors.set({ [id]: why });
  }

  #load(): void {
    this.#data.rules().subscribe({
      next: (r) => this.rows.set(r.items),
      error: (e: ApiError) => this.problem.set(e.message),
    });
  }
}
