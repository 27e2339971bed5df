import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatSliderModule } from '@angular/material/slider';

/** A line that is moved along a chart. In: its range, where it stands, and what is read there. Out: where it is moved to. */
@Component({
  selector: 'rb-slider',
  imports: [MatSliderModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span class="hint" aria-hidden="true">{{ label() }}</span>
    <mat-slider [min]="min()" [max]="max()" [step]="stride()">
      <input
        matSliderThumb
        [value]="value() ?? min()"
        (valueChange)="changed.emit($event)"
        [attr.aria-label]="label()"
        [attr.aria-valuetext]="words() || 'not set'"
      />
    </mat-slider>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 12px;
      padding-right: 4px;
      /* In a window that became narrower, the thumb's place of before must not widen the page. */
      overflow-x: clip;
    }
    mat-slider {
      flex: 1;
    }
  `,
})
export class Slider {
  readonly label = input.required<string>();
  readonly min = input(0);
  readonly max = input.required<number>();
  /** Null: a five hundredth of the range. */
  readonly step = input<number | null>(null);
  readonly value = input<number | null>(null);
  /** What is read where it stands, for screen readers. */
  readonly words = input('');
  readonly changed = output<number>();
  readonly stride = computed(() => this.step() ?? (this.max() - this.min()) / 500);
}
