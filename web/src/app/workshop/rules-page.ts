import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { FormControl, FormGroup, FormRecord } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import { concatMap, from, toArray } from 'rxjs';
import { type RuleId, ruleProblem } from '@ruddy/core/base';
import type { RuleRow } from '@ruddy/core/plan/contract';
import { Acts, ask, State, valueOf } from '../platform/kit/ask';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { readyToSend } from '../platform/kit/problems';
import { pluralize } from '../platform/shared/format';
import { HouseRulesData } from '../setups/house-rules';
import { WorkshopNav } from './workshop-nav';

type RuleForm = FormGroup<{
  value: FormControl<number | null>;
  reason: FormControl<string>;
}>;

/** Value and reason of a rule; an own value lies in its limits and has a reason. */
function ruleForm(r: RuleRow): RuleForm {
  const value = new FormControl(r.value, (c) => {
    const own = c.value as number | null;
    const why = own === null ? null : ruleProblem(r.id, own);
    return why === null ? null : { limits: why };
  });
  const reason = new FormControl(r.reason, {
    nonNullable: true,
    validators: (c) =>
      value.value !== null && String(c.value).trim() === ''
        ? { limits: 'Enter why this differs from the default' }
        : null,
  });
  value.valueChanges.subscribe(() => reason.updateValueAndValidity());
  return new FormGroup({ value, reason });
}

/** Every number that a workshop may see differently: default, own value, unit, reason; one button saves all changes. */
@Component({
  imports: [Field, MatButtonModule, MatIconModule, MatTooltipModule, State, WorkshopNav],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './rules-page.html',
  styleUrl: './rules-page.scss',
})
export class RulesPage {
  readonly #data = inject(HouseRulesData);
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly acts = inject(Acts);
  readonly asked = ask(() => this.#data.rules());
  readonly rows = linkedSignal<readonly RuleRow[] | null>(() => valueOf(this.asked)?.items ?? null);
  readonly words = signal('');
  readonly searchMeta: FieldMeta = { label: 'Find a rule', input: 'text' };
  readonly forms = new FormRecord<RuleForm>({});
  readonly #tick = signal(0);
  readonly shown = computed(() => {
    const words = this.words().trim().toLowerCase();
    return (this.rows() ?? []).filter((r) => `${r.label} ${r.why}`.toLowerCase().includes(words));
  });
  readonly changed = computed(() => {
    this.#tick();
    return (this.rows() ?? []).filter((r) => this.#edited(r));
  });
  readonly headline = computed(() => {
    const rows = this.rows();
    if (!rows) return 'Reading the rules …';
    const own = rows.filter((r) => r.value !== null).length;
    return own === 0
      ? `${rows.length} rules, all at their default.`
      : `${own} of ${pluralize(rows.length, 'rule')} set by this workshop.`;
  });
  #read: readonly RuleRow[] = [];
  readonly #made = new Map<RuleId, RuleForm>();

  constructor() {
    this.forms.valueChanges.subscribe(() => this.#tick.update((n) => n + 1));
    effect(() => {
      const rows = valueOf(this.asked)?.items ?? [];
      untracked(() => {
        // What is edited and not saved stays when the rules are read again.
        const kept = new Set(this.#read.filter((r) => this.#edited(r)).map((r) => r.id));
        this.#fill(rows.filter((r) => !kept.has(r.id)));
        this.#read = rows;
      });
    });
  }

  /** The controls of a rule; made when it is first shown. */
  formOf(id: RuleId): RuleForm {
    let form = this.#made.get(id);
    if (!form) {
      const row = this.rows()?.find((r) => r.id === id);
      if (!row) throw new Error(`no rule ${id}`);
      form = ruleForm(row);
      this.#made.set(id, form);
      this.forms.setControl(id, form, { emitEvent: false });
    }
    return form;
  }

  valueMeta(r: RuleRow): FieldMeta {
    const { min, max, unit } = r;
    return { label: 'Own value', input: 'number', unit, min, max, placeholder: String(r.default) };
  }

  reasonMeta(r: RuleRow): FieldMeta {
    return { label: 'Reason', input: 'text', max: 400, help: `Default: ${r.default} ${r.unit}` };
  }

  isDefault(r: RuleRow): boolean {
    this.#tick();
    return this.formOf(r.id).controls.value.value === null;
  }

  reset(r: RuleRow): void {
    this.formOf(r.id).setValue({ value: null, reason: '' });
  }

  discard(): void {
    this.#fill(this.rows() ?? []);
  }

  /** Saves one rule after the other; those stored before a failure stay stored. */
  save(): void {
    this.words.set('');
    if (!readyToSend(this.forms, this.#el)) return;
    const changed = this.changed();
    const calls = from(changed).pipe(
      concatMap((r) => {
        const { value, reason } = this.formOf(r.id).getRawValue();
        const body = { value, reason: value === null ? '' : reason.trim() };
        return this.#data.putRule(r.id, body, r.rev);
      }),
      toArray(),
    );
    this.acts.run(calls, {
      done: `Saved ${pluralize(changed.length, 'rule')}.`,
      then: () => this.asked.reload(),
      otherwise: () => this.asked.reload(),
    });
  }

  #edited(r: RuleRow): boolean {
    const { value, reason } = this.formOf(r.id).getRawValue();
    return value !== r.value || (value !== null && reason.trim() !== r.reason);
  }

  #fill(rows: readonly RuleRow[]): void {
    for (const r of rows) this.formOf(r.id).reset({ value: r.value, reason: r.reason });
  }
}
