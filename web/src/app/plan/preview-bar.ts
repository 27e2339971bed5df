import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { rate } from '@ruddy/core/base/text';
import { summarizeEvaluation, VERDICT_LABELS } from '@ruddy/core/plan/text';
import { MiniStrip } from '../chain/strip/mini-strip';
import { Preview } from '../setups/preview';

/** What is tried just now, before beside after, with the two ways out. */
@Component({
  selector: 'rb-trial-bar',
  imports: [MatButtonModule, MiniStrip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (both(); as b) {
      <section class="bar" aria-labelledby="trial-h">
        <h2 id="trial-h">Trying: {{ b.words }}</h2>
        <div class="side">
          <span class="eyebrow">Before</span>
          <rb-mini-strip [glance]="b.before" />
          <span>{{ words(b.before.verdict) }}, {{ rate(b.before.pinch.usable) }} Gb/s</span>
        </div>
        <div class="side">
          <span class="eyebrow">With it</span>
          <rb-mini-strip [glance]="b.after" />
          <span role="status"
            >{{ words(b.after.verdict) }}, {{ rate(b.after.pinch.usable) }} Gb/s</span
          >
        </div>
        <span class="out">
          <button mat-flat-button type="button" (click)="trial.keep()">Keep</button>
          <button mat-stroked-button type="button" (click)="trial.putBack()">Put back</button>
        </span>
      </section>
    }
    @if (trial.problem(); as why) {
      <p class="problem" role="alert">Not tried: {{ why }}</p>
    }
  `,
  styles: `
    .bar {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px 24px;
      padding: 8px 12px;
      margin-bottom: 12px;
      background: var(--select);
      border: 1px solid var(--rim);
      border-left: 4px solid var(--brick);
    }
    h2 {
      font-size: 16px;
      line-height: 24px;
      font-weight: 600;
    }
    .side {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 4px 8px;
      font-size: 13px;
    }
    .out {
      display: flex;
      gap: 8px;
      margin-left: auto;
    }
  `,
})
export class PreviewBar {
  readonly trial = inject(Preview);
  readonly rate = rate;
  readonly both = computed(() => {
    const trying = this.trial.now();
    const before = this.trial.before();
    return trying && before
      ? {
          words: trying.fix.words,
          before: summarizeEvaluation(before.evaluation),
          after: summarizeEvaluation(trying.judgement.evaluation),
        }
      : null;
  });

  words(verdict: keyof typeof VERDICT_LABELS): string {
    return VERDICT_LABELS[verdict];
  }
}
