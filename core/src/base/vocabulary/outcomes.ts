export const OUTCOMES = ['works', 'care', 'unreliable', 'fails'] as const;
export type Outcome = (typeof OUTCOMES)[number];
