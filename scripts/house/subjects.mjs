/** The subjects of the house, in order: each may import those before it. The same names stand in core, server and pages. */
export const SUBJECTS = [
  'base',
  'parts',
  'chain',
  'setups',
  'runs',
  'plan',
  'bring-up',
  'troubleshoot',
  'bench',
  'compatibility',
  'buy',
  'workshop',
];

/** HTTP handlers and pages join subjects, so they are free of the order. */
export const JOINS = /handlers\.ts$|-page\.ts$/;

/** The subjects after one, as a regular expression's alternatives; all of them for what is no subject. */
export function laterThan(subject) {
  return SUBJECTS.slice(SUBJECTS.indexOf(subject) + 1).join('|');
}
