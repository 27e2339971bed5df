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
import { isCurrency } from '@ruddy/core/base';
import { CONDITIONS, PRICE_KINDS } from '@ruddy/core/buy';
import type { PriceBody, PriceEntry } from '@ruddy/core/buy/contract';
import { partName } from '@ruddy/core/chain';
import { boxQuestions, discountQuestions, shareQuestions } from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import { questionText } from '@ruddy/core/parts/text';
import type { ApiError } from '../platform/api/api-client';
import { CatalogueData } from '../parts/catalogue';
import { PartPicker } from '../plan/part-picker';
import { keepCurrency, lastCurrency, readAmount } from '../platform/shared/amount';
import { readNumber } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';

/** Write a price down: what it was, how much, where and when; and, for a box, what else was in it. Odd figures are asked about, not mended. */
@Component({
  selector: 'rb-price-form',
  imports: [MatButtonModule, PartPicker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './price-form.html',
  styles: `
    form {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(110px, 1fr));
      gap: 8px;
    }
    .whole {
      grid-column: 1 / -1;
    }
    .asks {
      border-left: 4px solid var(--ochre);
      padding-left: 6px;
    }
  `,
})
export class PriceForm {
  readonly #data = inject(CatalogueData);
  readonly clock = inject(ServerClock);
  readonly part = input.required<Part>();
  readonly prices = input.required<readonly PriceEntry[]>();
  readonly stored = output<PriceEntry[]>();

  readonly kinds = Object.entries(PRICE_KINDS) as [PriceBody['kind'], string][];
  readonly conditions = Object.entries(CONDITIONS) as [
    NonNullable<PriceBody['condition']>,
    string,
  ][];
  readonly kind = signal<PriceBody['kind']>('offer');
  readonly amount = signal('');
  readonly currency = signal(lastCurrency());
  readonly date = signal(this.clock.today());
  readonly condition = signal<PriceBody['condition']>(null);
  readonly where = signal('');
  readonly note = signal('');
  readonly before = signal('');
  readonly percent = signal('');
  readonly box = signal<readonly Part[]>([]);
  readonly name = (p: Part) => partName(p.spec);
  readonly problem = signal<string | null>(null);
  /** What is odd about the figures as they stand. */
  readonly asks = computed(() => {
    const amount = readAmount(this.amount(), this.currency());
    const before = readAmount(this.before(), this.currency());
    const percent = readNumber(this.percent());
    const minor = amount.ok ? amount.minor : null;
    if (minor === null) return [];
    const discounted = {
      minor,
      beforeMinor: before.ok ? before.minor : null,
      discountPercent: percent.ok ? percent.value : null,
    };
    return [
      ...discountQuestions(discounted),
      ...shareQuestions(this.note(), 'note'),
      ...this.#boxAsks(minor),
    ].map(questionText);
  });

  add(p: Part | null): void {
    if (p && p.id !== this.part().id && !this.box().some((b) => b.id === p.id))
      this.box.update((b) => [...b, p]);
  }

  takeOut(p: Part): void {
    this.box.update((b) => b.filter((x) => x.id !== p.id));
  }

  store(): void {
    const code = this.currency().trim().toUpperCase();
    const amount = readAmount(this.amount(), code);
    const before = readAmount(this.before(), code);
    const percent = readNumber(this.percent());
    const why =
      (!isCurrency(code) && `Currency: "${this.currency()}" is not one like EUR`) ||
      (!amount.ok && `Price: ${amount.why}`) ||
      (amount.ok && amount.minor === null && 'Price: type how much') ||
      (!before.ok && `Before discount: ${before.why}`) ||
      (!percent.ok && `Discount: ${percent.why}`);
    if (why || !amount.ok || amount.minor === null || !before.ok || !percent.ok) {
      this.problem.set(`Nothing stored. ${why || ''}`);
      return;
    }
    const body: PriceBody = {
      id: v7(),
      partId: this.part().id,
      itemId: null,
      kind: this.kind(),
      minor: amount.minor,
      currency: code,
      condition: this.condition(),
      onDate: this.date(),
      source: this.where().trim(),
      note: this.note().trim(),
      withIds: this.box().map((p) => p.id),
      beforeMinor: before.minor,
      discountPercent: percent.value,
    };
    this.#data.addPrice(body).subscribe({
      next: ({ items }) => {
        keepCurrency(code);
        for (const s of [this.amount, this.note, this.before, this.percent]) s.set('');
        this.box.set([]);
        this.problem.set(null);
        this.stored.emit(items);
      },
      error: (e: ApiError) => this.problem.set(`Nothing stored. ${e.message}`),
    });
  }

  #boxAsks(minor: number) {
    if (this.box().length > 0 || this.kind() !== 'offer') return [];
    const boxes = this.prices().filter(
      (p) => p.withIds.length > 0 && p.currency === this.currency() && p.kind === 'offer',
    );
    return boxQuestions(
      minor,
      boxes.map((b) => b.minor),
    );
  }
}
