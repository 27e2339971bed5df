import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import {
  cellContradicts,
  type CellPredicted,
  type CellSeen,
  offsetFor,
  spanOf,
} from '@ruddy/core/compatibility';
import { cellWords } from '@ruddy/core/compatibility/text';
import { day } from '../platform/shared/format';
import { VERDICT_SHAPES } from '../chain/verdict/verdict-shapes';
import { GridStore } from './grid-store';

export const CELL = { wide: 64, high: 40, head: 56 } as const;
/** Width of the names of rows, px: less where the view is small. */
const SIDE = { wide: 190, small: 104, from: 480 } as const;
/** Rows and columns drawn beyond what is in view. */
const BEYOND = 2;
/** How long nothing new came into view before cells are asked for. */
const SETTLED_MS = 100;

function makeCell(
  row: number,
  col: number,
  left: number,
  p: CellPredicted | null,
  s: CellSeen | null,
) {
  const against = p !== null && cellContradicts(p, s);
  const seen =
    s === null || (s.n === 0 && s.told === 0)
      ? '–'
      : s.n === 0
        ? `reported ${s.told}`
        : `${s.worked}/${s.n}`;
  const seenWords =
    s === null || s.n + s.told === 0
      ? 'nothing seen'
      : `${s.n === 0 ? 'nothing seen' : `seen to work ${s.worked} of ${s.n}`}${s.told > 0 ? `, ${s.told} reported` : ''}, newest ${day(s.newest)}`;
  return {
    row,
    col,
    left,
    seen,
    against,
    id: `cell-${row}-${col}`,
    state: p?.state ?? 'wait',
    shape: p && p.state !== 'no-port' ? VERDICT_SHAPES[p.state] : null,
    words: `${p ? cellWords(p) : 'not predicted yet'}; ${seenWords}${against ? '; what was seen contradicts the prediction' : ''}`,
  };
}
type Cell = ReturnType<typeof makeCell>;

/**
 * The grid itself: only cells in view and a few beyond are in the document. It is one stop of the keyboard; arrows, Home, End, Page and
 * Ctrl go from cell to cell, Enter opens one. Above in a cell what is predicted, below what was seen; a notch where they contradict.
 */
@Component({
  selector: 'rb-grid-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './grid-view.html',
  styleUrl: './grid-view.scss',
})
export class GridView {
  readonly store = inject(GridStore);
  readonly label = input.required<string>();
  readonly opened = output<{ row: number; col: number }>();
  readonly box = viewChild.required<ElementRef<HTMLElement>>('box');
  readonly #at = signal({ left: 0, top: 0, wide: 900, high: 560 });
  readonly active = signal({ row: 0, col: 0 });
  #frame = 0;
  #kept = new Map<number, { p: CellPredicted | null; s: CellSeen | null; cell: Cell }>();

