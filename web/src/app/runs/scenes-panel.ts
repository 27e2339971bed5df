import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { figureText } from '@ruddy/core/base/text';
import { type Segment, segmentSchema } from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';
import { readNumber } from '../platform/shared/format';

/** The beginning of a run cut off, and its scenes: named stretches with figures of their own, held against the whole. */
@Component({
  selector: 'rb-scenes-panel',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (run().stats; as s) {
      @if (s.startS > 0) {
        <p class="asks">
          The first {{ s.startS }} s run otherwise than the rest: a scene that starts, or loading?
          <button
            mat-stroked-button
            type="button"
            (click)="said.emit({ cutS: run().cutS + s.startS })"
          >
            Cut them off
          </button>
        </p>
      }
      <p class="row">
        <label for="cut">Cut off at the start, s</label>
        <input
          id="cut"
          inputmode="decimal"
          [value]="run().cutS"
          #cut
          (change)="setCut(cut.value)"
        />
        <span class="hint">Figures count what comes after. The trace keeps everything.</span>
      </p>
    }
    <div class="wide" tabindex="0" role="region" aria-label="Scenes of the run">
      <table class="list">
        <caption class="hint">
          Scenes of this run
        </caption>
        <thead>
          <tr>
            <th scope="col">Scene</th>
            <th scope="col" class="figure">From, to</th>
            <th scope="col" class="figure">Average</th>
            <th scope="col" class="figure">1 % low</th>
            <th scope="col" class="figure">Below 30</th>
            <th scope="col" class="figure">Below 60</th>
            <th scope="col"><span class="hint">Do</span></th>
          </tr>
        </thead>
        <tbody>
          @for (r of rows(); track r.name) {
            <tr>
              <th scope="row">{{ r.name }}</th>
              <td class="figure">{{ r.span }}</td>
              <td class="figure">{{ r.average }}</td>
              <td class="figure">{{ r.low }}</td>
              <td class="figure">{{ r.below30 }}</td>
              <td class="figure">{{ r.below60 }}</td>
              <td>
                @if (r.index !== null) {
                  <button
                    mat-button
                    type="button"
                    (click)="drop(r.index)"
                    [attr.aria-label]="'Drop the scene ' + r.name"
                  >
                    Drop
                  </button>
                }
              </td>
            </tr>
          }
        </tbody>
      </table>
    </div>
    @if (check(); as c) {
      <p class="hint">{{ c }}</p>
    }
    <p class="row">
      <input aria-label="Name of the scene" placeholder="scene" maxlength="60" #name />
      <input aria-label="From, seconds" placeholder="from s" inputmode="decimal" #from />
      <input
        aria-label="To, seconds"
        placeholder="to s"
        inputmode="decimal"
        #to
        (keydown.enter)="add(name, from, to)"
      />
      <button mat-stroked-button type="button" (click)="add(name, from, to)">Add the scene</button>
    </p>
    @if (problem(); as p) {
      <p class="problem" role="alert">{{ p }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .wide {
      overflow-x: auto;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
    }
    .row input {
      width: 96px;
    }
    caption {
      text-align: left;
    }
    .asks {
      border-left: 4px solid var(--ochre);
      padding-left: 8px;
    }
  `,
})
export class ScenesPanel {
  readonly run = input.required<RunEntry>();
  readonly said = output<{ cutS?: number; segments?: Segment[] }>();
  readonly problem = signal<string | null>(null);
  readonly rows = computed(() => {
    const r = this.run();
    const words = (name: string, span: string, s: RunEntry['stats'], index: number | null) => ({
      name,
      span,
      index,
      average: s ? figureText(s.averageFps) : 'no frames',
      low: s ? figureText(s.low1.at) : '–',
      below30: s ? `${figureText(s.below30.seconds)} s, ${s.below30.frames}` : '–',
      below60: s ? `${figureText(s.below60.seconds)} s, ${s.below60.frames}` : '–',
    });
    return [
      words('Whole run', r.stats ? `${figureText(r.stats.seconds)} s` : '', r.stats, null),
      ...r.segments.map((g, i) =>
        words(g.name, `${g.fromS} to ${g.toS} s`, r.segmentStats[i] ?? null, i),
      ),
    ];
  });
  /** Do the scenes together tell what the whole tells? */
  readonly check = computed(() => {
    const r = this.run();
    const parts = r.segmentStats.filter((s) => s !== null);
    if (!r.stats || parts.length === 0) return null;
    const seconds = parts.reduce((a, s) => a + s.seconds, 0);
    const average = parts.reduce((a, s) => a + s.frames, 0) / seconds;
    return `Scenes cover ${figureText(seconds)} of ${figureText(r.stats.seconds)} s and run at ${figureText(average)} frames/s together; the whole at ${figureText(r.stats.averageFps)}.`;
  });

  setCut(value: string): void {
    const read = readNumber(value);
    if (!read.ok || (read.value ?? 0) < 0)
      return this.problem.set(`Cut: ${read.ok ? 'not below 0' : read.why}`);
    this.problem.set(null);
    this.said.emit({ cutS: read.value ?? 0 });
  }

  drop(index: number): void {
    this.said.emit({ segments: this.run().segments.filter((_, i) => i !== index) });
  }

  add(name: HTMLInputElement, from: HTMLInputElement, to: HTMLInputElement): void {
    const a = readNumber(from.value);
    const b = readNumber(to.value);
    if (!a.ok || !b.ok) return this.problem.set(`Scene: ${!a.ok ? a.why : !b.ok ? b.why : ''}`);
    const parsed = segmentSchema.safeParse({ name: name.value, fromS: a.value ?? 0, toS: b.value });
    if (!parsed.success) return this.problem.set(parsed.error.issues[0]?.message ?? 'not a scene');
    this.problem.set(null);
    for (const box of [name, from, to]) box.value = '';
    this.said.emit({ segments: [...this.run().segments, parsed.data] });
  }
}
