import type { IconName } from './icons';

/** A column of an `rb-table`. */
export interface Column<T> {
  readonly key: string;
  readonly name: string;
  /** Text of the cell, of its title and of the downloaded file. */
  text(row: T): string;
  /** What it sorts by: a name the server knows, or a value of the row where the page sorts in memory. */
  readonly sort?: string | ((row: T) => string | number | null) | null;
  /** Numbers, aligned to the right. */
  readonly figure?: boolean;
  /** False: hidden until the user shows it. */
  readonly usual?: boolean;
  /** The name is for screen readers only, as over buttons. */
  readonly silent?: boolean;
  /** Shown on a phone; at most three. */
  readonly narrow?: boolean;
  /** Explains the name, where it needs it. */
  readonly help?: string;
  /** Two lines instead of one that is cut. */
  readonly wrap?: boolean;
  /** Share of the width; 4 without. */
  readonly wide?: number;
}

/** A column of `rb-rows`: its cells are drawn by a template, or are its text. */
export type ShortColumn<T = unknown> = Omit<Column<T>, 'text'> & Partial<Pick<Column<T>, 'text'>>;

/** An act on one row, in the row's menu. */
export interface RowAct<T> {
  readonly icon: IconName;
  readonly name: string;
  run(row: T): void;
  may?(row: T): boolean;
}

/** Columns kept on this machine under `place`, or the usual ones; keys that no longer exist are dropped. */
export function keptColumns(
  place: string,
  columns: readonly Pick<Column<never>, 'key' | 'usual'>[],
): readonly string[] {
  const usual = columns.filter((c) => c.usual !== false).map((c) => c.key);
  if (place === '') return usual;
  try {
    const stored: unknown = JSON.parse(localStorage.getItem(place) ?? 'null');
    const known = Array.isArray(stored)
      ? stored.map(String).filter((k) => columns.some((c) => c.key === k))
      : [];
    return known.length > 0 ? known : usual;
  } catch {
    // Text under this key that is no list counts as none.
    return usual;
  }
}

/** Rows in the order of a column that sorts in memory; numbers by value, text by the locale, empty ones last. */
export function sortedRows<T>(
  rows: readonly T[],
  columns: readonly Pick<Column<T>, 'key' | 'sort'>[],
  sort: { active: string; direction: 'asc' | 'desc' | '' },
): readonly T[] {
  const by = columns.find((c) => c.key === sort.active)?.sort;
  if (typeof by !== 'function' || sort.direction === '') return rows;
  const sign = sort.direction === 'asc' ? 1 : -1;
  return [...rows].sort((a, b) => {
    const [x, y] = [a, b].map(by);
    if (x === null || y === null) return x === y ? 0 : x === null ? 1 : -1;
    if (typeof x === 'number' && typeof y === 'number') return sign * (x - y);
    return sign * String(x).localeCompare(String(y), undefined, { numeric: true });
  });
}
export type { Sort } from '@angular/material/sort';
