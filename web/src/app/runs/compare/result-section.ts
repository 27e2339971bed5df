import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { figureText } from '@ruddy/core/base/text';
import { FACTS, PLAY_LABELS, playLabel, type ResultCell, type ResultTable } from '@ruddy/core/runs';
import {
  cellReservations,
  comparedText,
  overLeftText,
  overTitlesText,
  outsideNotes,
  publishedTable,
  resultNumbers,
} from '@ruddy/core/runs/text';
import { Cell } from '../../platform/kit/cell';
import type { ShortColumn } from '../../platform/kit/columns';
import { toCsv } from '../../platform/kit/csv';
import { Fold } from '../../platform/kit/fold';
import { Rows } from '../../platform/kit/rows';
import { download, downloadBlob } from '../../platform/shared/download';
import { pngOf, saveSvg, svgText } from '../../platform/shared/save-svg';
import { pluralize } from '../../platform/shared/format';
import { type Publication, resultMarkdown, resultPage } from './publish';
import { ResultChart } from './result-chart';

interface ResultLine {
  readonly at: readonly string[];
  /** Null in a row of means over titles. */
  readonly cells: readonly ResultCell[] | null;
  readonly over: readonly string[];
}

const FILE = 'runs-compared';

/** A result to publish: the table with one ratio a cell, the chart of it, what it leaves out, and the files it can leave as. */
@Component({
  selector: 'rb-result-section',
  imports: [Cell, Fold, MatButtonModule, MatIconModule, ResultChart, Rows],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './result-section.html',
  styleUrl: './result-section.scss',
})
export class ResultSection {
  readonly table = input.required<ResultTable>();
  readonly unit = input.required<string>();
  readonly heading = input.required<string>();
  /** The setups of the result, with their versions. */
  readonly captions = input.required<readonly string[]>();
  readonly chart = viewChild(ResultChart);
  readonly problem = signal<string | null>(null);
  readonly counted = pluralize;
  readonly compared = comparedText;
  readonly reservations = cellReservations;
  readonly figure = figureText;
  readonly outside = computed(() => outsideNotes(this.table()));
  readonly lines = computed((): readonly ResultLine[] => {
    const { rows, over } = this.table();
    const means = rows.length < 2 ? [] : over;
    return [
      ...rows.map((r) => ({ at: r.at, cells: r.cells, over: [] })),
      ...means.map((o) => ({
        at: ['Over titles', ...o.at],
        cells: null,
        over: o.cells.map((c, i) =>
          i === 0
            ? pluralize(c.titles.length, 'row')
            : [overTitlesText(c), overLeftText(c)].filter((words) => words !== '').join('; '),
        ),
      })),
    ];
  });
  readonly columns = computed((): readonly ShortColumn<ResultLine>[] => [
    ...this.table().ask.rows.map((d, i) => ({
      key: `at ${d}`,
      name: FACTS[d],
      text: (r: ResultLine) => r.at[i] ?? '',
    })),
    ...this.table().columns.map((c, i) => ({ key: c, name: i === 0 ? `${c}, the base` : c })),
  ]);

  main(c: ResultCell): string {
    return `${figureText(c.mean ?? 0)} ${this.unit()}`.trim();
  }

  more(c: ResultCell): string {
    const lows = c.low !== null && c.lowFrames !== null;
    const low = lows ? `, lows ${figureText(c.low ?? 0)} and ${figureText(c.lowFrames ?? 0)}` : '';
    const label = c.low === null ? '' : `, ${PLAY_LABELS[playLabel(c.mean ?? 0, c.low)]}`;
    const norm =
      c.from.ofNorm === null ? '' : `, ${figureText(c.from.ofNorm * 100)} % of a desktop slot`;
    return `${pluralize(c.runs, 'run')}${low}${label}${norm}`;
  }

  #publication(): Publication {
    return {
      heading: this.heading(),
      captions: this.captions(),
      table: publishedTable(this.table(), this.unit()),
    };
  }

  #drawing(): SVGSVGElement | null {
    return this.chart()?.drawing().nativeElement ?? null;
  }

  async csv(): Promise<void> {
    const { head, rows } = resultNumbers(this.table(), this.unit());
    download(`${FILE}.csv`, 'text/csv', await toCsv(head, rows));
  }

  markdown(): void {
    download(`${FILE}.md`, 'text/markdown', resultMarkdown(this.#publication()));
  }

  page(): void {
    const svg = this.#drawing();
    if (svg) download(`${FILE}.html`, 'text/html', resultPage(this.#publication(), svgText(svg)));
  }

  svg(): void {
    const svg = this.#drawing();
    if (svg) saveSvg(`${FILE}.svg`, svg);
  }

  async png(): Promise<void> {
    const svg = this.#drawing();
    if (!svg) return;
    this.problem.set(null);
    try {
      const ground = getComputedStyle(document.body).backgroundColor;
      downloadBlob(`${FILE}.png`, await pngOf(svg, ground));
    } catch (e) {
      this.problem.set(`No picture was made: ${(e as Error).message}`);
    }
  }
}
