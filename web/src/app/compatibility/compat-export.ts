import type { CompatRow } from '@ruddy/core/api';
import { COLUMNS } from './compat-columns';

/** The table as CSV with every column, shown or not. Cells a spreadsheet would run as formulas are prefixed. */
export async function compatCsv(rows: readonly CompatRow[]): Promise<string> {
  // A CommonJS package: a bundler hands its names over as the default, a test runner by name.
  const csv = await import('papaparse');
  const { unparse } = 'default' in csv ? (csv.default as typeof csv) : csv;
  const names = COLUMNS.map((c) => c.name);
  const data = rows.map((r) => COLUMNS.map((c) => c.text(r)));
  return unparse({ fields: names, data }, { escapeFormulae: /^[=+\-@\t\r].*$/, newline: '\r\n' });
}
