import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { scaleLinear, scaleLog } from 'd3-scale';
import { line } from 'd3-shape';
import { figureText } from '@ruddy/core/base/text';
import { CURVE } from '@ruddy/core/runs';
import { saveSvg } from '../platform/shared/save-svg';
import { watchedWidth } from '../platform/shared/watched-width';
import type { Opened } from './capture-calls';
import type { Shown } from './run-store';
import { MatButtonModule } from '@angular/material/button';
import { Axis } from '../platform/kit/axis';
import { Slider } from '../platform/kit/slider';

const PAD = { left: 44, right: 16, top: 8, bottom: 24 };
const ROW = 58;
const CURVE_H = 260;
/** Shares of the curve's axis, by what is left above them: the last per cent gets as much room as the rest. */
const LEFT = [1, 0.5, 0.25, 0.1, 0.05, 0.01, 0.001];

/**
 * How frame times spread. As a hundred dots: each stands for one frame in a hundred, the last, the slowest of a hundred, ringed. As a
 * percentile curve: how much of a run takes at most how long. Values are said for the dot or share that is pointed at or stepped to.
 */
@Component({
  selector: 'rb-spread-view',
  imports: [Axis, MatButtonModule, Slider],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="bar">
      <span class="hint">{{
        mode() === 'dots'
          ? 'Each dot is one frame in a hundred; time in ms'
          : 'Time in ms that so much of the run stays within'
      }}</span>
      <button mat-button type="button" (click)="save()">SVG</button>
    </div>
    <svg #drawing [attr.viewBox]="'0 0 ' + w() + ' ' + height()" width="100%" aria-hidden="true">
      @if (mode() === 'dots') {
        <g
          rbAxis="bottom"
          [scale]="ms()"
          [ticks]="6"
          [reach]="pad.top + pad.bottom - height()"
          [attr.transform]="'translate(0 ' + (height() - pad.bottom) + ')'"
        />
      } @else {
        <g
          rbAxis="left"
          [scale]="ms()"
          [ticks]="6"
          [reach]="pad.left + pad.right - w()"
          [attr.transform]="'translate(' + pad.left + ' 0)'"
        />
      }
      @if (mode() === 'dots') {
        @for (r of rows(); track r.letter) {
          <text class="letter" x="8" [attr.y]="r.y + 4">{{ r.letter }}</text>
          @for (d of r.dots; track $index) {
            <circle
              [attr.cx]="d.x"
              [attr.cy]="d.y"
              r="3"
              [style.fill]="r.color"
              [class.picked]="picked() === $index"
            />
          }
          <circle
            class="ring"
            [attr.cx]="r.dots[99]!.x"
            [attr.cy]="r.dots[99]!.y"
            r="6"
            [style.stroke]="r.color"
          />
        }
      } @else {
        @for (t of shareTicks(); track t.words) {
          <text [attr.x]="t.at" [attr.y]="height() - 6" text-anchor="middle">{{ t.words }}</text>
        }
        @for (c of curves(); track c.letter) {
          <path
            [attr.d]="c.path"
            fill="none"
            [style.stroke]="c.color"
            stroke-width="2"
            [attr.stroke-dasharray]="c.dash"
          />
          <path
            [attr.d]="c.mark"
            [attr.transform]="'translate(' + c.x + ',' + c.y + ')'"
            [style.fill]="c.color"
            [style.stroke]="c.color"
          />
          <text class="letter" [attr.x]="c.x - 12" [attr.y]="c.y - 4">{{ c.letter }}</text>
        }
        @if (picked() !== null) {
          <line
            class="read"
            [attr.x1]="pickedX()"
            [attr.x2]="pickedX()"
            [attr.y1]="pad.top"
            [attr.y2]="height() - pad.bottom"
          />
        }
      }
    </svg>
    <rb-slider
      [label]="mode() === 'dots' ? 'Dot' : 'Share'"
      [max]="steps() - 1"
      [step]="1"
      [value]="picked()"
      [words]="reading()"
      (changed)="picked.set($event)"
    />
    <p role="status">{{ reading() }}</p>
  `,
  styleUrl: './chart.scss',
})
export class SpreadView {
  readonly w = watchedWidth(624);
  readonly pad = PAD;
  readonly shown = input.required<readonly Shown[]>();
  readonly opened = input.required<ReadonlyMap<string, Opened>>();
  readonly mode = input.required<'dots' | 'curve'>();
  readonly name = input('runs');
  readonly drawing = viewChild.required<ElementRef<SVGSVGElement>>('drawing');
  readonly picked = signal<number | null>(null);
  readonly lines = computed(() =>
    this.shown().flatMap((s) => {
      const o = this.opened().get(s.run.id);
      return o ? [{ s, o }] : [];
    }),
  );
  readonly steps = computed(() => (this.mode() === 'dots' ? 100 : CURVE.length));
  readonly height = computed(() =>
    this.mode() === 'dots'
      ? PAD.top + PAD.bottom + ROW * Math.max(1, this.lines().length)
      : CURVE_H,
  );
  readonly most = computed(() =>
    Math.max(
      1,
      ...this.lines().map((l) =>
        this.mode() === 'dots' ? (l.o.dots[99] ?? 0) : (l.o.curve.at(-1) ?? 0),
      ),
    ),
  );
  readonly ms = computed(() =>
    this.mode() === 'dots'
      ? scaleLinear([0, this.most() * 1.02], [PAD.left, this.w() - PAD.right])
      : scaleLinear([0, this.most() * 1.02], [CURVE_H - PAD.bottom, PAD.top]),
  );
  /** By what is left above a share, on a logarithm: 1 % and 0.1 % are far apart. */
  readonly share = computed(() =>
    scaleLog([1, 0.0005], [PAD.left, this.w() - PAD.right]).clamp(true),
  );
  readonly shareTicks = computed(() =>
    LEFT.filter((_, i) => this.w() > 480 || i % 2 === 0).map((l) => ({
      at: this.share()(l),
      words: `${Math.round((1 - l) * 1000) / 10} %`,
    })),
  );
  readonly rows = computed(() =>
    this.lines().map(({ s, o }, i) => {
      const base = PAD.top + ROW * i + ROW / 2;
      // Dots that would lie on one another step up and down.
      const seen = new Map<number, number>();
      const dots = o.dots.map((v) => {
        const x = this.ms()(v);
        const slot = Math.round(x / 6);
        const n = seen.get(slot) ?? 0;
        seen.set(slot, n + 1);
        const y = base + (n % 2 === 0 ? 1 : -1) * Math.ceil(n / 2) * 6.5;
        return { x, y: Math.max(base - ROW / 2 + 3, Math.min(base + ROW / 2 - 3, y)) };
      });
      return { letter: s.letter, color: s.look.color, y: base, dots };
    }),
  );
  readonly curves = computed(() => {
    const path = line<number>(
      (_, i) => this.share()(1 - (CURVE[i] as number) || 0.0005),
      (v) => this.ms()(v),
    );
    return this.lines().map(({ s, o }, i) => {
      const at = 62 + i * 5;
      return {
        letter: s.letter,
        color: s.look.color,
        dash: s.look.dash,
        mark: s.look.mark,
        path: path(o.curve) ?? '',
        x: this.share()(1 - (CURVE[at] as number)),
        y: this.ms()(o.curve[at] ?? 0),
      };
    });
  });
  readonly pickedX = computed(() =>
    this.share()(1 - (CURVE[this.picked() ?? 0] as number) || 0.0005),
  );
  readonly reading = computed(() => {
    const i = this.picked();
    if (i === null)
      return this.mode() === 'dots'
        ? 'Step through the dots for their values.'
        : 'Step along the shares for their values.';
    const value = (o: Opened) => (this.mode() === 'dots' ? o.dots[i] : o.curve[i]) ?? NaN;
    const head =
      this.mode() === 'dots'
        ? `Dot ${i + 1} of 100`
        : `${Math.round((CURVE[i] as number) * 10000) / 100} % of the frames take at most`;
    return `${head}: ${this.lines()
      .map(({ s, o }) => `${s.letter} ${figureText(value(o))} ms`)
      .join('; ')}`;
  });

  save(): void {
    saveSvg(`${this.name()}-${this.mode()}.svg`, this.drawing().nativeElement);
  }
}
