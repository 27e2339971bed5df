import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  input,
  viewChild,
} from '@angular/core';
import { figureText } from '@ruddy/core/base/text';
import { extent, type MinMaxDecimation } from '@ruddy/core/runs';
import { watchedWidth } from '../platform/shared/watched-width';
import { drawTrace, highest, traceColumns } from './draw-trace';

const HEIGHT = 96;

/** A run that was drawn by chance, as a strip in the colour of what is expected. */
@Component({
  selector: 'rb-simulated-trace',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <canvas
      #canvas
      aria-hidden="true"
      [style.width.px]="width()"
      [style.height.px]="height"
    ></canvas>
    <p class="hint">{{ words() }}</p>
  `,
  styles: `
    :host {
      display: block;
    }
    canvas {
      background: var(--sheet);
      border: 1px solid var(--line);
    }
  `,
})
export class SimulatedTrace {
  readonly pyramid = input.required<MinMaxDecimation>();
  readonly width = watchedWidth(600);
  readonly height = HEIGHT;
  readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  readonly #lengthMs = computed(() => this.pyramid().ends.at(-1) ?? 0);
  readonly words = computed(() => {
    const [least, most] = extent(this.pyramid(), 0, this.pyramid().frames.length);
    return `Frame time over ${figureText(this.#lengthMs() / 1000)} s, from ${figureText(least)} to ${figureText(most)} ms; expected, not measured.`;
  });

  constructor() {
    afterRenderEffect(() => this.#draw());
  }

  #draw(): void {
    const el = this.canvas().nativeElement;
    const ratio = globalThis.devicePixelRatio || 1;
    el.width = this.width() * ratio;
    el.height = HEIGHT * ratio;
    const ctx = el.getContext('2d');
    if (!ctx) return;
    ctx.scale(ratio, ratio);
    const color = getComputedStyle(el).getPropertyValue('--brick').trim();
    const lines = [{ color, dash: [], shiftMs: 0, pyramid: this.pyramid() }];
    const drawn = traceColumns(lines, 0, this.#lengthMs(), this.width());
    const top = highest(drawn) * 1.05;
    drawTrace(
      ctx,
      { left: 0, top: 0, width: this.width(), height: HEIGHT },
      lines,
      drawn,
      (ms) => HEIGHT - (ms / top) * (HEIGHT - 4) - 2,
    );
  }
}
