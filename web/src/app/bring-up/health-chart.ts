import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { type NumberValue, scaleLinear, scaleUtc } from 'd3-scale';
import { line } from 'd3-shape';
import type { HealthPoint } from '@ruddy/core/bring-up';
import { Axis } from '../platform/kit/axis';
import { day, dayShort } from '../platform/shared/format';

const W = 640;
const H = 200;
const PAD = { left: 44, right: 16, top: 10, bottom: 26 };
/** Cables by colour, dash and marker. */
const LOOKS = [
  { color: 'var(--teal)', dash: '', mark: 'M-4 0a4 4 0 1 0 8 0a4 4 0 1 0-8 0' },
  { color: 'var(--ochre)', dash: '8 4', mark: 'M-4-4h8v8h-8z' },
  { color: 'var(--plum)', dash: '2 3', mark: 'M0-5 5 4H-5z' },
  { color: 'var(--ink)', dash: '10 3 2 3', mark: 'M0-5 5 0 0 5-5 0z' },
] as const;

/** Copy rates to the card as shares of the expected over time, a row a cable. For the eye; the table beside holds the figures. */
@Component({
  selector: 'rb-health-chart',
  imports: [Axis],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (drawn(); as d) {
      <svg [attr.viewBox]="'0 0 ' + w + ' ' + h" width="100%" aria-hidden="true">
        <g
          rbAxis="left"
          [scale]="d.y"
          [ticks]="4"
          [words]="percent"
          [reach]="pad.left + pad.right - w"
          [attr.transform]="'translate(' + pad.left + ' 0)'"
        />
        <g
          rbAxis="bottom"
          [scale]="d.x"
          [ticks]="6"
          [words]="dayOf"
          [attr.transform]="'translate(0 ' + (h - pad.bottom) + ')'"
        />
        <line
          class="healthy"
          [attr.x1]="pad.left"
          [attr.x2]="w - pad.right"
          [attr.y1]="d.healthyAt"
          [attr.y2]="d.healthyAt"
        />
        <text [attr.x]="w - pad.right" [attr.y]="d.healthyAt - 4" text-anchor="end">
          healthy from here
        </text>
        @for (s of d.series; track s.cable) {
          <path
            [attr.d]="s.path"
            fill="none"
            [style.stroke]="s.color"
            stroke-width="2"
            [attr.stroke-dasharray]="s.dash"
          />
          @for (p of s.points; track $index) {
            <path
              [attr.d]="s.mark"
              [attr.transform]="'translate(' + p.x + ',' + p.y + ')'"
              [style.fill]="s.color"
            >
              <title>{{ p.words }}</title>
            </path>
          }
        }
      </svg>
      <p class="hint" aria-hidden="true">
        Copy rate to the card, % of what was expected then. The axis begins at 0.
        @for (s of d.series; track s.cable) {
          <span class="key"
            ><svg width="28" height="10" viewBox="-14 -5 28 10">
              <path
                d="M-14 0h28"
                [style.stroke]="s.color"
                stroke-width="2"
                [attr.stroke-dasharray]="s.dash"
              />
              <path [attr.d]="s.mark" [style.fill]="s.color" /></svg
            >{{ s.cable }}</span
          >
        }
      </p>
    }
  `,
  styles: `
    text {
      font-size: 12px;
      fill: var(--ink2);
    }
    .healthy {
      stroke: var(--reed);
      stroke-width: 2;
    }
    .key {
      margin-left: 12px;
      white-space: nowrap;
    }
  `,
})
export class HealthChart {
  readonly w = W;
  readonly h = H;
  readonly pad = PAD;
  readonly percent = (share: NumberValue): string => String(Math.round(Number(share) * 100));
  readonly dayOf = (at: NumberValue): string => dayShort(Number(at));
  readonly points = input.required<readonly HealthPoint[]>();
  readonly healthyPercent = input.required<number>();
  readonly drawn = computed(() => {
    const list = this.points().flatMap((p) => (p.down === null ? [] : [{ ...p, down: p.down }]));
    const times = list.map((p) => Date.parse(p.at));
    const first = Math.min(...times);
    const last = Math.max(...times);
    if (list.length < 2 || first === last) return null;
    const x = scaleUtc([first, last], [PAD.left + 8, W - PAD.right - 8]);
    const y = scaleLinear(
      [0, Math.max(1, ...list.map((p) => p.down))],
      [H - PAD.bottom, PAD.top],
    ).nice(4);
    const cables = [...new Set(list.map((p) => p.cable))];
    const path = line<(typeof list)[number]>(
      (p) => x(Date.parse(p.at)),
      (p) => y(p.down),
    );
    return {
      healthyAt: y(this.healthyPercent() / 100),
      x,
      y,
      series: cables.map((cable, i) => {
        const own = list.filter((p) => p.cable === cable);
        return {
          cable,
          ...(LOOKS[i % LOOKS.length] as (typeof LOOKS)[number]),
          path: path(own),
          points: own.map((p) => ({
            x: x(Date.parse(p.at)),
            y: y(p.down),
            words: `${day(p.at.slice(0, 10))}, ${cable}: ${Math.round(p.down * 100)} %`,
          })),
        };
      }),
    };
  });
}
