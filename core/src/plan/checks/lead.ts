import { bridged } from '../../chain';
import type { Check } from '../types';
import { certainIf } from './certainty';

/** Nothing bridges the way to the dock: no cable, no ribbon, and no fixed lead. */
export const lead: Check<'path' | 'dock'> = {
  id: 'lead',
  codes: ['cable/missing'],
  reads: ['path', 'dock'],
  run({ path, dock }) {
    if (!path || !dock || path.endsInSlot) return [];
    const { reaches, hangsOn } = bridged({ path: path.pieces, dock });
    if (reaches === 'yes') return [];
    return [
      {
        code: 'cable/missing',
        slots: ['path', 'dock'],
        ...certainIf(reaches === 'no', hangsOn),
        params: { plug: dock.connector },
        source: 'common-practice',
      },
    ];
  },
};
