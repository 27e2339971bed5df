import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  model,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { figureText } from '@ruddy/core/base/text';
import type { Alignment } from '@ruddy/core/runs';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import type { Opened } from './capture-calls';
import { CaptureWork, Stopped } from './capture-work';
import type { Shown } from './run-store';

/** Times added to runs that are drawn over the first, ms, by their id. */
export type Shifts = ReadonlyMap<string, number>;

/** A run that is drawn, readied. */
export interface DrawnRun {
  readonly s: Shown;
  readonly o: Opened;
}

/** Lays runs that are drawn over the first onto it, by where their frame rates rise and fall together, or by hand. */
@Component({
  selector: 'rb-overlay-shifts',
  imports: [Field, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button mat-stroked-button type="button" [disabled]="working()" (click)="align()">
      Align to {{ lines()[0]?.s?.letter }}
    </button>
    <button
      mat-button
      type="button"
      [disabled]="shifts().size === 0"
      (click)="shifts.set(nothing); found.set(noneFound)"
    >
      As recorded
    </button>
    @for (l of others(); track l.s.run.id) {
      <span class="one">
        <rb-field
          [meta]="meta(l.s.letter)"
          [value]="seconds(l.s.run.id)"
          (changed)="move(l.s.run.id, $event)"
        />
        <span class="hint" role="status">{{ words(l.s.run.id) }}</span>
      </span>
    }
    @if (problem(); as why) {
      <p class="problem" role="alert">{{ why }}</p>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 12px;
      align-items: center;
    }
    .one {
      display: flex;
      gap: 8px;
      align-items: center;
    }
    rb-field {
      width: 128px;
    }
  `,
})
export class OverlayShifts {
  readonly #work = inject(CaptureWork);
  readonly lines = input.required<readonly DrawnRun[]>();
  readonly shifts = model.required<Shifts>();
  readonly nothing: Shifts = new Map();
  readonly noneFound: ReadonlyMap<string, Alignment | null> = new Map();
  readonly working = signal(false);
  readonly problem = signal<string | null>(null);
  /** What was found of each run, by its id. */
  readonly found = signal(this.noneFound);
  readonly others = computed(() => this.lines().slice(1));

  meta(letter: string): FieldMeta {
    return { label: `Shift of ${letter}`, input: 'number', unit: 's' };
  }

  seconds(id: string): number {
    return (this.shifts().get(id) ?? 0) / 1000;
  }

  /** How well a run fits where it was laid; where nothing fits clearly it stays. */
  words(id: string): string {
    const found = this.found().get(id);
    if (found === undefined) return '';
    if (found === null) return 'does not vary: left as it was';
    const r = `correlation ${figureText(found.r, 2)}`;
    return found.clear ? r : `no clear fit, ${r}: left as it was`;
  }

  move(id: string, seconds: number | null): void {
    const ms = Math.round((seconds ?? 0) * 1000);
    this.shifts.set(new Map(this.shifts()).set(id, ms));
  }

  async align(): Promise<void> {
    const [first] = this.lines();
    if (!first) return;
    this.working.set(true);
    this.problem.set(null);
    try {
      for (const { s, o } of this.others()) {
        const { id } = s.run;
        const at = await this.#work.run((w) =>
          w.alignRuns(first.o.pyramid.frames, o.pyramid.frames),
        );
        this.found.set(new Map(this.found()).set(id, at));
        if (at?.clear) this.shifts.set(new Map(this.shifts()).set(id, at.offsetMs));
      }
    } catch (e) {
      if (!(e instanceof Stopped)) this.problem.set(`Not aligned: ${(e as Error).message}`);
    } finally {
      this.working.set(false);
    }
  }
}
