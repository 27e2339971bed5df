import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { CONDITIONS, type CostLine, type ForgottenLine } from '@ruddy/core/buy';
import { money, moneyShort } from '@ruddy/core/buy/text';
import { FORGOTTEN } from '@ruddy/core/setups';
import type { CostSaid } from '@ruddy/core/setups/contract';
import { PlanCost } from './plan-cost';
import { SetupEditor } from '../setups/setup-editor';
import { day } from '../platform/shared/format';
import { AmountField } from './amount-field';
import { CostSaidFields } from './cost-said';
import { costWords, lineAmount, lineWords, nounOf } from './cost-words';

/** What the plan costs: every part with its price or the piece that is here, what people forget, and what dock and all-in-one compare to. */
@Component({
  selector: 'rb-cost-panel',
  imports: [RouterLink, AmountField, CostSaidFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './cost-panel.html',
  styleUrl: './cost-panel.scss',
})
export class CostPanel {
  readonly #editor = inject(SetupEditor);
  readonly plan = inject(PlanCost);
  readonly money = money;
  readonly short = moneyShort;
  readonly day = day;
  readonly conditions = CONDITIONS;
  readonly noun = nounOf;
  readonly words = lineWords;
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

  /** Pieces of the part that stands in a place. */
  pieces(l: CostLine): { id: string; label: string }[] {
    return (this.plan.grounds()?.pieces ?? []).filter((p) => p.partId === l.part.id);
  }

  named(l: CostLine): string {
    return this.#editor.fields()?.slots.items[l.part.slot] ?? '';
  }

  name(l: CostLine, id: string): void {
    const { [l.part.slot]: _old, ...rest } = this.#editor.fields()?.slots.items ?? {};
    void _old;
    this.#editor.change({ slots: { items: id === '' ? rest : { ...rest, [l.part.slot]: id } } });
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
