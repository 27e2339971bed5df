import type { CauseId } from './ids';
import type { Seen } from './seen';

/** 3 shown, 2 fits, 1 possible, 0 nothing said, -1 speaks against. */
export type Support = -1 | 0 | 1 | 2 | 3;

const FORBIDS = ['dponly', 'usbonly', 'nopcie'];
const forbidden = (s: Seen) => s.security !== null && FORBIDS.includes(s.security);
const noContact = (s: Seen) => s.partner === false && s.router !== true && s.lamp !== false;
const nobodyAnswers = (s: Seen) => s.router === false && s.partner === true && s.usb4 !== false;
/** The dock's bridges are there and the slot stays empty; a direct link has no bridges to show. */
const emptySlot = (s: Seen) => s.card === 'absent' && (s.bridges === true || s.present !== null);
const noDriver = (s: Seen) => s.card === 'there' && s.driver === false;

/**
 * How far what was seen supports a cause. Rules of the trade, common practice without a published source; the places they look at are
 * those a real fault changes.
 */
const RULES: Partial<Record<CauseId, (s: Seen) => Support>> = {
  'no-tunnelling': (s) => (forbidden(s) ? 3 : s.bridges === true ? -1 : 0),
  'not-approved': (s) => (s.authorized === 0 ? (forbidden(s) ? 1 : 3) : (s.authorized ?? 0) > 0 ? -1 : 0),
  'look-alike-port': (s) => (s.usb4 === false ? 3 : s.usb4 === true || s.router === true ? -1 : 0),
  cable: (s) => (nobodyAnswers(s) ? 3 : noContact(s) ? 1 : s.bridges === true && s.card === 'absent' ? -1 : 0),
  'plug-not-home': (s) => (noContact(s) ? 3 : s.present === false && s.bridges !== true ? 2 : 0),
  'dock-defective': (s) => (noContact(s) ? 2 : nobodyAnswers(s) ? 1 : s.router === true ? -1 : 0),
  coupling: (s) => (s.lamp === false ? 3 : s.lamp === true ? -1 : 0),
  'mains-switch': (s) => (s.lamp === false ? 3 : s.lamp === true ? -1 : 0),
  'direct-live': (s) => (s.allOff === true ? -1 : 0),
  'card-seat': (s) => (emptySlot(s) ? (s.present === true ? 0 : 3) : s.card === 'there' ? -1 : 0),
  'power-cables': (s) => {
    if (emptySlot(s)) return s.present === false ? -1 : 3;
    return s.lampWentOut === false ? 2 : 0;
  },
  'card-defective': (s) => {
    if (emptySlot(s)) return s.present === false ? 0 : 2;
    return s.card === 'gone' && s.lampWentOut === false ? 3 : 0;
  },
  resources: (s) => (s.assigned === false ? 3 : s.assigned === true ? -1 : 0),
  'driver-range': (s) => (noDriver(s) && s.assigned !== false ? 3 : 0),
  'mobile-chip': (s) => (noDriver(s) && s.assigned !== false ? 2 : 0),
  supply: (s) => (s.lampWentOut === true ? 3 : s.lampWentOut === false ? -1 : 0),
  'direct-cable': (s) => (s.errors === true ? 3 : 0),
  'power-saving': (s) => (s.asleep === true ? 3 : 0),
  'screen-input': (s) => (s.screen === false ? 3 : 0),
};

/** How far what was seen supports a cause; 0 where no rule looks. */
export function supportOf(cause: CauseId, seen: Seen): Support {
  return RULES[cause]?.(seen) ?? 0;
}
