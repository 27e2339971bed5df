import type { CompatRow } from '@ruddy/core/compatibility/contract';
import { toCsv } from '../platform/shared/csv';
import { COLUMNS } from './compat-columns';

/** The table as CSV with every column, shown or not. */
export function compatCsv(rows: readonly CompatRow[]): Promise<string> {
  return toCsv(
    COLUMNS.map((c) => c.name),
    rows.map((r) => COLUMNS.map((c) => c.text(r))),
  );
}
