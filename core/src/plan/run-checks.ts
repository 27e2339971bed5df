import type { RuleBook } from '../base';
import { hangsOn, type Completion } from '../chain';
import { COMPLETION_INDEPENDENT } from './body';
import { FINDING_CODES, type FindingCode } from './codes';
import { joinValue } from './join-value';
import type { Check, Draft, FactKey, Facts } from './check';
import type { Finding } from './finding';
import type { Param } from './kind';

/** A draft of any code; its parameters are figures and words. */
type AnyDraft = Draft<string, object>;

/** The facts of one completion, as one check sees them: what it inherits are the facts that it declares. */
class View {
  constructor(readonly facts: Facts) {}
}
/** By the list of a check: made once, since a search runs each check hundreds of thousands of times. */
const views = new WeakMap<readonly FactKey[], typeof View>();

function viewOf(facts: Facts, reads: readonly FactKey[]): typeof View {
  const known = views.get(reads);
  if (known) return known;
  const made = class extends View {};
  for (const key of new Set([...(Object.keys(facts) as FactKey[]), ...reads]))
    Object.defineProperty(made.prototype, key, {
      get: reads.includes(key)
        ? function (this: View) {
            return this.facts[key];
          }
        : () => {
            throw new TypeError(`a check read "${key}" without declaring it`);
          },
    });
  views.set(reads, made);
  return made;
}

/**
 * The declared facts of a check and nothing else: reading another is an error, not a silent null.
 * @param facts of a completion
 * @param reads names it declares; its list is always the same array
 * @returns those facts
 */
export function declared<R extends FactKey>(facts: Facts, reads: readonly R[]): Pick<Facts, R> {
  return new (viewOf(facts, reads))(facts) as View & Pick<Facts, R>;
}

/**
 * Does a check read only what is the same in every completion, so that running it once is enough?
 * @param c the check
 * @returns true where it does
 */
export function isCompletionIndependent(c: Check): boolean {
  return c.reads.every((r) => (COMPLETION_INDEPENDENT as readonly string[]).includes(r));
}

/**
 * The drafts of checks over one completion.
 * @param checks that are run
 * @param facts of the completion
 * @param rules house rules
 * @returns drafts in the order of the checks
 */
export function runChecks(checks: readonly Check[], facts: Facts, rules: RuleBook): AnyDraft[] {
  return checks.flatMap((c) => c.run(declared(facts, c.reads), (id) => rules.get(id)));
}

function sameFinding(d: AnyDraft): string {
  return [d.code, ...d.slots, d.about ?? ''].join(' ');
}

/** The parameters of one finding over the completions it is made in. */
function joinParams(made: readonly AnyDraft[]): Record<string, Param> {
  if (made.length === 1) return { ...made[0]?.params } as Record<string, Param>;
  const [first, ...others] = made.map((d) => Object.entries(d.params) as [string, Param][]);
  const rest = others.map((entries) => new Map(entries));
  return Object.fromEntries(
    (first ?? []).map(([key, value]) => [
      key,
      rest.reduce<Param>((joined, params) => joinValue(joined, params.get(key)), value),
    ]),
  );
}

/**
 * Joins the drafts of every completion. A finding made in all of them for certain is certain; one made in some is
 * possible and depends on the choices that turn it.
 * @param all completions
 * @param drafts of each of them
 * @returns findings
 */
export function joinFindings(
  all: readonly Completion[],
  drafts: readonly (readonly AnyDraft[])[],
): Finding[] {
  const groups = new Map<string, (AnyDraft | null)[]>();
  drafts.forEach((list, i) => {
    for (const d of list) {
      const key = sameFinding(d);
      const row = groups.get(key) ?? Array<AnyDraft | null>(drafts.length).fill(null);
      row[i] = d;
      groups.set(key, row);
    }
  });
  return [...groups.values()].map((row) => {
    const made = row.filter((d) => d !== null);
    const first = made[0] as AnyDraft;
    const everywhere = made.length === drafts.length;
    const turned = everywhere
      ? []
      : hangsOn(
          all,
          row.map((d) => d !== null),
        );
    // Only checks make drafts, and every code of a check is in the table.
    const code = first.code as FindingCode;
    return {
      code,
      ...FINDING_CODES[code],
      certainty:
        everywhere && made.every((d) => d.certainty !== 'possible') ? 'certain' : 'possible',
      slots: first.slots,
      hangsOn: [...new Set([...turned, ...made.flatMap((d) => d.hangsOn ?? [])])],
      params: joinParams(made),
      source: first.source,
      ...(first.about !== undefined && { about: first.about }),
    };
  });
}
