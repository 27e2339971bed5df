import type { CauseId } from '../../base';
import type { CautionId } from '../../bring-up';
import type { ChainCondition } from '../chain-facts';
import type { CauseDef, CauseFix, Place, Risk } from './types';

const fix = (
  minutes: number,
  risk: Risk = 0,
  cautions: readonly CautionId[] = [],
  cures = 0.9,
): CauseFix => ({
  minutes,
  risk,
  cautions,
  cures,
});
const cause = (at: Place, w: number, on: ChainCondition, f: CauseFix): CauseDef => ({
  at,
  w,
  on,
  fix: f,
});
const ofTitle = (at: Place, w: number, on: ChainCondition, f: CauseFix): CauseDef => ({
  ...cause(at, w, on, f),
  perTitle: true,
});

/**
 * Causes with their place, their weight before anything is seen, the chains that can have them, and the fix. All weights, minutes and
 * shares of cure are judgement, from memory of the trade, no published source; counts of the log move them.
 */
export const CAUSES: Readonly<Record<CauseId, CauseDef>> = {
  'look-alike-port': cause('port', 6, 'usbc', fix(3)),
  'no-tunnelling': cause('port', 2, 'tunnel', fix(6, 1, ['locked-out'])),
  'not-approved': cause('port', 6, 'tunnel', fix(2)),
  'host-firmware': cause('port', 4, 'all', fix(25, 2, ['flash', 'locked-out'])),
  'two-lanes': cause('port', 2, 'separate', fix(5, 0, [], 0.3)),
  order: cause('port', 5, 'tunnel', fix(6)),
  'direct-live': cause('port', 6, 'direct', fix(8, 1, ['direct-off'])),
  resources: cause('port', 3, 'all', fix(10, 1, ['locked-out'], 0.7)),
  'link-software': cause('port', 3, 'tunnel', fix(10)),
  unsupported: cause('port', 2, 'all', fix(30, 0, [], 0.4)),
  'no-compatibility': cause('port', 1, 'compatibility', fix(5, 0, [], 0.4)),
  'charge-contract': cause('port', 2, 'battery', fix(3)),
  'cable-charges': cause('cable', 5, 'usbc', fix(5)),
  'cable-class': cause('cable', 4, 'tunnel', fix(5)),
  'plug-not-home': cause('cable', 4, 'all', fix(5, 1, ['plug-home', 'direct-off'])),
  'direct-cable': cause('cable', 6, 'direct', fix(10, 1, ['direct-off'])),
  'dock-firmware': cause('dock', 6, 'tunnel', fix(20, 2, ['flash'], 0.85)),
  'shared-link': cause('dock', 3, 'hub', fix(3)),
  supply: cause('dock', 4, 'all', fix(20, 1, ['mains', 'two-supplies'])),
  'power-cables': cause('dock', 4, 'plugs', fix(8, 1, ['mains', 'plug-home', 'two-supplies'])),
  'card-seat': cause('dock', 4, 'slot', fix(8, 1, ['mains', 'static', 'heavy'])),
  'own-cap': cause('dock', 4, 'all', fix(5, 0, [], 0.3)),
  'dock-defective': cause('dock', 1.5, 'dock', fix(30, 1, ['mains'])),
  'dock-off': cause('dock', 5, 'dock', fix(3)),
  heat: cause('dock', 3, 'all', fix(10, 0, ['hot'])),
  'left-over-driver': cause('system', 4, 'all', fix(25, 1, ['no-screen'])),
  'driver-range': cause('system', 3, 'all', fix(20, 1, ['no-screen'])),
  'mobile-chip': cause('system', 2, 'mobile', fix(25, 3, ['repackaged'], 0.85)),
  'card-defective': cause('card', 2, 'all', fix(30, 1, ['mains', 'static'])),
  'power-state': cause('card', 2.5, 'all', fix(8)),
  'driver-clamp': cause('card', 1.5, 'tunnel', fix(20, 1, ['no-screen'], 0.7)),
  'card-memory': cause('card', 3, 'all', fix(4)),
  'memory-window': cause('card', 3, 'all', fix(10, 2, ['locked-out'], 0.8)),
  'panel-return': cause('screen', 5, 'panel', fix(4)),
  'screen-input': cause('screen', 3, 'all', fix(4)),
  'both-graphics': cause('system', 5, 'inside', fix(6, 2, ['no-screen'])),
  'wrong-device': ofTitle('system', 3, 'inside', fix(4)),
  processor: cause('system', 7, 'all', fix(5, 0, [], 0.4)),
  'power-mode': cause('system', 4, 'all', fix(5, 0, ['hot'])),
  title: ofTitle('elsewhere', 4, 'all', fix(10, 0, [], 0.4)),
  capped: ofTitle('elsewhere', 2, 'all', fix(3)),
  capture: cause('system', 2, 'all', fix(4)),
  'other-screen': ofTitle('elsewhere', 2, 'all', fix(4)),
  encryption: cause('system', 2, 'all', fix(5, 1, ['locked-out'])),
  update: cause('system', 3, 'all', fix(25, 2, ['no-screen', 'locked-out'])),
  'power-saving': cause('system', 3, 'all', fix(5)),
  'idle-reading': cause('elsewhere', 4, 'all', fix(3)),
  'too-big': cause('dock', 1, 'slot', fix(5)),
  'flash-broken': cause('dock', 0.7, 'dock', fix(30, 2, ['flash'], 0.6)),
  ribbon: cause('system', 1, 'opened', fix(15, 1, ['battery', 'lid-fan', 'static'])),
  'boot-drive': cause('system', 1, 'opened', fix(6, 1, ['locked-out'])),
  'none-of-these': cause('elsewhere', 4, 'all', fix(0, 0, [], 0)),
};
