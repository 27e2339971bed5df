import {
  type CellGrounds,
  type CellParts,
  type CellPredicted,
  predictCell,
} from '@ruddy/core/compatibility';
import type { GridAnswer, GridAxes } from '@ruddy/core/compatibility/contract';

type Kind = keyof CellParts;

/** What the worker can do: take a grid once, then predict cells of it. */
export function gridCalls() {
  let grid: Pick<GridAnswer, 'rows' | 'cols' | 'third'> | null = null;
  let grounds: CellGrounds | null = null;
  let kinds: [Kind, Kind, Kind] = ['host', 'dock', 'card'];
  return {
    take(g: Pick<GridAnswer, 'rows' | 'cols' | 'third' | 'grounds'>, axes: GridAxes): void {
      const [row, col] = axes.split('-') as [Kind, Kind];
      const third = (['host', 'dock', 'card'] as const).find((k) => k !== row && k !== col) as Kind;
      kinds = [row, col, third];
      grid = g;
      grounds = g.grounds as unknown as CellGrounds;
    },
    /** Cells by row and column, predicted in this order. */
    predict(cells: readonly (readonly [number, number])[]): CellPredicted[] {
      return cells.map(([r, c]) => {
        const parts: Record<Kind, unknown> = { host: null, dock: null, card: null };
        parts[kinds[0]] = grid?.rows[r]?.spec ?? null;
        parts[kinds[1]] = grid?.cols[c]?.spec ?? null;
        parts[kinds[2]] = grid?.third?.spec ?? null;
        return grounds
          ? predictCell(parts as unknown as CellParts, grounds)
          : { state: 'unknown' as const, socket: null, down: null };
      });
    },
  };
}
export type GridCalls = ReturnType<typeof gridCalls>;
