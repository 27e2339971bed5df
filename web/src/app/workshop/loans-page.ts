import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import {
  byUrgency,
  cameBackWorse,
  doublyUsed,
  loanState,
  readyForNext,
} from '@ruddy/core/workshop';
import type { Lendable, LoanRow } from '@ruddy/core/workshop/contract';
import { afterReturn, dueWords, loansHeadline, TESTED_WORDS } from '@ruddy/core/workshop/text';
import { LoansData } from './people';
import { Session } from '../platform/api/session';
import { day } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { LendForm } from './lend-form';
import { LoanCard } from './loan-card';
import { ReturnCheck } from './return-check';
import { WorkshopNav } from './workshop-nav';
import { Fold } from '../platform/kit/fold';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import type { ShortColumn } from '../platform/kit/columns';
import { Acts, ask, State, valueOf } from '../platform/kit/ask';

/** The form for a loan, the check of a return, or the card. */
interface Beside {
  readonly what: 'lend' | 'back' | 'card';
  readonly loan: LoanRow | null;
}

/** What is out, with whom and until when; who waits; what came back and how. */
@Component({
  imports: [
    State,
    Field,
    Cell,
    Rows,
    Fold,
    WorkshopNav,
    MatButtonModule,
    RouterLink,
    LendForm,
    ReturnCheck,
    LoanCard,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './loans-page.html',
  styleUrl: './loans-page.scss',
})
export class LoansPage {
  readonly loansPageColumns: readonly ShortColumn[] = [
    { key: 'tag', name: 'Tag' },
    { key: 'part', name: 'Part' },
    { key: 'with', name: 'With' },
    { key: 'since', name: 'Since' },
    { key: 'due', name: 'Due' },
    { key: 'wentOut', name: 'Went out' },
    { key: 'next', name: 'Next' },
    { key: 'do', name: 'Do', silent: true },
  ];
  readonly whatCameBackColumns: readonly ShortColumn[] = [
    { key: 'tag', name: 'Tag' },
    { key: 'from', name: 'From' },
    { key: 'out', name: 'Out' },
    { key: 'back', name: 'Back' },
    { key: 'condition', name: 'Condition' },
    { key: 'missing', name: 'Missing' },
    { key: 'tried', name: 'Tried' },
  ];
  readonly #acts = inject(Acts);
  readonly #data = inject(LoansData);
  readonly #clock = inject(ServerClock);
  readonly session = inject(Session);
  readonly askedOpen = ask(() => this.#data.list('open'));
  readonly askedBack = ask(() => this.#data.list('back'));
  readonly askedItems = ask(() => this.#data.items());
  readonly open = computed(() => valueOf(this.askedOpen)?.items ?? null);
  readonly back = computed(() => valueOf(this.askedBack)?.items ?? []);
  readonly items = computed(() => valueOf(this.askedItems)?.items ?? []);
  readonly problem = signal<string | null>(null);
  readonly said = signal<string | null>(null);
  readonly #opened = signal<Beside | null>(null);
  /** What is open beside the table. A return is checked with the loan as the list has it now: who waits may have come since. */
  readonly beside = computed((): Beside | null => {
    const opened = this.#opened();
    if (opened?.what !== 'back') return opened;
    const now = this.open()?.find((l) => l.id === opened.loan?.id);
    return now ? { ...opened, loan: now } : opened;
  });
  readonly dueMeta: FieldMeta = { label: 'Due date', input: 'day', placeholder: 'not set' };
  readonly day = day;
  readonly tested = TESTED_WORDS;
  readonly today = computed(() => this.#clock.today());
  readonly sorted = computed(() => byUrgency(this.open() ?? [], this.today()));
  readonly doubly = computed(() => doublyUsed(this.items()));
  readonly headline = computed(() =>
    this.open() ? loansHeadline(this.open() ?? [], this.today()) : 'Reading the loans …',
  );

  late(l: LoanRow): boolean {
    return loanState(l, this.today()) === 'late';
  }
  due(l: LoanRow): string {
    return dueWords(l, this.today());
  }
  since(l: LoanRow): string {
    return l.fromOn === null ? `waits since ${day(l.askedOn)}` : day(l.fromOn);
  }
  next(l: LoanRow): string {
    return l.next.map((n) => n.member).join(', then ') || '–';
  }
  names(p: Lendable): string {
    return p.liveIn.map((s) => s.name).join(' and ');
  }
  backWords(l: LoanRow): string {
    const b = l.back;
    if (!b) return '';
    const worse = cameBackWorse(l.conditionOut, b.condition) ? ', worse than it went out' : '';
    const looks = b.looks ? `: ${b.looks}` : '';
    return `${b.condition ?? 'condition not set'}${worse}${looks}`;
  }

  close(): void {
    this.#opened.set(null);
  }

  show(what: Beside['what'], loan: LoanRow | null): void {
    this.problem.set(null);
    this.said.set(null);
    this.#opened.set({ what, loan });
  }

  lent(l: LoanRow): void {
    this.said.set(
      l.fromOn === null
        ? `${l.member} waits for ${l.label}.`
        : `${l.label} is with ${l.member}. Its card can be printed.`,
    );
    this.#opened.set(l.fromOn === null ? null : { what: 'card', loan: l });
    this.load();
  }

  returned(l: LoanRow): void {
    this.#opened.set(null);
    if (l.back)
      this.said.set(
        `${l.label} is back. ${afterReturn(readyForNext(l.back), l.next[0]?.member ?? null)}`,
      );
    this.load();
  }

  move(l: LoanRow, dueOn: string | null): void {
    this.#do(
      this.#data.change(l.id, { dueOn }, l.rev),
      () => `${l.label}: ${dueOn ? `due ${day(dueOn)}` : 'not set'}.`,
    );
  }
  letGo(l: LoanRow): void {
    this.#do(
      this.#data.change(l.id, { withdrawn: true }, l.rev),
      () => `${l.member} waits no longer for ${l.label}.`,
    );
  }

  #do(call: ReturnType<LoansData['change']>, words: () => string): void {
    this.#acts.run(call, {
      line: this.problem,
      then: () => {
        this.said.set(words());
        this.load();
      },
      otherwise: () => this.load(),
    });
  }

  load(): void {
    for (const asked of [this.askedOpen, this.askedBack, this.askedItems]) asked.reload();
  }
}
