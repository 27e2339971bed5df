import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { VerdictState } from '@ruddy/core/plan';
import { VERDICT_LABELS } from '@ruddy/core/plan/text';
import { VERDICT_SHAPES } from './verdict-shapes';

/** A verdict as edge, shape and word; the word alone says it. */
@Component({
  selector: 'rb-verdict-chip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<span class="chip" [class]="state()">
    <svg viewBox="0 0 24 24" width="20" height="20" aria-hidden="true">
      <path [attr.d]="shape()" />
      @if (state() === 'unknown') {
        <text x="12" y="23" text-anchor="middle">?</text>
      }
    </svg>
    {{ word() }}
  </span>`,
  styles: `
    .chip {
      display: inline-flex;
      vertical-align: middle;
      align-items: center;
      gap: 6px;
      padding: 2px 10px 2px 6px;
      border-left: 4px solid var(--edge);
      background: var(--tint);
      color: var(--ink);
      font-weight: 600;
      white-space: nowrap;
    }
    path,
    text {
      fill: var(--edge);
    }
    text {
      font-size: 15px;
      font-weight: 700;
    }
    .works {
      --edge: var(--reed);
      --tint: var(--reed-tint);
    }
    .care {
      --edge: var(--ochre);
      --tint: var(--ochre-tint);
    }
    .blocked {
      --edge: var(--plum);
      --tint: var(--plum-tint);
    }
    .unknown {
      --edge: var(--stone);
      --tint: var(--stone-tint);
    }
  `,
})
export class VerdictChip {
  readonly state = input.required<VerdictState>();
  readonly shape = computed(() => VERDICT_SHAPES[this.state()]);
  readonly word = computed(() => VERDICT_LABELS[this.state()]);
}
