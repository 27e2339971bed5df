import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { FormControl, FormGroup } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { figureText } from '@ruddy/core/base/text';
import { type Segment, segmentSchema } from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { readyToSend, zodForm } from '../platform/kit/problems';
import { Rows } from '../platform/kit/rows';

interface Row {
  readonly name: string;
  readonly span: string;
  readonly index: number | null;
  readonly average: string;
  readonly low: string;
  readonly below30: string;
  readonly below60: string;
}

/** The beginning of a run cut off, and its scenes: named stretches with figures of their own, held against the whole. */
@Component({
  selector: 'rb-scenes-panel',
  imports: [Cell, Field, MatButtonModule, Rows],
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
      <rb-field
        class="short"
        [meta]="cut"
        [value]="cutNow()"
        (changed)="said.emit({ cutS: $event ?? 0 })"
      />
    }
    <rb-rows label="Scenes of this run" [columns]="columns" [rows]="rows()">
      <ng-template rbCell="do" [rbCellOf]="rows()" let-r>
        @if (r.index !== null) {
          <button
            mat-button
            type="button"
            (click)="drop(r.index)"
            [attr.aria-label]="'Remove the scene ' + r.name"
          >
            Remove
          </button>
        }
      </ng-template>
    </rb-rows>
    @if (check(); as c) {
      <p class="hint">{{ c }}</p>
    }
    <form
      #box
      class="row"
      (submit)="$event.preventDefault(); add(box)"
      novalidate
      aria-label="New scene"
    >
      @for (f of fields; track f[0].label) {
        <rb-field [meta]="f[0]" [control]="f[1]" />
      }
      <button mat-stroked-button type="submit">Add scene</button>
    </form>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .short {
      width: 220px;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
    }
    .row rb-field {
      width: 140px;
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
  readonly cutNow = computed<number | null>(() => this.run().cutS);
  readonly cut: FieldMeta = {
    label: 'Cut off at the start',
    input: 'number',
    unit: 's',
    min: 0,
    help: 'Figures count what comes after; the trace keeps everything',
  };
  readonly columns: readonly ShortColumn<Row>[] = [
    { key: 'name', name: 'Scene', text: (r) => r.name },
    { key: 'span', name: 'From, to', figure: true, text: (r) => r.span },
    { key: 'average', name: 'Average', figure: true, text: (r) => r.average },
    { key: 'low', name: '1 % low', figure: true, text: (r) => r.low },
    { key: 'below30', name: 'Below 30', figure: true, text: (r) => r.below30 },
    { key: 'below60', name: 'Below 60', figure: true, text: (r) => r.below60 },
    { key: 'do', name: 'Actions', silent: true },
  ];
  readonly form = new FormGroup(
    {
      name: new FormControl('', { nonNullable: true }),
      fromS: new FormControl<number | null>(0),
      toS: new FormControl<number | null>(null),
    },
    { validators: zodForm(segmentSchema) },
  );
  readonly fields: readonly (readonly [FieldMeta, FormControl])[] = [
    [{ label: 'Scene', input: 'text', max: 60 }, this.form.controls.name],
    [{ label: 'From', input: 'number', unit: 's' }, this.form.controls.fromS],
    [{ label: 'To', input: 'number', unit: 's' }, this.form.controls.toS],
  ];
  readonly rows = computed((): Row[] => {
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

  drop(index: number): void {
    this.said.emit({ segments: this.run().segments.filter((_, i) => i !== index) });
  }

  add(box: HTMLElement): void {
    if (!readyToSend(this.form, box)) return;
    const scene = segmentSchema.parse(this.form.getRawValue());
    this.form.reset();
    this.said.emit({ segments: [...this.run().segments, scene] });
  }
}
