import { capital, figure, formatWhole, partNoun, rate } from '../../base/text';
import { type Chain, chainNames, partName } from '../../chain';
import { SOFTWARE_NAMES, type SoftwareRole } from '../../parts';
import type { Evaluation } from '../../plan';
import { AREA_NOUNS, AREA_STATES, coverageWords, sentence, VERDICT_LABELS } from '../../plan/text';
import type { Cost } from '../cost/types';
import { money, moneyShort } from './money';

/** A plan as it is compared: its name, its chain, its judgement and what it costs. */
export interface ComparedPlan {
  readonly name: string;
  readonly chain: Chain;
  readonly evaluation: Evaluation;
  readonly cost: Cost | null;
}

/** A line of a comparison: one cell for each plan, in their order; the first plan is the base. */
export interface CompareRow {
  readonly group: string;
  readonly label: string;
  readonly cells: readonly string[];
  readonly same: boolean;
}

const NONE = 'not chosen';

function row(group: string, label: string, cells: readonly string[]): CompareRow {
  return { group, label, cells, same: cells.every((c) => c === cells[0]) };
}

/** Lines for things only some of the plans have: every name that occurs, in the order met, with a cell for each plan. */
function union<T>(
  group: string,
  plans: readonly T[],
  items: (p: T) => ReadonlyMap<string, string>,
  none: string,
): CompareRow[] {
  const maps = plans.map(items);
  const names = [...new Set(maps.flatMap((m) => [...m.keys()]))];
  return names.map((n) =>
    row(
      group,
      n,
      maps.map((m) => m.get(n) ?? none),
    ),
  );
}

function parts(p: ComparedPlan): ReadonlyMap<string, string> {
  const n = chainNames(p.chain);
  const list = (names: readonly string[]) => names.join(', ') || NONE;
  return new Map([
    ['Host', n.host || NONE],
    ['Port', n.port || NONE],
    ['Cable', n.cable || NONE],
    ['Dock', n.dock || NONE],
    ['Card', n.card || NONE],
    ['Supply', list(p.chain.supplies.map((s) => partName(s.spec)))],
    ['Screen', list(p.chain.picture.map((s) => partName(s.screen)))],
    ['System', partName(p.chain.system) || NONE],
    ...(Object.keys(SOFTWARE_NAMES) as SoftwareRole[]).map((r): [string, string] => [
      SOFTWARE_NAMES[r],
      p.chain.installed[r] || 'not known',
    ]),
  ]);
}

function areas(p: ComparedPlan): ReadonlyMap<string, string> {
  return new Map(
    p.evaluation.predicted.areas.map((a) => [capital(AREA_NOUNS[a.area]), AREA_STATES[a.state]]),
  );
}

function budgets(p: ComparedPlan): ReadonlyMap<string, string> {
  return new Map(
    p.evaluation.predicted.budgets.map((b) => [
      `${b.area === 'plugs' ? 'plugs' : b.area}: ${b.name}`.replace(/^./, (c) => c.toUpperCase()),
      b.need === null || b.have === null
        ? 'not known'
        : `${figure(b.need)} of ${figure(b.have)} ${b.unit}`.trim(),
    ]),
  );
}

function findings(p: ComparedPlan): ReadonlyMap<string, string> {
  const words = { blocks: 'stops it', care: 'needs care', note: 'good to know' };
  return new Map(
    p.evaluation.findings
      .filter((f) => f.severity !== 'note' && f.code !== 'plan/unchosen')
      .map((f) => [
        sentence(f).what,
        f.certainty === 'possible' ? `possibly ${words[f.severity]}` : words[f.severity],
      ]),
  );
}

