import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  input,
  viewChild,
} from '@angular/core';
import { scaleLinear } from 'd3-scale';
import type { ResultTable } from '@ruddy/core/runs';
import { signed } from '@ruddy/core/runs/text';
import { Axis } from '../../platform/kit/axis';
import { LOOKS } from '../run-groups';

const ROW = 22;
const WIDTH = 760;
const PAD = { left: 250, right: 90, top: 30, bottom: 30 };
const LINE = 16;

/** A ratio with its interval, in % against the base. */
interface Mark {
  readonly y: number;
  readonly column: number;
  readonly of: number;
  readonly lo: number;
  readonly hi: number;
}

/** The ratios of a result against its base, each with its interval; means over titles below. The captions stand in it, for the file. */
@Component({
  selector: 'rb-result-chart',
  imports: [Axis],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: '../chart.scss',
  template: `
    <svg
      #drawing
      [attr.viewBox]="'0 0 ' + width + ' ' + height()"
      [attr.width]="width"
      [attr.height]="height()"
      aria-hidden="true"
    >
      <text class="letter" x="8" y="18">{{ heading() }}</text>
      <g
        rbAxis="bottom"
        [scale]="x()"
        [ticks]="6"
        [words]="words"
        [reach]="pad.top - plotEnd()"
        [attr.transform]="'translate(0 ' + plotEnd() + ')'"
      />
      <line
        [attr.x1]="x()(0)"
        [attr.x2]="x()(0)"
        [attr.y1]="pad.top"
        [attr.y2]="plotEnd()"
        style="stroke: var(--ink)"
      />
      @for (n of names(); track $index) {
        <text [class.letter]="n.over" x="8" [attr.y]="n.y + 4">{{ n.text }}</text>
      }
      @for (m of marks(); track $index) {
        <line
          [attr.x1]="x()(m.lo)"
          [attr.x2]="x()(m.hi)"
          [attr.y1]="m.y"
          [attr.y2]="m.y"
          stroke-width="2"
          [style.stroke]="looks[m.column]!.color"
        />
        <path
          [attr.d]="looks[m.column]!.mark"
          [attr.transform]="'translate(' + x()(m.of) + ' ' + m.y + ')'"
          stroke-width="1.5"
          [style.fill]="looks[m.column]!.color"
          [style.stroke]="looks[m.column]!.color"
        />
        <text [attr.x]="width - pad.right + 8" [attr.y]="m.y + 4">{{ percent(m.of) }}</text>
      }
      @for (l of legend(); track l.name) {
        <path
          [attr.d]="l.mark"
          [attr.transform]="'translate(14 ' + (l.y - 4) + ')'"
          [style.fill]="l.color"
          [style.stroke]="l.color"
        />
        <text x="26" [attr.y]="l.y">{{ l.name }} against {{ base() }}</text>
      }
      @for (c of captions(); track $index) {
        <text x="8" [attr.y]="captionY($index)">{{ c }}</text>
      }
    </svg>
  `,
})
export class ResultChart {
  readonly heading = input.required<string>();
  readonly table = input.required<ResultTable>();
  readonly captions = input.required<readonly string[]>();
  readonly drawing = viewChild.required<ElementRef<SVGSVGElement>>('drawing');
  readonly pad = PAD;
  readonly width = WIDTH;
  readonly looks = LOOKS;
  readonly words = (v: { valueOf(): number }) => signed(v.valueOf()).replace('.0', '');
  readonly percent = signed;
  /** Columns that have a ratio to show, as many as there are looks. */
  readonly #drawn = computed(() => {
    const t = this.table();
    const has = (i: number) => i > 0 && t.rows.some((r) => (r.cells[i]?.ratio ?? null) !== null);
    return [...t.columns.keys()].filter(has).slice(0, LOOKS.length);
  });
  readonly shown = computed(() => this.#drawn().length);
  readonly base = computed(() => this.table().columns[0] ?? '');
  readonly #lines = computed(() => {
    const t = this.table();
    const rows = t.rows.map((r) => ({
      text: r.at.join(', '),
      over: false,
      cells: r.cells.map((c) => c.ratio),
    }));
    const over = t.over.map((o) => ({
      text: ['Over titles', ...o.at].join(', '),
      over: true,
      cells: o.cells.map((c, i) => (i === 0 || c.of === null ? null : { ...c, of: c.of })),
    }));
    const drawn = this.#drawn();
    const lines = [...rows, ...(t.rows.length > 1 ? over : [])];
    return lines
      .map((l) => ({ ...l, cells: drawn.map((i) => l.cells[i] ?? null) }))
      .filter((l) => l.cells.some((c) => c !== null));
  });
  readonly names = computed(() =>
    this.#lines().map((l, i) => ({ ...l, y: this.#y(i) + ((this.shown() - 1) * LINE) / 2 })),
  );
  readonly marks = computed((): readonly Mark[] =>
    this.#lines().flatMap((l, i) =>
      l.cells.flatMap((c, column) => {
        if (!c) return [];
        const percent = (of: number) => (of - 1) * 100;
        const y = this.#y(i) + column * LINE;
        const [lo, hi] = [c.lo ?? c.of, c.hi ?? c.of].map(percent) as [number, number];
        return [{ y, column, of: percent(c.of), lo, hi }];
      }),
    ),
  );
  readonly plotEnd = computed(() => this.#y(this.#lines().length) - ROW / 2);
  readonly x = computed(() => {
    const ends = this.marks().flatMap((m) => [m.lo, m.hi]);
    const domain = [Math.min(0, ...ends), Math.max(0, ...ends)];
    return scaleLinear(domain, [PAD.left, WIDTH - PAD.right]).nice();
  });
  readonly legend = computed(() =>
    this.#drawn().map((column, i) => ({
      name: this.table().columns[column] ?? '',
      ...(LOOKS[i] as (typeof LOOKS)[number]),
      y: this.plotEnd() + PAD.bottom + (i + 1) * LINE,
    })),
  );
  readonly height = computed(() => this.captionY(this.captions().length) + 4);

  #y(i: number): number {
    return PAD.top + ROW / 2 + i * (ROW + (Math.max(1, this.shown()) - 1) * LINE);
  }

  captionY(i: number): number {
    return this.plotEnd() + PAD.bottom + (this.shown() + 1 + i) * LINE + 4;
  }
}
