/** What the log can be filtered by in the address of its pages. */
export const FILTER_KEYS = [
  'q',
  'host',
  'dock',
  'card',
  'standard',
  'controller',
  'system',
  'symptom',
  'fix',
  'since',
  'until',
  'known',
  'outcome',
] as const;
export type FilterKey = (typeof FILTER_KEYS)[number];
/** The same for what is shared, where one entry or one chain may be named. */
export const SHARE_KEYS = [...FILTER_KEYS, 'id', 'chain'] as const;
