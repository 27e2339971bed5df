import {
  ChangeDetectionStrategy,
  Component,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { FormControl } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { v7 } from 'uuid';
import { type Outcome, OUTCOMES } from '@ruddy/core/base';
import { pinWords } from '@ruddy/core/compatibility/text';
import { type ReleaseSpec, SOFTWARE_NAMES } from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import type { TouchedRow } from '@ruddy/core/plan/contract';
import { SetupsData } from '../setups/setups';
import { day, pluralize } from '../platform/shared/format';
import { Acts } from '../platform/kit/ask';
import { ServerClock } from '../platform/shared/server-clock';
import { OUTCOME_WORDS } from './record/outcome-form';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';

const STANDS: Record<TouchedRow['stands'], string> = {
  older: 'older is installed',
  same: 'this one is installed',
  newer: 'a newer one is installed',
  'not known': 'not known what is installed',
};
/** Which setups a release touches, and the place to say that it was installed and what came of it. */
@Component({
  selector: 'rb-touched-setups',
  imports: [Field, RouterLink, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>{{ headline() }}</h3>
    @if (problem(); as why) {
      <p class="problem" role="alert">{{ why }}</p>
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
              <form (submit)="mark($event, r)" [attr.aria-label]="'Installed on ' + r.name">
                <rb-field [meta]="onMeta" [control]="on" />
                <rb-field [meta]="outcomeMeta" [control]="outcome" />
                <button mat-flat-button type="submit">
                  {{ r.pin ? 'Mark installed, leave the pin' : 'Mark installed' }}
                </button>
                <button mat-button type="button" (click)="marking.set(null)">Cancel</button>
              </form>
            } @else {
              <button
                mat-button
                type="button"
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
  `,
})
export class TouchedSetups {
  readonly #data = inject(SetupsData);
  readonly #acts = inject(Acts);
  readonly #clock = inject(ServerClock);
  readonly release = input.required<Part>();
  readonly rows = signal<TouchedRow[] | null>(null);
  readonly marking = signal<string | null>(null);
  readonly problem = signal<string | null>(null);
  readonly stands = STANDS;
  readonly onMeta: FieldMeta = { label: 'Installed on', input: 'day' };
  readonly outcomeMeta: FieldMeta = {
    label: 'Outcome',
    input: 'choice',
    placeholder: 'not tried yet',
    options: OUTCOMES.map((o) => ({ value: o, label: OUTCOME_WORDS[o] })),
  };
  readonly on = new FormControl<string | null>(this.#clock.today());
  readonly outcome = new FormControl<Outcome | null>(null);

  constructor() {
    effect(() => {
      const { id } = this.release();
      untracked(() => this.#load(id));
    });
  }

  pinText(pin: NonNullable<TouchedRow['pin']>): string {
    const spec = this.release().spec as ReleaseSpec;
    return pinWords({ ...pin, name: SOFTWARE_NAMES[spec.what], now: spec.variant });
  }

  headline(): string {
    const rows = this.rows();
    if (!rows) return 'Looking which setups it touches …';
    const older = rows.filter((r) => r.stands === 'older').length;
    return `Touches ${pluralize(rows.length, 'setup')}${rows.length > 0 ? `, ${older} with an older version` : ''}`;
  }

  mark(event: Event, row: TouchedRow): void {
    event.preventDefault();
    const on = this.on.value;
    if (on === null) return;
    const spec = this.release().spec as ReleaseSpec;
    const outcome = this.outcome.value && { id: v7(), outcome: this.outcome.value, note: '' };
    const body = { id: v7(), role: spec.what, version: spec.variant, on, outcome };
    this.#acts.run(this.#data.markInstalled(row.id, body, row.rev), {
      done: `Saved: ${spec.variant} on ${row.name} since ${day(on)}.`,
      then: () => {
        this.marking.set(null);
        this.outcome.reset();
        this.#load(this.release().id);
      },
    });
  }

  #load(id: string): void {
    this.#acts.read(this.#data.touched(id), {
      line: this.problem,
      then: ({ items }) => this.rows.set(items),
    });
  }
}
