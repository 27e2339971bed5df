import { bare } from '../../base';
import type { EvaluationSummary } from '../contract/setup-list';
import type { Evaluation } from '../types';
import { verdictSentence } from './headline';

/**
 * What a list shows of an evaluation.
 * @param e the evaluation
 * @returns verdict, sentence, bottleneck and strip
 */
export function summarizeEvaluation(e: Evaluation): EvaluationSummary {
  const { link, verdict } = e.predicted;
  return {
    verdict: verdict.state,
    sentence: verdictSentence(e),
    coverage: e.predicted.coverage,
    open: e.predicted.areas.filter((a) => a.state === 'open').map((a) => a.area),
    pinch: { part: link.pinch.part, usable: bare(link.usable?.down) },
    hops: link.hops.map((h, i) => ({
      from: h.from,
      to: h.to,
      state: h.state,
      usable: bare(h.usable?.down),
      pinch: link.pinch.hops.includes(i),
    })),
  };
}
