import { type CostSettings, NO_COST } from './cost';

/** How far a setup is. */
export const SETUP_STATES = ['planned', 'building', 'live', 'retired'] as const;

/** No slot filled; a host's `path` of null is "not chosen", an empty one "no separate cable". */
export const NO_SLOTS = {
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
} satisfies Record<string, null | readonly never[] | Record<string, never>>;

/** Nothing said of money yet. */
export const NO_COST_SAID = {
  ...NO_COST,
  forgotten: {},
  extras: [],
  sells: [],
} satisfies CostSettings;
