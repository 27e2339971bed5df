import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FormControl, FormGroup, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { ITEM_CONDITIONS } from '@ruddy/core/parts';
import { VERDICT_LABELS } from '@ruddy/core/plan/text';
import { canBeLent, RETURN_LOOKS } from '@ruddy/core/workshop';
import type { ChainCheck, Lendable, LoanRow } from '@ruddy/core/workshop/contract';
import { LoansData, MembersData, type Lending } from './people';
import { SetupsData } from '../setups/setups';
import { ServerClock } from '../platform/shared/server-clock';
import { Field } from '../platform/kit/field';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';
import { Acts, ask, State, valueOf } from '../platform/kit/ask';

type Condition = NonNullable<Lending['condition']>;

/** Lend an item, or hand over what was waited for: to whom, for which chain, what goes along. The chain is judged before it leaves. */
@Component({
  selector: 'rb-lend-form',
  imports: [Field, MatButtonModule, State],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './lend-form.html',
  styleUrl: './people.scss',
})
export class LendForm {
  readonly #acts = inject(Acts);
  readonly #loans = inject(LoansData);
  readonly #clock = inject(ServerClock);
  readonly items = input.required<readonly Lendable[]>();
  /** The wish that is fulfilled; null: a new loan. */
  readonly loan = input<LoanRow | null>(null);
  readonly lent = output<LoanRow>();
  readonly closed = output();
  readonly #members = inject(MembersData);
  readonly #setups = inject(SetupsData);
  readonly askedMembers = ask(() => this.#members.list());
  readonly askedSetups = ask(() => this.#setups.list({ limit: 500 }));
  readonly members = computed(() =>
    (valueOf(this.askedMembers)?.items ?? []).filter((m) => m.active && !m.builtIn),
  );
  readonly setups = computed(() => valueOf(this.askedSetups)?.items ?? []);
  readonly itemId = signal('');
  readonly memberId = signal('');
  readonly setupId = signal('');
  readonly out = new FormGroup({
    fromOn: new FormControl<string | null>(this.#clock.today(), Validators.required),
    dueOn: new FormControl<string | null>(null),
    condition: new FormControl<Condition | null>(null),
    along: new FormControl<string[]>([], { nonNullable: true }),
    note: new FormControl('', { nonNullable: true }),
  });
  /** Asks once whether it goes out without a due date. */
  readonly asks = signal<string | null>(null);
  readonly details: readonly (readonly [FieldMeta, FormControl])[] = [
    [{ label: 'Out on', input: 'day' }, this.out.controls.fromOn],
    [{ label: 'Due', input: 'day', placeholder: 'no due date' }, this.out.controls.dueOn],
    [
      {
        label: 'Condition',
        input: 'choice',
        placeholder: 'not set',
        options: optionsOf(ITEM_CONDITIONS),
      },
      this.out.controls.condition,
    ],
    [{ label: 'Accessories', input: 'lines' }, this.out.controls.along],
    [{ label: 'Note', input: 'text', max: 400 }, this.out.controls.note],
  ];
  readonly itemMeta = computed<FieldMeta>(() => ({
    label: 'Item',
    input: 'choice',
    options: this.items().map((p) => ({
      value: p.id,
      label: `${p.label}, ${p.part}${p.with ? `, with ${p.with}` : ''}`,
    })),
  }));
  readonly memberMeta = computed<FieldMeta>(() => ({
    label: 'Member',
    input: 'choice',
    options: this.members().map((m) => ({ value: m.id, label: m.name })),
  }));
  readonly setupMeta = computed<FieldMeta>(() => ({
    label: 'For the setup',
    input: 'choice',
    placeholder: 'none',
    options: this.setups().map((x) => ({ value: x.id, label: x.name })),
  }));
  readonly check = signal<ChainCheck | null>(null);
  readonly checking = signal(false);
  readonly problem = signal<string | null>(null);
  readonly verdicts = VERDICT_LABELS;
  readonly item = computed(() => this.items().find((p) => p.id === this.itemId()) ?? null);
  /** It is with somebody: then one can only wait for it. */
  readonly away = computed(() => this.item()?.with ?? null);
  readonly today = computed(() => this.#clock.today());
  readonly heading = computed(() => {
    const l = this.loan();
    return l ? `Hand ${l.label} to ${l.member}` : 'Lend an item';
  });

  constructor() {
    effect(() => {
      const l = this.loan();
      if (!l) return;
      untracked(() => {
        this.memberId.set(l.memberId);
        this.choose(l.itemId);
        this.for(l.setup?.id ?? '');
      });
    });
  }

  choose(id: string): void {
    this.itemId.set(id);
    const p = this.items().find((x) => x.id === id);
    this.out.patchValue({
      condition: p?.condition ?? null,
      along: p && canBeLent(p.kind) ? [...RETURN_LOOKS[p.kind].along] : [],
    });
    this.#look();
  }

  for(id: string): void {
    this.setupId.set(id);
    this.#look();
  }

  /** The chain of the borrower, with the item in it: judged at once. */
  #look(): void {
    const item = this.itemId();
    const setup = this.setupId();
    this.check.set(null);
    if (!item || !setup) return;
    this.checking.set(true);
    this.#acts.read(this.#loans.check(item, setup), {
      line: this.problem,
      failed: 'Not judged.',
      otherwise: () => this.checking.set(false),
      then: (c) => {
        // An answer to what is no longer asked says nothing.
        if (item !== this.itemId() || setup !== this.setupId()) return;
        this.checking.set(false);
        this.check.set(c);
      },
    });
  }

  store(now: boolean): void {
    const item = this.item();
    this.problem.set(null);
    if (!item || !this.memberId())
      return this.problem.set(`Not saved. Choose ${item ? 'a member' : 'an item'}.`);
    const { fromOn, dueOn, condition, along, note } = this.out.getRawValue();
    if (now && (!this.out.valid || fromOn === null))
      return this.problem.set('Not saved. See the marked fields.');
    if (now && dueOn === null && this.asks() === null)
      return this.asks.set('No due date: it is never late. Lend it so?');
    const after = this.check()?.after;
    const out: Lending = {
      fromOn: fromOn ?? this.today(),
      dueOn,
      condition,
      along,
      note: note.trim(),
      checked: after ? { verdict: after.verdict, sentence: after.sentence.slice(0, 400) } : null,
    };
    const l = this.loan();
    const setupId = this.setupId() || null;
    const call = l
      ? this.#loans.change(l.id, { out }, l.rev)
      : this.#loans.add({
          id: v7(),
          itemId: item.id,
          memberId: this.memberId(),
          setupId,
          out: now ? out : null,
        });
    this.#acts.run(call, { line: this.problem, then: (row) => this.lent.emit(row) });
  }
}