  readonly rows = computed(() => this.store.answer()?.rows ?? []);
  readonly cols = computed(() => this.store.answer()?.cols ?? []);
  readonly side = computed(() => (this.#at().wide < SIDE.from ? SIDE.small : SIDE.wide));
  readonly size = computed(() => ({
    wide: this.side() + this.cols().length * CELL.wide,
    high: CELL.head + this.rows().length * CELL.high,
  }));
  readonly #rowSpan = computed(
    () =>
      spanOf(this.rows().length, CELL.high, this.#at().top, this.#at().high - CELL.head, BEYOND),
    {
      equal: (a, b) => a.from === b.from && a.to === b.to,
    },
  );
  readonly #colSpan = computed(
    () =>
      spanOf(this.cols().length, CELL.wide, this.#at().left, this.#at().wide - this.side(), BEYOND),
    {
      equal: (a, b) => a.from === b.from && a.to === b.to,
    },
  );
  readonly shownCols = computed(() => {
    const s = this.#colSpan();
    return this.cols()
      .slice(s.from, s.to)
      .map((c, i) => ({
        id: c.id,
        name: c.name,
        i: s.from + i,
        left: this.side() + (s.from + i) * CELL.wide,
      }));
  });
  readonly shownRows = computed(() => {
    const s = this.#rowSpan();
    return this.rows()
      .slice(s.from, s.to)
      .map((r, i) => ({
        id: r.id,
        name: r.name,
        i: s.from + i,
        top: CELL.head + (s.from + i) * CELL.high,
      }));
  });
  readonly cells = computed(() => {
    const n = this.cols().length;
    return this.shownRows().map((row) => ({
      row,
      cells: this.shownCols().map((col) => this.#cell(row.i, col.i, col.left, n)),
    }));
  });

  constructor() {
    effect(() => {
      this.store.answer();
      this.#kept.clear();
    });
    effect((onCleanup) => {
      const n = this.cols().length;
      const shown = this.shownRows().flatMap((r) => this.shownCols().map((c) => r.i * n + c.i));
      // While it is scrolled the worker rests: what is passed by needs no prediction, and drawing has the machine to itself.
      const settled = setTimeout(() => this.store.ask(shown), SETTLED_MS);
      onCleanup(() => clearTimeout(settled));
    });
    effect((onCleanup) => {
      const box = this.box().nativeElement;
      const look = new ResizeObserver(() => this.#look());
      look.observe(box);
      onCleanup(() => look.disconnect());
    });
  }

  /** A cell as it was drawn last; it is made anew only when something of it changed. */
  #cell(row: number, col: number, left: number, n: number): Cell {
    const p = this.store.predicted(row * n + col);
    const s = this.store.seen(row * n + col);
    const kept = this.#kept.get(row * n + col);
    if (kept && kept.p === p && kept.s === s && kept.cell.left === left) return kept.cell;
    const cell = makeCell(row, col, left, p, s);
    this.#kept.set(row * n + col, { p, s, cell });
    return cell;
  }

  scrolled(): void {
    cancelAnimationFrame(this.#frame);
    this.#frame = requestAnimationFrame(() => this.#look());
  }

  #look(): void {
    const b = this.box().nativeElement;
    this.#at.set({
      left: b.scrollLeft,
      top: b.scrollTop,
      wide: b.clientWidth,
      high: b.clientHeight,
    });
  }

  isActive(c: { row: number; col: number }): boolean {
    return c.row === this.active().row && c.col === this.active().col;
  }

  activeId(): string {
    const { row, col } = this.active();
    return `cell-${row}-${col}`;
  }

  pressed(event: KeyboardEvent): void {
    const { row, col } = this.active();
    const lastRow = this.rows().length - 1;
    const lastCol = this.cols().length - 1;
    const page = Math.max(1, Math.floor((this.#at().high - CELL.head) / CELL.high) - 1);
    const whole = event.ctrlKey;
    const steps: Record<string, [number, number]> = {
      ArrowDown: [row + 1, col],
      ArrowUp: [row - 1, col],
      ArrowRight: [row, col + 1],
      ArrowLeft: [row, col - 1],
      PageDown: [row + page, col],
      PageUp: [row - page, col],
      Home: [whole ? 0 : row, 0],
      End: [whole ? lastRow : row, lastCol],
    };
    if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      this.opened.emit({ row, col });
      return;
    }
    const to = steps[event.key];
    if (!to || event.altKey || event.metaKey) return;
    event.preventDefault();
    this.go(Math.max(0, Math.min(lastRow, to[0])), Math.max(0, Math.min(lastCol, to[1])));
  }

  /** Make a cell the active one and bring it into view. */
  go(row: number, col: number): void {
    this.active.set({ row, col });
    const b = this.box().nativeElement;
    b.scrollTop = offsetFor(row, CELL.high, b.scrollTop, b.clientHeight - CELL.head);
    b.scrollLeft = offsetFor(col, CELL.wide, b.scrollLeft, b.clientWidth - this.side());
    this.#look();
  }

  clicked(event: Event): void {
    const cell = (event.target as Element).closest('[role=gridcell]');
    const [, row, col] = /^cell-(\d+)-(\d+)$/.exec(cell?.id ?? '') ?? [];
    if (row === undefined || col === undefined) return;
    const at = { row: Number(row), col: Number(col) };
    this.active.set(at);
    this.opened.emit(at);
  }
}
