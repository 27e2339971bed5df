import {
  ChangeDetectionStrategy,
  Component,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { v7 } from 'uuid';
import { type Outcome, OUTCOMES } from '@ruddy/core/base';
import { pinWords } from '@ruddy/core/compatibility/text';
import { type ReleaseSpec, SOFTWARE_NAMES } from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import type { TouchedRow } from '@ruddy/core/plan/contract';
import type { ApiError } from '../platform/api/api-client';
import { SetupsData } from '../setups/setups';
import { pluralize } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { OUTCOME_WORDS } from './record/outcome-form';

const STANDS: Record<TouchedRow['stands'], string> = {
  older: 'older is installed',
  same: 'this one is installed',
  newer: 'a newer one is installed',
  'not known': 'not known what is installed',
};
/** Which setups a release touches, and the place to say that it was installed and what came of it. */
@Component({
  selector: 'rb-touched-setups',
  imports: [RouterLink, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>{{ headline() }}</h3>
    @if (problem(); as why) {
      <p class="problem" role="alert">Nothing stored. {{ why }}</p>
    }
    @if (said(); as words) {
      <p role="status">{{ words }}</p>
    }
    <ul>
      @for (r of rows() ?? []; track r.id) {
        <li>
          <a [routerLink]="['/setups', r.id, 'plan']">{{ r.name }}</a>
          <span class="quiet"
            >{{ r.part }}: {{ r.have ? r.have + ', ' : '' }}{{ stands[r.stands] }}</span
          >
          @if (r.mends.length > 0) {
            <span>Would mend: {{ r.mends.join('; ') }}.</span>
          }
          @if (r.pin; as pin) {
            <p class="pin">{{ pinText(pin) }}</p>
          }
          @if (r.stands !== 'same') {
            @if (marking() === r.id) {
              <form
                (submit)="mark($event, r, on.value, outcome.value)"
                [attr.aria-label]="'Installed on ' + r.name"
              >
                <label>
                  Installed on
                  <input #on type="date" required [value]="today()" [max]="today()" />
                </label>
                <label>
                  What came of it
                  <select #outcome>
                    <option value="">not tried yet</option>
                    @for (o of outcomes; track o) {
                      <option [value]="o">{{ words[o] }}</option>
                    }
                  </select>
                </label>
                <button mat-flat-button type="submit">
                  {{ r.pin ? 'Mark installed, leave the pin' : 'Mark installed' }}
                </button>
                <button mat-button type="button" (click)="marking.set(null)">Back</button>
              </form>
            } @else {
              <button
                type="button"
                class="link"
                (click)="marking.set(r.id)"
                [attr.aria-label]="'Installed on ' + r.name"
              >
                It was installed here
              </button>
            }
          }
        </li>
      }
    </ul>
  `,
  styles: `
    ul {
      list-style: none;
      display: grid;
      gap: 8px;
      padding: 0;
    }
    li {
      display: grid;
      gap: 2px;
      padding: 4px 8px;
      border-left: 4px solid var(--line);
    }
    .pin {
      border-left: 4px solid var(--ochre);
      padding-left: 8px;
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: end;
    }
    label {
      display: grid;
      font-size: 12px;
      color: var(--ink2);
    }
  `,
})
export class TouchedSetups {
  readonly #data = inject(SetupsData);
  readonly #clock = inject(ServerClock);
  readonly release = input.required<Part>();
  readonly rows = signal<TouchedRow[] | null>(null);
  readonly marking = signal<string | null>(null);
  readonly problem = signal<string | null>(null);
  readonly said = signal<string | null>(null);
  readonly stands = STANDS;
  readonly outcomes = OUTCOMES;
  readonly words = OUTCOME_WORDS;

  constructor() {
    effect(() => {
      const { id } = this.release();
      untracked(() => {
        this.said.set(null);
        this.#load(id);
      });
    });
  }

  pinText(pin: NonNullable<TouchedRow['pin']>): string {
    const spec = this.release().spec as ReleaseSpec;
    return pinWords({ ...pin, name: SOFTWARE_NAMES[spec.what], now: spec.variant });
  }

  today(): string {
    return this.#clock.today();
  }

  headline(): string {
    const rows = this.rows();
    if (!rows) return 'Looking which setups it touches …';
    const older = rows.filter((r) => r.stands === 'older').length;
    return `Touches ${pluralize(rows.length, 'setup')}${rows.length > 0 ? `, ${older} with an older version` : ''}`;
  }

  mark(event: Event, row: TouchedRow, on: string, outcome: string): void {
    event.preventDefault();
    const spec = this.release().spec as ReleaseSpec;
    this.problem.set(null);
    const came = outcome === '' ? null : { id: v7(), outcome: outcome as Outcome, note: '' };
    this.#data
      .markInstalled(
        row.id,
        { id: v7(), role: spec.what, version: spec.variant, on, outcome: came },
        row.rev,
      )
      .subscribe({
        next: () => {
          this.marking.set(null);
          this.said.set(`Stored: ${spec.variant} on ${row.name} since ${on}.`);
          this.#load(this.release().id);
        },
        error: (e: ApiError) => this.problem.set(e.message),
      });
  }

  #load(id: string): void {
    this.#data.touched(id).subscribe({
      next: ({ items }) => this.rows.set(items),
      error: (e: ApiError) => this.problem.set(e.message),
    });
  }
}
