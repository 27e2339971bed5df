import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { EvaluationSummary } from '@ruddy/core/plan/contract';

interface MiniHop {
  x: number;
  w: number;
  h: number;
  state: 'ok' | 'broken' | 'unknown';
  teeth: boolean;
}

const POSTS: Record<string, number> = { host: 2, socket: 38, path: 62, dock: 98, card: 142 };
const ROW_SCALE_GBPS = 64;

/** The strip in 150 by 24 for lists. It stands beside words and says nothing a reader of words would miss. */
@Component({
  selector: 'rb-mini-strip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<svg viewBox="0 0 150 24" width="150" height="24" aria-hidden="true">
    @for (h of hops(); track h.x) {
      @if (h.state === 'unknown') {
        <rect class="unknown" [attr.x]="h.x" y="8" [attr.width]="h.w" height="8" />
      } @else if (h.state === 'broken') {
        <path
          class="broken"
          [attr.d]="'M' + h.x + ',9h' + (h.w / 2 - 4) + 'l-3,6h' + -(h.w / 2 - 7) + 'z'"
        />
        <path
          class="broken"
          [attr.d]="
            'M' + (h.x + h.w / 2 + 6) + ',9h' + (h.w / 2 - 6) + 'v6h' + -(h.w / 2 - 9) + 'z'
          "
        />
      } @else {
        <rect
          class="ok"
          [attr.x]="h.x"
          [attr.y]="12 - h.h / 2"
          [attr.width]="h.w"
          [attr.height]="h.h"
        />
        @if (h.teeth) {
          <path
            class="tooth"
            [attr.d]="
              'M' + (h.x + h.w / 2 - 4) + ',1h8l-4,6zM' + (h.x + h.w / 2 - 4) + ',23h8l-4,-6z'
            "
          />
        }
      }
    }
    @for (p of posts(); track p) {
      <rect class="post" [attr.x]="p" y="3" width="6" height="18" />
    }
  </svg>`,
  styles: `
    svg {
      display: block;
    }
    .ok {
      fill: var(--brick);
    }
    .unknown {
      fill: none;
      stroke: var(--rim);
      stroke-dasharray: 4 3;
    }
    .broken {
      fill: var(--plum);
    }
    .tooth {
      fill: var(--ink);
    }
    .post {
      fill: var(--sheet);
      stroke: var(--rim);
    }
  `,
})
export class MiniStrip {
  readonly glance = input.required<EvaluationSummary>();

  readonly posts = computed(() => [
    ...new Set(this.glance().hops.flatMap((h) => [POSTS[h.from] ?? 0, POSTS[h.to] ?? 0])),
  ]);
  readonly hops = computed<MiniHop[]>(() =>
    this.glance().hops.map((h) => {
      const x = (POSTS[h.from] ?? 0) + 6;
      const mid = h.usable ? h.usable.lo : 0;
      return {
        x,
        w: (POSTS[h.to] ?? 0) - x,
        h: Math.max(2, Math.min(16, (16 * mid) / ROW_SCALE_GBPS)),
        state: h.usable === null ? 'unknown' : h.state,
        teeth: h.pinch && this.glance().pinch.part !== null,
      };
    }),
  );
}
