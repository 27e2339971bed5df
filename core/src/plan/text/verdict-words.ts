/** What each verdict is called wherever it stands. */
export const VERDICT_LABELS = {
  works: 'Works',
  care: 'Works with care',
  blocked: "Won't work",
  unknown: 'Not enough known',
} as const;
