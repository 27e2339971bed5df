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

type Side = ReturnType<typeof sideView>;

/** The empty drawing of a side view: slot at the bottom, bracket at the left, dock and card to one scale. */
function sideView(svg: SVGSVGElement, { extent }: FitPicture) {
  const pxPerMm = (WIDTH - PAD.left - PAD.right) / extent.w;
  const height = extent.h * pxPerMm + PAD.top + PAD.bottom;
  const x = scaleLinear([0, extent.w], [PAD.left, PAD.left + extent.w * pxPerMm]);
  const y = scaleLinear([0, extent.h], [height - PAD.bottom, PAD.top]);
  const root = select(svg);
  root.selectAll('*').remove();
  root.attr('viewBox', `0 0 ${WIDTH} ${height}`);
  return {
    pxPerMm,
    height,
    x,
    y,
    rect: (cls: string, left: number, bottom: number, w: number, h: number) =>
      root
        .append('rect')
        .attr('class', cls)
        .attr('x', x(left))
        .attr('y', y(bottom + h))
        .attr('width', Math.max(0, x(left + w) - x(left)))
        .attr('height', Math.max(0, y(bottom) - y(bottom + h))),
    line: (cls: string, x1: number, y1: number, x2: number, y2: number) =>
      root
        .append('line')
        .attr('class', cls)
        .attr('x1', x1)
        .attr('y1', y1)
        .attr('x2', x2)
        .attr('y2', y2),
    path: (cls: string, d: string) => root.append('path').attr('class', cls).attr('d', d),
    text: (words: string, left: number, top: number, anchor = 'middle') =>
      root.append('text').attr('x', left).attr('y', top).attr('text-anchor', anchor).text(words),
  };
}

/** Width and height of a rectangle, in words. */
const sizeText = ({ w, h }: { readonly w: number; readonly h: number }): string =>
  `${figure(exact(w))} × ${figure(exact(h))} mm`;

function drawCard({ x, y, rect, text }: Side, card: NonNullable<FitPicture['card']>): void {
  rect('card', 0, 0, card.w, card.h);
  text(`card ${sizeText(card)}`, x(card.w / 2), y(card.h / 2) + 4);
}

/** The room that the plug and the bend of its cable take, at the end or at the top of the card. */
function drawBend(side: Side, { card, bend }: FitPicture): void {
  if (!card || !bend) return;
  const { x, y, rect, text } = side;
  const words = `plug ${bend.mm} mm`;
  if (bend.side === 'end') {
    rect('bend', card.w, card.h * 0.4, bend.mm, card.h * 0.4);
    text(words, x(card.w + bend.mm) + 4, y(card.h * 0.6) + 4, 'start');
  } else {
    rect('bend', card.w * 0.62, card.h, card.w * 0.2, bend.mm);
    text(words, x(card.w * 0.6), y(card.h + bend.mm / 2) + 4, 'end');
  }
}

/** The slot, 90 mm of it at most, and the bracket that holds the card. */
function drawHolders({ x, y, line, text }: Side, { extent }: FitPicture): void {
  line('slot', x(0), y(0), x(Math.min(extent.w, 90)), y(0));
  line('bracket', x(0), y(0) + 10, x(0), y(extent.h) - 6);
  text('slot', x(45), y(0) + 16);
}

function draw(svg: SVGSVGElement, p: FitPicture): void {
  const side = sideView(svg, p);
  const { x, y, height } = side;
  if (p.room) side.rect('room', 0, 0, p.room.w, p.room.h);
  if (p.card) drawCard(side, p.card);
  drawBend(side, p);
  drawHolders(side, p);
  if (p.room) side.text(`room ${sizeText(p.room)}`, x(p.room.w), y(0) + 16, 'end');
  const bar = 50 * side.pxPerMm;
  side.path('scale', `M${WIDTH - 8 - bar},${height - 8}v-6m0,3h${bar}m0,-3v6`);
  side.text('50 mm', WIDTH - 8 - bar / 2, height - 16);
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
