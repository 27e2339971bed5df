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
import { CAUTION_TEXTS } from '@ruddy/core/bring-up/text';
import { ITEM_CONDITIONS } from '@ruddy/core/parts';
import { cameBackWorse, canBeLent, readyForNext, RETURN_LOOKS } from '@ruddy/core/workshop';
import type { LoanRow } from '@ruddy/core/workshop/contract';
import { afterReturn, TESTED_WORDS } from '@ruddy/core/workshop/text';
import type { ApiError } from '../platform/api/api-client';
import { LoansData, type BackSaid } from './people';
import { ServerClock } from '../platform/shared/server-clock';

type Condition = NonNullable<BackSaid['condition']>;

/** Three steps when a piece comes back: all here, how it looks, whether it works. */
@Component({
  selector: 'rb-return-check',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './return-check.html',
  styleUrl: './people.scss',
})
export class ReturnCheck {
  readonly #loans = inject(LoansData);
  readonly #clock = inject(ServerClock);
  readonly loan = input.required<LoanRow>();
  readonly returned = output<LoanRow>();
  readonly closed = output();
  readonly here = signal<ReadonlySet<string>>(new Set());
  readonly condition = signal<Condition | ''>('');
  readonly tested = signal<BackSaid['tested'] | ''>('');
  readonly problem = signal<string | null>(null);
  /** One command per opening: sent twice it is stored once. */
  readonly #id = v7();
  readonly conditions = Object.entries(ITEM_CONDITIONS) as [Condition, string][];
  readonly results = Object.entries(TESTED_WORDS) as [BackSaid['tested'], string][];
  readonly today = computed(() => this.#clock.today());
  readonly missing = computed(() => this.loan().along.filter((x) => !this.here().has(x)));
  readonly looks = computed(() => {
    const { kind } = this.loan();
    return canBeLent(kind) ? RETURN_LOOKS[kind] : null;
  });
  readonly caution = computed(() => {
    const l = this.looks();
    return l ? CAUTION_TEXTS[l.caution] : '';
  });
  readonly worse = computed(
    () => cameBackWorse(this.loan().conditionOut, this.condition() || null) === true,
  );
  readonly then = computed(() => {
    const tested = this.tested();
    if (tested === '') return '';
    const said = { missing: this.missing(), condition: this.condition() || null, tested };
    return afterReturn(readyForNext(said), this.loan().next[0]?.member ?? null);
  });

  tick(what: string, on: boolean): void {
    this.here.update((all) => {
      const next = new Set(all);
      if (on) next.add(what);
      else next.delete(what);
      return next;
    });
  }

  store(returnedOn: string, looks: string, testWords: string): void {
    const tested = this.tested();
    if (tested === '') {
      this.problem.set('Nothing stored. Step 3: say whether it works, fails, or was not tried');
      return;
    }
    const body = {
      id: this.#id,
      returnedOn,
      missing: this.missing(),
      condition: this.condition() || null,
      looks: looks.trim(),
      tested,
      testWords: testWords.trim(),
    };
    this.problem.set(null);
    this.#loans.back(this.loan().id, body, this.loan().rev).subscribe({
      next: (l) => this.returned.emit(l),
      error: (e: ApiError) => this.problem.set(`Nothing stored. ${e.message}`),
    });
  }
}
