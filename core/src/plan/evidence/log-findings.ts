import { asRange, type Sentence } from '../../base/text';
import { type JoinedParams, kind } from '../kind';

interface Contradiction {
  predicted: 'work' | 'fail';
  seen: number;
  n: number;
}

function contradictionWords({ predicted, seen, n }: JoinedParams<Contradiction>): Sentence {
  const once = asRange(n).lo === 1;
  const times = once ? 'once' : `${asRange(seen).lo} of ${asRange(n).lo} times`;
  return {
    what: `Predicted to ${predicted}, seen to ${predicted === 'work' ? 'fail' : 'work'} ${times}`,
    why: once
      ? 'One entry only. It counts, but it proves little.'
      : 'Trust the log; the reason is not known.',
    todo: 'Open Record and compare the versions of the outcomes.',
  };
}

/** Findings that no check makes: what the log says against the prediction. */
export const LOG_FINDINGS = {
  'log/contradiction': kind<Contradiction>('care', contradictionWords),
};
