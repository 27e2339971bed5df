import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { type NumberValue, scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { figureText } from '@ruddy/core/base/text';
import type { SensorSeries } from '@ruddy/core/runs';
import type { Channel, RunEntry } from '@ruddy/core/runs/contract';
import { SENSOR_WORDS } from '@ruddy/core/runs/text';
import { saveSvg } from '../platform/shared/save-svg';
import { watchedWidth } from '../platform/shared/watched-width';
import { MatButtonModule } from '@angular/material/button';
import { Axis } from '../platform/kit/axis';
import { Slider } from '../platform/kit/slider';
import { ZoomRange } from '../platform/kit/zoom-range';
import { addressedInterval, shownInterval } from './addressed-interval';

const LANE = 72;
const PAD = { left: 8, right: 8, top: 32, bottom: 8 };
const AXIS = 24;

/**
 * Sensors of one run, a lane each, under one axis of time, which shows the same interval as the trace. Each lane says its median and its range
 * over the whole run; a wall meter stands beside what was expected. Where a log was laid on the frames, its beginning can be moved.
 */
@Component({
  selector: 'rb-sensor-view',
  imports: [Axis, MatButtonModule, Slider, ZoomRange],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (lanes().length === 0) {
      <p class="hint">
        No sensors were recorded with this run. Add a log of them beside its frames when the run is
        added.
      </p>
    } @else {
      <div class="bar">
        <span class="hint"
          >Sensors of run {{ letter() }} over {{ seconds() }} s; Ctrl and wheel zoom, drag with
          Shift selects a range</span
        >
        <button mat-button type="button" (click)="window.set(null)" [disabled]="!window()">
          Fit
        </button>
        <button mat-button type="button" (click)="save()">SVG</button>
      </div>
      <svg
        #drawing
        [(rbZoomRange)]="window"
        [length]="lengthMs()"
        [left]="pad.left"
        [plot]="plot()"
        (at)="at.set($event)"
        [attr.viewBox]="'0 0 ' + w() + ' ' + (plot().height + axis)"
        width="100%"
        aria-hidden="true"
      >
        @for (r of rows(); track r.sensor; let i = $index) {
          <g [attr.transform]="'translate(0,' + i * lane + ')'">
            <line class="grid" x1="0" [attr.x2]="w()" [attr.y1]="lane - 1" [attr.y2]="lane - 1" />
            <text class="name" x="8" y="14">{{ r.name }}</text>
            <text [attr.x]="w() - 8" [attr.y]="w() > 440 ? 14 : 28" text-anchor="end">
              {{ r.words }}
            </text>
            <path [attr.d]="r.path" fill="none" stroke-width="1.5" />
          </g>
        }
        <g
          rbAxis="bottom"
          [scale]="x()"
          [ticks]="6"
          [words]="asSeconds"
          [attr.transform]="'translate(0 ' + plot().height + ')'"
        />
        @if (at() !== null) {
          <line
            class="read"
            [attr.x1]="x()(at()!)"
            [attr.x2]="x()(at()!)"
            y1="0"
            [attr.y2]="plot().height"
          />
        }
      </svg>
      <rb-slider
        label="Reading line"
        [min]="range()[0]"
        [max]="range()[1]"
        [value]="at()"
        [words]="reading()"
        (changed)="at.set($event)"
      />
      <p role="status">{{ reading() }}</p>
      @if (wall(); as words) {
        <p>{{ words }}</p>
      }
      <p class="move">
        <span class="hint">Sensors early or late against the frames?</span>
        <button mat-stroked-button type="button" (click)="shift(-500)">
          Half a second earlier
        </button>
        <button mat-stroked-button type="button" (click)="shift(500)">Half a second later</button>
      </p>
    }
  `,
  styleUrl: './sensor-view.scss',
})
export class SensorView {
  readonly w = watchedWidth(624);
  readonly lane = LANE;
  readonly run = input.required<RunEntry>();
  readonly letter = input('A');
  readonly lanes = input.required<readonly SensorSeries[]>();
  readonly name = input('run');
  readonly expectedWallW = input<string | null>(null);
  /** Where the sensors shall begin instead, ms from the first frame. */
  readonly moved = output<Partial<Record<Channel, number>>>();
  /** What is shown, as it stands in the address: "2000-4000" ms; empty: all. */
  readonly interval = input('');
  readonly intervalChanged = output<string>();
  readonly window = addressedInterval(this.interval, this.intervalChanged);
  readonly at = signal<number | null>(null);
  readonly pad = PAD;
  readonly axis = AXIS;
  readonly asSeconds = (ms: NumberValue): string => String(Number(ms) / 1000);
  readonly drawing = viewChild<ElementRef<SVGSVGElement>>('drawing');

  readonly lengthMs = computed(() =>
    Math.max(1, ...this.lanes().map((l) => l.t0Ms + l.dtMs * l.values.length)),
  );
  readonly seconds = computed(() => figureText(this.lengthMs() / 1000));
  readonly range = computed(() => shownInterval(this.window(), this.lengthMs()));
  readonly plot = computed(() => ({
    width: Math.max(1, this.w() - PAD.left - PAD.right),
    height: this.lanes().length * LANE,
  }));
  readonly x = computed(() => scaleLinear(this.range(), [PAD.left, this.w() - PAD.right]));
  readonly rows = computed(() =>
    this.lanes().map((l) => {
      const known = Array.from(l.values)
        .filter((v) => !Number.isNaN(v))
        .sort((a, b) => a - b);
      const least = known[0] ?? 0;
      const most = known.at(-1) ?? 1;
      const middle = known[known.length >> 1] ?? 0;
      const y = scaleLinear(
        [least, most === least ? least + 1 : most],
        [LANE - PAD.bottom, PAD.top],
      );
      const path = line<number>(
        (_, i) => this.x()(l.t0Ms + i * l.dtMs),
        (v) => y(v),
      ).defined((v) => !Number.isNaN(v));
      const { name, unit } = SENSOR_WORDS[l.sensor];
      const words = `median ${figureText(middle)} ${unit}, ${figureText(least)} to ${figureText(most)}`;
      return {
        sensor: l.sensor,
        name,
        unit,
        words,
        middle,
        path: path(Array.from(l.values)) ?? '',
      };
    }),
  );
  readonly wall = computed(() => {
    const r = this.rows().find((x) => x.sensor === 'wall-w');
    const expected = this.expectedWallW();
    return r
      ? `Wall meter: ${figureText(r.middle)} W in the middle of the run${expected ? `; expected at full load: ${expected} W` : ''}.`
      : null;
  });
  readonly reading = computed(() => {
    const at = this.at();
    if (at === null) return 'Move the reading line for values.';
    const parts = this.lanes().map((l) => {
      const v = l.values[Math.floor((at - l.t0Ms) / l.dtMs)];
      const { name, unit } = SENSOR_WORDS[l.sensor];
      return `${name} ${v === undefined || Number.isNaN(v) ? 'not measured' : `${figureText(v)} ${unit}`}`;
    });
    return `At ${(at / 1000).toFixed(1)} s: ${parts.join('; ')}`;
  });

  shift(byMs: number): void {
    this.moved.emit(Object.fromEntries(this.lanes().map((l) => [l.sensor, l.t0Ms + byMs])));
  }

  save(): void {
    const svg = this.drawing()?.nativeElement;
    if (svg) saveSvg(`${this.name()}-sensors.svg`, svg);
  }
}
