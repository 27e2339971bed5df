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
import { Field } from '../platform/kit/field';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';
import { readNumber } from '../platform/shared/format';
import { RunForm, type RunDraft } from './run-form';
import { TitleField } from './title-field';

const { frames, ...TYPED } = RUN_KINDS;
void frames;
type TypedKind = Exclude<RunKind, 'frames'>;

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
  imports: [Field, RunForm, TitleField, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="sheet" aria-labelledby="typed-h">
      <h2 id="typed-h">Type a result</h2>
      <rb-field [meta]="kinds" [value]="kind()" (changed)="kind.set($event)" />
      <rb-title-field [kind]="kind() === 'time' ? 'work' : 'title'" />
      @if (kind() === 'none') {
        <rb-field [meta]="why" [live]="true" [value]="reason()" (changed)="reason.set($event)" />
      } @else {
        <div class="two">
          <rb-field
            [meta]="kind() === 'time' ? times : results"
            [live]="true"
            [value]="text()"
            (changed)="text.set($event)"
          />
          @if (kind() === 'score') {
            <rb-field [meta]="units" [live]="true" [value]="unit()" (changed)="unit.set($event)" />
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
          Save the result
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
  readonly kinds: FieldMeta = {
    label: 'Kind of result',
    input: 'toggle',
    options: optionsOf(TYPED),
  };
  readonly why: FieldMeta = { label: 'Why it could not be run', input: 'text', max: 300 };
  readonly results: FieldMeta = { label: 'Results', input: 'area', help: 'One a line' };
  readonly times: FieldMeta = {
    label: 'Times',
    input: 'area',
    help: 'One a line: seconds, or 6:52',
  };
  readonly units: FieldMeta = {
    label: 'Unit',
    input: 'suggest',
    max: 20,
    options: optionsOf({ points: 'points', 'frames/s': 'frames/s' }),
  };
  readonly kind = signal<TypedKind>('score');
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
    if (typeof values === 'string') return this.problem.set(`${values}; nothing is saved yet`);
    if (this.title().name().trim() === '')
      return this.problem.set('Title: say what was run; nothing is saved yet');
    if (kind === 'none' && this.reason().trim() === '')
      return this.problem.set('Why: must not be empty; nothing is saved yet');
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
