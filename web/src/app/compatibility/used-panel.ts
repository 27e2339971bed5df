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
import { usedBody } from '@ruddy/core/bring-up/contract';
import { reliability, type UseSpan } from '@ruddy/core/compatibility';
import type { SetupEvent } from '@ruddy/core/compatibility/contract';
import { reliabilityWords } from '@ruddy/core/compatibility/text';
import type { ApiError } from '../platform/api/api-client';
import { LogData } from './log';
import { readNumber } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';

/** Hours in use with drops and freezes: what they say of the time between two, and the place to note more. */
@Component({
  selector: 'rb-used-panel',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p>{{ words() }}</p>
    <form #form (submit)="note($event, form)" novalidate aria-label="Note hours in use">
      @if (problem(); as why) {
        <p class="problem" role="alert">Nothing stored. {{ why }}</p>
      }
      <div class="row">
        <label
          >From <input name="from" type="date" [value]="clock.today()" [max]="clock.today()"
        /></label>
        <label
          >To <input name="until" type="date" [value]="clock.today()" [max]="clock.today()"
        /></label>
        <label
          >Hours <input class="short" name="hours" inputmode="decimal" autocomplete="off"
        /></label>
        <label
          >Drops <input class="short" name="drops" inputmode="numeric" value="0" autocomplete="off"
        /></label>
        <label
          >Freezes
          <input class="short" name="freezes" inputmode="numeric" value="0" autocomplete="off"
        /></label>
      </div>
      <label>What was seen <input name="words" maxlength="300" autocomplete="off" /></label>
      <button mat-stroked-button type="submit">Note these hours</button>
    </form>
  `,
  styles: `
    form {
      display: grid;
      gap: 8px;
      margin-top: 8px;
      justify-items: start;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
    label {
      display: grid;
      font-size: 13px;
    }
    form > label,
    form > label input {
      width: 100%;
    }
    .short {
      width: 72px;
    }
  `,
})
export class UsedPanel {
  readonly #log = inject(LogData);
  readonly clock = inject(ServerClock);
  readonly setupId = input.required<string>();
  readonly events = input.required<readonly SetupEvent[]>();
  readonly stored = output();
  readonly problem = signal<string | null>(null);
  #id = v7();
  /** What was noted and not taken back. */
  readonly spans = computed(() => {
    const gone = new Set(
      this.events().flatMap((e) => (e.kind === 'struck' && e.corrects ? [e.corrects] : [])),
    );
    return this.events()
      .filter((e) => e.kind === 'used' && !gone.has(e.id))
      .map((e) => e.body as unknown as UseSpan);
  });
  readonly words = computed(() => reliabilityWords(reliability(this.spans())));

  note(event: Event, form: HTMLFormElement): void {
    event.preventDefault();
    const f = Object.fromEntries(new FormData(form)) as Record<string, string>;
    const number = (key: string) => {
      const read = readNumber(f[key] ?? '');
      return read.ok ? read.value : read.why;
    };
    const parsed = usedBody.safeParse({
      id: this.#id,
      from: f['from'],
      until: f['until'],
      words: f['words'] ?? '',
      hours: number('hours'),
      drops: number('drops'),
      freezes: number('freezes'),
    });
    if (!parsed.success) {
      this.problem.set(parsed.error.issues[0]?.message ?? 'Something is not as expected');
      return;
    }
    this.#log.addUse(this.setupId(), parsed.data).subscribe({
      next: () => {
        this.problem.set(null);
        this.#id = v7();
        form.reset();
        this.stored.emit();
      },
      error: (e: ApiError) => this.problem.set(e.message),
    });
  }
}
