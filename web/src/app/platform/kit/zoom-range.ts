import {
  Directive,
  effect,
  ElementRef,
  inject,
  input,
  model,
  output,
  untracked,
} from '@angular/core';
import { brushX, type D3BrushEvent } from 'd3-brush';
import { scaleLinear } from 'd3-scale';
import { select, type Selection } from 'd3-selection';
import { type D3ZoomEvent, zoom, ZoomTransform } from 'd3-zoom';

/** From and to, in the unit of the chart. */
export type Interval = readonly [number, number];

/**
 * The range of a long chart that is looked at: zoomed by Ctrl and wheel, pinch or double click, moved by dragging, chosen by dragging
 * with Shift or after `choosing` was set. Without Ctrl the wheel scrolls the page, as everywhere. The middle button and the keys are the page's.
 */
@Directive({ selector: 'svg[rbZoomRange]', exportAs: 'rbZoomRange' })
export class ZoomRange {
  readonly #host = inject<ElementRef<SVGSVGElement>>(ElementRef).nativeElement;
  /** What is looked at; null: all of it. */
  readonly rbZoomRange = model.required<Interval | null>();
  /** Length of the whole. */
  readonly length = input.required<number>();
  /** The least that can be looked at. */
  readonly least = input(50);
  /** Plot in px: left, width, height. */
  readonly left = input(0);
  readonly plot = input.required<{ readonly width: number; readonly height: number }>();
  /** The next drag chooses a stretch. */
  readonly choosing = model(false);
  /** A pointer rests at this place. */
  readonly at = output<number>();
  readonly #root: Selection<SVGSVGElement, unknown, null, undefined> = select(this.#host);
  readonly #brushed = this.#root.append('g').attr('class', 'brush');
  readonly #zoom = zoom<SVGSVGElement, unknown>()
    .filter((e: MouseEvent) =>
      e.type === 'wheel' ? e.ctrlKey : !e.button && !e.shiftKey && !this.choosing(),
    )
    .on('zoom', (e: D3ZoomEvent<SVGSVGElement, unknown>) => this.#zoomed(e));
  readonly #brush = brushX<unknown>()
    .filter((e: MouseEvent) => !e.button && (e.shiftKey || this.choosing()))
    .keyModifiers(false)
    .on('end', (e: D3BrushEvent<unknown>) => this.#chosen(e));

  constructor() {
    this.#root.call(this.#zoom).on('pointermove.at', (e: PointerEvent) => {
      const x = e.clientX - this.#host.getBoundingClientRect().left;
      this.at.emit(Math.max(0, this.scale().invert(x)));
    });
    effect(() => {
      const { width, height } = this.plot();
      const left = this.left();
      const most = Math.max(1, this.length() / this.least());
      const box: [Point, Point] = [
        [left, 0],
        [left + width, height],
      ];
      this.#zoom.extent(box).translateExtent(box).scaleExtent([1, most]);
      this.#brush.extent(box);
      this.#brushed.call(this.#brush as never);
      untracked(() => this.#show());
    });
    effect(() => {
      this.rbZoomRange();
      untracked(() => this.#show());
    });
  }

  /** From the unit of the chart to px. */
  scale() {
    const whole: Interval = [0, this.length()];
    return scaleLinear(this.rbZoomRange() ?? whole, [this.left(), this.left() + this.plot().width]);
  }

  /** Zooms about a place, the middle without. */
  by(factor: number, about?: number): void {
    const [from, to] = this.rbZoomRange() ?? [0, this.length()];
    const middle = about ?? (from + to) / 2;
    const span = Math.max(this.least(), (to - from) * factor);
    this.look(middle - (span * (middle - from)) / (to - from), span);
  }

  /** Moves along by a part of what is looked at. */
  move(part: number): void {
    const w = this.rbZoomRange();
    if (w) this.look(w[0] + (w[1] - w[0]) * part, w[1] - w[0]);
  }

  /** Looks at a stretch from its beginning; all of it where it is longer. */
  look(from: number, span: number): void {
    if (span >= this.length()) return this.rbZoomRange.set(null);
    const start = Math.max(0, Math.min(this.length() - span, from));
    this.rbZoomRange.set([start, start + span]);
  }

  /** Puts the transform of the zoom where the stretch stands, without an event. */
  #show(): void {
    const [from, to] = this.rbZoomRange() ?? [0, this.length()];
    const k = this.length() / (to - from);
    const x = this.left() * (1 - k) - (from / this.length()) * this.plot().width * k;
    (this.#host as { __zoom?: ZoomTransform }).__zoom = new ZoomTransform(k, x, 0);
  }

  #zoomed(e: D3ZoomEvent<SVGSVGElement, unknown>): void {
    const { left, width } = { left: this.left(), width: this.plot().width };
    const whole = scaleLinear([0, this.length()], [left, left + width]);
    const [from = 0, to = 0] = e.transform.rescaleX(whole).domain();
    this.look(from, to - from);
  }

  #chosen(e: D3BrushEvent<unknown>): void {
    if (!e.selection) return;
    const [a, b] = (e.selection as Interval).map((x) => this.scale().invert(x)) as [number, number];
    this.#brushed.call(this.#brush.clear as never);
    this.choosing.set(false);
    this.look(a, Math.max(this.least(), b - a));
  }
}
type Point = [number, number];
