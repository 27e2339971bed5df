/** What each verdict is called wherever it stands. */
export const VERDICT_WORDS = {
  works: 'Works',
  care: 'Works with care',
  blocked: "Won't work",
  unknown: 'Not enough known',
} as const;
