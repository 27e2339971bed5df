import { type Chain, knownAt, withReleaseCaps } from '../chain';
import { type RigFacts, rigWith } from '../runs';
import { areasOf, coverageOf } from './areas';
import { budgetsOf } from './budgets';
import { CHECKS } from './checks';
import { CODES_IN_ORDER, FINDING_CODES } from './codes';
import { contradicted } from './contradiction';
import { expectation } from './evidence/evidence';
import { failures, successes } from './evidence/tally';
import { findings as findingsOf, groundsOf, resolveBody } from './facts';
import { joinLinks } from './join-link';
import { readOuts } from './read-outs';
import type { EvaluateInput, Evaluation, VerdictState } from './types';
import type { Finding } from './finding';
import { toVerify, verdictOf } from './verdict';

/** Version of the rules. It changes when a stored result could come out otherwise. */
export const CORE_VERSION = '7.0';

function contradiction(
  state: VerdictState,
  evidence: EvaluateInput['context']['evidence'],
): Finding[] {
  const exact = evidence?.exact;
  const against =
    exact && contradicted(state, { worked: successes(exact), failed: failures(exact) });
  if (!exact || !against) return [];
  return [
    {
      code: 'log/contradiction',
      ...FINDING_CODES['log/contradiction'],
      certainty: 'certain',
      slots: [],
      hangsOn: [],
      params: { predicted: against.predicted, seen: against.seen, n: exact.n },
      source: 'log',
    },
  ];
}

/**
 * Judges a chain of whole parts. Parts not chosen are null, values not known are null or ranges; the result contains
 * the truth for every way to fill them in. Pure: date, house rules and evidence come with the context. Never throws
 * for a chain the schema accepts.
 * @param input chain and context
 * @returns hops, findings, verdict, budgets and questions; rates in Gb/s, `down` is host to card
 */
export function evaluate({ chain: stated, context }: EvaluateInput): Evaluation {
  const chain = withReleaseCaps(stated, context.releases ?? []);
  const grounds = groundsOf(chain, context);
  const { rules } = grounds;
  const all = grounds.worlds();
  const links = grounds.links();
  const body = resolveBody(grounds.body);
  const found = findingsOf(CHECKS, grounds).map((f) => ({
    ...f,
    hangsOn: f.hangsOn.filter((path) => !knownAt(chain, path)),
  }));
  const budgets = budgetsOf(body, (id) => rules.get(id));
  const link = joinLinks(links);
  const findings = [...found, ...contradiction(verdictOf(found).state, context.evidence)].sort(
    (a, b) => CODES_IN_ORDER.indexOf(a.code) - CODES_IN_ORDER.indexOf(b.code),
  );
  const verdict = verdictOf(findings);
  const areas = areasOf(chain, body, findings);
  return {
    core: CORE_VERSION,
    asOf: context.asOf,
    predicted: {
      verdict,
      areas,
      coverage: coverageOf(areas),
      link: {
        ...link,
        readouts: readOuts(all, link, rules),
      },
      budgets,
      body,
    },
    ...(context.evidence && {
      observed: {
        ...context.evidence,
        expected: expectation(context.evidence, rules.get('near.strength')),
      },
    }),
    findings,
    toVerify: toVerify(found, all, links, link.usable?.down ?? null, budgets).filter(
      (v) => !knownAt(chain, v.path),
    ),
    assumptions: rules.assumptions(),
  };
}

/**
 * A chain as the frame model sees it, with the rates its evaluation found.
 * @param chain the chain that was evaluated
 * @param evaluation its evaluation
 * @returns the rig
 */
export function rigOfEvaluation(chain: Chain, evaluation: Evaluation): RigFacts {
  const { hops, usable } = evaluation.predicted.link;
  return rigWith(chain, {
    down: usable?.down ?? null,
    up: usable?.up ?? null,
    tunnels: hops.filter((h) => h.kind === 'tunnel').length,
  });
}
