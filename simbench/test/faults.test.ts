import { describe, expect, it } from 'vitest';
import type { OrderId, StepId, SymptomId } from '@ruddy/core/base';
import { FAULT_IDS, type FaultId, FAULTS, faultsOf } from '@ruddy/core/bench';
import type { Chain } from '@ruddy/core/chain';
import { screenSchema } from '@ruddy/core/parts';
import { CHAINS } from './benches';
import { Walk } from './walk';

const screen = screenSchema.parse({
  maker: 'Alder',
  model: 'V-1',
  widthPx: 2560,
  heightPx: 1440,
  hz: 60,
});
/** With a screen at the card, so that a missing picture is missed. */
function shown(name: string): Chain {
  return { ...CHAINS[name]!, picture: [{ key: 'a', by: 'card', plug: 'displayport', screen }] };
}
const TUNNEL = shown('usb4 40');
const SEPARATE = shown('thunderbolt 3, four lanes');
const DIRECT = shown('oculink 4i');

describe('BE-01 a clean bench passes the whole list', () => {
  it.each(Object.keys(CHAINS))('%s', (name) => {
    const o = new Walk(CHAINS[name]!, 21, {}, 'all-off').outcome();
    expect([o.step, o.symptom]).toEqual([null, null]);
    expect(o.held).toContain('soak');
  });

  it.each(['slaved', 'dock-first', 'host-first', 'any-time'] as const)(
    'a tunnel also by %s',
    (order) => {
      expect(new Walk(TUNNEL, 22, {}, order).outcome().step).toBeNull();
    },
  );
});

type Case = readonly [FaultId, number, Chain, StepId, SymptomId, OrderId?];
// Where each shows first and what it looks like there: common practice, no published source.
const CASES: readonly Case[] = [
  ['cable-charges-only', 1, TUNNEL, 'approve', 'nothing-listed'],
  ['cable-half-rate', 1, TUNNEL, 'read-outs', 'router-slow'],
  ['cable-one-lane', 1, TUNNEL, 'read-outs', 'router-slow'],
  ['plug-not-home', 1, TUNNEL, 'approve', 'nothing-listed'],
  ['plug-not-home', 0.4, TUNNEL, 'soak', 'seen-then-lost'],
  ['look-alike-port', 1, TUNNEL, 'approve', 'nothing-listed'],
  ['approval-kept-out', 1, TUNNEL, 'approve', 'router-no-card'],
  ['tunnelling-forbidden', 1, TUNNEL, 'approve', 'router-no-card'],
  ['two-lanes', 1, SEPARATE, 'read-outs', 'narrow-slow'],
  ['host-order', 1, TUNNEL, 'approve', 'not-at-start'],
  ['dock-firmware-crash', 1, TUNNEL, 'plug-cable', 'crash-on-plug', 'host-first'],
  ['dock-firmware-cap', 0.5, TUNNEL, 'copy-down', 'low-copy'],
  ['dock-defective', 1, TUNNEL, 'approve', 'nothing-listed'],
  ['dock-switch', 1, TUNNEL, 'dock-on', 'no-lamp'],
  ['dock-switch', 1, DIRECT, 'dock-on', 'no-lamp'],
  ['hub-traffic', 0.6, TUNNEL, 'copy-down', 'low-copy'],
  ['card-not-seated', 1, TUNNEL, 'listed', 'router-no-card'],
  ['card-not-seated', 1, DIRECT, 'listed', 'nothing-listed'],
  ['card-not-seated', 0.5, TUNNEL, 'read-outs', 'narrow-slow'],
  ['card-not-seated', 0.5, DIRECT, 'read-outs', 'narrow-slow'],
  ['power-plug-out', 1, TUNNEL, 'listed', 'router-no-card'],
  ['power-plug-out', 1, DIRECT, 'listed', 'nothing-listed'],
  ['card-defective', 1, TUNNEL, 'listed', 'router-no-card'],
  ['card-defective', 1, DIRECT, 'listed', 'nothing-listed'],
  ['card-defective', 0.3, TUNNEL, 'soak', 'drops-under-load'],
  ['card-defective', 0.3, DIRECT, 'soak', 'drops-under-load'],
  ['supply-sag', 1, TUNNEL, 'soak', 'drops-under-load'],
  ['supply-sag', 0.3, DIRECT, 'soak', 'drops-under-load'],
  ['resource-window', 1, TUNNEL, 'driver-holds', 'error-no-driver'],
  ['resource-window', 1, DIRECT, 'driver-holds', 'error-no-driver'],
  ['driver-refused', 1, TUNNEL, 'driver-holds', 'error-no-driver'],
  ['driver-clamp', 1, TUNNEL, 'read-outs', 'narrow-slow'],
  ['direct-cable-margin', 0.9, DIRECT, 'read-outs', 'narrow-slow'],
  ['direct-cable-margin', 0.3, DIRECT, 'soak', 'errors-rise'],
  ['direct-lanes-lost', 0.5, DIRECT, 'read-outs', 'narrow-slow'],
  ['power-saving', 1, TUNNEL, 'read-outs', 'seen-then-lost'],
  ['power-saving', 1, DIRECT, 'read-outs', 'seen-then-lost'],
  ['asks-for-key', 1, TUNNEL, 'host-start', 'recovery-key-asked'],
  ['wrong-input', 1, TUNNEL, 'screen-path', 'no-picture'],
];

describe('BE-02 every fault shows at the right step, and its cause is among the first three named', () => {
  const named = CASES.map(([id, strength, chain, step, symptom, order = 'all-off']) => ({
    id,
    strength,
    chain,
    step,
    symptom,
    order,
  }));
  it.each(named)(
    '$id, strength $strength, shows at $step',
    ({ id, strength, chain, step, symptom, order }) => {
      for (const seed of [1, 2]) {
        const o = new Walk(chain, seed, { [id]: strength }, order).outcome();
        expect([o.step, o.symptom]).toEqual([step, symptom]);
        expect(o.causes.slice(0, 3)).toContain(FAULTS[id].cause);
      }
    },
  );

  it('no fault is left out, and there are at least twenty', () => {
    expect(new Set(CASES.map(([id]) => id))).toEqual(new Set(FAULT_IDS));
    expect(FAULT_IDS.length).toBeGreaterThanOrEqual(20);
    for (const [id, , chain] of CASES) expect(faultsOf(chain)).toContain(id);
  });
});

describe('BE-02 two faults at once', () => {
  const cases = CASES.filter(([, , chain, , , order]) => chain === TUNNEL && !order);
  const pairs = cases.flatMap((a, i) =>
    cases.slice(i + 1).flatMap((b) => (a[0] === b[0] ? [] : [{ a, b }])),
  );
  const alone = new Map<string, number>();
  const heldBy = ([id, strength]: Case): number => {
    const key = `${id} ${strength}`;
    const known =
      alone.get(key) ?? new Walk(TUNNEL, 5, { [id]: strength }, 'all-off').outcome().held.length;
    alone.set(key, known);
    return known;
  };
  // Every thirteenth pair: all of them would take minutes and say the same.
  const some = pairs
    .filter((_, i) => i % 13 === 0)
    .map((p) => ({ ...p, name: `${p.a[0]} and ${p.b[0]}` }));

  it.each(some)('$name: the earlier of the two is met first', ({ a, b }) => {
    const o = new Walk(TUNNEL, 5, { [a[0]]: a[1], [b[0]]: b[1] }, 'all-off').outcome();
    expect(o.held.length).toBe(Math.min(heldBy(a), heldBy(b)));
    expect([a[3], b[3]]).toContain(o.step);
  });
});
