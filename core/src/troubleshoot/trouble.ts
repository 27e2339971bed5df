import type { CauseId, SymptomId, TestId } from '../base';
import type { Answer, Observations } from './bayes';

export const TEST_ANSWERS = ['yes', 'no', 'unclear', 'cannot'] as const;
export type Says = (typeof TEST_ANSWERS)[number];
export const FIX_RESULTS = ['solved', 'better', 'no-change', 'stopped'] as const;
export type FixResult = (typeof FIX_RESULTS)[number];
export const CLOSINGS = ['solved', 'unsolved', 'discarded'] as const;
/** How the session was opened. */
export const ORIGINS = ['symptom', 'step', 'alarm', 'port'] as const;
/** Source of a test result: a person, or a stored reading. */
export const BY = ['hand', 'reading'] as const;

/** One note of a search for a cause. Notes are never changed: what is taken back is struck, what changes is one more. */
export type TroubleNote =
  | { readonly what: 'seen'; readonly symptoms: readonly SymptomId[] }
  | {
      readonly what: 'test';
      readonly test: TestId;
      readonly says: Says;
      readonly by: (typeof BY)[number];
      readonly words: string;
    }
  | {
      readonly what: 'fix';
      readonly cause: CauseId;
      readonly result: FixResult;
      readonly words: string;
    }
  | {
      readonly what: 'closed';
      readonly outcome: (typeof CLOSINGS)[number];
      readonly cause: CauseId | null;
      readonly words: string;
    };

/** A stretch of a search between two things that changed the chain: what was seen and answered in it, and the cause it ended with. */
export interface Episode {
  readonly symptoms: readonly SymptomId[];
  readonly answers: readonly Answer[];
  readonly found: CauseId | null;
}

export interface TroubleState {
  readonly clues: Observations;
  /** Tests that cannot be done, or said nothing: not offered again before something changes. */
  readonly refused: ReadonlySet<TestId>;
  readonly closed: Extract<TroubleNote, { what: 'closed' }> | null;
  readonly stretches: readonly Episode[];
  readonly minutesSpent: number;
}

/**
 * How a search stands after its notes. A test answered again takes the place of its first answer, unless something
 * was changed in between. A fix that helped in part ends an episode: its cause is out, what is still seen stays, and
 * every test is open again, because the chain is another one now. A fix that changed nothing is evidence against
 * its cause.
 * @param notes oldest first
 * @param minutesOf minutes a note took
 * @returns symptoms, answers, episodes and the end of the search
 */
export function troubleState(
  notes: readonly TroubleNote[],
  minutesOf: (n: TroubleNote) => number = () => 0,
): TroubleState {
  let symptoms: readonly SymptomId[] = [];
  let answers = new Map<TestId, boolean>();
  let refused = new Set<TestId>();
  let noHelp: CauseId[] = [];
  const mended: CauseId[] = [];
  const stretches: Episode[] = [];
  let closed: TroubleState['closed'] = null;
  const list = () => [...answers].map(([test, yes]) => ({ test, yes }));
  const end = (found: CauseId | null) => stretches.push({ symptoms, answers: list(), found });
  let solved = false;
  for (const n of notes) {
    if (n.what === 'seen') symptoms = n.symptoms;
    else if (n.what === 'test') {
      answers.delete(n.test);
      if (n.says === 'yes' || n.says === 'no') {
        answers.set(n.test, n.says === 'yes');
        refused.delete(n.test);
      } else refused.add(n.test);
    } else if (n.what === 'fix') {
      if (n.result === 'no-change') noHelp = [...noHelp.filter((c) => c !== n.cause), n.cause];
      if (n.result === 'solved') {
        end(n.cause);
        solved = true;
      }
      if (n.result === 'better') {
        end(n.cause);
        mended.push(n.cause);
        answers = new Map();
        refused = new Set();
        noHelp = [];
      }
    } else closed = n;
  }
  if (closed && !solved) end(closed.outcome === 'solved' ? closed.cause : null);
  return {
    clues: { symptoms, answers: list(), noHelp, mended },
    refused,
    closed,
    stretches,
    minutesSpent: notes.reduce((sum, n) => sum + minutesOf(n), 0),
  };
}