function costs(plans: readonly ComparedPlan[]): CompareRow[] {
  const cell = (say: (c: Cost) => string) => plans.map((p) => (p.cost ? say(p.cost) : 'no parts'));
  const and = (c: Cost) => c.apart.map((m) => ` and ${money(m)}`).join('');
  const open = (c: Cost) => (c.open.length > 0 ? `, ${c.open.length} without a price` : '');
  return [
    row(
      'Cost',
      'To pay',
      cell((c) => `${money({ minor: c.totalMinor, currency: c.currency })}${and(c)}${open(c)}`),
    ),
    row(
      'Cost',
      'After what is sold',
      cell((c) => money({ minor: c.netMinor, currency: c.currency })),
    ),
    row(
      'Cost',
      'Sold again later',
      cell((c) => money({ minor: c.resaleMinor, currency: c.currency })),
    ),
  ];
}

/**
 * Setups side by side, in the order of a decision.
 *
 * @param plans setups with chain, evaluation and cost
 * @returns one row an attribute, with `same` where all setups agree
 */
export function compareRows(plans: readonly ComparedPlan[]): CompareRow[] {
  const cells = (say: (p: ComparedPlan) => string) => plans.map(say);
  const link = (p: ComparedPlan) => p.evaluation.predicted.link;
  const rows = [
    row(
      'Verdict',
      'Verdict',
      cells((p) => VERDICT_LABELS[p.evaluation.predicted.verdict.state]),
    ),
    row(
      'Verdict',
      'Known',
      cells((p) => coverageWords(p.evaluation.predicted.coverage)),
    ),
    ...union('Areas', plans, areas, AREA_STATES.none),
    row(
      'Link',
      'To the card, Gb/s usable',
      cells((p) => rate(link(p).usable?.down ?? null)),
    ),
    row(
      'Link',
      'Back to the host, Gb/s usable',
      cells((p) => rate(link(p).usable?.up ?? null)),
    ),
    row(
      'Link',
      'Held by',
      cells((p) => (link(p).pinch.part ? partNoun(link(p).pinch.part) : 'not known')),
    ),
    row(
      'Link',
      'Hops',
      cells((p) => String(link(p).hops.length)),
    ),
    row(
      'Link',
      'Read-out under load',
      cells((p) => {
        const r = link(p).readouts;
        return r.gen && r.lanes ? `×${formatWhole(r.lanes)} Gen${formatWhole(r.gen)}` : 'not known';
      }),
    ),
    ...costs(plans),
    ...union('Findings', plans, findings, 'no'),
    ...union('Budgets', plans, budgets, 'none'),
    ...union('Parts', plans, parts, NONE),
  ];
  return rows;
}

/**
 * Differences of the other setups from the first, with their numbers.
 *
 * @param plans setups with chain, evaluation and cost
 * @returns one sentence
 */
export function compareSentence(plans: readonly ComparedPlan[]): string {
  const [base, other] = plans;
  if (!base || !other) return 'Nothing to compare yet: 2 plans are needed.';
  if (plans.length > 2) {
    const rows = compareRows(plans);
    return `${plans.length} plans beside ${base.name}: ${rows.filter((r) => !r.same).length} of ${rows.length} lines differ.`;
  }
  const down = (p: ComparedPlan) => rate(p.evaluation.predicted.link.usable?.down ?? null);
  const verdict = VERDICT_LABELS[other.evaluation.predicted.verdict.state].toLowerCase();
  const carries =
    down(base) === down(other)
      ? `${down(other)} Gb/s as well`
      : `${down(other)} Gb/s instead of ${down(base)}`;
  return `${other.name} against ${base.name}: ${verdict}, ${carries}${dearer(base.cost, other.cost)}.`;
}

/** How much more the second costs, as the end of a sentence; nothing where the sums cannot be held against each other. */
function dearer(a: Cost | null, b: Cost | null): string {
  if (!a || !b || a.currency !== b.currency || a.apart.length > 0 || b.apart.length > 0) return '';
  const more = b.totalMinor - a.totalMinor;
  const open = a.open.length + b.open.length;
  // Equal sums of which something is missing say nothing of the money.
  if (more === 0)
    return open > 0 ? `, ${open} ${open === 1 ? 'price' : 'prices'} not known` : ', the same money';
  const amount = moneyShort({ minor: Math.abs(more), currency: a.currency });
  return `, ${amount} ${more > 0 ? 'more' : 'less'}${open > 0 ? ' as far as prices are known' : ''}`;
}
