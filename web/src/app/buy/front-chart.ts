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
import { scaleLinear } from 'd3-scale';
import { minorDigits } from '@ruddy/core/base';
import type { RowView, ScoutResult } from '@ruddy/core/buy';
import { comboName, moneyShort } from '@ruddy/core/buy/text';
import { saveSvg } from '../platform/shared/save-svg';
import { watchedWidth } from '../platform/shared/watched-width';
import { MatButtonModule } from '@angular/material/button';
import { Axis } from '../platform/kit/axis';

const HEIGHT = 300;
const PAD = { left: 52, right: 20, top: 12, bottom: 42 };

/**
 * Price against frames: what nothing beats in both, joined by steps, with the band of each. Predicted ones are outlines with hatch,
 * those seen here are solid. In: the result, and which resolution. Out: the combination somebody chose.
 */
@Component({
  selector: 'rb-front-chart',
  imports: [Axis, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <figure>
      <svg
        #svg
        [attr.width]="width()"
        [attr.height]="height"
        role="group"
        [attr.aria-label]="label()"
      >
        <defs>
          <pattern
            id="scout-hatch"
            width="6"
            height="6"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="6" height="6" fill="var(--brick-tint)" />
            <line x1="0" y1="0" x2="0" y2="6" stroke="var(--brick)" stroke-width="2" />
          </pattern>
        </defs>
        <g
          rbAxis="bottom"
          [scale]="scales().x"
          [ticks]="xTicks()"
          [reach]="pad.top + pad.bottom - height"
          [attr.transform]="'translate(0 ' + (height - pad.bottom) + ')'"
        />
        <g
          rbAxis="left"
          [scale]="scales().y"
          [ticks]="6"
          [reach]="pad.left + pad.right - width()"
          [attr.transform]="'translate(' + pad.left + ' 0)'"
        />
        <text [attr.x]="pad.left" [attr.y]="height - 4">
          Price, {{ currency() }}; parts you own cost nothing
        </text>
        @if (stop(); as s) {
          <line
            class="stop"
            [attr.x1]="s"
            [attr.x2]="s"
            [attr.y1]="pad.top"
            [attr.y2]="height - pad.bottom"
          />
          <text class="stop" [attr.x]="s + 6" [attr.y]="pad.top + 12">stops paying</text>
        }
        <path class="front" [attr.d]="path()" />
        @for (p of dots(); track p.row.index; let i = $index) {
          <g
            class="point"
            role="button"
            [attr.tabindex]="i === current() ? 0 : -1"
            [attr.aria-label]="p.label"
            (focus)="current.set(i)"
            (click)="chosen.emit(p.row)"
            (keydown)="walk($event, i)"
          >
            <line class="band" [attr.x1]="p.x" [attr.x2]="p.x" [attr.y1]="p.lo" [attr.y2]="p.hi" />
            <rect
              [class.here]="p.row.grade === 'here'"
              [class.knee]="p.knee"
              [attr.x]="p.x - 6"
              [attr.y]="p.y - 6"
              width="12"
              height="12"
            />
            @if (p.knee) {
              <text class="knee" [attr.x]="p.x + 10" [attr.y]="p.y + 16">knee</text>
            }
          </g>
        }
      </svg>
      <figcaption class="hint">
        Hatched: predicted, with the band it may lie in. Solid: this very chain is in the log.
        Frames/s upwards, from 0.
        <button mat-button type="button" (click)="save()">Save as SVG</button>
      </figcaption>
    </figure>
  `,
  styles: `
    :host {
      display: block;
    }
    figure {
      margin: 0;
    }
    .front {
      fill: none;
      stroke: var(--brick);
      stroke-width: 1.5;
    }
    rect[width='12'] {
      fill: url(#scout-hatch);
      stroke: var(--brick);
      stroke-width: 1.5;
    }
    rect.here {
      fill: var(--teal);
      stroke: var(--teal);
    }
    rect.knee {
      stroke: var(--ink);
      stroke-width: 3;
    }
    .point {
      cursor: pointer;
    }
    .band {
      stroke: var(--brick);
      stroke-width: 1;
    }
    line.stop {
      stroke: var(--ink2);
      stroke-dasharray: 4 4;
    }
    text {
      font-size: 12px;
      fill: var(--ink2);
    }
    text.knee {
      fill: var(--ink);
      font-weight: 600;
    }
  `,
})
export class FrontChart {
  readonly result = input.required<ScoutResult>();
  readonly at = input(0);
  readonly chosen = output<RowView>();
  readonly height = HEIGHT;
  readonly pad = PAD;
  readonly width = watchedWidth(600);
  readonly svg = viewChild.required<ElementRef<SVGSVGElement>>('svg');
  readonly front = computed(() => this.result().fronts[this.at()] ?? null);
  readonly currency = computed(() => this.result().currency);
  readonly #unit = computed(() => 10 ** minorDigits(this.currency()));
  readonly #points = computed(() =>
    (this.front()?.points ?? []).map((row) => ({
      row,
      price: row.minor / this.#unit(),
      fps: row.fps[this.at()] ?? 0,
      band: row.bands[this.at()] ?? null,
    })),
  );
  readonly scales = computed(() => {
    const prices = this.#points().map((p) => p.price);
    const tops = this.#points().map((p) => p.band?.hi ?? p.fps);
    return {
      x: scaleLinear([0, Math.max(1, ...prices) * 1.05], [PAD.left, this.width() - PAD.right]),
      y: scaleLinear([0, Math.max(1, ...tops) * 1.05], [HEIGHT - PAD.bottom, PAD.top]),
    };
  });
  readonly dots = computed(() => {
    const { x, y } = this.scales();
    const knee = this.front()?.knee ?? null;
    return this.#points().map((p, i) => ({
      row: p.row,
      x: x(p.price),
      y: y(p.fps),
      knee: i === knee,
      label: this.#words(p.row, p.fps),
      lo: y(p.band?.lo ?? p.fps),
      hi: y(p.band?.hi ?? p.fps),
    }));
  });
  /** The point that Tab leads to; arrows go to its neighbours. */
  readonly current = signal(0);

  /** Arrows walk along the front, Enter and Space choose the set. */
  walk(event: KeyboardEvent, i: number): void {
    const last = this.dots().length - 1;
    const to = { ArrowRight: i + 1, ArrowLeft: i - 1, Home: 0, End: last }[event.key];
    const row = this.dots()[i]?.row;
    if (to !== undefined) {
      const at = Math.min(Math.max(to, 0), last);
      this.current.set(at);
      this.svg().nativeElement.querySelectorAll<SVGGElement>('.point')[at]?.focus();
    } else if ((event.key === 'Enter' || event.key === ' ') && row) this.chosen.emit(row);
    else return;
    event.preventDefault();
  }

  readonly path = computed(() =>
    this.dots()
      .map((d, i) => (i === 0 ? `M${d.x},${d.y}` : `H${d.x}V${d.y}`))
      .join(''),
  );
  readonly stop = computed(() => {
    const stops = this.front()?.stops ?? null;
    return stops === null ? null : (this.dots()[stops.after]?.x ?? null);
  });
  readonly label = computed(() => {
    const n = this.#points().length;
    return `Price against frames: ${n} sets, none both cheaper and faster`;
  });

  #words(row: RowView, fps: number): string {
    const price = moneyShort({ minor: row.minor, currency: this.currency() });
    return `${comboName(row)}: ${price}, ${Math.round(fps)} frames/s`;
  }

  readonly xTicks = computed(() => Math.max(3, this.width() / 110));

  save(): void {
    saveSvg('price-and-frames.svg', this.svg().nativeElement);
  }
}
