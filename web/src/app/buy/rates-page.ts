import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { isCurrency } from '@ruddy/core/base';
import type { RateEntry } from '@ruddy/core/buy/contract';
import type { ApiError } from '../platform/api/api-client';
import { CatalogueData } from '../parts/catalogue';
import { pluralize, day, readNumber } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { PartsNav } from '../parts/parts-nav';

/** Dated rates of exchange: without one, amounts of two currencies are never added. */
@Component({
  imports: [MatButtonModule, PartsNav],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="page">
      <h1>{{ headline() }}</h1>
      @if (problem(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
      <div class="columns">
        <rb-parts-nav here="rates" />
        <section class="sheet" aria-label="Exchange rates">
          <form
            class="form"
            (submit)="$event.preventDefault(); store()"
            novalidate
            aria-label="Exchange rate"
          >
            <div class="field">
              <label for="rate-from">1 of</label>
              <input
                id="rate-from"
                #from
                maxlength="3"
                autocomplete="off"
                [value]="a()"
                (input)="a.set(from.value.toUpperCase())"
              />
            </div>
            <div class="field">
              <label for="rate-value">is</label>
              <input
                id="rate-value"
                #value
                inputmode="decimal"
                autocomplete="off"
                [value]="rate()"
                (input)="rate.set(value.value)"
              />
            </div>
            <div class="field">
              <label for="rate-to">of</label>
              <input
                id="rate-to"
                #to
                maxlength="3"
                autocomplete="off"
                [value]="b()"
                (input)="b.set(to.value.toUpperCase())"
              />
            </div>
            <div class="field">
              <label for="rate-on">On</label>
              <input
                id="rate-on"
                #on
                type="date"
                [max]="clock.today()"
                [value]="date()"
                (change)="date.set(on.value)"
              />
            </div>
            <div class="field">
              <label for="rate-source">Where it was read</label>
              <input
                id="rate-source"
                #src
                maxlength="120"
                [value]="source()"
                (input)="source.set(src.value)"
              />
            </div>
            <button mat-flat-button type="submit">Store the rate</button>
          </form>
          <div class="wide" tabindex="0" role="region" aria-label="List of rates">
            <table class="list">
              <thead>
                <tr>
                  <th scope="col">On</th>
                  <th scope="col">Rate</th>
                  <th scope="col">Where it was read</th>
                  <th scope="col"><span class="visually-hidden">Strike</span></th>
                </tr>
              </thead>
              <tbody>
                @for (r of rates(); track r.id) {
                  <tr>
                    <td>{{ day(r.onDate) }}</td>
                    <td>1 {{ r.from }} is {{ r.rate }} {{ r.to }}</td>
                    <td>{{ r.source || 'not said' }}</td>
                    <td>
                      <button
                        type="button"
                        class="link"
                        (click)="strike(r)"
                        [attr.aria-label]="
                          'Strike the rate of ' + r.from + ' and ' + r.to + ' of ' + day(r.onDate)
                        "
                      >
                        Strike
                      </button>
                    </td>
                  </tr>
                } @empty {
                  <tr>
                    <td colspan="4">
                      {{
                        rates()
                          ? 'No rate is known: other currencies stand apart.'
                          : 'Reading the rates …'
                      }}
                    </td>
                  </tr>
                }
              </tbody>
            </table>
          </div>
        </section>
      </div>
    </div>
  `,
  styleUrls: ['../parts/parts-frame.scss', '../parts/register-page.scss'],
})
export class RatesPage {
  readonly #data = inject(CatalogueData);
  readonly clock = inject(ServerClock);
  readonly day = day;
  readonly rates = signal<RateEntry[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly a = signal('');
  readonly b = signal('EUR');
  readonly rate = signal('');
  readonly date = signal(this.clock.today());
  readonly source = signal('');
  readonly headline = computed(() => {
    const list = this.rates();
    if (!list) return 'Reading the rates …';
    const newest = list[0];
    return newest
      ? `${pluralize(list.length, 'dated rate')}; the newest is of ${day(newest.onDate)}.`
      : '0 rates of exchange: amounts of other currencies stand apart.';
  });

  constructor() {
    this.#load();
  }

  store(): void {
    const read = readNumber(this.rate());
    const odd = [this.a(), this.b()].find((c) => !isCurrency(c));
    if (odd !== undefined || !read.ok || read.value === null) {
      const why =
        odd !== undefined
          ? `"${odd}" is not a currency like EUR`
          : read.ok
            ? 'type how much one is'
            : read.why;
      this.problem.set(`Nothing stored. ${why}`);
      return;
    }
    const body = {
      id: v7(),
      from: this.a(),
      to: this.b(),
      rate: read.value,
      onDate: this.date(),
      source: this.source().trim(),
    };
    this.#data.addRate(body).subscribe({
      next: ({ items }) => {
        this.rates.set(items);
        this.rate.set('');
        this.problem.set(null);
      },
      error: (e: ApiError) => this.problem.set(`Nothing stored. ${e.message}`),
    });
  }

  strike(r: RateEntry): void {
    this.#data.withdrawRate(r.id).subscribe({
      next: () => this.#load(),
      error: (e: ApiError) => this.problem.set(`Not struck: ${e.message}`),
    });
  }

  #load(): void {
    this.#data.rates().subscribe({
      next: ({ items }) => this.rates.set(items),
      error: (e: ApiError) => this.problem.set(e.message),
    });
  }
}
