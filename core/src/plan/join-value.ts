import { exact, union, isExact, type Range } from '../base';

type Value = number | string | Range;

/**
 * Two values of one name as one that holds both: the union of figures; of words the first.
 * @param a a figure or a word
 * @param b another one, if there is one
 * @returns a value
 */
export function joinValue(a: Value, b: Value | undefined): Value {
  if (b === undefined || typeof a === 'string' || typeof b === 'string') return a;
  const both = union(...[a, b].map((x) => (typeof x === 'number' ? exact(x) : x)));
  return isExact(both) && typeof a === 'number' ? both.lo : both;
}
