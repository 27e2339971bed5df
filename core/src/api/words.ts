import { NO_COST } from '../cost';
import type { CostSaid } from './money';
import type { SetupSlots } from './setups';

/*
 * What pages need of these shapes without the shapes themselves: a page that names a state or a condition must not carry the schema
 * library.
 */

/** How far a setup is. */
export const SETUP_STATES = ['planned', 'building', 'live', 'retired'] as const;

export const NO_SLOTS: SetupSlots = {
  host: null,
  socket: null,
  path: null,
  dock: null,
  card: null,
  supplies: [],
  screens: [],
  system: null,
  items: {},
  spares: [],
};

/** Nothing said of money yet. */
export const NO_COST_SAID: CostSaid = { ...NO_COST, forgotten: {}, extras: [], sells: [] };

export const CONDITIONS = { new: 'new', used: 'second hand', refurbished: 'refurbished' } as const;

export const PRICE_KINDS = { offer: 'Offered for', paid: 'Paid', shipping: 'Shipping', resale: 'Sells for' } as const;

export const HOW = { own: 'ours', borrowed: 'borrowed', gone: 'gone' } as const;

export const ITEM_CONDITIONS = { new: 'new', used: 'used', worn: 'worn', faulty: 'faulty' } as const;

export const ROLE_NAMES = ['reader', 'member', 'keeper'] as const;

/** Long rather than odd: length is what counts, and a limit keeps hashing cheap (after NIST SP 800-63B, from memory). */
export const PASSWORD_LEAST = 12;

export const COMPAT_SORTS = ['newest', 'host', 'port', 'dock', 'card', 'n', 'share', 'near'] as const;

export const VERSION_LABELS = {
  system: 'System build',
  driver: 'Card driver',
  hostFirmware: 'Host firmware',
  dockFirmware: 'Dock firmware',
} as const;

export const PROVENANCES = ['own', 'loan', 'bought', 'told'] as const;

export const PROVENANCE_LABELS = { own: 'Own', loan: 'On loan', bought: 'Just bought', told: 'Told by someone' } as const;

export const GRID_AXES = ['host-dock', 'host-card', 'dock-card'] as const;

export const STANDARD_RESOLUTIONS = ['1920x1080', '2560x1440', '3840x2160'] as const;

export function writePositions(seen: ReadonlyMap<string, number>): string {
  return [...seen].map(([topic, seq]) => `${topic}=${seq}`).join(',');
}
