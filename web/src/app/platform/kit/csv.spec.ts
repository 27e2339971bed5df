import { describe, expect, it } from 'vitest';
import { toCsv } from './csv';

describe('cells a spreadsheet would run', () => {
  it.each(['=1+1', '+1', '-1', '@x', '\t=1', '\r=1', '=1\n2', '=HYPERLINK("x";"y")'])(
    '%j is written as text',
    async (cell) => {
      const csv = await toCsv(['name'], [[cell]]);
      const written = csv.slice(csv.indexOf('\n') + 1).replace(/^"/, '');
      expect(written.startsWith("'")).toBe(true);
    },
  );

  it('others are written as they are', async () => {
    expect(await toCsv(['a', 'b'], [['K-02 a', 4]])).toBe('a,b\r\nK-02 a,4');
  });
});
