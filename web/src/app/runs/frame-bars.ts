import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { mean } from '@ruddy/core/stats';
import { figureText } from '@ruddy/core/texts';
import type { Shown } from './run-desk';

/** The mean frame of each run as a bar of its time; what it takes longer than the first stands apart at its end. */
@Component({
  selector: 'rb-frame-bars',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (b of bars(); track b.letter) {
      <p class="row">
        <span class="letter">{{ b.letter }}</span>
        <span class="track" aria-hidden="true">
          <i class="same" [style.width.%]="b.same" [style.background]="b.color"></i>
          @if (b.more > 0) {
            <i class="more" [style.width.%]="b.more" [style.border-color]="b.color"></i>
          }
        </span>
        <span class="words">{{ b.words }}</span>
      </p>
    }
  `,
  styles: `
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
      min-height: 24px;
    }
    .letter {
      font-weight: 600;
      width: 16px;
    }
    .track {
      flex: 1 1 120px;
      display: flex;
      height: 14px;
    }
    i {
      display: block;
      height: 100%;
    }
    .more {
      border: 2px solid;
      border-left-width: 0;
    }
    .words {
      flex: 0 0 208px;
    }
  `,
})
export class FrameBars {
  readonly shown = input.required<readonly Shown[]>();
  readonly bars = computed(() => {
    const list = this.shown().flatMap((s) => (s.averages.length > 0 ? [{ s, ms: 1000 / mean(s.averages) }] : []));
    const most = Math.max(1e-9, ...list.map((l) => l.ms));
    const base = list[0]?.ms ?? 0;
    return list.map(({ s, ms }, i) => {
      const more = Math.max(0, ms - base);
      const than = i === 0 ? '' : ms >= base ? `, ${figureText(more, 2)} ms more` : `, ${figureText(base - ms, 2)} ms less`;
      return {
        ...{ letter: s.letter, color: s.look.color },
        same: (100 * (ms - more)) / most,
        more: (100 * more) / most,
        words: `${figureText(ms)} ms a frame${than}`,
      };
    });
  });
}
