import {
  ChangeDetectionStrategy,
  Component,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { NO_RUN_CONTEXT, RUN_KINDS, type RunKind, type RunSettings } from '@ruddy/core/runs';
import { RunsData } from './runs';
import { optionsOf } from '../platform/kit/meta';
import { Choice } from '../platform/shared/choice';
import { readNumber } from '../platform/shared/format';
import { RunForm, type RunDraft } from './run-form';
import { TitleField } from './title-field';

const { frames, ...TYPED } = RUN_KINDS;
void frames;
/** Whole seconds, or minutes and seconds: "6:52" and "6:52.4" are 412 and 412.4 s. */
export function readSeconds(text: string): ReturnType<typeof readNumber> {
  const m = /^(?:(\d+):)?(\d+):(\d{2})(?:[.,](\d+))?$/.exec(text.trim());
  if (!m) return readNumber(text);
  return {
    ok: true,
    value: Number(m[1] ?? 0) * 3600 + Number(m[2]) * 60 + Number(`${m[3] ?? '0'}.${m[4] ?? '0'}`),
  };
}

/** What is not a file: a score, a time, or why something could not be run at all. Several repeats at once, one a line. */
@Component({
  selector: 'rb-typed-panel',
  imports: [Choice, RunForm, TitleField, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="sheet" aria-labelledby="typed-h">
      <h2 id="typed-h">Type a result</h2>
      <rb-choice
        label="What it is"
        [options]="kinds"
        [value]="kind()"
        [clearable]="false"
        (chosen)="choose($event)"
      />
      <rb-title-field [kind]="kind() === 'time' ? 'work' : 'title'" />
      @if (kind() === 'none') {
        <div class="field">
          <label for="typed-why">Why it could not be run</label>
          <input
            id="typed-why"
            maxlength="300"
            #why
            [value]="reason()"
            (input)="reason.set(why.value)"
          />
        </div>
      } @else {
        <div class="two">
          <div class="field">
            <label for="typed-values">{{
              kind() === 'time' ? 'Times, one a line: seconds, or 6:52' : 'Results, one a line'
            }}</label>
            <textarea
              id="typed-values"
              rows="3"
              #values
              [value]="text()"
              (input)="text.set(values.value)"
            ></textarea>
          </div>
          @if (kind() === 'score') {
            <div class="field">
              <label for="typed-unit">Unit</label>
              <input
                id="typed-unit"
                maxlength="20"
                list="typed-units"
                #unitBox
                [value]="unit()"
                (input)="unit.set(unitBox.value)"
              />
              <datalist id="typed-units">
                <option value="points"></option>
                <option value="frames/s"></option>
              </datalist>
            </div>
          }
        </div>
      }
      @if (draft().settings) {
        <rb-run-form
          [draft]="draft()"
          [kind]="kind()"
          (changed)="draft.set($event)"
          (problem)="fieldProblem.set($event)"
        />
      }
      @if (fieldProblem() ?? problem(); as p) {
        <p class="problem" role="alert">{{ p }}</p>
      }
      <p>
        <button mat-flat-button type="button" [disabled]="storing()" (click)="store()">
          Store what was typed
        </button>
      </p>
    </section>
  `,
  styles: `
    section {
      padding: 12px 16px;
      display: grid;
      gap: 12px;
    }
    .two {
      display: grid;
      grid-template-columns: minmax(0, 2fr) minmax(0, 1fr);
      gap: 12px;
    }
  `,
})
export class TypedPanel {
  readonly #data = inject(RunsData);
  readonly setupId = input.required<string>();
  readonly preset = input.required<RunSettings>();
  readonly stored = output<number>();
  readonly title = viewChild.required(TitleField);
  readonly kinds = optionsOf(TYPED);
  readonly kind = signal<Exclude<RunKind, 'frames'>>('score');
  readonly text = signal('');
  readonly unit = signal('points');
  readonly reason = signal('');
  readonly problem = signal<string | null>(null);
  readonly fieldProblem = signal<string | null>(null);
  readonly storing = signal(false);
  readonly draft = signal<RunDraft>({
    settings: null as unknown as RunSettings,
    context: { ...NO_RUN_CONTEXT, method: 'hand' },
    saw: '',
  });

  constructor() {
    effect(() => {
      const settings = this.preset();
      untracked(() =>
        this.draft.update((d) => ({ ...d, settings: { ...settings, ...(d.settings ?? {}) } })),
      );
    });
  }

  choose(kind: string | null): void {
    if (kind) this.kind.set(kind as Exclude<RunKind, 'frames'>);
  }

  /** The values as typed, or what is wrong with which line. */
  #values(): number[] | string {
    const lines = this.text()
      .split('\n')
      .filter((l) => l.trim() !== '');
    if (lines.length === 0) return 'Results: type at least one';
    const values: number[] = [];
    for (const [i, l] of lines.entries()) {
      const r = this.kind() === 'time' ? readSeconds(l) : readNumber(l);
      if (!r.ok) return `Line ${i + 1}: ${r.why}`;
      if (r.value === null || r.value <= 0) return `Line ${i + 1}: must be above 0`;
      values.push(r.value);
    }
    return values;
  }

  async store(): Promise<void> {
    const kind = this.kind();
    const values = kind === 'none' ? [0] : this.#values();
    if (typeof values === 'string') return this.problem.set(`${values}; nothing is stored yet`);
    if (this.title().name().trim() === '')
      return this.problem.set('Title: say what was run; nothing is stored yet');
    if (kind === 'none' && this.reason().trim() === '')
      return this.problem.set('Why: must not be empty; nothing is stored yet');
    if (this.fieldProblem()) return;
    this.problem.set(null);
    this.storing.set(true);
    let stored = 0;
    try {
      const titleId = await this.title().resolve();
      for (const value of values) {
        const result =
          kind === 'none' ? null : { value, unit: kind === 'time' ? 's' : this.unit().trim() };
        const { settings, context, saw } = this.draft();
        const run = {
          id: v7(),
          titleId,
          kind,
          result,
          reason: kind === 'none' ? this.reason() : '',
          settings,
          context,
          saw,
        };
        await firstValueFrom(this.#data.add(this.setupId(), run));
        stored++;
      }
      this.stored.emit(stored);
      this.text.set('');
      this.reason.set('');
    } catch (e) {
      this.problem.set(
        `${stored === 0 ? 'Nothing' : `${stored} of ${values.length}`} stored: ${(e as Error).message}`,
      );
    } finally {
      this.storing.set(false);
    }
  }
}
