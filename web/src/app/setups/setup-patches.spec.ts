import { NO_SETTINGS, NOTHING_INSTALLED } from '@ruddy/core/parts';
import { NO_COST_SAID, NO_DOCKED, NO_SLOTS } from '@ruddy/core/setups';
import {
  applyPatch,
  conflicts,
  isEmpty,
  mergeFields,
  patchBetween,
  type Fields,
} from './setup-patches';

const base: Fields = {
  name: 'Desk',
  state: 'planned',
  notes: '',
  slots: { ...NO_SLOTS, host: 'h1', socket: 'left', path: ['k1'], dock: 'd1', card: null },
  loads: [],
  installed: NOTHING_INSTALLED,
  settings: NO_SETTINGS,
  docked: NO_DOCKED,
  pins: [],
  uses: [],
  present: '',
  cost: NO_COST_SAID,
};
const but = (over: Partial<Fields>): Fields => ({ ...base, ...over });
const slots = (over: Partial<Fields['slots']>): Fields => ({
  ...base,
  slots: { ...base.slots, ...over },
});

describe('patches of a setup', () => {
  it('do not mind in which order the database gives keys back', () => {
    const hub = {
      kind: 'hub',
      downGbps: 5,
      upGbps: 2,
      ownLead: null,
      pictureGbps: null,
      asymmetric: null,
      allocates: null,
    } as const;
    const turned = Object.fromEntries(Object.entries(hub).reverse()) as typeof hub;
    expect(patchBetween(but({ loads: [hub] }), but({ loads: [turned] }))).toEqual({});
    expect(patchBetween(base, but({ loads: [hub] }))).toEqual({ loads: [hub] });
    expect(
      applyPatch(base, { installed: { ...NOTHING_INSTALLED, dockFirmware: '1.8' } }).installed
        .dockFirmware,
    ).toBe('1.8');
    const slots = { supplies: [{ part: 's', feeds: 'both' as const }] };
    expect(patchBetween(base, applyPatch(base, { slots, present: 'old card' }))).toEqual({
      slots,
      present: 'old card',
    });
  });

  it('lead from one state to another, empty without changes', () => {
    const to = { ...slots({ path: [], card: 'c1' }), name: 'Dome desk' };
    const patch = patchBetween(base, to);
    expect(patch).toEqual({ name: 'Dome desk', slots: { path: [], card: 'c1' } });
    expect(applyPatch(base, patch)).toEqual(to);
    expect(isEmpty(patchBetween(base, structuredClone(base)))).toBe(true);
  });

  it('a new host takes its port along, undo restores', () => {
    const next = applyPatch(base, { slots: { host: 'h2' } });
    expect(next.slots).toMatchObject({ host: 'h2', socket: null });
    expect(applyPatch(next, patchBetween(next, base))).toEqual(base);
  });
});

describe('two people at once', () => {
  it('changes of different fields stand together without asking', () => {
    const mine = slots({ card: 'c1' });
    const theirs = but({ name: 'Theirs' });
    expect(conflicts(base, mine, theirs)).toEqual([]);
    expect(mergeFields(base, mine, theirs, () => 'theirs')).toEqual({
      ...slots({ card: 'c1' }),
      name: 'Theirs',
    });
  });

  it('the same field changed to the same value is no conflict', () => {
    expect(conflicts(base, but({ state: 'live' }), but({ state: 'live' }))).toEqual([]);
  });

  it('one field changed by both: the pick decides', () => {
    const mine = { ...slots({ dock: 'd2', card: 'c1' }), notes: 'mine' };
    const theirs = { ...slots({ dock: 'd3' }), notes: 'theirs' };
    expect(conflicts(base, mine, theirs)).toEqual(['slots/dock', 'notes']);
    const merged = mergeFields(base, mine, theirs, (p) => (p === 'notes' ? 'mine' : 'theirs'));
    expect(merged).toEqual({ ...slots({ dock: 'd3', card: 'c1' }), notes: 'mine' });
  });
});
