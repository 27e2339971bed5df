import type { VerdictState } from '@ruddy/core/plan';

/** A standing arch, a deck on one prop, half a deck dropped, loose planks over a question mark. */
export const VERDICT_SHAPES: Readonly<Record<VerdictState, string>> = {
  works: 'M1 6h22v5h-2v9h-4.5v-3.5a4.5 4.5 0 0 0-9 0V20H3v-9H1z',
  care: 'M1 6h22v5H1z M12 12.5 18 21H6z',
  blocked: 'M1 4h10.5v5H7.5v11h-4V9H1z M12.5 13H23v5h-2.5v2h-4v-2h-4z',
  unknown: 'M1 6h4.6v4.4H1zM9.7 6h4.6v4.4H9.7zM18.4 6H23v4.4h-4.6z',
};
