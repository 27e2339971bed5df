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
import {
  FormControl,
  FormGroup,
  type FormGroupDirective,
  ReactiveFormsModule,
} from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { map } from 'rxjs';
import { v7 } from 'uuid';
import { isCurrency } from '@ruddy/core/base';
import { CONDITIONS, PRICE_KINDS } from '@ruddy/core/buy';
import { priceBody, type PriceBody, type PriceEntry } from '@ruddy/core/buy/contract';
import { partName } from '@ruddy/core/chain';
import { boxQuestions, discountQuestions, shareQuestions } from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import { questionText } from '@ruddy/core/parts/text';
import { Acts } from '../platform/kit/ask';
import { readyToSend, zodForm } from '../platform/kit/problems';
import { CatalogueData } from '../parts/catalogue';
import { PartPicker } from '../plan/part-picker';
import { keepCurrency, lastCurrency } from '../platform/shared/amount';
import { ServerClock } from '../platform/shared/server-clock';
import { Field } from '../platform/kit/field';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';

/** Write a price down: what it was, how much, where and when; and, for a box, what else was in it. Odd figures are asked about, not mended. */
@Component({
  selector: 'rb-price-form',
  imports: [Field, ReactiveFormsModule, MatButtonModule, PartPicker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './price-form.html',
  styles: `
    form {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(130px, 1fr));
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
  readonly #acts = inject(Acts);
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly clock = inject(ServerClock);
  readonly part = input.required<Part>();
  readonly prices = input.required<readonly PriceEntry[]>();
  readonly stored = output<PriceEntry[]>();

  readonly form = new FormGroup(
    {
      kind: new FormControl<PriceBody['kind']>('offer', { nonNullable: true }),
      minor: new FormControl<number | null>(null, (c) =>
        c.value === null ? { limits: 'Enter a price' } : null,
      ),
      currency: new FormControl(lastCurrency(), { nonNullable: true }),
      onDate: new FormControl<string | null>(this.clock.today()),
      condition: new FormControl<PriceBody['condition']>(null),
      source: new FormControl('', { nonNullable: true }),
      beforeMinor: new FormControl<number | null>(null),
      discountPercent: new FormControl<number | null>(null),
      note: new FormControl('', { nonNullable: true }),
    },
    { validators: zodForm(priceBody, (raw: Raw) => bodyOf(raw, UNKNOWN)) },
  );
  readonly raw = toSignal(this.form.valueChanges.pipe(map(() => this.form.getRawValue())), {
    initialValue: this.form.getRawValue(),
  });
  readonly fields = computed<readonly (readonly [FieldMeta, FormControl])[]>(() => {
    const c = this.form.controls;
    const code = this.raw().currency.trim().toUpperCase();
    const unit = isCurrency(code) ? code : '';
    return [
      [{ label: 'Kind', input: 'choice', options: optionsOf(PRICE_KINDS) }, c.kind],
      [{ label: 'Price', input: 'money', unit }, c.minor],
      [{ label: 'Currency', input: 'text', max: 3 }, c.currency],
      [{ label: 'Date', input: 'day' }, c.onDate],
      [
        {
          label: 'Condition',
          input: 'choice',
          placeholder: 'not set',
          options: optionsOf(CONDITIONS),
        },
        c.condition,
      ],
      [{ label: 'Seller', input: 'text', max: 120 }, c.source],
      [{ label: 'List price', input: 'money', unit }, c.beforeMinor],
      [{ label: 'Discount', input: 'number', unit: '%' }, c.discountPercent],
      [{ label: 'Note', input: 'text', max: 200 }, c.note],
    ];
  });
  readonly box = signal<readonly Part[]>([]);
  readonly name = (p: Part) => partName(p.spec);
  readonly problem = signal<string | null>(null);
  /** What is odd about the figures as they stand. */
  readonly asks = computed(() => {
    const { minor, beforeMinor, discountPercent, note } = this.raw();
    if (minor === null) return [];
    const discounted = { minor, beforeMinor, discountPercent };
    return [
      ...discountQuestions(discounted),
      ...shareQuestions(note, 'note'),
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

  store(of: FormGroupDirective): void {
    this.problem.set(null);
    if (!readyToSend(this.form, this.#el)) return;
    const raw = this.form.getRawValue();
    const body = priceBody.parse({
      ...(bodyOf(raw, this.part().id) as object),
      withIds: this.box().map((p) => p.id),
    });
    this.#acts.send(this.form, this.#data.addPrice(body), {
      line: this.problem,
      done: 'Price saved.',
      then: ({ items }) => {
        keepCurrency(body.currency);
        const { kind, currency, onDate, condition, source } = raw;
        of.resetForm({ kind, currency, onDate, condition, source });
        this.box.set([]);
        this.stored.emit(items);
      },
    });
  }

  #boxAsks(minor: number) {
    if (this.box().length > 0 || this.raw().kind !== 'offer') return [];
    const boxes = this.prices().filter(
      (p) =>
        p.withIds.length > 0 &&
        p.currency === this.raw().currency.trim().toUpperCase() &&
        p.kind === 'offer',
    );
    return boxQuestions(
      minor,
      boxes.map((b) => b.minor),
    );
  }
}

interface Raw {
  readonly currency: string;
}

/** Stands for the part while the form is checked. */
const UNKNOWN = '00000000-0000-7000-8000-000000000000';

function bodyOf(raw: Raw, partId: string): unknown {
  const currency = raw.currency.trim().toUpperCase();
  return { id: v7(), partId, itemId: null, withIds: [], ...raw, currency };
}
