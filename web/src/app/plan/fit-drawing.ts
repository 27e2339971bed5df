import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  input,
  viewChild,
} from '@angular/core';
import { scaleLinear } from 'd3-scale';
import { select } from 'd3-selection';
import { exact } from '@ruddy/core/base';
import { figure } from '@ruddy/core/base/text';
import type { Chain } from '@ruddy/core/chain';
import type { Evaluation } from '@ruddy/core/plan';
import { fitPicture, type FitPicture } from './fit-picture';
import { Fold } from '../platform/kit/fold';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';

const WIDTH = 520;
const PAD = { left: 28, right: 70, top: 26, bottom: 34 };

/** Draw dock and card to one scale: slot at the bottom, bracket at the left. */
function draw(svg: SVGSVGElement, p: FitPicture): void {
  const k = (WIDTH - PAD.left - PAD.right) / p.extent.w;
  const height = p.extent.h * k + PAD.top + PAD.bottom;
  const x = scaleLinear([0, p.extent.w], [PAD.left, PAD.left + p.extent.w * k]);
  const y = scaleLinear([0, p.extent.h], [height - PAD.bottom, PAD.top]);
  const root = select(svg);
  root.selectAll('*').remove();
  root.attr('viewBox', `0 0 ${WIDTH} ${height}`);
  const rect = (cls: string, left: number, bottom: number, w: number, h: number) =>
    root
      .append('rect')
      .attr('class', cls)
      .attr('x', x(left))
      .attr('y', y(bottom + h))
      .attr('width', Math.max(0, x(left + w) - x(left)))
      .attr('height', Math.max(0, y(bottom) - y(bottom + h)));
  const text = (words: string, left: number, top: number, anchor = 'middle') =>
    root.append('text').attr('x', left).attr('y', top).attr('text-anchor', anchor).text(words);
  if (p.room) rect('room', 0, 0, p.room.w, p.room.h);
  if (p.card) {
    rect('card', 0, 0, p.card.w, p.card.h);
    text(
      `card ${figure(exact(p.card.w))} × ${figure(exact(p.card.h))} mm`,
      x(p.card.w / 2),
      y(p.card.h / 2) + 4,
    );
    if (p.bend?.side === 'end') rect('bend', p.card.w, p.card.h * 0.4, p.bend.mm, p.card.h * 0.4);
    else if (p.bend) rect('bend', p.card.w * 0.62, p.card.h, p.card.w * 0.2, p.bend.mm);
    if (p.bend) {
      const at =
        p.bend.side === 'end'
          ? [x(p.card.w + p.bend.mm) + 4, y(p.card.h * 0.6) + 4]
          : [x(p.card.w * 0.6), y(p.card.h + p.bend.mm / 2) + 4];
      text(`plug ${p.bend.mm} mm`, at[0] ?? 0, at[1] ?? 0, p.bend.side === 'end' ? 'start' : 'end');
    }
  }
  root
    .append('line')
    .attr('class', 'slot')
    .attr('x1', x(0))
    .attr('x2', x(Math.min(p.extent.w, 90)))
    .attr('y1', y(0))
    .attr('y2', y(0));
  root
    .append('line')
    .attr('class', 'bracket')
    .attr('x1', x(0))
    .attr('x2', x(0))
    .attr('y1', y(0) + 10)
    .attr('y2', y(p.extent.h) - 6);
  text('slot', x(45), y(0) + 16);
  if (p.room)
    text(
      `room ${figure(exact(p.room.w))} × ${figure(exact(p.room.h))} mm`,
      x(p.room.w),
      y(0) + 16,
      'end',
    );
  const bar = 50 * k;
  root
    .append('path')
    .attr('class', 'scale')
    .attr('d', `M${WIDTH - 8 - bar},${height - 8}v-6m0,3h${bar}m0,-3v6`);
  text('50 mm', WIDTH - 8 - bar / 2, height - 16);
}

/** Does the card go in? A side view to scale with what is left round it, and the same in a table. */
@Component({
  selector: 'rb-fit-drawing',
  imports: [Cell, Rows, Fold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (picture(); as p) {
      <rb-fold name="Fit drawing: {{ p.words }}">
        <div class="both">
          <svg #svg role="img" [attr.aria-label]="'Side view to scale: ' + p.words"></svg>
          <rb-rows label="Clearances" [columns]="fitDrawingColumns" [rows]="rows()">
            <ng-template rbCell="side" [rbCellOf]="rows()" let-r>{{ r.what }}</ng-template>
            <ng-template rbCell="needs" [rbCellOf]="rows()" let-r>{{ r.need }}</ng-template>
            <ng-template rbCell="room" [rbCellOf]="rows()" let-r>{{ r.have }}</ng-template>
            <ng-template rbCell="fits" [rbCellOf]="rows()" let-r>{{ r.fits }}</ng-template>
          </rb-rows>
        </div>
        <p class="hint">
          The largest card the figures allow in the smallest room. Measure before you buy.
        </p>
      </rb-fold>
    }
  `,
  styles: `
    .both {
      display: grid;
      grid-template-columns: minmax(0, 520px) minmax(0, 1fr);
      gap: 16px;
      align-items: start;
      padding: 8px 0;
    }
    @media (max-width: 719px) {
      .both {
        grid-template-columns: minmax(0, 1fr);
      }
    }
    svg {
      width: 100%;
    }
  `,
})
export class FitDrawing {
  readonly fitDrawingColumns: readonly ShortColumn[] = [
    { key: 'side', name: 'Side' },
    { key: 'needs', name: 'Needs', figure: true },
    { key: 'room', name: 'Room', figure: true },
    { key: 'fits', name: 'Fits' },
  ];
  readonly chain = input.required<Chain>();
  readonly evaluation = input.required<Evaluation>();
  readonly svg = viewChild<ElementRef<SVGSVGElement>>('svg');
  readonly picture = computed(() => {
    const { card, dock } = this.chain();
    return fitPicture(card, dock, this.evaluation().predicted.body.fit);
  });
  readonly rows = computed(() =>
    (this.evaluation().predicted.body.fit?.rows ?? []).map((r) => ({
      what: {
        length: 'Length',
        height: 'Height',
        slots: 'Width',
        weight: 'Weight',
        bend: 'With the bend of the plug',
      }[r.what],
      need: r.need ? `${figure(r.need, r.unit === 'slots' ? 1 : 0)} ${r.unit}` : 'not known',
      have: r.have ? `${figure(r.have, r.unit === 'slots' ? 1 : 0)} ${r.unit}` : 'not known',
      fits: r.fits === null ? 'not known' : { yes: 'yes', no: 'no', may: 'perhaps' }[r.fits],
    })),
  );

  constructor() {
    effect(() => {
      const svg = this.svg()?.nativeElement;
      const p = this.picture();
      if (svg && p) draw(svg, p);
    });
  }
}
