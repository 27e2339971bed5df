import type { AttrPath } from '../../chain';
import type { FindingDraft } from '../types';

type Certainty = Pick<FindingDraft, 'certainty' | 'hangsOn'>;

/** Possible: it depends on these attributes. */
export function possible(hangsOn: readonly AttrPath[]): Certainty {
  return { certainty: 'possible', hangsOn };
}

/** Certain, or possible with what it depends on. */
export function certainIf(certain: boolean, hangsOn: readonly AttrPath[]): Certainty {
  return certain ? { certainty: 'certain', hangsOn: [] } : possible(hangsOn);
}
