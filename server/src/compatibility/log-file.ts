import type { LogInFile } from './queries/log-in-file';
import type { Chain } from '@ruddy/core/chain';
import type { Bundle, OutcomeInFile } from '@ruddy/core/workshop/contract';
import { contentHash } from '../platform/db/ids';

/**
 * Entries with their chains kept once each. For a full export they belong to their setups; for a share file every entry stands alone,
 * and what is private stays: notes, the names of setups, and the names of files entries came in with.
 */
export function packEntries(
  entries: readonly LogInFile[],
  full: boolean,
): Pick<Bundle, 'chains' | 'outcomes'> {
  const places = new Map<string, number>();
  const chains: Chain[] = [];
  const outcomes = entries.map(
    ({ chain, setupId, unit, note, recordedAt, ...e }): OutcomeInFile => {
      const hash = contentHash(chain);
      const place = places.get(hash) ?? chains.push(chain) - 1;
      places.set(hash, place);
      const own = full
        ? { setupId, note, ...(setupId === null && { unit }) }
        : { setupId: null, unit, note: '', cameFrom: '' };
      return { ...e, ...own, chain: place, recordedAt: recordedAt.toISOString() };
    },
  );
  return { chains, outcomes };
}
