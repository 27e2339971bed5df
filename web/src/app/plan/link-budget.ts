import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { rate } from '@ruddy/core/base/text';
import type { Evaluation } from '@ruddy/core/plan';

/** The link as a bar: what the chain carries of what the rest of it could. */
@Component({
  selector: 'rb-link-budget',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>Link</h3>
    @if (usable(); as u) {
      <p class="figure">
        {{ words(u) }}
        <span class="unit">of {{ words(rest()) }} Gb/s to the card</span>
      </p>
      <div
        class="bar"
        role="img"
        [attr.aria-label]="words(u) + ' of ' + words(rest()) + ' gigabit a second'"
      >
        <span class="lo" [style.width.%]="percent(u.lo)"></span>
        <span class="hi" [style.width.%]="percent(u.hi - u.lo)"></span>
      </div>
      <p class="hint">{{ words(up()) }} Gb/s back; {{ gb(u) }} GB/s to the card.</p>
    } @else {
      <p>Not known yet.</p>
    }
  `,
  styles: `
    .figure {
      font-size: 20px;
      line-height: 28px;
      font-weight: 650;
    }
    .unit {
      font-size: 12px;
      font-weight: 400;
      color: var(--ink2);
    }
    .bar {
      display: flex;
      height: 12px;
      border: 1px solid var(--rim);
      background: var(--ground);
    }
    .lo {
      background: repeating-linear-gradient(
        135deg,
        var(--brick) 0 1.5px,
        var(--brick-tint) 1.5px 6px
      );
    }
    .hi {
      border-right: 2px dotted var(--brick);
    }
  `,
})
export class LinkBudget {
  readonly evaluation = input.required<Evaluation>();
  readonly usable = computed(() => this.evaluation().predicted.link.usable?.down ?? null);
  readonly up = computed(() => this.evaluation().predicted.link.usable?.up ?? null);
  readonly rest = computed(() => {
    const u = this.usable();
    const r = this.evaluation().predicted.link.pinch.rest;
    return r && u && r.hi >= u.hi ? r : u;
  });
  readonly words = rate;

  percent(gbps: number): number {
    const most = this.rest()?.hi ?? 0;
    return most > 0 ? Math.min(100, (100 * gbps) / most) : 0;
  }

  gb(u: { lo: number; hi: number }): string {
    const lo = (u.lo / 8).toFixed(2);
    const hi = (u.hi / 8).toFixed(2);
    return lo === hi ? lo : `${lo} to ${hi}`;
  }
}
