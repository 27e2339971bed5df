/** Rows as CSV. Cells a spreadsheet would run as formulas are prefixed. */
export async function toCsv(
  fields: readonly string[],
  data: readonly (readonly (string | number | null)[])[],
): Promise<string> {
  // A CommonJS package: a bundler hands its names over as the default, a test runner by name.
  const csv = await import('papaparse');
  const { unparse } = 'default' in csv ? (csv.default as typeof csv) : csv;
  return unparse(
    { fields: [...fields], data: data.map((d) => [...d]) },
    { escapeFormulae: /^[=+\-@\t\r][\s\S]*$/, newline: '\r\n' },
  );
}
