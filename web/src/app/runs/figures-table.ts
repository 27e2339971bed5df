import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { meanOf } from '@ruddy/core/base';
import { figureText } from '@ruddy/core/base/text';
import { PLAY_LABELS, playLabel } from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';
import { hitchText } from '@ruddy/core/runs/text';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Rows } from '../platform/kit/rows';
import { toCsv } from '../platform/kit/csv';
import { download } from '../platform/shared/download';
import { mainValues } from './run-groups';
import type { Shown } from './run-store';

interface Line {
  readonly name: string;
  readonly help?: string;
  readonly cells: readonly string[];
}

function cap(r: RunEntry): string {
  const { cap: found } = r.stats ?? {};
  return found
    ? `looks held to ${found.fps} (${Math.round(found.share * 100)} % of the seconds)`
    : 'none seen';
}
const at = (i: number) => (r: RunEntry) => figureText(r.stats?.atMs[i] ?? NaN);

/** One figure of a run with frames. */
interface FrameFigure {
  readonly name: string;
  of(r: RunEntry): string;
  readonly help?: string;
}
const line = (name: string, of: (r: RunEntry) => string, help?: string): FrameFigure => ({
  name,
  of,
  help,
});

/** What the frames of a run show, in the order of the table. */
const FRAME_FIGURES: readonly FrameFigure[] = [
  line('Average, frames/s', (r) => figureText(r.stats!.averageFps), 'frames over time'),
  line('1 % low, 99th-percentile frame', (r) => figureText(r.stats!.low1.at)),
  line('1 % low, slowest 1 % of frames', (r) => figureText(r.stats!.low1.frames)),
  line('1 % low, slowest 1 % of time', (r) => figureText(r.stats!.low1.time)),
  line(
    '0.1 % low, 99.9th / slowest',
    (r) => `${figureText(r.stats!.low01.at)} / ${figureText(r.stats!.low01.frames)}`,
  ),
  line(
    'How it plays',
    (r) => PLAY_LABELS[playLabel(r.stats!.averageFps, r.stats!.low1.at)],
    'from average and 1 % low',
  ),
  line(
    'Slowest and fastest second',
    (r) =>
      `${figureText(r.stats!.minSecondFps ?? NaN)} / ${figureText(r.stats!.maxSecondFps ?? NaN)}`,
  ),
  line(
    'Mean frame, ms',
    (r) => `${figureText(r.stats!.meanMs)} ± ${figureText(r.stats!.sdMs, 2)}`,
    'and standard deviation',
  ),
  line('Middle half, ms', (r) => `${at(2)(r)} to ${at(4)(r)}`),
  line('99 % and 99.9 %, ms', (r) => `${at(7)(r)} / ${at(8)(r)}`),
  line(
    'Below 60',
    (r) => `${figureText(r.stats!.below60.seconds)} s, ${r.stats!.below60.frames} frames`,
  ),
  line(
    'Below 30',
    (r) => `${figureText(r.stats!.below30.seconds)} s, ${r.stats!.below30.frames} frames`,
  ),
  line('Stutters', (r) => hitchText(r.stats!), 'over 2.5 times the median of their second'),
  line('Limit', cap),
  line(
    'Length',
    (r) =>
      `${figureText(r.stats!.seconds)} s, ${r.stats!.frames} frames${r.cutS > 0 ? `, first ${r.cutS} s cut` : ''}`,
  ),
  line(
    'Shown on screen, frames/s',
    (r) => (r.shown ? figureText(r.shown.averageFps) : '–'),
    'apart from rendered; never compared',
  ),
];

/** The mean of the repeats of a run and its interval. */
function repeatsText(s: Shown): string {
  const list = mainValues(s.group);
  if (list.length === 0) return '–';
  const o = meanOf(list);
  return o.lo === null || o.hi === null
    ? `1 run: ${figureText(o.mean)}`
    : `${o.n} runs: ${figureText(o.mean)}, 95 % ${figureText(o.lo)} to ${figureText(o.hi)}`;
}

const resultText = (r: RunEntry): string =>
  r.result ? `${r.result.value} ${r.result.unit}` : r.reason || '–';

/** Everything a run shows, a column a run. Repeats stand in one line with their interval; both schools of lows side by side. */
@Component({
  selector: 'rb-figures-table',
  imports: [Cell, MatButtonModule, Rows],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-rows label="Figures of the runs" [columns]="columns()" [rows]="lines()">
      <ng-template rbCell="name" [rbCellOf]="lines()" let-l>
        {{ l.name }}
        @if (l.help) {
          <span class="hint">{{ l.help }}</span>
        }
      </ng-template>
    </rb-rows>
    <p><button mat-stroked-button type="button" (click)="csv()">Download CSV</button></p>
  `,
  styles: `
    .hint {
      display: block;
    }
  `,
})
export class FiguresTable {
  readonly shown = input.required<readonly Shown[]>();
  readonly name = input('runs');
  readonly columns = computed((): readonly ShortColumn<Line>[] => [
    { key: 'name', name: 'Figure' },
    ...this.shown().map((s, i) => ({
      key: s.letter,
      name: s.letter,
      figure: true,
      text: (l: Line) => l.cells[i] ?? '',
    })),
  ]);
  readonly lines = computed((): Line[] => {
    const shown = this.shown();
    const withFrames = shown.some((s) => s.run.stats);
    const figures = FRAME_FIGURES.map(({ name, help, of }): Line => ({
      name,
      help,
      cells: shown.map((s) => (s.run.stats ? of(s.run) : '–')),
    }));
    const kept = withFrames ? figures.filter((l) => l.cells.some((c) => c !== '–')) : [];
    const repeats = { name: 'Repeats', cells: shown.map(repeatsText) };
    const result = { name: 'Result', cells: shown.map((s) => resultText(s.run)) };
    const allFrames = shown.every((s) => s.run.stats);
    return [...kept.slice(0, 1), repeats, ...kept.slice(1), ...(allFrames ? [] : [result])];
  });

  async csv(): Promise<void> {
    const head = [
      'figure',
      ...this.shown().map((s) => `${s.letter} ${s.group.title} ${s.group.label}`),
    ];
    download(
      `${this.name()}-figures.csv`,
      'text/csv',
      await toCsv(
        head,
        this.lines().map((l) => [l.name, ...l.cells]),
      ),
    );
  }
}
