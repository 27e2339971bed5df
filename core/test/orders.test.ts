import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ORDER_IDS, type OrderId } from '../src/base';
import { adviseOrder, orderChoices, sequenceOf, type Tried } from '../src/bring-up';
import { adviceWords, orderWhy } from '../src/bring-up/text';
import { type Docked, NO_DOCKED } from '../src/setups';
import { directChain, judge, requirement, tunnelChain } from './make';

const choices = (
  chain = tunnelChain(),
  docked: Docked = NO_DOCKED,
  requirements = [] as ReturnType<typeof requirement>[],
) => {
  const e = judge(chain, { requirements });
  return orderChoices({
    kind: e.predicted.link.kind,
    docked,
    has: (code) => e.findings.some((f) => f.code === code),
  });
};
const tries = (order: OrderId, worked: number, n: number, build = '6118'): Tried[] =>
  Array.from({ length: n }, (_, i) => ({ order, build, worked: i < worked }));

describe('BU-01 which orders a chain has', () => {
  it('a direct link shuts what is plugged live, and no other order', () => {
    const direct = choices(directChain());
    expect(direct.filter((c) => c.state === 'shut').map((c) => c.id)).toEqual([
      'host-first',
      'any-time',
    ]);
    expect(direct.map(orderWhy)).toEqual([
      ...['', 'only if the host drives this dock; not known yet', ''],
      ...['a direct link is never plugged live', 'a direct link is never plugged live'],
    ]);
    // Whatever the log holds, what is shut is never led to.
    expect(adviseOrder(direct, tries('any-time', 9, 9), '6118').order).toBe('all-off');
    expect(adviseOrder(direct, tries('dock-first', 3, 3), '6118').order).toBe('dock-first');
  });

  it('every order of a direct link cables before power', () => {
    for (const { id, state } of choices(directChain())) {
      if (state === 'shut') continue;
      const steps = sequenceOf(id, 'direct');
      const plugged = steps.indexOf('plug-cable');
      expect(steps.indexOf('host-down')).toBe(0);
      expect(plugged).toBeGreaterThan(0);
      expect(Math.min(steps.indexOf('dock-on'), steps.indexOf('host-start'))).toBeGreaterThan(
        plugged,
      );
    }
    expect(sequenceOf('dock-first', 'tunnel').indexOf('dock-on')).toBe(1);
  });

  it('a tunnel allows all orders, host-driven only when seen', () => {
    expect(choices().map((c) => c.state)).toEqual(['open', 'warned', 'open', 'open', 'open']);
    const seen = (is: 'starts' | 'nothing') => ({
      ...NO_DOCKED,
      buttons: [{ act: 'host-on' as const, other: 'off' as const, seen: is }],
    });
    expect(choices(tunnelChain(), seen('starts')).find((c) => c.id === 'slaved')?.state).toBe(
      'open',
    );
    expect(choices(tunnelChain(), seen('nothing')).find((c) => c.id === 'slaved')).toMatchObject({
      state: 'shut',
      why: 'not-driven',
    });
  });

  it('plugging live is warned of while the dock waits for firmware', () => {
    const chain = tunnelChain({ installed: { dockFirmware: '1.6' } });
    const warned = choices(chain, NO_DOCKED, [
      requirement({ needs: 'dockFirmware', atLeast: '1.8' }),
    ]);
    expect(warned.filter((c) => c.why === 'firmware').map((c) => c.id)).toEqual([
      'host-first',
      'any-time',
    ]);
  });
});

describe('BU-01 and BU-07 the log leads', () => {
  const all = choices();

  it('all off 4 of 5 comes before any time 1 of 3', () => {
    const a = adviseOrder(all, [...tries('any-time', 1, 3), ...tries('all-off', 4, 5)], '6118');
    expect(a.order).toBe('all-off');
    expect(adviceWords(a, '6118')).toBe(
      'This host under build 6118: all off 4 of 5, any time 1 of 3 came up. So: all off.',
    );
  });

  it('the surer order wins over the safer: 6 of 6', () => {
    expect(
      adviseOrder(all, [...tries('all-off', 1, 5), ...tries('host-first', 6, 6)], '6118'),
    ).toMatchObject({
      order: 'host-first',
      why: 'log',
    });
    // Once of once proves less than four of five.
    expect(
      adviseOrder(all, [...tries('all-off', 4, 5), ...tries('host-first', 1, 1)], '6118').order,
    ).toBe('all-off');
  });

  it('a changed system build asks again, and names what was', () => {
    const a = adviseOrder(all, [...tries('host-first', 5, 5, '6116')], '6118');
    expect([a.order, a.why]).toEqual(['all-off', 'new-build']);
    expect(adviceWords(a, '6118')).toBe(
      'The system build changed from 6116 to 6118, so the order is open again. Before: host first 5 of 5. The safest: all off.',
    );
  });

  it('without the build, without a success, and without anything', () => {
    expect(adviseOrder(all, tries('host-first', 5, 5), '').why).toBe('no-build');
    const failed = adviseOrder(all, tries('all-off', 0, 2), '6118');
    expect(adviceWords(failed, '6118')).toBe(
      'The safest: all off. Tried under build 6118: all off 0 of 2.',
    );
    expect(adviceWords(adviseOrder(all, [], '6118'), '6118')).toBe(
      'The safest: all off. 0 tries are logged for this host and link.',
    );
  });

  it('never leads to an order that is shut, whatever the log holds', () => {
    const order = fc.constantFrom(...ORDER_IDS);
    const tried = fc.record({ order, build: fc.constantFrom('', '1', '2'), worked: fc.boolean() });
    fc.assert(
      fc.property(
        fc.array(tried, { maxLength: 40 }),
        fc.constantFrom('', '1', '2', '3'),
        fc.boolean(),
        (log, build, direct) => {
          const list = direct ? choices(directChain()) : all;
          const a = adviseOrder(list, log, build);
          expect(list.find((c) => c.id === a.order)?.state).not.toBe('shut');
          expect(a.here.reduce((n, c) => n + c.n, 0)).toBe(
            build === '' ? 0 : log.filter((t) => t.build === build).length,
          );
          if (a.why === 'log')
            expect(a.here.find((c) => c.order === a.order)?.worked).toBeGreaterThan(0);
        },
      ),
      { numRuns: 60 },
    );
  });
});
