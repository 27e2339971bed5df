/** What is odd about a value; the sentence that asks is made from it. */
export type QuestionCode =
  | 'bytes-for-bits'
  | 'bits-for-bytes'
  | 'watts-for-rate'
  | 'rate-for-watts'
  | 'no-such-rate'
  | 'no-such-width'
  | 'centimetres'
  | 'plugs-short-of-watts'
  | 'name-says-otherwise'
  | 'mobile-name'
  | 'class-above-link'
  | 'cap-above-link'
  | 'one-lead-plugs'
  | 'upright-screen'
  | 'big-battery'
  | 'same-card'
  | 'share-off'
  | 'discount-off'
  | 'alone-above-box';

/** A question about a value: where it stands and the figures in it. Nothing is corrected; a person may keep it as said. */
export interface ValueQuestion {
  /** The place of the attribute: `markedGbps`, `sockets/left/lanes`. */
  readonly path: string;
  readonly code: QuestionCode;
  readonly params: Readonly<Record<string, number | string>>;
}
