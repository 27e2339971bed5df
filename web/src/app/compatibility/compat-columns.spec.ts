import type { CompatRow } from '@ruddy/core/compatibility/contract';
import { COLUMNS } from './compat-columns';
import { toCsv } from '../platform/kit/csv';

/** The file that the table hands over: every column, shown or not. */
const compatCsv = (rows: readonly CompatRow[]) =>
  toCsv(
    COLUMNS.map((c) => c.name),
    rows.map((r) => COLUMNS.map((c) => c.text(r))),
  );
const row: CompatRow = {
  key: '["a"]',
  host: '=1+1',
  port: 'left',
  standard: 'usb4-40',
  cable: 'K, "07"',
  dock: '@dock',
  card: 'C-20',
  predicted: {
    verdict: 'care',
    sentence: '',
    coverage: { known: 5, of: 7 },
    down: { lo: 16, hi: 26 },
  },
  seen: { n: 3, worked: 2, failed: 1 },
  told: { n: 0, worked: 0 },
  contradicted: false,
  sure: false,
  shared: null,
  now: { outcome: 'care', on: '2026-11-03', since: '2026-02-15', versions: { driver: '41.2' } },
  older: 2,
  entries: 4,
  setups: [{ id: '1', name: 'Dome desk' }],
};

describe('the compatibility table as a file', () => {
  it('holds every column, predicted and seen apart', async () => {
    const [head, line] = (await compatCsv([row])).split('\r\n');
    expect(head).toBe(COLUMNS.map((c) => (/[",]/.test(c.name) ? `"${c.name}"` : c.name)).join(','));
    expect(line).toContain(
      '"Works with care, 16.0 to 26.0 Gb/s, 5 of 7 areas known",2 of 3,Works with care,15 Feb 2026,3 Nov 2026',
    );
  });

  it('no cell is a formula, and quotes and commas survive', async () => {
    const line = (await compatCsv([row])).split('\r\n')[1] ?? '';
    expect(line).toContain("'=1+1");
    expect(line).not.toMatch(/(^|,)"?[=@]/);
    expect(line).toContain("'@dock");
    expect(line).toContain('"K, ""07"""');
  });
});
