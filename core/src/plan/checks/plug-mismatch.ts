import { plugMismatch } from '../../chain';
import type { Check } from '../types';

/** Two neighbours whose plugs do not go together. */
export const plugs: Check<'socket' | 'path' | 'dock'> = {
  id: 'plugs',
  codes: ['link/plug-mismatch'],
  reads: ['socket', 'path', 'dock'],
  run({ socket, path, dock }) {
    const found = plugMismatch({ socket, path, dock });
    if (!found) return [];
    const { a, b } = found;
    return [
      {
        code: 'link/plug-mismatch',
        slots: [a.slot, b.slot],
        params: { a: a.slot, aPlug: a.connector, b: b.slot, bPlug: b.connector },
        source: 'common-practice',
      },
    ];
  },
};
