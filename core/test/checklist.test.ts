import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ORDER_IDS, RULES, STEP_IDS, type StepId } from '../src/base';
import {
  checklist,
  inOrder,
  type ListInput,
  openingPlan,
  ORDERS,
  type StepDef,
  stepFacts,
  STEPS,
} from '../src/bring-up';
import { CAUTION_TEXTS, STEP_WORDS, TOOL_WORDS } from '../src/bring-up/text';
import type { Chain } from '../src/chain';
import { NO_DOCKED } from '../src/setups';
import { adapter, directChain, judge, path, requirement, tunnelChain, type Over } from './make';

function input(chain: Chain, over: Partial<ListInput> = {}): ListInput {
  const usual = {
    house: {},
    docked: NO_DOCKED,
    purpose: 'bring-up',
    order: 'all-off',
    driver: 'before',
  } as const;
  return { chain, evaluation: judge(chain), ...usual, ...over };
}
const ids = (i: ListInput) => checklist(i).map((s) => s.id);
const slotChain = (o: Over = {}): Chain =>
  directChain({
    ...o,
    socket: {
      connector: 'm2',
      standard: 'pcie',
      holds: 'system-drive',
      reach: 'cover',
      ...o.socket,
    },
  });

describe('BU-01 a list made for this chain', () => {
  it('a tunnel: what comes first comes first', () => {
    expect(ids(input(tunnelChain()))).toEqual([
      'save-work',
      'recovery-key',
      'read-versions',
      'link-software',
      'print',
      'driver-before',
      'dock-dead',
      'dock-open',
      'card-seat',
      'card-hold',
      'power-plugs',
      'dock-close',
      'place',
      'host-down',
      'mains-out',
      'plug-cable',
      'dock-on',
      'host-start',
      'approve',
      'listed',
      'driver-holds',
      'read-outs',
      'copy-down',
      'copy-up',
      'soak',
      'screen-path',
      'power-limits',
      'shared-memory',
      'programs',
      'first-run',
      'profiles',
      'buttons',
      'log-entry',
    ]);
  });

  it('each school has its own order of power', () => {
    const power = (order: ListInput['order']) =>
      ids(input(tunnelChain(), { order })).filter((s) => ORDERS[order].sequence.includes(s));
    for (const order of ORDER_IDS) expect(power(order)).toEqual(ORDERS[order].sequence);
  });

  it('firmware asked for comes before any plugging, with its caution', () => {
    const chain = tunnelChain({ installed: { dockFirmware: '1.6' } });
    const evaluation = judge(chain, { requirements: [requirement({ atLeast: '1.8' })] });
    const list = checklist(input(chain, { evaluation }));
    const at = (id: StepId) => list.findIndex((s) => s.id === id);
    expect(at('dock-firmware')).toBeGreaterThan(at('recovery-key'));
    expect(at('dock-firmware')).toBeLessThan(at('plug-cable'));
    expect(list[at('dock-firmware')]).toMatchObject({ final: true, cautions: ['flash'] });
    const words = STEP_WORDS['dock-firmware'](stepFacts(input(chain, { evaluation })));
    expect(words.do[0]).toContain('from 1.6 to 1.8');
  });

  it('BU-14 a slot inside: drive first, battery off, empty, adapter, host alone', () => {
    const list = ids(input(slotChain()));
    const open = list.slice(list.indexOf('host-off'), list.indexOf('dock-dead'));
    expect(open).toEqual([
      'host-off',
      'host-lid',
      'battery-off',
      'slot-out',
      'adapter-in',
      'host-close',
      'host-alone',
    ]);
    expect(list.indexOf('other-drive')).toBeLessThan(list.indexOf('host-off'));
    expect(list).not.toContain('approve');
    expect(ids(input(slotChain({ socket: { reach: 'cut' } })))).toContain('cut-shell');
    expect(ids(input(slotChain({ socket: { reach: 'outside', holds: 'nothing' } })))).not.toContain(
      'host-lid',
    );
  });

  it("BU-14 the opening plan names parts, dangers and the maker's limit", () => {
    const chain = slotChain({
      host: {
        openDepth: 'hatch',
        openScrews: 9,
        fixings: 'both',
        fanOnLid: 'yes',
        compound: 'metal',
        batteryWh: 60,
      },
    });
    expect(openingPlan({ ...chain, path: path(adapter()) })).toMatchObject({
      out: 'system-drive',
      adapters: ['Alder T-1'],
      depth: 'hatch',
      screws: { lo: 9, hi: 9 },
      hazards: [
        { caution: 'battery', known: true },
        { caution: 'lid-fan', known: true },
        { caution: 'conducts', known: true },
      ],
      beyond: true,
      cuts: false,
    });
    expect(openingPlan(tunnelChain())).toBeNull();
    // What nobody looked at stays a hazard, marked as not known.
    expect(
      openingPlan(slotChain({ host: { batteryWh: null } }))?.hazards.map((h) => h.known),
    ).toEqual([false, false, false]);
    expect(
      openingPlan(slotChain({ host: { form: 'mini-pc', fanOnLid: 'no', compound: 'paste' } }))
        ?.hazards,
    ).toEqual([]);
  });

  it('BU-13 leaving ejects where plugged live, else the host goes off', () => {
    const away = { purpose: 'undock' } as const;
    expect(ids(input(tunnelChain(), { ...away, order: 'any-time' }))).toEqual([
      'close-programs',
      'eject',
      'unplug-cable',
      'undocked-check',
    ]);
    const off = ['close-programs', 'host-stop', 'dock-off', 'unplug-cable', 'undocked-check'];
    expect(ids(input(tunnelChain(), away))).toEqual(off);
    expect(ids(input(directChain(), { ...away, order: 'any-time' }))).toEqual(off);
    const dark = tunnelChain({ settings: { internalGraphics: 'off' } });
    expect(ids(input(dark, away)).slice(0, 2)).toEqual(['close-programs', 'internal-back']);
  });

  it('internal graphics go off only after the way back was tried', () => {
    const list = ids(input(tunnelChain({ settings: { internalGraphics: 'off' } })));
    expect(list.indexOf('way-back')).toBeGreaterThan(-1);
    expect(list.indexOf('way-back')).toBeLessThan(list.indexOf('internal-off'));
    expect(list.indexOf('screen-path')).toBeLessThan(list.indexOf('internal-off'));
  });

  it('a direct link is never plugged live, whatever order was begun', () => {
    const list = ids(input(directChain(), { order: 'any-time' }));
    expect(list.filter((s) => ORDERS['all-off'].sequence.includes(s))).toEqual(
      ORDERS['all-off'].sequence,
    );
    expect(
      STEP_WORDS['plug-cable'](stepFacts(input(directChain(), { order: 'any-time' }))).see,
    ).toContain('Nothing happens yet');
  });

  it('names what is plugged where: mark, adapter, fixed lead', () => {
    const plug = (chain: Chain) => STEP_WORDS['plug-cable'](stepFacts(input(chain))).do[0];
    expect(plug(tunnelChain())).toBe('Alder K-1: host end into left, marked "40".');
    const oculink = directChain().path![0]!.spec;
    expect(plug({ ...slotChain(), path: path(adapter(), oculink) })).toBe(
      'Alder K-1: one end to Alder T-1, the other to Alder D-1.',
    );
    expect(plug({ ...tunnelChain(), path: [] })).toBe(
      'The lead of Alder D-1: host end into left, marked "40".',
    );
    const riser = { ...slotChain(), dock: null, path: path(adapter({ farEnd: 'pcie-slot' })) };
    expect(ids(input(riser))).not.toContain('plug-cable');
    expect(STEP_WORDS['card-seat'](stepFacts(input(riser))).do[0]).toContain(
      'into the slot of Alder T-1',
    );
  });

  it('a look-alike port is named beside the right one', () => {
    const twin = tunnelChain();
    const right = {
      ...twin.host!.sockets[0]!,
      key: 'right',
      position: 'right',
      mark: '10',
      standard: 'usb-c' as const,
      tunnelling: 'no' as const,
    };
    const chain = { ...twin, host: { ...twin.host!, sockets: [...twin.host!.sockets, right] } };
    expect(STEP_WORDS['plug-cable'](stepFacts(input(chain))).do[0]).toContain(
      'not right ("10"): it looks the same and is another',
    );
  });

  it('BU-03 versions of the link are asked for where they exist', () => {
    const roles = (chain: Chain) =>
      checklist(input(chain))
        .find((s) => s.id === 'read-versions')!
        .fields.map((x) => (x.kind === 'version' ? x.role : ''));
    expect(roles(tunnelChain())).toEqual([
      'dockFirmware',
      'hostFirmware',
      'systemBuild',
      'driver',
      'linkSoftware',
      'linkFirmware',
      'cardFirmware',
    ]);
    expect(roles(directChain())).toEqual(['hostFirmware', 'systemBuild', 'driver', 'cardFirmware']);
  });

  it('what was noted stays though its reason is gone', () => {
    expect(ids(input(tunnelChain(), { keep: new Set(['dock-firmware']) }))).toContain(
      'dock-firmware',
    );
  });
});

