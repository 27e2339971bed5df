import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { v7 } from 'uuid';
import type { PracticeBody, PracticeList as Listed, PracticeRow } from '@ruddy/core/bench/contract';
import { CASE_GRADES } from '@ruddy/core/bench/text';
import type { SetupRow } from '@ruddy/core/plan/contract';
import { CAUSE_WORDS, SYMPTOM_WORDS } from '@ruddy/core/troubleshoot/text';
import type { ApiError } from '../../platform/api/api-client';
import { SetupsData } from '../../setups/setups';
import { TroubleData } from '../../troubleshoot/trouble';
import { pluralize, day, readNumber } from '../../platform/shared/format';

/** Practice: graded cases, a fault hidden at random, and what was practised so far. */
@Component({
  selector: 'rb-practice-list',
  imports: [MatButtonModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './practice-list.html',
  styleUrl: './practice-list.scss',
})
export class PracticeList {
  readonly #data = inject(TroubleData);
  readonly #setups = inject(SetupsData);
  readonly #router = inject(Router);
  readonly listed = signal<Listed | null>(null);
  readonly setups = signal<readonly SetupRow[]>([]);
  readonly problem = signal<string | null>(null);
  readonly busy = signal(false);
  readonly grades = CASE_GRADES;
  readonly symptoms = SYMPTOM_WORDS;
  readonly causes = CAUSE_WORDS;
  readonly day = day;
  readonly counted = pluralize;
  readonly headline = computed(() => {
    const l = this.listed();
    if (!l) return 'Reading what was practised …';
    const over = l.items.filter((p) => p.right !== null);
    const right = over.filter((p) => p.right === true).length;
    const open = l.items.length - over.length;
    return `Find a hidden fault: ${l.cases.length} graded cases, or one at random. ${right} of ${over.length} found so far${open > 0 ? `, ${open} open` : ''}.`;
  });
  /** The cases with how each went best. */
  readonly cases = computed(() =>
    (this.listed()?.cases ?? []).map((c) => {
      const tries = this.listed()?.items.filter((p) => p.caseNo === c.no && p.right !== null) ?? [];
      const right = tries.filter((p) => p.right);
      const best = right.reduce<PracticeRow | null>(
        (a, p) => (a && a.minutes <= p.minutes ? a : p),
        null,
      );
      const words = best
        ? `found in ${pluralize(best.steps.length, 'step')}, ${pluralize(best.minutes, 'minute')}; best path ${best.bestMinutes ?? 0}`
        : tries.length > 0
          ? `${pluralize(tries.length, 'try', 'tries')}, not found yet`
          : 'not tried yet';
      return { ...c, words };
    }),
  );

  constructor() {
    this.#load();
    this.#setups.list({}).subscribe({
      next: ({ items }) => this.setups.set(items),
      error: (e: ApiError) => this.problem.set(`Your setups were not read: ${e.message}`),
    });
  }

  begin(body: Partial<PracticeBody>): void {
    if (this.busy()) return;
    this.busy.set(true);
    const id = v7();
    this.#data.begin({ id, ...body }).subscribe({
      next: () => void this.#router.navigateByUrl(`/bench/practice/${id}`),
      error: (e: ApiError) => {
        this.busy.set(false);
        this.problem.set(`Nothing hidden: ${e.message}`);
      },
    });
  }

  random(setupId: string, seed: string, two: boolean): void {
    const read = readNumber(seed);
    if (
      !read.ok ||
      (read.value !== null &&
        (!Number.isInteger(read.value) || read.value < 0 || read.value > 999_999))
    )
      return this.problem.set('Nothing hidden. Seed: a whole number from 0 to 999999, or nothing.');
    this.begin({ setupId: setupId || null, seed: read.value, two });
  }

  remove(p: PracticeRow): void {
    this.#data.remove(p.id).subscribe({
      next: () => this.#load(),
      error: (e: ApiError) => this.problem.set(`Not taken off: ${e.message}`),
    });
  }

  words(p: PracticeRow): string {
    if (p.right === null) return `open, ${pluralize(p.steps.length, 'step')} so far`;
    const best = `best path ${pluralize(p.bestMinutes ?? 0, 'minute')}`;
    return `${p.right ? 'found' : 'not found'}: ${pluralize(p.steps.length, 'step')}, ${pluralize(p.minutes, 'minute')}; ${best}`;
  }

  #load(): void {
    this.#data.practices().subscribe({
      next: (l) => this.listed.set(l),
      error: (e: ApiError) => this.problem.set(`What was practised was not read: ${e.message}`),
    });
  }
}
