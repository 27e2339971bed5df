import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { VerdictState } from '@ruddy/core/plan';
import { VERDICT_WORDS } from '@ruddy/core/texts';

/** A standing arch, a deck on one prop, half a deck dropped, loose planks over a question mark. */
const SHAPES: Record<VerdictState, string> = {
  works: 'M1 6h22v5h-2v9h-4.5v-3.5a4.5 4.5 0 0 0-9 0V20H3v-9H1z',
  care: 'M1 6h22v5H1z M12 12.5 18 21H6z',
  blocked: 'M1 4h10.5v5H7.5v11h-4V9H1z M12.5 13H23v5h-2.5v2h-4v-2h-4z',
  unknown: 'M1 6h4.6v4.4H1zM9.7 6h4.6v4.4H9.7zM18.4 6H23v4.4h-4.6z',
};

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
  readonly shape = computed(() => SHAPES[this.state()]);
  readonly word = computed(() => VERDICT_WORDS[this.state()]);
}
