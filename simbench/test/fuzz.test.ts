import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { measure, readReport, reportSchema } from '@ruddy/core/bring-up';
import { broughtUp, CHAINS, lspci } from './benches';

let text = '';
beforeAll(() => {
  const load = [{ act: 'load', on: true }] as const;
  const pick = ['card with a whole switch', 'oculink 8i'] as const;
  // Two machines in one listing: every kind of line, and addresses that meet twice.
  text = pick
    .map((name) => lspci(broughtUp({ chain: CHAINS[name]!, seed: 1 }, load), ['-vvnnxxx']))
    .join('\n');
});

/** Whatever is read must be a report by its own schema, and finding a card in it must end. */
function holds(broken: string): void {
  const r = readReport(broken);
  if (!r.ok) {
    expect(r.problem.code).toBeTruthy();
    return;
  }
  expect(reportSchema.safeParse(r.report).success).toBe(true);
  for (const kind of ['tunnel', 'direct'] as const)
    expect(measure(r.report, { kind }).cards.length).toBeLessThanOrEqual(2000);
}

const RUNS = 600;
describe('BU-06 broken listings: no crash, no hang, nothing half read', () => {
  it('cut off anywhere, and started anywhere', () => {
    fc.assert(
      fc.property(fc.nat(), fc.nat(), (a, b) => {
        const [x, y] = [a % text.length, b % text.length].sort((p, q) => p - q);
        holds(text.slice(x, y));
      }),
      { numRuns: RUNS },
    );
  });

  it('lines lost, doubled, swapped and overwritten', () => {
    const lines = () => text.split('\n');
    const edit = fc.record({
      at: fc.nat(),
      how: fc.constantFrom('drop', 'double', 'swap', 'noise' as const),
      noise: fc.oneof(
        fc.string({ maxLength: 200 }),
        fc.constantFrom(
          '$ sudo lspci -vv',
          '> > quoted',
          'pcilib: sysfs_read_vpd: read failed',
          '```',
        ),
      ),
    });
    fc.assert(
      fc.property(fc.array(edit, { minLength: 1, maxLength: 30 }), (edits) => {
        const all = lines();
        for (const e of edits) {
          const i = e.at % all.length;
          if (e.how === 'drop') all.splice(i, 1);
          else if (e.how === 'double') all.splice(i, 0, all[i] ?? '');
          else if (e.how === 'swap') {
            const first = all[0] ?? '';
            all[0] = all[i] ?? '';
            all[i] = first;
          } else all.splice(i, 0, e.noise);
        }
        holds(all.join('\n'));
      }),
      { numRuns: RUNS },
    );
  });

  it('characters turned into others: looping buses, impossible widths', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(), fc.constantFrom(...'0123456789abcdefx+-:. \n')), {
          minLength: 1,
          maxLength: 200,
        }),
        (edits) => {
          const chars = [...text];
          for (const [at, c] of edits) chars[at % chars.length] = c;
          holds(chars.join(''));
        },
      ),
      { numRuns: 300 },
    );
  });

  it('any text at all, and any JSON', () => {
    fc.assert(fc.property(fc.string({ maxLength: 2000, unit: 'binary' }), holds), {
      numRuns: RUNS,
    });
    fc.assert(
      fc.property(fc.json(), (j) =>
        holds(`{"format":"ruddy-bridge/report","version":1,"devices":${j}}`),
      ),
      { numRuns: RUNS },
    );
  });
});
