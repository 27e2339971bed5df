import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  input,
  output,
  signal,
  viewChild,
  viewChildren,
} from '@angular/core';
import { BOXES, stripPicture, WIDTH } from './strip-geometry';
import { drawStrip } from './strip-draw';
import type { StripNodeKey, StripModel } from './strip-model';
import { posteriorOf } from './strip-suspicion';
import { copyLine, hopText, nodeText, stripList, summaryText } from './strip-text';

export type StripTarget = { kind: 'pier'; key: StripNodeKey } | { kind: 'hop'; index: number };

interface StripButton {
  /** Stays when the words change, so that a button keeps the focus. */
  key: string;
  target: StripTarget;
  label: string;
  left: number;
  width: number;
}

let made = 0;

/** The mark of this product: banks, piers and the ribbon of every hop, with its text and its buttons. */
@Component({
  selector: 'rb-bridge-strip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bridge-strip.html',
  styleUrl: './bridge-strip.scss',
})
export class BridgeStrip {
  readonly model = input.required<StripModel>();
  readonly slim = input(false);
  readonly opened = output<StripTarget>();
  readonly working = output<StripTarget>();

  readonly id = `strip-${++made}`;
  readonly svg = viewChild<ElementRef<SVGSVGElement>>('svg');
  readonly buttonEls = viewChildren<ElementRef<HTMLButtonElement>>('target');
  readonly current = signal(0);
  readonly summary = computed(() => summaryText(this.model()));
  readonly list = computed(() => stripList(this.model()));
  readonly copied = signal(false);

  /** Piers and hops in the order of the picture, each as tall as the strip. */
  readonly buttons = computed<StripButton[]>(() => {
    const m = this.model();
    const percent = (x: number) => (100 * x) / WIDTH;
    const pictures = stripPicture(m);
    return m.piers.flatMap((p) => {
      const box = BOXES[p.key];
      const pier: StripButton = {
        key: p.key,
        target: { kind: 'pier', key: p.key },
        label: m.suspicion ? `${nodeText(p)} ${posteriorOf(m, p.key)}.` : nodeText(p),
        left: percent(box.x),
        width: percent(box.w),
      };
      const hop = pictures.find((h) => h.hop.from === p.key);
      if (!hop) return [pier];
      // The gap right of the pier is the hop's own ground; what lies beyond a passive pier belongs to that pier's button.
      const gapEnd = Math.min(...m.piers.map((q) => BOXES[q.key].x).filter((x) => x > box.x));
      const left = box.x + box.w;
      return [
        pier,
        {
          key: `hop ${hop.hop.index}`,
          target: { kind: 'hop', index: hop.hop.index },
          label: hopText(hop.hop),
          left: percent(left),
          width: percent(gapEnd - left),
        },
      ];
    });
  });

  constructor() {
    effect(() => {
      const el = this.svg()?.nativeElement;
      if (el) drawStrip(el, this.model(), this.id);
    });
  }

  move(event: KeyboardEvent): void {
    const last = this.buttons().length - 1;
    const now = Math.min(this.current(), last);
    const to = {
      ArrowRight: Math.min(now + 1, last),
      ArrowLeft: Math.max(now - 1, 0),
      Home: 0,
      End: last,
    }[event.key];
    if (event.key === 'w') {
      const target = this.buttons()[now]?.target;
      if (target) this.working.emit(target);
      event.stopPropagation();
      return;
    }
    if (to === undefined) return;
    event.preventDefault();
    this.current.set(to);
    this.buttonEls()[to]?.nativeElement.focus();
  }

  copy(): void {
    const words = [this.summary(), ...this.list(), copyLine(this.model())].join('\n');
    void navigator.clipboard.writeText(words).then(() => this.copied.set(true));
  }
}
