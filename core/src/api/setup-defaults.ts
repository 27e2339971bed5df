import { NO_COST } from '../cost';
import type { CostSaid } from './cost-settings';
import type { SetupSlots } from './setups';

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
