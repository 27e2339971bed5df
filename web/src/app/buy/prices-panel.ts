import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { CONDITIONS, PRICE_KINDS } from '@ruddy/core/buy';
import type { PriceEntry } from '@ruddy/core/buy/contract';
import { money } from '@ruddy/core/buy/text';
import type { Part } from '@ruddy/core/parts/contract';
import { CatalogueData } from '../parts/catalogue';
import { day } from '../platform/shared/format';
import { PriceChart } from './price-chart';
import { PriceForm } from './price-form';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Acts } from '../platform/kit/ask';

/** The prices of a part over time: a drawing where there is something to draw, the table always, and a form for the next one. */
@Component({
  selector: 'rb-prices-panel',
  imports: [Cell, Rows, MatButtonModule, RouterLink, PriceChart, PriceForm],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (problem(); as why) {
      <p class="problem" role="alert">{{ why }}</p>
    }
    @if (prices(); as list) {
      @for (c of currencies(); track c) {
        <rb-price-chart [prices]="list" [currency]="c" />
      }
      @if (list.length > 0) {
        <rb-rows label="Prices over time" [columns]="pricesOverTimeColumns" [rows]="list">
          <ng-template rbCell="date" [rbCellOf]="list" let-p
            ><span class="nowrap">{{ day(p.onDate) }}</span></ng-template
          >
          <ng-template rbCell="what" [rbCellOf]="list" let-p
            >{{ kinds[p.kind] }}{{ p.condition ? ', ' + conditions[p.condition] : ''
            }}{{ boxWords(p) }}{{ p.note ? ': ' + p.note : '' }}</ng-template
          >
          <ng-template rbCell="price" [rbCellOf]="list" let-p
            ><span class="nowrap">{{ money(p) }}</span></ng-template
          >
          <ng-template rbCell="where" [rbCellOf]="list" let-p>{{
            p.source || 'not set'
          }}</ng-template>
          <ng-template rbCell="strike" [rbCellOf]="list" let-p
            ><button
              mat-button
              type="button"
              (click)="strike(p)"
              [attr.aria-label]="'Strike the price of ' + day(p.onDate) + ', ' + money(p)"
            >
              Strike
            </button></ng-template
          >
        </rb-rows>
      } @else {
        <p>No price of it is known.</p>
      }
      <rb-price-form [part]="part()" [prices]="list" (stored)="prices.set($event)" />
      <p class="hint">
        Amounts of other currencies count in a plan at a dated rate:
        <a routerLink="/parts/rates">exchange rates</a>.
      </p>
    } @else {
      <p>Reading the prices …</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 12px;
    }
  `,
})
export class PricesPanel {
  readonly pricesOverTimeColumns: readonly ShortColumn[] = [
    { key: 'date', name: 'Date' },
    { key: 'what', name: 'What' },
    { key: 'price', name: 'Price', figure: true },
    { key: 'where', name: 'Where' },
    { key: 'strike', name: 'Strike', silent: true },
  ];
  readonly #data = inject(CatalogueData);
  readonly #acts = inject(Acts);
  readonly part = input.required<Part>();
  readonly kinds = PRICE_KINDS;
  readonly conditions = CONDITIONS;
  readonly money = money;
  readonly day = day;
  readonly prices = signal<PriceEntry[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly currencies = computed(() => [...new Set((this.prices() ?? []).map((p) => p.currency))]);

  constructor() {
    effect(() => {
      const { id } = this.part();
      untracked(() => this.#load(id));
    });
  }

  boxWords(p: PriceEntry): string {
    if (p.withIds.length === 0) return '';
    return p.partId === this.part().id
      ? `, with ${p.withIds.length} more in the box`
      : ', in a box with others';
  }

  strike(p: PriceEntry): void {
    this.#acts.run(this.#data.withdrawPrice(p.id), {
      line: this.problem,
      failed: 'Not deleted.',
      then: () => this.#load(this.part().id),
    });
  }

  #load(id: string): void {
    this.#acts.read(this.#data.prices(id), {
      line: this.problem,
      then: ({ items }) => this.prices.set(items),
    });
  }
}
