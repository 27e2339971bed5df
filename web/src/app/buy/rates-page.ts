import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  signal,
} from '@angular/core';
import {
  FormControl,
  FormGroup,
  type FormGroupDirective,
  ReactiveFormsModule,
} from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { rateBody, type RateEntry } from '@ruddy/core/buy/contract';
import { CatalogueData } from '../parts/catalogue';
import { pluralize, day } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { Acts } from '../platform/kit/ask';
import { readyToSend, zodForm } from '../platform/kit/problems';
import { PartsNav } from '../parts/parts-nav';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';

/** Dated rates of exchange: without one, amounts of two currencies are never added. */
@Component({
  imports: [Field, ReactiveFormsModule, Cell, Rows, MatButtonModule, PartsNav],
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
            [formGroup]="form"
            #of="ngForm"
            (ngSubmit)="store(of)"
            aria-label="Exchange rate"
          >
            @for (f of fields; track f[0].label) {
              <rb-field [meta]="f[0]" [control]="f[1]" />
            }
            <button mat-flat-button type="submit">Save rate</button>
          </form>
          <rb-rows label="List of rates" [columns]="listOfRatesColumns" [rows]="rates()">
            <ng-template rbCell="on" [rbCellOf]="rates()" let-r>{{ day(r.onDate) }}</ng-template>
            <ng-template rbCell="rate" [rbCellOf]="rates()" let-r
              >1 {{ r.from }} is {{ r.rate }} {{ r.to }}</ng-template
            >
            <ng-template rbCell="whereItWas" [rbCellOf]="rates()" let-r>{{
              r.source || 'not set'
            }}</ng-template>
            <ng-template rbCell="strike" [rbCellOf]="rates()" let-r
              ><button
                mat-button
                type="button"
                (click)="strike(r)"
                [attr.aria-label]="
                  'Delete the rate of ' + r.from + ' and ' + r.to + ' of ' + day(r.onDate)
                "
              >
                Delete
              </button></ng-template
            >
            <p none>
              {{
                rates() ? 'No rate is known: other currencies stand apart.' : 'Reading the rates …'
              }}
            </p>
          </rb-rows>
        </section>
      </div>
    </div>
  `,
  styleUrls: ['../parts/parts-frame.scss', '../parts/register-page.scss'],
})
export class RatesPage {
  readonly listOfRatesColumns: readonly ShortColumn[] = [
    { key: 'on', name: 'On' },
    { key: 'rate', name: 'Rate' },
    { key: 'whereItWas', name: 'Where it was read' },
    { key: 'strike', name: 'Delete', silent: true },
  ];
  readonly #data = inject(CatalogueData);
  readonly #acts = inject(Acts);
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly clock = inject(ServerClock);
  readonly day = day;
  readonly rates = signal<RateEntry[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly form = new FormGroup(
    {
      from: new FormControl('', { nonNullable: true }),
      rate: new FormControl<number | null>(null),
      to: new FormControl('EUR', { nonNullable: true }),
      onDate: new FormControl<string | null>(this.clock.today()),
      source: new FormControl('', { nonNullable: true }),
    },
    { validators: zodForm(rateBody, (raw: Raw) => bodyOf(raw)) },
  );
  readonly fields: readonly (readonly [FieldMeta, FormControl])[] = [
    [{ label: '1 of', input: 'text', max: 3, placeholder: 'JPY' }, this.form.controls.from],
    [{ label: 'is', input: 'number' }, this.form.controls.rate],
    [{ label: 'of', input: 'text', max: 3 }, this.form.controls.to],
    [{ label: 'Date', input: 'day' }, this.form.controls.onDate],
    [{ label: 'Source', input: 'text', max: 120 }, this.form.controls.source],
  ];
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

  store(of: FormGroupDirective): void {
    if (!readyToSend(this.form, this.#el)) return;
    const raw = this.form.getRawValue();
    this.#acts.send(this.form, this.#data.addRate(rateBody.parse(bodyOf(raw))), {
      line: this.problem,
      done: 'Rate saved.',
      then: ({ items }) => {
        this.rates.set(items);
        of.resetForm({ ...raw, rate: null });
      },
    });
  }

  strike(r: RateEntry): void {
    this.#acts.run(this.#data.withdrawRate(r.id), {
      done: `Deleted the rate of ${day(r.onDate)}.`,
      failed: 'Not deleted.',
      then: () => this.#load(),
    });
  }

  #load(): void {
    this.#acts.read(this.#data.rates(), {
      line: this.problem,
      then: ({ items }) => this.rates.set(items),
    });
  }
}

interface Raw {
  readonly from: string;
  readonly to: string;
}

function bodyOf(raw: Raw): unknown {
  const code = (text: string) => text.trim().toUpperCase();
  return { id: v7(), ...raw, from: code(raw.from), to: code(raw.to) };
}
