import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import { type NumberValue, scaleLinear } from 'd3-scale';
import { figureText } from '@ruddy/core/base/text';
import { frameAt, type MinMaxColumn } from '@ruddy/core/runs';
import { Keys } from '../platform/shell/keys';
import { saveSvg } from '../platform/shared/save-svg';
import { watchedWidth } from '../platform/shared/watched-width';
import { addressedInterval, shownInterval } from './addressed-interval';
import { drawTrace, highest, traceColumns, type TraceLine } from './draw-trace';
import type { Opened } from './capture-calls';
import type { Shown } from './run-store';
import { type DrawnRun, OverlayShifts, type Shifts } from './overlay-shifts';
import { Axis } from '../platform/kit/axis';
import { ZoomRange } from '../platform/kit/zoom-range';
import { Slider } from '../platform/kit/slider';

const PAD = { left: 44, right: 8, top: 8, bottom: 22 };
const HEIGHT = 220;

/**
 * Frame times over time, up to six runs over one another. From the shortest to the longest frame in each pixel, so that no spike is lost
 * however long the run is. Zoom by Ctrl and wheel, buttons or + and -; pan by dragging, buttons or arrows; the value under the pointer or the
 * reading line is said in words.
 */
@Component({
  selector: 'rb-trace-view',
  imports: [
    Axis,
    MatButtonModule,
    MatIconModule,
    MatTooltipModule,
    OverlayShifts,
    Slider,
    ZoomRange,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './trace-view.html',
  styleUrl: './trace-view.scss',
})
export class TraceView {
  readonly shown = input.required<readonly Shown[]>();
  readonly opened = input.required<ReadonlyMap<string, Opened>>();
  readonly name = input('runs');
  /** What is shown, as it stands in the address: "2000-4000" ms; empty: all. */
  readonly interval = input('');
  readonly intervalChanged = output<string>();
  readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  readonly drawing = viewChild<ElementRef<SVGSVGElement>>('drawing');
  readonly width = watchedWidth(624);
  readonly height = HEIGHT;
  readonly pad = PAD;
  /** What is looked at, ms from the start; null: all of it. */
  readonly window = addressedInterval(this.interval, this.intervalChanged);
  /** Where the reading line stands, ms. */
  readonly at = signal<number | null>(null);
  readonly choosing = signal(false);
  readonly zoomed = viewChild.required(ZoomRange);
  readonly seconds = (ms: NumberValue): string => String(Number(ms) / 1000);

  readonly lines = computed(() =>
    this.shown().flatMap((s) => {
      const o = this.opened().get(s.run.id);
      return o ? [{ s, o }] : [];
    }),
  );
  /** Where runs that are drawn over the first were laid. */
  readonly shifts = signal<Shifts>(new Map());
  /** The first stays where it is. */
  readonly shiftOf = (l: DrawnRun): number =>
    l === this.lines()[0] ? 0 : (this.shifts().get(l.s.run.id) ?? 0);
  readonly lengthMs = computed(() =>
    Math.max(1, ...this.lines().map((l) => (l.o.pyramid.ends.at(-1) ?? 0) + this.shiftOf(l))),
  );
  readonly range = computed(() => shownInterval(this.window(), this.lengthMs()));
  readonly plotWidth = computed(() => Math.max(1, Math.floor(this.width() - PAD.left - PAD.right)));
  readonly plot = computed(() => ({ width: this.plotWidth(), height: HEIGHT - PAD.bottom }));
  readonly drawn = computed(() => {
    const traces = this.lines().map((l): TraceLine => ({
      color: l.s.look.color,
      dash: l.s.look.dash.split(' ').filter(Boolean).map(Number),
      pyramid: l.o.pyramid,
      shiftMs: this.shiftOf(l),
    }));
    const [from, to] = this.range();
    return { traces, columns: traceColumns(traces, from, to, this.plotWidth()) };
  });
  readonly y = computed(() =>
    scaleLinear([0, highest(this.drawn().columns) * 1.04 || 1], [HEIGHT - PAD.bottom, PAD.top]),
  );
  readonly x = computed(() => scaleLinear(this.range(), [PAD.left, PAD.left + this.plotWidth()]));
  /** The hitches of the first run as one path, a mark each. */
  readonly hitches = computed(() => {
    const [from, to] = this.range();
    const marks = (this.lines()[0]?.o.hitchesMs ?? []).filter((t) => t >= from && t <= to);
    return marks.map((t) => `M${this.x()(t).toFixed(1)} ${HEIGHT - PAD.bottom}l-4 -7h8z`).join('');
  });
  /** What the runs show at the reading line. */
  readonly reading = computed(() => {
    const at = this.at();
    if (at === null) return '';
    const parts = this.lines().map((l) => {
      const { s, o } = l;
      const own = at - this.shiftOf(l);
      const ms = own < 0 ? undefined : o.pyramid.frames[frameAt(o.pyramid, own)];
      const none = own < 0 ? 'not begun' : 'ended';
      return `${s.letter} ${ms === undefined ? none : `${figureText(ms)} ms (${figureText(1000 / ms)} frames/s)`}`;
    });
    return `At ${(at / 1000).toFixed(2)} s: ${parts.join('; ')}`;
  });
  readonly where = computed(() => {
    const [from, to] = this.range();
    return this.window()
      ? `${(from / 1000).toFixed(2)} to ${(to / 1000).toFixed(2)} s of ${(this.lengthMs() / 1000).toFixed(1)} s`
      : `all ${(this.lengthMs() / 1000).toFixed(1)} s`;
  });

  constructor() {
    afterRenderEffect(() => this.draw());
    inject(Keys).bind([
      { key: '+', what: 'Zoom into the trace', run: () => this.zoom(0.5) },
      { key: '-', what: 'Zoom out of the trace', run: () => this.zoom(2) },
      { key: '0', what: 'All of the trace', run: () => this.window.set(null) },
      { key: 'h', what: 'Next hitch', run: () => this.nextHitch() },
      { key: 'ArrowLeft', what: 'Back along the trace', run: () => this.pan(-0.25) },
      { key: 'ArrowRight', what: 'On along the trace', run: () => this.pan(0.25) },
    ]);
  }

  /** Draw what is looked at now. */
  draw(): void {
    const el = this.canvas().nativeElement;
    const { traces, columns } = this.drawn();
    const y = this.y();
    const ratio = globalThis.devicePixelRatio || 1;
    el.width = this.width() * ratio;
    el.height = HEIGHT * ratio;
    const ctx = el.getContext('2d');
    if (!ctx) return;
    ctx.scale(ratio, ratio);
    const style = getComputedStyle(el);
    const colored = traces.map((t) => ({
      ...t,
      color: style.getPropertyValue(/--[a-z-]+/.exec(t.color)?.[0] ?? '') || t.color,
    }));
    drawTrace(ctx, { ...PAD, width: this.plotWidth(), height: HEIGHT }, colored, columns, y);
  }

  /** Zooms about the reading line, or the middle without one. */
  zoom(by: number): void {
    this.zoomed().by(by, this.at() ?? undefined);
  }

  pan(by: number): void {
    this.zoomed().move(by);
  }

  /** Go to the next hitch of the first run, and read there. */
  nextHitch(): void {
    const list = this.lines()[0]?.o.hitchesMs ?? [];
    const after = this.at() ?? -1;
    const next = list.find((t) => t > after + 1) ?? list[0];
    if (next === undefined) return;
    this.at.set(next);
    const [from, to] = this.window() ?? [0, Math.min(this.lengthMs(), 4000)];
    this.zoomed().look(next - (to - from) / 2, to - from);
  }

  /** The reading line by a control that a keyboard moves. */
  read(value: number): void {
    this.at.set(value);
  }

  /** The picture as a file: axes as they stand, traces as paths. */
  save(): void {
    const svg = this.drawing()?.nativeElement;
    if (!svg) return;
    const y = this.y();
    const paths = this.drawn().columns.flatMap((list, i): Record<string, string>[] => {
      const points = list.flatMap((c, x) => (c ? [{ x: PAD.left + x + 0.5, c }] : []));
      const { color = '', dash = '' } = this.lines()[i]?.s.look ?? {};
      const to = (f: (c: MinMaxColumn) => number, along = points) =>
        along.map((p) => `${p.x} ${y(f(p.c)).toFixed(1)}`).join('L');
      const ribbon = `M${to((c) => c.most)}L${to((c) => c.least, [...points].reverse())}Z`;
      return [
        { d: ribbon, fill: color, 'fill-opacity': '0.3', stroke: 'none' },
        {
          d: `M${to((c) => c.median)}`,
          fill: 'none',
          stroke: color,
          'stroke-width': '1.5',
          'stroke-dasharray': dash,
        },
      ];
    });
    saveSvg(`${this.name()}-trace.svg`, svg, paths);
  }
}
