import type { CautionId } from '../../bring-up';
import type { PartKind } from '../../parts';

export const RETURN_STEPS = ['all-here', 'looks', 'works'] as const;

export type LendKind = Extract<
  PartKind,
  'host' | 'cable' | 'adapter' | 'dock' | 'card' | 'supply' | 'screen'
>;
/** Kinds of which there are pieces that can leave the room. */
export const LEND_KINDS: readonly LendKind[] = [
  'host',
  'cable',
  'adapter',
  'dock',
  'card',
  'supply',
  'screen',
];
/**
 * Can a part of a kind be lent?
 * @param kind of the part
 * @returns true where it can
 */
export function canBeLent(kind: PartKind): kind is LendKind {
  return (LEND_KINDS as readonly PartKind[]).includes(kind);
}

export interface ReturnLook {
  /** What commonly goes along, asked for at the return (common practice, no published source). */
  readonly along: readonly string[];
  /** Where damage from travel shows. */
  readonly lookFor: string;
  /** The cheapest trial that tells a working piece from a broken one. */
  readonly trial: string;
  /** Stands before the trial. */
  readonly caution: CautionId;
  /** With any of these seen the trial is not made at all. */
  readonly never: string;
}

/** Per kind, what is looked at when it comes back (common practice, no published source). */
export const RETURN_LOOKS: Readonly<Record<LendKind, ReturnLook>> = {
  host: {
    along: ['its own charger'],
    lookFor:
      'Each port from the front: bent tongue, loose shell, dirt. Lid flat on the table, no bulge under the keyboard.',
    trial: 'It starts, charges, and sees a known good device in the port that was used.',
    caution: 'battery',
    never:
      'A bulging battery, a smell, or a case that no longer closes: switch off, no charger, away from what burns.',
  },
  cable: {
    along: [],
    lookFor: 'Both plugs straight, no scorch, no kink near the sleeve; the tag still on it.',
    trial: 'Read a copy rate through it on a chain that is known, and hold it against its best.',
    caution: 'unplug-live',
    never: 'Scorched or melted plugs: mark it faulty and cut it through.',
  },
  adapter: {
    along: ['its cable', 'screws of the slot'],
    lookFor: 'Edge contacts clean and whole, no lifted pad, its plug not bent.',
    trial:
      'On a known chain: the card is listed, at the width and generation it had when it went out.',
    caution: 'direct-off',
    never: 'A burnt smell or a cracked board: it goes into no machine.',
  },
  dock: {
    along: ['supply or mains cable', 'link cable', 'screws of the slot'],
    lookFor:
      'Slot clean, nothing loose when it is tilted, fan turns freely by a finger with mains out.',
    trial: 'With a known cable and card: the link comes up at the rate it had when it went out.',
    caution: 'mains',
    never: 'Rattling inside, liquid, a damaged mains cable: it is not switched on.',
  },
  card: {
    along: ['power cables that belong to it', 'bracket and screws'],
    lookFor:
      'Power sockets without brown or soft plastic, edge contacts clean, fans turn by a finger, the cooler sits tight.',
    trial: 'In a dock that is known: a picture, then ten minutes of load without errors.',
    caution: 'plug-home',
    never: 'A browned or softened power socket: it is not switched on.',
  },
  supply: {
    along: ['mains cable', 'every power cable of its own'],
    lookFor: 'Its own cables and no others, sockets not browned, vent free.',
    trial: 'On a dock that is known, without a card first: it comes on, and its fan is heard.',
    caution: 'two-supplies',
    never: 'A smell, a rattle, a cracked case: it is not plugged in and never opened.',
  },
  screen: {
    along: ['supply or mains cable', 'video cable'],
    lookFor: 'Glass whole, plugs straight, foot and screws there.',
    trial: 'A picture at its full size and rate over the plug that was used.',
    caution: 'mains',
    never: 'Cracked glass over a lit panel or a damaged mains cable: mains out, it stays out.',
  },
};

const WORSE = ['new', 'used', 'worn', 'faulty'] as const;
type Condition = (typeof WORSE)[number];

/**
 * Did a piece come back worse than it went out?
 * @param out condition when it went out; null where it was not noted
 * @param back condition when it came back; null where it was not noted
 * @returns null where one of both was not noted
 * @example cameBackWorse('new', 'worn') // => true
 */
export function cameBackWorse(out: Condition | null, back: Condition | null): boolean | null {
  return out === null || back === null ? null : WORSE.indexOf(back) > WORSE.indexOf(out);
}

export interface ReturnSaid {
  readonly missing: readonly string[];
  readonly condition: Condition | null;
  readonly tested: 'works' | 'fails' | 'not-tried';
}

/**
 * Can a piece go to the next member as it came back?
 * @param said what was noted at its return
 * @returns the first reason why not
 */
export function readyForNext(said: ReturnSaid): {
  readonly ready: boolean;
  readonly why: 'faulty' | 'fails' | 'missing' | 'not-tried' | null;
} {
  if (said.condition === 'faulty') return { ready: false, why: 'faulty' };
  if (said.tested === 'fails') return { ready: false, why: 'fails' };
  if (said.missing.length > 0) return { ready: false, why: 'missing' };
  if (said.tested === 'not-tried') return { ready: false, why: 'not-tried' };
  return { ready: true, why: null };
}
