import type { CauseId, Range } from '../base';
import type { Sentence } from '../base/text';
import type { AttrPath } from '../chain';

/** Severity of a finding: it stops the chain, calls for care, or informs. */
export type Severity = 'blocks' | 'care' | 'note';

/** What a finding is about, as the API names it. */
export type Area =
  | 'link'
  | 'cable'
  | 'plan'
  | 'log'
  | 'power'
  | 'charging'
  | 'fit'
  | 'cooling'
  | 'screen'
  | 'software'
  | 'route'
  | 'card'
  | 'preflight';

/** A figure or a word that a finding carries. */
export type Param = number | string | Range;

/** Whether a finding holds for certain, and the attributes that could still turn it. */
export interface Certainty {
  readonly certainty: 'certain' | 'possible';
  readonly hangsOn: readonly AttrPath[];
}

/** What the words of a finding may take up besides its parameters. */
export interface Doubt extends Certainty {
  /** "Not known: lanes of the card."; empty where it depends on nothing. Attribute labels come from the schemas, which the checks do not carry. */
  readonly notKnown: string;
}

/** Parameters joined over all completions of a chain: unequal numbers become a range. */
export type JoinedParams<P> = {
  readonly [K in keyof P]: number extends P[K] ? P[K] | Range : P[K];
};

/** One kind of finding: its weight, its words, and what else is derived from it. */
export interface Kind<P> {
  readonly severity: Severity;
  /** The area, where the first part of the code does not name it. */
  readonly area?: Area;
  /** The cause this finding makes likelier when something goes wrong. */
  readonly cause?: CauseId;
  readonly words: (params: JoinedParams<P>, doubt: Doubt) => Sentence;
}

/**
 * Declares a kind of finding with the parameters its check hands over.
 * @param severity how much it weighs
 * @param words title, reason and action for people, from the joined parameters
 * @param more area and cause, where they differ from "named by the code" and "none"
 * @returns the kind, typed by its parameters
 * @example
 * kind<{ n: number }>('note', ({ n }) => ({ what: `${asRange(n).lo} screws`, why: …, todo: … }))
 */
export function kind<P extends object = object>(
  severity: Severity,
  words: Kind<P>['words'],
  more: Pick<Kind<P>, 'area' | 'cause'> = {},
): Kind<NoInfer<P>> {
  return { severity, words, ...more };
}

/**
 * The certainty of a finding that may hold.
 * @param hangsOn attributes it depends on
 * @returns possible
 */
export function possible(hangsOn: readonly AttrPath[]): Certainty {
  return { certainty: 'possible', hangsOn };
}

/**
 * The certainty of a finding.
 * @param certain whether it holds in any case
 * @param hangsOn attributes it depends on otherwise
 * @returns certain or possible
 */
export function certainIf(certain: boolean, hangsOn: readonly AttrPath[]): Certainty {
  return certain ? { certainty: 'certain', hangsOn: [] } : possible(hangsOn);
}
