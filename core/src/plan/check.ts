import type { HouseRules } from '../base';
import type { LinkFacts, Slot, SlotFacts, SourceId } from '../chain';
import type { StaticFacts } from './body';
import type { Certainty, Kind } from './kind';

/** What a check may read: one slot, the group of slots the link is joined from, or a subject such as power. */
export type FactKey = keyof Facts;
export interface Facts extends SlotFacts, StaticFacts {
  readonly link: LinkFacts;
}

/** The partial evaluations of a search over combinations. */
export const SEARCH_GROUPS = [
  'link',
  'route',
  'charge',
  'power',
  'fit',
  'mount',
  'cool',
  'software',
  'screen',
  'own',
] as const;
/** The partial evaluation that runs a check; `none` where it makes only notes, which cannot turn a verdict. */
export type SearchGroup = (typeof SEARCH_GROUPS)[number] | 'none';

/** The kinds of findings of one check by code. */
export type Kinds = Readonly<Record<string, Kind<never>>>;
export type ParamsOf<K> = K extends Kind<infer P extends object> ? P : never;

/** What a check hands back for one of its kinds; severity, area and words follow from the code. */
export interface Draft<C extends string, P> extends Partial<Certainty> {
  readonly code: C;
  readonly slots: readonly Slot[];
  readonly params: P;
  readonly source: SourceId;
  /** Tells findings of one code apart: the cable, the supply, the requirement. */
  readonly about?: string;
}

/** A draft of any of these kinds, each code with exactly its own parameters. */
export type DraftOf<K extends Kinds> = {
  [C in keyof K & string]: Draft<C, ParamsOf<K[C]>>;
}[keyof K & string];

/** A house rule by its id. */
export type RuleValue = (id: keyof HouseRules) => number;

/** A check as the evaluation runs it, whatever its facts and kinds are. */
export interface Check {
  readonly id: string;
  readonly reads: readonly FactKey[];
  readonly searchGroup: SearchGroup;
  readonly findings: Kinds;
  // The method form lets checks of different facts share one list.
  run(facts: Facts, rule: RuleValue): readonly Draft<string, object>[];
}

/** A check with the facts it reads and the kinds of findings it makes, each with its words. */
export interface TypedCheck<R extends FactKey, K extends Kinds> extends Check {
  readonly reads: readonly R[];
  readonly findings: K;
  run(facts: Pick<Facts, R>, rule: RuleValue): readonly DraftOf<K>[];
}

/**
 * Declares a check. Reading an undeclared fact, a code the check does not declare and a parameter
 * of another type do not compile.
 * @param check the check; see `checks/cable-data.ts` for a short one
 * @returns the same object, with its facts and kinds inferred
 */
export function defineCheck<const R extends FactKey, K extends Kinds>(
  check: Pick<TypedCheck<R, K>, 'id' | 'reads' | 'searchGroup' | 'findings'> & {
    run(facts: Pick<Facts, NoInfer<R>>, rule: RuleValue): readonly DraftOf<NoInfer<K>>[];
  },
): TypedCheck<R, K> {
  return check;
}
