import type { Chain } from '../schema';
import type { CauseId, SymptomId } from './ids';
import { NOTHING_SEEN, type Seen } from './seen';
import { supportOf } from './support';

/** Facts about a chain that rule causes in or out; what is not known rules nothing out. */
interface Can {
  readonly tunnel: boolean;
  readonly usbc: boolean;
  readonly slot: boolean;
  readonly opened: boolean;
  readonly mobile: boolean;
  readonly inside: boolean;
}

const ONLY: Partial<Record<CauseId, (c: Can) => boolean>> = {
  'dock-firmware': (c) => c.tunnel,
  order: (c) => c.tunnel,
  'direct-live': (c) => !c.tunnel,
  'look-alike-port': (c) => c.usbc,
  'not-approved': (c) => c.tunnel,
  'no-tunnelling': (c) => c.tunnel,
  cable: (c) => c.tunnel,
  'direct-cable': (c) => !c.tunnel,
  'shared-link': (c) => c.tunnel,
  'mobile-chip': (c) => c.mobile,
  riser: (c) => !c.tunnel,
  'card-seat': (c) => c.slot,
  'driver-clamp': (c) => c.tunnel,
  'power-cables': (c) => c.slot,
  'both-graphics': (c) => c.inside,
  ribbon: (c) => c.opened,
  'boot-drive': (c) => c.opened,
  'too-big': (c) => c.slot,
};

/**
 * Usual causes of what is seen, likeliest first. Common practice, no published source: the order in which the trade looks, held until
 * counts from the log move it.
 */
const RANKED: Readonly<Record<SymptomId, readonly CauseId[]>> = {
  'crash-on-plug': ['direct-live', 'dock-firmware', 'order', 'left-over-driver', 'host-firmware', 'supply'],
  'nothing-listed': [
    'look-alike-port',
    'not-approved',
    'no-tunnelling',
    'cable',
    'direct-live',
    'direct-cable',
    'plug-not-home',
    'coupling',
    'card-seat',
    'power-cables',
    'dock-defective',
    'card-defective',
    'power-saving',
  ],
  'not-at-start': ['order', 'direct-live', 'coupling', 'not-approved'],
  'seen-then-lost': [
    'not-approved',
    'cable',
    'direct-cable',
    'supply',
    'plug-not-home',
    'power-saving',
    'dock-firmware',
    'card-defective',
  ],
  'error-no-driver': ['mobile-chip', 'resources', 'driver-range', 'left-over-driver'],
  'no-picture': ['screen-input', 'power-cables', 'both-graphics', 'driver-range'],
  'low-copy': ['cable', 'direct-cable', 'two-lanes', 'dock-firmware', 'shared-link', 'look-alike-port', 'idle-reading'],
  'narrow-slow': ['idle-reading', 'cable', 'riser', 'direct-cable', 'slot-generation', 'card-seat', 'two-lanes', 'driver-clamp'],
  'errors-rise': ['direct-cable', 'riser', 'cable', 'plug-not-home', 'card-seat'],
  'drops-under-load': ['supply', 'power-cables', 'direct-cable', 'heat', 'cable', 'card-defective', 'plug-not-home'],
  'flat-frames': ['processor', 'link', 'capture'],
  'load-without-watts': ['processor', 'link', 'power-state'],
  'memory-clock-half': ['power-state', 'driver-range', 'heat'],
  'regular-hitch': ['title', 'capture', 'power-saving', 'link'],
  'desktop-stutter': ['both-graphics', 'other-screen'],
  'bigger-slower': ['title', 'driver-range', 'power-state', 'processor'],
  'wrong-card': ['wrong-device', 'both-graphics', 'driver-range'],
  'small-window': ['other-screen', 'title'],
  'recovery-key-asked': ['encryption', 'host-firmware'],
  'handheld-hot': ['heat', 'power-mode'],
  'worked-before': ['update', 'driver-range', 'host-firmware', 'plug-not-home'],
  'title-refuses': ['title', 'other-screen', 'wrong-device'],
  'no-lamp': ['mains-switch', 'power-cables', 'coupling', 'supply'],
  'does-not-fit': ['too-big', 'card-seat', 'plug-not-home'],
  'update-stuck': ['flash-broken', 'cable', 'power-saving'],
  'host-dead': ['ribbon', 'boot-drive', 'plug-not-home', 'encryption'],
};

function canOf(chain: Chain): Can {
  const port = chain.host?.sockets.find((s) => s.key === chain.socket) ?? null;
  const connector = port?.connector ?? chain.dock?.connector ?? null;
  return {
    tunnel: connector === null || connector === 'usb-c' || connector === 'mini-dp',
    usbc: connector === null || connector === 'usb-c',
    slot: chain.dock?.form !== 'all-in-one',
    opened: connector === 'm2' || connector === 'mini-card',
    mobile: chain.card === null || chain.card.chip === 'mobile' || chain.card.chip === null,
    inside: chain.host?.graphics !== 'none',
  };
}

/**
 * Causes of a symptom that this chain can have, likeliest first: those that what was seen supports before the others, equals in the
 * order of the trade.
 */
export function rankedCauses(symptom: SymptomId, chain: Chain, seen: Seen = NOTHING_SEEN): CauseId[] {
  const can = canOf(chain);
  const able = RANKED[symptom].filter((c) => ONLY[c]?.(can) ?? true);
  const all = able.map((cause) => ({ cause, support: supportOf(cause, seen) }));
  return all.sort((a, b) => b.support - a.support).map((a) => a.cause);
}
