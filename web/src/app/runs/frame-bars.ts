import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { mean } from '@ruddy/core/base';
import { figureText } from '@ruddy/core/base/text';
import type { Shown } from './run-store';

/**
 * The mean frame of each run as a bar of its time: of the first the longest stage and, ruled, what the link adds and, empty, what the way
 * back adds; of the others what they take longer than the first, set apart at the end.
 */
@Component({
  selector: 'rb-frame-bars',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (b of bars(); track b.letter) {
      <p class="row">
        <span class="letter">{{ b.letter }}</span>
        <span class="track" aria-hidden="true">
          <i class="same" [style.width.%]="b.same" [style.background]="b.color"></i>
          @for (p of b.parts; track p.name) {
            <i class="part" [class]="p.name" [style.width.%]="p.width"></i>
          }
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
    .part {
      border: 2px solid var(--ink);
      border-left-width: 0;
      background: repeating-linear-gradient(90deg, var(--ink) 0 1px, transparent 1px 5px);
    }
    .part.back {
      background: none;
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
  /** What of the first run's frame the link and the way back take, ms; null where not known. */
  readonly overhead = input<{ readonly link: number; readonly back: number } | null>(null);
  readonly bars = computed(() => {
    const list = this.shown().flatMap((s) =>
      s.averages.length > 0 ? [{ s, ms: 1000 / mean(s.averages) }] : [],
    );
    const most = Math.max(1e-9, ...list.map((l) => l.ms));
    const base = list[0]?.ms ?? 0;
    return list.map(({ s, ms }, i) => {
      const more = Math.max(0, ms - base);
      const overhead = i === 0 ? this.overhead() : null;
      const parts = (['link', 'back'] as const).flatMap((name) => {
        const part = Math.min(ms, Math.max(0, overhead?.[name] ?? 0));
        return part > 0
          ? [
              {
                name,
                width: (100 * part) / most,
                words: `${figureText(part, 2)} ${name === 'link' ? 'link overhead' : 'way back'}`,
              },
            ]
          : [];
      });
      const taken = parts.reduce((sum, p) => sum + p.width, 0);
      const rest = ms - (taken * most) / 100;
      if (parts.length > 0)
        return {
          letter: s.letter,
          color: s.look.color,
          parts,
          same: (100 * rest) / most,
          more: 0,
          words: `${figureText(ms)} ms: ${[`${figureText(rest, 2)} longest stage`, ...parts.map((p) => p.words)].join(', ')}`,
        };
      const than =
        i === 0
          ? ''
          : ms >= base
            ? `, ${figureText(more, 2)} ms more`
            : `, ${figureText(base - ms, 2)} ms less`;
      return {
        letter: s.letter,
        color: s.look.color,
        parts,
        same: (100 * (ms - more)) / most,
        more: (100 * more) / most,
        words: `${figureText(ms)} ms a frame${than}`,
      };
    });
  });
}
