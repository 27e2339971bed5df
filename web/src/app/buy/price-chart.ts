import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { type NumberValue, scaleLinear, scaleUtc } from 'd3-scale';
import { curveStepAfter, line } from 'd3-shape';
import { minorDigits } from '@ruddy/core/base';
import type { PriceEntry } from '@ruddy/core/buy/contract';
import { moneyShort } from '@ruddy/core/buy/text';
import { Axis } from '../platform/kit/axis';
import { dayShort } from '../platform/shared/format';

const W = 368;
const H = 150;
const PAD = { left: 52, right: 14, top: 10, bottom: 26 };
/** Series by dash and marker as well as colour: offers, second hand, paid. */
const SERIES = [
  { key: 'new', name: 'offered new', color: 'var(--teal)', dash: '', mark: 'circle' },
  { key: 'used', name: 'offered second hand', color: 'var(--ochre)', dash: '8 4', mark: 'square' },
  { key: 'paid', name: 'paid', color: 'var(--ink)', dash: '2 3', mark: 'triangle' },
] as const;

function seriesOf(p: PriceEntry): (typeof SERIES)[number]['key'] | null {
  if (p.withIds.length > 0) return null;
  if (p.kind === 'paid') return 'paid';
  return p.kind === 'offer'
    ? p.condition === null || p.condition === 'new'
      ? 'new'
      : 'used'
    : null;
}

/** Prices of one part in one currency over time. The table beside it holds the same figures; the drawing is for the eye only. */
@Component({
  selector: 'rb-price-chart',
  imports: [Axis],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (drawn(); as d) {
      <svg [attr.viewBox]="'0 0 ' + w + ' ' + h" width="100%" aria-hidden="true">
        <g
          rbAxis="left"
          [scale]="d.y"
          [ticks]="4"
          [words]="money()"
          [reach]="pad.left + pad.right - w"
          [attr.transform]="'translate(' + pad.left + ' 0)'"
        />
        <g
          rbAxis="bottom"
          [scale]="d.x"
          [ticks]="4"
          [words]="dayOf"
          [attr.transform]="'translate(0 ' + (h - pad.bottom) + ')'"
        />
        @for (s of d.series; track s.key) {
          <path
            [attr.d]="s.path"
            fill="none"
            [style.stroke]="s.color"
            stroke-width="2"
            [attr.stroke-dasharray]="s.dash"
          />
          @for (p of s.points; track $index) {
            @switch (s.mark) {
              @case ('circle') {
                <circle [attr.cx]="p.x" [attr.cy]="p.y" r="4" [style.fill]="s.color" />
              }
              @case ('square') {
                <rect
                  [attr.x]="p.x - 4"
                  [attr.y]="p.y - 4"
                  width="8"
                  height="8"
                  [style.fill]="s.color"
                />
              }
              @default {
                <path [attr.d]="'M' + p.x + ' ' + (p.y - 5) + 'l5 9h-10z'" [style.fill]="s.color" />
              }
            }
          }
        }
      </svg>
      <p class="hint" aria-hidden="true">
        @for (s of d.series; track s.key) {
          <span class="key"
            ><i [style.border-top]="'3px ' + (s.dash ? 'dashed' : 'solid') + ' ' + s.color"></i>
            {{ s.name }}</span
          >
        }
        The axis begins at 0.
      </p>
    }
  `,
  styles: `
    text {
      font-size: 12px;
      fill: var(--ink2);
    }
    .key {
      margin-right: 12px;
      white-space: nowrap;
    }
    i {
      display: inline-block;
      width: 20px;
      vertical-align: middle;
    }
  `,
})
export class PriceChart {
  readonly w = W;
  readonly h = H;
  readonly pad = PAD;
  readonly prices = input.required<readonly PriceEntry[]>();
  readonly currency = input.required<string>();
  readonly dayOf = (at: NumberValue): string => dayShort(Number(at));
  /** Whole units of the currency at a tick of the axis. */
  readonly money = computed(() => {
    const currency = this.currency();
    const unit = 10 ** minorDigits(currency);
    return (minor: NumberValue) =>
      moneyShort({ minor: Math.round(Number(minor) / unit) * unit, currency });
  });
  readonly drawn = computed(() => {
    const currency = this.currency();
    const list = this.prices().filter((p) => p.currency === currency && seriesOf(p) !== null);
    const times = list.map((p) => Date.parse(p.onDate));
    const first = Math.min(...times);
    const last = Math.max(...times);
    if (list.length < 2 || first === last) return null;
    const x = scaleUtc([first, last], [PAD.left, W - PAD.right]);
    const y = scaleLinear(
      [0, Math.max(...list.map((p) => p.minor))],
      [H - PAD.bottom, PAD.top],
    ).nice(4);
    // A price holds until another one is seen.
    const path = line<PriceEntry>(
      (p) => x(Date.parse(p.onDate)),
      (p) => y(p.minor),
    ).curve(curveStepAfter);
    return {
      x,
      y,
      series: SERIES.flatMap((s) => {
        const own = list
          .filter((p) => seriesOf(p) === s.key)
          .sort((a, b) => (a.onDate < b.onDate ? -1 : 1));
        return own.length === 0
          ? []
          : [
              {
                ...s,
                path: path(own),
                points: own.map((p) => ({ x: x(Date.parse(p.onDate)), y: y(p.minor) })),
              },
            ];
      }),
    };
  });
}
