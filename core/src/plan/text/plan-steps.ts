import type { PreFlightItem } from '../pre-flight';
import type { SwapStep } from '../swaps';

/** Pre-flight in words: what to see to, and why. */
export const PRE_FLIGHT: Record<PreFlightItem['id'], { what: string; why: string }> = {
  save: {
    what: 'Save your work and close programs',
    why: 'The first plug-in may freeze or restart the host.',
  },
  key: {
    what: 'Recovery key at hand',
    why: 'Disk encryption may see changed hardware and ask for it.',
  },
  firmware: {
    what: 'Firmware first',
    why: 'Dock and host are updated before the first plug, on mains, without sleep.',
  },
  versions: {
    what: 'Note the versions installed',
    why: 'When something breaks, what changed is the first question.',
  },
  'way-back': {
    what: 'A way back without a picture',
    why: 'With internal graphics off a card that stays silent leaves no screen.',
  },
  opening: {
    what: 'Battery off, mind static',
    why: 'A charged battery sits under most lids. Only as far as the maker goes.',
  },
  boot: {
    what: 'Another drive to start from',
    why: 'The slot of this route may hold the system; try the other drive before.',
  },
  network: { what: 'A network without the radio card', why: 'Drivers still have to be fetched.' },
  charger: { what: "The host's own charger", why: 'The dock does not keep the battery up.' },
  print: { what: 'Print this page', why: 'The picture may go, and the list with it.' },
};

export const PRE_FLIGHT_STATES: Record<PreFlightItem['state'], string> = {
  must: 'needed here',
  look: 'find out',
  usual: 'always',
};

/**
 * A step of a card swap in words.
 * @param step the step
 * @returns the sentence
 */
export function swapWords({ id, params }: SwapStep): string {
  const p = (key: string) => String(params[key] ?? '');
  switch (id) {
    case 'off':
      return 'Mains out before any hand goes near: shut the host down, dock off, mains cable out, link cable out.';
    case 'open':
      return params['screws'] === undefined
        ? 'Open the dock.'
        : `Open the dock: ${p('screws')} screws, kept in order.`;
    case 'unplug':
      return `Power plugs off ${p('card')}, bracket screw out, latch open, card straight up. Into its bag.`;
    case 'seat':
      return `${p('card')} into the slot until it clicks${params['bracket'] === 'yes' ? ', bracket screwed' : ''}.`;
    case 'plug':
      return params['n'] === 0
        ? 'No power cable fits this card: see what stops it.'
        : `Power until it clicks: ${p('cables')}. None from another supply.`;
    case 'close':
      return 'Close the dock; no cable against a fan.';
    case 'screen':
      return 'Screen cable on the new card.';
    case 'driver':
      return `Driver for ${p('family')}: install it after the first start, the old one cleaned out.`;
    case 'start':
      return 'Mains in, in the order this link wants, and read the link under load.';
  }
}

/** Side of a route's cost in words. */
export const EVICTS = {
  'system-drive': 'the drive the system starts from',
  drive: 'another drive',
  radio: 'the radio card',
  nothing: 'nothing: the slot is empty',
  'not known': 'not known',
} as const;
export const NETWORK_LEFT = {
  'as before': 'as before',
  lan: 'LAN only',
  none: 'none',
  'not known': 'not known',
} as const;
