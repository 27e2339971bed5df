import { NO_SLOTS, setupFields } from '@ruddy/core/setups';
import type { Setup } from '@ruddy/core/setups/contract';

/** A setup as the server answers it, for tests: nothing chosen. */
export const storedSetup: Setup = {
  id: '00000000-0000-7000-8000-00000000000a',
  name: 'Desk',
  state: 'planned',
  rev: 3,
  origin: 'own',
  clonedFrom: null,
  slots: NO_SLOTS,
  ...setupFields({}),
  createdAt: '2026-11-01T09:00:00Z',
  savedAt: '2026-11-01T09:00:00Z',
};
