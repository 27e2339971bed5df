import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { CONDITIONS, type CostLine, type ForgottenLine } from '@ruddy/core/buy';
import { money, moneyShort } from '@ruddy/core/buy/text';
import { FORGOTTEN } from '@ruddy/core/setups';
import type { CostSaid } from '@ruddy/core/setups/contract';
import { PlanCost } from './plan-cost';
import { SetupEditor } from '../setups/setup-editor';
import { day } from '../platform/shared/format';
import { CostSaidFields } from './cost-said';
import { costWords, lineAmount, lineWords, nounOf } from './cost-words';
import { Fold } from '../platform/kit/fold';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import type { FieldMeta } from '../platform/kit/meta';
import { Field } from '../platform/kit/field';
import { MatCheckboxModule } from '@angular/material/checkbox';

/** What the plan costs: every part with its price or the item that is here, what people forget, and what dock and all-in-one compare to. */
@Component({
  selector: 'rb-cost-panel',
  imports: [MatCheckboxModule, Field, Cell, Rows, Fold, RouterLink, CostSaidFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './cost-panel.html',
  styleUrl: './cost-panel.scss',
})
export class CostPanel {
  readonly allInOnesColumns: readonly ShortColumn[] = [
    { key: 'allInOne', name: 'All-in-one' },
    { key: 'price', name: 'Price', figure: true },
    { key: 'offered', name: 'Offered' },
    { key: 'againstTheParts', name: 'Against the parts' },
  ];
  readonly #editor = inject(SetupEditor);
  readonly plan = inject(PlanCost);
  readonly money = money;
  readonly short = moneyShort;
  readonly day = day;
  readonly conditions = CONDITIONS;
  readonly columns = computed<readonly ShortColumn<CostLine>[]>(() => [
    { key: 'part', name: 'Part' },
    { key: 'which', name: 'Item' },
    {
      key: 'from',
      name: 'Price from',
      text: (l) => `${lineWords(l)}${l.shipping ? `, shipping ${money(l.shipping)}` : ''}`,
    },
    {
      key: 'minor',
      name: this.plan.cost()?.currency ?? '',
      figure: true,
      text: (l) => this.amount(l),
    },
  ]);
  readonly noun = nounOf;
  readonly forgottenNames = FORGOTTEN;
  readonly said = computed<CostSaid | null>(() => this.#editor.fields()?.cost ?? null);
  readonly summary = computed(() => {
    const c = this.plan.cost();
    if (!c) return 'Cost: reading the prices …';
    return c.lines.length === 0 ? 'Cost: no part is chosen yet' : `Cost: ${costWords(c)}`;
  });

  amount(l: CostLine): string {
    return lineAmount(l, this.plan.cost()?.currency ?? 'EUR');
  }

  here(minor: number): string {
    return money({ minor, currency: this.plan.cost()?.currency ?? 'EUR' });
  }

  more(minor: number | null): string {
    if (minor === null) return 'a part of the plan has no price';
    if (minor === 0) return 'the same';
    return `${this.here(Math.abs(minor))} ${minor > 0 ? 'more' : 'less'}`;
  }

  /** Items of the part that stands in a place. */
  itemsOf(l: CostLine): { id: string; label: string }[] {
    return (this.plan.grounds()?.pieces ?? []).filter((p) => p.partId === l.part.id);
  }

  itemMeta(l: CostLine): FieldMeta {
    return {
      label: 'Item',
      input: 'choice',
      placeholder: 'any',
      options: this.itemsOf(l).map((p) => ({ value: p.id, label: p.label })),
    };
  }

  extraMeta(f: ForgottenLine, unit: string): FieldMeta {
    const label = `Price of ${FORGOTTEN[f.code]}`;
    return { label, input: 'money', unit, placeholder: 'often forgotten' };
  }

  named(l: CostLine): string | null {
    return this.#editor.fields()?.slots.items[l.part.slot] ?? null;
  }

  name(l: CostLine, id: string | null): void {
    const { [l.part.slot]: _old, ...rest } = this.#editor.fields()?.slots.items ?? {};
    void _old;
    this.#editor.change({ slots: { items: id === null ? rest : { ...rest, [l.part.slot]: id } } });
  }

  have(f: ForgottenLine, have: boolean): void {
    this.#forgotten(f, { have });
  }

  price(f: ForgottenLine, minor: number | null): void {
    this.#forgotten(f, { minor });
  }

  say(change: Partial<CostSaid>): void {
    const said = this.said();
    if (said) this.#editor.change({ cost: { ...said, ...change } });
  }

  #forgotten(f: ForgottenLine, change: Partial<{ have: boolean; minor: number | null }>): void {
    const said = this.said();
    if (said)
      this.say({
        forgotten: { ...said.forgotten, [f.code]: { have: f.have, minor: f.minor, ...change } },
      });
  }
}
