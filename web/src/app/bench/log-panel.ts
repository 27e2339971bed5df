import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { benchLine, benchTime } from '@ruddy/core/bench/text';
import { BenchStore } from './bench-store';

const GRAVE = new Set([
  'host-frozen',
  'gone',
  'link-down',
  'brown-out',
  'live-direct',
  'live-card',
  'no-space',
  'stays-asleep',
]);

/** What happened on the bench, newest first, in words a person would use. */
@Component({
  selector: 'rb-log-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div role="log" aria-live="polite" aria-label="What happened" tabindex="0">
      <ol>
        @for (l of lines(); track l.seq) {
          <li [class.grave]="l.grave">
            <span class="at">{{ l.at }}</span> {{ l.words }}
          </li>
        } @empty {
          <li class="quiet">0 lines yet: nothing was done.</li>
        }
      </ol>
    </div>
  `,
  styles: `
    div {
      max-height: 420px;
      overflow-y: auto;
    }
    ol {
      list-style: none;
      display: grid;
      gap: 4px;
    }
    li {
      display: grid;
      grid-template-columns: 56px 1fr;
      gap: 8px;
    }
    .at {
      color: var(--ink2);
      text-align: right;
    }
    .grave {
      border-left: 4px solid var(--plum);
      background: var(--plum-tint);
    }
  `,
})
export class LogPanel {
  readonly #store = inject(BenchStore);
  readonly lines = computed(() => {
    let speed: number | null = null;
    return this.#store
      .log()
      .flatMap((e) => {
        if (e.kind === 'act') return [];
        // A step leaves the speed as it was: only a change is worth a line.
        const same = e.kind === 'clock' && e.body.speed === speed;
        if (e.kind === 'clock') speed = e.body.speed;
        if (same) return [];
        const words =
          e.kind === 'clock'
            ? e.body.speed === 0
              ? 'Clock held.'
              : `Clock at ${e.body.speed}×.`
            : benchLine(e.body);
        return [
          {
            seq: e.seq,
            at: benchTime(e.ms),
            words,
            grave: e.kind === 'line' && GRAVE.has(e.body.code),
          },
        ];
      })
      .reverse();
  });
}
