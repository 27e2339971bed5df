import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { isCurrency } from '@ruddy/core/base';
import { CONDITIONS, type Limits, type Weights } from '@ruddy/core/buy';
import type { ScoutAsk } from '@ruddy/core/buy/contract';
import type { SetupRow } from '@ruddy/core/plan/contract';
import { STANDARD_RESOLUTIONS } from '@ruddy/core/runs';
import type { ProfileEntry } from '@ruddy/core/runs/contract';
import { type Condition, FORGOTTEN, FORGOTTEN_CODES, type ForgottenCode } from '@ruddy/core/setups';
import { AmountField } from '../plan/amount-field';
import { readNumber } from '../platform/shared/format';
import { FIGURES, FLAGS, limitsSet, WEIGHTS } from './wanted';

export interface Named {
  readonly id: string;
  readonly name: string;
}

/** The same without one of its entries. */
function without<T extends object>(all: T, key: string): T {
  return Object.fromEntries(Object.entries(all).filter(([k]) => k !== key)) as T;
}

/** What is wanted: host, use, money, what is there; further limits folded. In: the ask and what there is to choose from. Out: the changed ask. */
@Component({
  selector: 'rb-wanted-form',
  imports: [MatButtonModule, AmountField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './wanted-form.html',
  styleUrl: './wanted-form.scss',
})
export class WantedForm {
  readonly ask = input.required<ScoutAsk>();
  readonly hosts = input.required<readonly Named[]>();
  readonly titles = input.required<readonly ProfileEntry[]>();
  readonly setups = input.required<readonly SetupRow[]>();
  readonly screens = input.required<readonly Named[]>();
  readonly working = input(false);
  readonly changed = output<ScoutAsk>();
  readonly begin = output();
  readonly stop = output();
  readonly resolutions = STANDARD_RESOLUTIONS;
  readonly conditions = Object.entries(CONDITIONS) as [Condition, string][];
  readonly flags = FLAGS;
  readonly figures = FIGURES;
  readonly weights = WEIGHTS;
  readonly codes = FORGOTTEN_CODES;
  readonly forgottenNames = FORGOTTEN;
  readonly problems = signal<Readonly<Record<string, string>>>({});
  readonly more = computed(() => {
    const n = limitsSet(this.ask().limits);
    return `${FLAGS.length + FIGURES.length} more limits, ${n === 0 ? 'none set' : `${n} set`}`;
  });
  readonly ready = computed(() => this.ask().hostId !== '' && this.ask().titleId !== '');

  set(patch: Partial<ScoutAsk>): void {
    this.changed.emit({ ...this.ask(), ...patch });
  }
  limit(patch: Partial<Limits>): void {
    this.set({ limits: { ...this.ask().limits, ...patch } });
  }
  flag(key: keyof Limits, on: boolean): void {
    this.limit({ [key]: on });
  }
  weight(key: keyof Weights, text: string): void {
    this.set({ weights: { ...this.ask().weights, [key]: Number(text) } });
  }
  figure(key: (typeof FIGURES)[number][0], label: string, text: string): void {
    const read = readNumber(text);
    const others = without(this.problems(), key);
    this.problems.set(read.ok ? others : { ...others, [key]: `${label}: ${read.why}` });
    if (read.ok) this.limit({ [key]: read.value });
  }
  currency(text: string): void {
    const code = text.trim().toUpperCase();
    const others = without(this.problems(), 'currency');
    const ok = isCurrency(code);
    this.problems.set(
      ok ? others : { ...others, currency: `"${text}" is not a currency like EUR` },
    );
    if (ok) this.set({ currency: code });
  }
  forget(code: ForgottenCode, minor: number | null): void {
    const others = without(this.ask().forgotten, code);
    this.set({ forgotten: minor === null ? others : { ...others, [code]: minor } });
  }
  screen(id: string, on: boolean): void {
    const { screens } = this.ask();
    this.set({ screens: on ? [...screens, id] : screens.filter((s) => s !== id) });
  }
}
