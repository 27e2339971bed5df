import type { RowIds } from '@ruddy/core/buy';
import { NO_SETTINGS, NOTHING_INSTALLED } from '@ruddy/core/parts';
import { NO_SLOTS } from '@ruddy/core/setups';
import type { SetupPatch } from '@ruddy/core/setups/contract';
import type { AnswerPlace, ChainFields } from './answers';

/** What answers are about: where their parts are, and what is done once one is stored. */
export interface AnswerTarget {
  /** Parts, versions and settings of the chain that is asked about; null while they are read. */
  fields(): ChainFields | null;
  /** Change a field of the setup itself; null where there is no setup, and such questions have no input. */
  readonly change: ((patch: SetupPatch) => void) | null;
  /** A part was changed: judge anew. */
  refresh(): void;
}

/** Can an answer be stored here? A place in a setup only where there is one. */
export function storable(place: AnswerPlace | null, target: AnswerTarget): AnswerPlace | null {
  return place?.of === 'setup' && target.change === null ? null : place;
}

/** The parts of a combination of a search, as a setup has them. */
export function fieldsOfRow(hostId: string, ids: RowIds): ChainFields {
  return {
    slots: {
      ...NO_SLOTS,
      host: hostId,
      socket: ids.socket,
      path: [...ids.path],
      dock: ids.dock,
      card: ids.card,
      supplies: ids.supply === null ? [] : [{ part: ids.supply, feeds: 'both' }],
      screens: ids.screen === null ? [] : [{ part: ids.screen, by: 'card', plug: 'displayport' }],
    },
    installed: NOTHING_INSTALLED,
    settings: NO_SETTINGS,
  };
}
