import { type Range, relativeWidth } from '../base';
import { type AttrPath, type Limit, type LinkFacts, NOT_ASKED, type Completion } from '../chain';
import type { Budget } from './budgets';
import type { Evaluation, Verify } from './types';
import type { Finding } from './finding';

type Verdict = Evaluation['predicted']['verdict'];

/**
 * The verdict, in this order: a certain blocker, won't work; a possible blocker, not enough known, naming what would
 * decide; any care, works with care; otherwise works.
 * @param findings of the chain
 * @returns the verdict
 */
export function verdictOf(findings: readonly Finding[]): Verdict {
  const of = (severity: string, certainty?: string) =>
    findings.filter(
      (f) => f.severity === severity && (certainty === undefined || f.certainty === certainty),
    );
  const codes = (fs: readonly Finding[]) => [...new Set(fs.map((f) => f.code))];
  const blocks = of('blocks', 'certain');
  if (blocks.length > 0) return { state: 'blocked', because: codes(blocks), wouldDecide: [] };
  const maybe = of('blocks', 'possible');
  if (maybe.length > 0)
    return {
      state: 'unknown',
      because: codes(maybe),
      wouldDecide: [...new Set(maybe.flatMap((f) => f.hangsOn))],
    };
  const care = of('care');
  return { state: care.length > 0 ? 'care' : 'works', because: codes(care), wouldDecide: [] };
}

/** Share of the middle beyond which an open usable rate is worth narrowing: the width a budget may have. */
const WIDE = 0.2;

/** Whether an open limit can be the least of its kind; otherwise its value does not matter. */
function canBind(l: Limit, all: readonly Limit[]): boolean {
  if (l.kind === 'takes' || l.kind === 'cap') return true;
  return all.every((x) => x === l || x.kind !== l.kind || l.value.lo < x.value.hi);
}

/** Attributes not known that widen the hops which may be the pinch. */
function widening(all: readonly Completion[], links: readonly LinkFacts[]): AttrPath[] {
  const open = new Set<AttrPath>();
  for (const link of links)
    for (const i of link.pinch.hops) {
      const limits = link.shapes[i]?.limits ?? [];
      for (const l of limits) if (l.open && canBind(l, limits)) open.add(l.attr);
    }
  const first = all[0]?.made ?? {};
  for (const key of Object.keys(first))
    if (
      all.some((w) => w.made[key] !== first[key]) &&
      !key.endsWith('/controller') &&
      !key.startsWith(NOT_ASKED)
    )
      open.add(key);
  return [...open];
}

/**
 * What to find out, what can change the verdict first.
 * @param findings of the chain
 * @param all completions
 * @param links of each of them
 * @param usable rate over all of them, Gb/s
 * @param budgets of the chain
 * @returns attributes with what they would decide
 */
export function toVerify(
  findings: readonly Finding[],
  all: readonly Completion[],
  links: readonly LinkFacts[],
  usable: Range | null,
  budgets: readonly Budget[],
): Verify[] {
  const deciding = new Set(findings.filter((f) => f.severity !== 'note').flatMap((f) => f.hangsOn));
  const wide = usable !== null && relativeWidth(usable) > WIDE ? widening(all, links) : [];
  // A power budget that lacks a value is worth completing; it never decides.
  const asked = budgets
    .filter((b) => b.state === 'unknown' && (b.need !== null || b.have !== null))
    .flatMap((b) => b.open);
  const rest = [...findings.flatMap((f) => f.hangsOn), ...wide, ...asked].filter(
    (p) => !deciding.has(p),
  );
  return [
    ...[...deciding].map((path) => ({ path, decides: true })),
    ...[...new Set(rest)].map((path) => ({ path, decides: false })),
  ];
}
