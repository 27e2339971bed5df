import type { Sentence } from '../../base/text';
import { FINDING_KINDS } from '../codes';
import type { Finding } from '../finding';
import type { Doubt } from '../kind';
import { notKnown } from './not-known';

export type { Sentence } from '../../base/text';
export { partNoun } from '../../base/text';

/**
 * A finding in words for people: title, reason and action.
 * @param f a finding of `evaluate`, or one read back from a stored evaluation
 * @returns the words its kind declares
 */
export function sentence(f: Finding): Sentence {
  // The check that makes this code hands over exactly the parameters its words take.
  const words = FINDING_KINDS[f.code].words as (
    params: Finding['params'],
    doubt: Doubt,
  ) => Sentence;
  const { certainty, hangsOn } = f;
  return words(f.params, { certainty, hangsOn, notKnown: notKnown(f) });
}