describe('the table of steps', () => {
  it('holds every step once, each with words, cautions and tools', () => {
    expect(STEPS.map((s) => s.id).sort()).toEqual([...STEP_IDS].sort());
    for (const text of Object.values(CAUTION_TEXTS)) {
      // The danger stands in the first four words, whose word counts at the end.
      expect(text.split(/[.,:;]/)[0]!.split(' ').length).toBeLessThanOrEqual(8);
      expect(text).toMatch(/(last word|says so)\.$/);
    }
    expect(Object.values(TOOL_WORDS).every((w) => w !== '')).toBe(true);
  });

  it('whatever may take the picture waits for the printed list', () => {
    const waits = (id: StepId, seen = new Set<StepId>()): Set<StepId> => {
      for (const a of STEPS.find((s) => s.id === id)?.after ?? [])
        if (!seen.has(a)) {
          seen.add(a);
          waits(a, seen);
        }
      return seen;
    };
    const up = STEPS.filter((s) => s.blanks && s.lists.some((l) => l !== 'undock'));
    expect(up.length).toBeGreaterThan(8);
    for (const s of up) expect([s.id, waits(s.id).has('print')]).toEqual([s.id, true]);
  });

  it('steps that wait for each other are refused', () => {
    const def = (id: StepId, after: StepId[]): StepDef => ({ ...STEPS[0]!, id, after });
    expect(() => inOrder([def('print', ['place']), def('place', ['print'])], [])).toThrow(
      'print, place',
    );
  });

  it('the order is stable: a step that falls away moves no other', () => {
    fc.assert(
      fc.property(fc.subarray([...STEPS]), fc.constantFrom(...ORDER_IDS), (some, order) => {
        const all = inOrder(STEPS, ORDERS[order].sequence).map((s) => s.id);
        // Only what stands in both is compared: its order is that of the whole.
        const kept = all.filter((id) => some.some((s) => s.id === id));
        expect(new Set(kept).size).toBe(some.length);
        for (const s of STEPS)
          for (const a of s.after) expect(all.indexOf(a)).toBeLessThan(all.indexOf(s.id));
      }),
      { numRuns: 40 },
    );
  });
});

it('house rules reach the words', () => {
  const i = input(tunnelChain(), { house: { 'steps.lampS': 25, 'steps.loadMinutes': 30 } });
  expect(STEP_WORDS['dock-on'](stepFacts(i)).see).toContain('within 25 s');
  expect(checklist(i).find((s) => s.id === 'soak')?.minutes).toBe(32);
  expect(RULES['steps.lampS'].default).toBe(10);
});
