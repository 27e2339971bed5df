import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { benchTime } from '@ruddy/core/bench/text';
import { BenchStore } from './bench-store';
import { Choice } from '../platform/kit/choice';

const SPEEDS = [
  { value: '0', label: 'Hold' },
  { value: '1', label: '1×' },
  { value: '10', label: '10×' },
  { value: '100', label: '100×' },
];

/** The clock of a bench: how fast it goes, and steps for those who will not wait. */
@Component({
  selector: 'rb-clock-panel',
  imports: [Choice, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="clock">
      <span class="time" aria-label="Bench time">{{ time() }}</span>
      <rb-choice
        label="Speed"
        [options]="speeds"
        [value]="speed()"
        [clearable]="false"
        (chosen)="go($event)"
      />
      <button mat-stroked-button type="button" (click)="store.clock({ stepMs: 10000 })">
        10 s on
      </button>
      <button mat-stroked-button type="button" (click)="store.clock({ stepMs: 600000 })">
        10 min on
      </button>
      <button mat-stroked-button type="button" (click)="store.clock({ toNext: true })">
        To what happens next
      </button>
    </div>
  `,
  styles: `
    .clock {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
    }
    .time {
      font-size: 28px;
      line-height: 32px;
      font-weight: 650;
      min-width: 88px;
    }
  `,
})
export class ClockPanel {
  readonly store = inject(BenchStore);
  readonly speeds = SPEEDS;
  readonly time = computed(() => benchTime(this.store.nowMs()));
  readonly speed = computed(() => String(this.store.speed()));

  go(speed: string | null): void {
    if (speed !== null) this.store.clock({ speed: Number(speed) });
  }
}
