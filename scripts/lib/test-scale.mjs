/** 1 in `npm test`, 5 in `npm run test:long`: how many times the short sample a statistical test draws. */
export const TEST_SCALE = Math.max(1, Number(process.env.RUDDY_TEST_SCALE ?? 1));
/** The long run holds the sharp limits, which a short sample would miss by chance. */
export const LONG = TEST_SCALE >= 5;

/** Sample size of a statistical or property test, from its size in the short run. */
export function scaled(n) {
  return Math.round(n * TEST_SCALE);
}
