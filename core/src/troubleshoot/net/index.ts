import type { TestId } from '../../base';
import { CARD_TESTS } from './tests-card';
import { LINK_TESTS } from './tests-link';
import { RUN_TESTS } from './tests-run';
import type { TestDef } from './types';

export { CAUSES } from './causes';
export { BESIDE, NONE_SEEN, SYMPTOMS } from './symptoms';
export {
  PLACES,
  type CauseDef,
  type CauseFix,
  type Place,
  type Risk,
  type SymptomDef,
  type TestDef,
} from './types';

/** Everything that can be tried safely, by what it looks at. */
export const TESTS: Readonly<Record<TestId, TestDef>> = {
  ...LINK_TESTS,
  ...CARD_TESTS,
  ...RUN_TESTS,
};
