import type { TroubleNote } from '@ruddy/core/troubleshoot';
import { select } from '../../platform/db/database';
import { NOT_RETRACTED } from '../../setups/queries/not-retracted';

interface OpenNote {
  what: 'opened';
  symptoms: Extract<TroubleNote, { what: 'seen' }>['symptoms'];
}

/** Notes of every search for a cause, in order, retracted ones left out. */
export function troubleNotes(): Promise<{ trouble: string; note: TroubleNote | OpenNote }[]> {
  return select(
    `SELECT e.body ->> 'trouble' AS trouble, e.body -> 'note' AS note FROM events e
     WHERE e.kind = 'trouble' AND ${NOT_RETRACTED} ORDER BY e.setup_id, e.seq`,
  );
}
