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
    const all = (name: string, of: (r: RunEntry, s: Shown) => string, help?: string): Line => ({
      name,
      help,
      cells: shown.map((s) =>
        s.run.stats || name === 'Repeats' || name === 'Result' ? of(s.run, s) : '–',
      ),
    });
    const frames: Line[] = [
      all('Average, frames/s', (r) => figureText(r.stats!.averageFps), 'frames over time'),
      all('1 % low, 99th-percentile frame', (r) => figureText(r.stats!.low1.at)),
      all('1 % low, slowest 1 % of frames', (r) => figureText(r.stats!.low1.frames)),
      all('1 % low, slowest 1 % of time', (r) => figureText(r.stats!.low1.time)),
      all(
        '0.1 % low, 99.9th / slowest',
        (r) => `${figureText(r.stats!.low01.at)} / ${figureText(r.stats!.low01.frames)}`,
      ),
      all(
        'How it plays',
        (r) => PLAY_LABELS[playLabel(r.stats!.averageFps, r.stats!.low1.at)],
        'from average and 1 % low',
      ),
      all(
        'Slowest and fastest second',
        (r) =>
          `${figureText(r.stats!.minSecondFps ?? NaN)} / ${figureText(r.stats!.maxSecondFps ?? NaN)}`,
      ),
      all(
        'Mean frame, ms',
        (r) => `${figureText(r.stats!.meanMs)} ± ${figureText(r.stats!.sdMs, 2)}`,
        'and standard deviation',
      ),
      all('Middle half, ms', (r) => `${at(2)(r)} to ${at(4)(r)}`),
      all('99 % and 99.9 %, ms', (r) => `${at(7)(r)} / ${at(8)(r)}`),
      all(
        'Below 60',
        (r) => `${figureText(r.stats!.below60.seconds)} s, ${r.stats!.below60.frames} frames`,
      ),
      all(
        'Below 30',
        (r) => `${figureText(r.stats!.below30.seconds)} s, ${r.stats!.below30.frames} frames`,
      ),
      all('Stutters', (r) => hitchText(r.stats!), 'over 2.5 times the median of their second'),
      all('Limit', cap),
      all(
        'Length',
        (r) =>
          `${figureText(r.stats!.seconds)} s, ${r.stats!.frames} frames${r.cutS > 0 ? `, first ${r.cutS} s cut` : ''}`,
      ),
      all(
        'Shown on screen, frames/s',
        (r) => (r.shown ? figureText(r.shown.averageFps) : '–'),
        'apart from rendered; never compared',
      ),
    ];
    const several = shown.map((s) => {
      const list = mainValues(s.group);
      if (list.length === 0) return '–';
      const o = meanOf(list);
      return o.lo === null || o.hi === null
        ? `1 run: ${figureText(o.mean)}`
        : `${o.n} runs: ${figureText(o.mean)}, 95 % ${figureText(o.lo)} to ${figureText(o.hi)}`;
    });
    const typed = all('Result', (r) =>
      r.result ? `${r.result.value} ${r.result.unit}` : r.reason || '–',
    );
    const kept = shown.some((s) => s.run.stats)
      ? frames.filter((l) => l.cells.some((c) => c !== '–'))
      : [];
    return [
      ...kept.slice(0, 1),
      { name: 'Repeats', cells: several },
      ...kept.slice(1),
      ...(shown.some((s) => !s.run.stats) ? [typed] : []),
    ];
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
