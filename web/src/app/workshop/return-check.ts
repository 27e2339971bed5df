import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormControl, FormGroup, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { CAUTION_TEXTS } from '@ruddy/core/bring-up/text';
import { ITEM_CONDITIONS } from '@ruddy/core/parts';
import { cameBackWorse, canBeLent, readyForNext, RETURN_LOOKS } from '@ruddy/core/workshop';
import type { LoanRow } from '@ruddy/core/workshop/contract';
import { afterReturn, TESTED_WORDS } from '@ruddy/core/workshop/text';
import { Acts } from '../platform/kit/ask';
import { readyToSend } from '../platform/kit/problems';
import { LoansData, type BackSaid } from './people';
import { ServerClock } from '../platform/shared/server-clock';
import { Field } from '../platform/kit/field';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';
import { MatCheckboxModule } from '@angular/material/checkbox';

type Condition = NonNullable<BackSaid['condition']>;

/** Three steps when an item comes back: all here, how it looks, whether it works. */
@Component({
  selector: 'rb-return-check',
  imports: [MatCheckboxModule, Field, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './return-check.html',
  styleUrl: './people.scss',
})
export class ReturnCheck {
  readonly #loans = inject(LoansData);
  readonly #acts = inject(Acts);
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly #clock = inject(ServerClock);
  readonly loan = input.required<LoanRow>();
  readonly returned = output<LoanRow>();
  readonly closed = output();
  readonly here = signal<ReadonlySet<string>>(new Set());
  readonly form = new FormGroup({
    on: new FormControl<string | null>(this.#clock.today(), Validators.required),
    condition: new FormControl<Condition | null>(null),
    looks: new FormControl('', { nonNullable: true }),
    tested: new FormControl<BackSaid['tested'] | null>(null, {
      validators: (c) =>
        c.value === null ? { limits: 'Choose whether it works, fails, or was not tried' } : null,
    }),
    seen: new FormControl('', { nonNullable: true }),
  });
  readonly #raw = toSignal(this.form.valueChanges, { initialValue: this.form.value });
  readonly onMeta: FieldMeta = { label: 'Returned on', input: 'day' };
  readonly conditionMeta: FieldMeta = {
    label: 'Condition',
    input: 'choice',
    placeholder: 'not set',
    options: optionsOf(ITEM_CONDITIONS),
  };
  readonly looksMeta: FieldMeta = { label: 'Damage', input: 'text', max: 400 };
  readonly testedMeta: FieldMeta = {
    label: 'Tried',
    input: 'toggle',
    options: optionsOf(TESTED_WORDS),
  };
  readonly seenMeta: FieldMeta = { label: 'Observed', input: 'text', max: 400 };
  readonly problem = signal<string | null>(null);
  /** One command per opening: sent twice it is stored once. */
  readonly #id = v7();
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
    () => cameBackWorse(this.loan().conditionOut, this.#raw().condition ?? null) === true,
  );
  readonly then = computed(() => {
    const { tested, condition } = this.#raw();
    if (!tested) return '';
    const said = { missing: this.missing(), condition: condition ?? null, tested };
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

  store(): void {
    this.problem.set(null);
    if (!readyToSend(this.form, this.#el)) return;
    const { on, condition, looks, tested, seen } = this.form.getRawValue();
    if (tested === null || on === null) return;
    const body: BackSaid = {
      id: this.#id,
      returnedOn: on,
      missing: this.missing(),
      condition,
      tested,
      looks: looks.trim(),
      testWords: seen.trim(),
    };
    this.#acts.send(this.form, this.#loans.back(this.loan().id, body, this.loan().rev), {
      line: this.problem,
      then: (l) => this.returned.emit(l),
    });
  }
}
