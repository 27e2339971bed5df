import { Directive, effect, ElementRef, inject, input } from '@angular/core';
import { axisBottom, axisLeft, type AxisScale } from 'd3-axis';
import type { NumberValue } from 'd3-scale';
import { select } from 'd3-selection';

/**
 * An axis of a chart, drawn into its `g`; where it stands is the `transform` of the template. Its lines may reach over the plot.
 * @example <svg:g rbAxis="left" [scale]="y()" [ticks]="5" [reach]="-plotWidth()" />
 */
@Directive({ selector: '[rbAxis]', host: { class: 'axis' } })
export class Axis {
  readonly #host = inject<ElementRef<SVGGElement>>(ElementRef).nativeElement;
  readonly rbAxis = input.required<'bottom' | 'left'>();
  readonly scale = input.required<AxisScale<NumberValue>>();
  /** About how many ticks. */
  readonly ticks = input(5);
  /** Text of a tick; as the scale writes it without. */
  readonly words = input<((value: NumberValue) => string) | null>(null);
  /** Length of the line at each tick over the plot, px; 0 draws none. */
  readonly reach = input(0);

  constructor() {
    effect(() => {
      const make = this.rbAxis() === 'bottom' ? axisBottom : axisLeft;
      const axis = make(this.scale()).ticks(this.ticks()).tickSizeOuter(0).tickPadding(6);
      axis.tickSizeInner(this.reach());
      const words = this.words();
      if (words) axis.tickFormat(words);
      // Size and face are those of the page.
      select(this.#host).call(axis).attr('font-size', null).attr('font-family', null);
    });
  }
}
