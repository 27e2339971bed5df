import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { dockedSchema, type Tuning } from '@ruddy/core/setups';
import { tuningWords } from '@ruddy/core/setups/text';
import { SetupEditor } from '../setups/setup-editor';
import { day, readNumber } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';

/** Tuning one step at a time: what was changed, from what to what, and what the same run gained. */
@Component({
  selector: 'rb-tuning-panel',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ol>
      @for (t of steps(); track $index; let i = $index) {
        <li>
          {{ day(t.on) }}: {{ words(t) }}
          <button
            mat-button
            type="button"
            (click)="drop(i)"
            [attr.aria-label]="'Take off: ' + t.what"
          >
            Take it off
          </button>
        </li>
      } @empty {
        <li class="quiet">0 tuning steps noted.</li>
      }
    </ol>
    <form (submit)="add($event, what, from, to, gain)" aria-label="A tuning step">
      <div class="field">
        <label for="t-what">Changed</label
        ><input #what id="t-what" maxlength="80" autocomplete="off" />
      </div>
      <div class="field">
        <label for="t-from">From</label
        ><input #from id="t-from" maxlength="40" autocomplete="off" />
      </div>
      <div class="field">
        <label for="t-to">To</label><input #to id="t-to" maxlength="40" autocomplete="off" />
      </div>
      <div class="field">
        <label for="t-gain">Gained in the same run, %</label
        ><input #gain id="t-gain" inputmode="decimal" autocomplete="off" />
      </div>
      <button mat-stroked-button type="submit">Note this step</button>
    </form>
    @if (problem(); as why) {
      <p class="problem" role="alert">Nothing noted. {{ why }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    ol {
      list-style: none;
    }
    form {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
      gap: 8px;
      align-items: end;
    }
  `,
})
export class TuningPanel {
  readonly #editor = inject(SetupEditor);
  readonly #clock = inject(ServerClock);
  readonly day = day;
  readonly words = tuningWords;
  readonly problem = signal<string | null>(null);
  readonly steps = computed(() => this.#editor.fields()?.docked.tuning ?? []);

  add(
    e: Event,
    what: HTMLInputElement,
    from: HTMLInputElement,
    to: HTMLInputElement,
    gain: HTMLInputElement,
  ): void {
    e.preventDefault();
    const d = this.#editor.fields()?.docked;
    const read = readNumber(gain.value);
    if (!d) return;
    if (!read.ok) return this.problem.set(`Gained: ${read.why}`);
    const step = {
      what: what.value,
      from: from.value,
      to: to.value,
      gainPercent: read.value,
      on: this.#clock.today(),
    };
    const next = dockedSchema.safeParse({ ...d, tuning: [...d.tuning, step] });
    if (!next.success) return this.problem.set(next.error.issues[0]?.message ?? 'not a step');
    this.problem.set(null);
    this.#editor.change({ docked: next.data });
    for (const box of [what, from, to, gain]) box.value = '';
    what.focus();
  }

  drop(index: number): void {
    const d = this.#editor.fields()?.docked;
    if (d)
      this.#editor.change({
        docked: { ...d, tuning: d.tuning.filter((_: Tuning, i) => i !== index) },
      });
  }
}
