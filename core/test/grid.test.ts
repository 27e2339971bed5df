import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import {
  cellChain,
  cellContradicts,
  type CellGrounds,
  offsetFor,
  predictCell,
  spanOf,
} from '../src/compatibility';
import type { CableSpec } from '../src/parts';
import { evaluate } from '../src/plan';
import { chain, directChain, EMPTY, tunnelChain } from './make';

const cable = tunnelChain().path?.[0]?.spec as CableSpec;
const direct = directChain();
const grounds: CellGrounds = {
  empty: EMPTY,
  cables: {
    'usb-c': cable,
    ...(direct.dock &&
      direct.path?.[0] && { [direct.dock.connector]: direct.path[0].spec as CableSpec }),
  },
  context: { asOf: '2026-11-20', house: {} },
};
const { host, dock, card } = tunnelChain();

describe('CO-04 what is predicted for a cell', () => {
  it('equals evaluate of the same chain by its best port', () => {
    const parts = { host, dock, card };
    const p = predictCell(parts, grounds);
    const e = evaluate({
      chain: cellChain(parts, p.socket as string, grounds),
      context: grounds.context,
    });
    expect(p.state).toBe(e.predicted.verdict.state);
    expect(p.down?.lo).toBe(e.predicted.link.usable?.down.lo);
    const two = {
      ...host!,
      sockets: [
        {
          ...host!.sockets[0]!,
          key: 'poor',
          tunnelling: 'no' as const,
          standard: 'usb-c' as const,
        },
        host!.sockets[0]!,
      ],
    };
    expect(predictCell({ ...parts, host: two }, grounds)).toEqual(p);
    expect(
      predictCell({ ...parts, host: { ...two, sockets: [two.sockets[0]!] } }, grounds).state,
    ).toBe('blocked');
  });

  it('an unchosen card does not doubt the link', () => {
    expect(predictCell({ host, dock, card: null }, grounds).state).toBe('works');
    expect(predictCell({ host, dock: null, card }, grounds).state).toBe('unknown');
    expect(predictCell({ host: null, dock, card }, grounds).state).toBe('unknown');
  });

  it('a plug no port takes is named, and is no prediction', () => {
    const p = predictCell({ host, dock: direct.dock, card }, grounds);
    expect(p).toEqual({ state: 'no-port', socket: null, down: null });
    expect(cellContradicts(p, { n: 9, worked: 9, told: 0, newest: '2026-01-01' })).toBe(false);
    expect(chain).toBeDefined();
  });

  it('contradicts when the observed interval excludes it: four of four', () => {
    const p = predictCell({ host, dock, card }, grounds);
    const seen = (n: number, worked: number) => ({ n, worked, told: 0, newest: '2026-01-01' });
    expect(cellContradicts(p, seen(4, 0))).toBe(true);
    expect(cellContradicts(p, seen(3, 0))).toBe(false);
    expect(cellContradicts(p, null)).toBe(false);
  });
});

describe('what of a grid is drawn', () => {
  const size = fc.integer({ min: 1, max: 80 });
  it('everything in view and never outside, however it is scrolled', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 300 }),
        size,
        fc.integer({ min: 0, max: 30_000 }),
        fc.integer({ min: 0, max: 2000 }),
        (n, px, offset, view) => {
          const s = spanOf(n, px, offset, view, 3);
          expect(s.from).toBeGreaterThanOrEqual(0);
          expect(s.to).toBeLessThanOrEqual(n);
          expect(s.to - s.from).toBeLessThanOrEqual(Math.ceil(view / px) + 8);
          for (let i = 0; i < n; i += 1) {
            const inView = (i + 1) * px > offset && i * px < offset + view;
            if (inView) expect(i >= s.from && i < s.to).toBe(true);
          }
        },
      ),
    );
  });

  it('a stepped cell scrolls into view with the least movement', () => {
    expect(offsetFor(0, 64, 128, 640)).toBe(0);
    expect(offsetFor(11, 64, 128, 640)).toBe(128);
    expect(offsetFor(12, 64, 128, 640)).toBe(13 * 64 - 640);
  });
});
