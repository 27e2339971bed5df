import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { DRIVER_SCHOOLS, type DriverSchool } from '@ruddy/core/base';
import {
  adviceWords,
  CAUTION_TEXTS,
  DRIVER_WORDS,
  ORDER_WORDS,
  orderWhy,
} from '@ruddy/core/bring-up/text';
import { verdictSentence } from '@ruddy/core/plan/text';
import { BringUpRun } from './bring-up-run';
import { SetupEditor } from '../setups/setup-editor';
import { Choice } from '../platform/kit/choice';

/** Before an attempt: in which order of power, driver before or after, and why. */
@Component({
  selector: 'rb-begin-panel',
  imports: [MatButtonModule, RouterLink, Choice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (nothing()) {
      <p>
        This setup has no parts yet. <a routerLink="../plan">Choose them on Plan</a>; then its list
        stands here.
      </p>
    } @else {
      @if (stops(); as why) {
        <p class="problem" role="alert">{{ why }} <a routerLink="../plan">See Plan first</a></p>
      }
      @if (run.purpose() === 'bring-up') {
        <section class="caution" aria-label="Before anything else">
          <strong>The maker's manual and local codes come first.</strong> {{ mains }}
        </section>
        <h2>Power-on order</h2>
        <p>{{ advice() }}</p>
        @if (orders().length > 1) {
          <ul>
            @for (o of orders(); track o.id) {
              <li [class.shut]="o.shut">
                <button
                  mat-stroked-button
                  type="button"
                  [attr.aria-pressed]="run.order() === o.id"
                  [disabled]="o.shut"
                  (click)="run.choose(o.id)"
                >
                  {{ o.name }}
                </button>
                <span>{{ o.what }}</span>
                @if (o.why) {
                  <span class="quiet">{{ o.why }}</span>
                }
              </li>
            }
          </ul>
        }
        <h2>The driver of the card</h2>
        <rb-choice
          label="The driver of the card"
          [options]="drivers"
          [value]="run.driver()"
          [clearable]="false"
          (chosen)="setDriver($event)"
        />
      } @else if (run.purpose() === 'undock') {
        <p>
          {{
            run.facts()?.hotOut
              ? 'This setup came up with the host running: it is ejected and unplugged live.'
              : 'The host goes off first, then the dock, then the cable.'
          }}
        </p>
      } @else {
        <p>The order it came up in last: {{ orderName() }}.</p>
      }
      <p class="actions">
        <button mat-flat-button type="button" class="main" (click)="run.begin()">
          {{ words() }}
        </button>
        <a [routerLink]="['../sheet']" [queryParams]="{ only: 'steps', list: run.purpose() }"
          >Print the list</a
        >
      </p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    ul {
      list-style: none;
      display: grid;
      gap: 4px;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 12px;
      align-items: center;
    }
    li button {
      min-width: 160px;
    }
    .actions {
      display: flex;
      flex-wrap: wrap;
      gap: 16px;
      align-items: center;
      padding-top: 8px;
    }
    .main {
      min-height: 56px;
      font-size: 16px;
    }
  `,
})
export class BeginPanel {
  readonly run = inject(BringUpRun);
  readonly #editor = inject(SetupEditor);
  readonly mains = CAUTION_TEXTS.mains;
  readonly drivers = DRIVER_SCHOOLS.map((value) => ({ value, label: DRIVER_WORDS[value] }));
  readonly nothing = computed(() => {
    const slots = this.#editor.fields()?.slots;
    return slots !== undefined && slots.host === null && slots.dock === null && slots.card === null;
  });
  /** What stops this chain is said before anybody picks up a screwdriver. */
  readonly stops = computed(() => {
    const e = this.#editor.judgement()?.evaluation;
    const state = e?.predicted.verdict.state;
    return e && (state === 'blocked' || state === 'unknown') ? verdictSentence(e) : null;
  });
  readonly advice = computed(() => adviceWords(this.run.advice(), this.run.build()));
  readonly orders = computed(() =>
    this.run
      .choices()
      .map((c) => ({ id: c.id, ...ORDER_WORDS[c.id], shut: c.state === 'shut', why: orderWhy(c) })),
  );
  readonly orderName = computed(() => ORDER_WORDS[this.run.order()].name);
  readonly words = computed(() => {
    const no = Math.max(0, ...this.run.attempts().map((a) => a.no)) + 1;
    return this.run.purpose() === 'bring-up'
      ? `Begin attempt ${no}: ${this.orderName()}`
      : `Begin list ${no}`;
  });

  setDriver(value: string | null): void {
    if (value !== null) this.run.chooseDriver(value as DriverSchool);
  }
}
