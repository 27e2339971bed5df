import { PHASES, RuleBook, type StepId } from '../../base';
import { type Chain, chainNames, partName, type Slot } from '../../chain';
import { isInside } from '../../parts';
import { BEFORE } from './before';
import { CHECK, CONNECT } from './connect';
import { MOUNT } from './mount';
import { ORDERS, sequenceOf } from './orders';
import { LIVE } from './settle';
import type { StepTime } from './times';
import type { ListInput, Step, StepDef, StepFacts } from './types';

/** Every step, in the order in which equals stand. */
export const STEPS: readonly StepDef[] = [...BEFORE, ...MOUNT, ...CONNECT, ...CHECK, ...LIVE];

/**
 * Facts that decide which steps a chain has.
 *
 * @param i chain, evaluation and settings of the setup
 * @returns the facts
 */
export function stepFacts(i: ListInput): StepFacts {
  const { chain, evaluation, docked, driver } = i;
  const rules = new RuleBook(i.house);
  const port = chain.host?.sockets.find((s) => s.key === chain.socket) ?? null;
  const { kind } = evaluation.predicted.link;
  // Whatever was chosen, and whatever the chain was then: a direct link is never plugged live.
  const order = kind === 'direct' && ORDERS[i.order].live ? 'all-off' : i.order;
  return {
    chain,
    evaluation,
    docked,
    order,
    driver,
    kind,
    port,
    inside: port !== null && isInside(port.connector),
    hotOut: kind === 'tunnel' && ORDERS[order].live,
    has: (code) => evaluation.findings.some((f) => f.code === code),
    rule: (id) => rules.get(id),
  };
}

/**
 * Sorts steps topologically by their `after`. Stable: of the steps that may come next the first of the table does, so that
 * a step more or less moves no other. Source: A. B. Kahn, Communications of the ACM 5 (1962), 558-562.
 *
 * @param defs steps, in the order of the table
 * @param sequence further order to keep: each of these after the one before
 * @returns the steps, every `after` kept
 * @throws {Error} when steps wait for each other
 */
export function inOrder(defs: readonly StepDef[], sequence: readonly StepId[]): StepDef[] {
  const known = new Set(defs.map((d) => d.id));
  const waits = new Map(defs.map((d) => [d.id, new Set(d.after.filter((a) => known.has(a)))]));
  sequence.forEach((id, i) => {
    for (const before of sequence.slice(0, i)) if (known.has(before)) waits.get(id)?.add(before);
  });
  const left = [...defs];
  const done: StepDef[] = [];
  while (left.length > 0) {
    const next = left.findIndex((d) =>
      [...(waits.get(d.id) ?? [])].every((w) => done.some((x) => x.id === w)),
    );
    if (next < 0) throw new Error(`steps wait for each other: ${left.map((d) => d.id).join(', ')}`);
    done.push(...left.splice(next, 1));
  }
  return done;
}

function made(d: StepDef, f: StepFacts, timed: StepTime | undefined): Step {
  const of = <T>(v: T | ((f: StepFacts) => T) | undefined, none: T): T =>
    typeof v === 'function' ? (v as (f: StepFacts) => T)(f) : (v ?? none);
  return {
    id: d.id,
    phase: d.phase,
    minutes: timed ? Math.max(1, Math.round(timed.minutes)) : of(d.minutes, 0),
    timedIn: timed?.n ?? 0,
    tools: d.tools ?? [],
    cautions: of(d.cautions, []),
    fields: of(d.fields, []),
    about: d.about ?? [],
    lasting: d.lasting ?? false,
    final: d.final ?? false,
    blanks: d.blanks ?? false,
    symptoms: d.symptoms,
  };
}

/**
 * Steps of a chain: those that apply, phase by phase, every `after` kept, with the chosen power order. Steps with an event
 * stay in the list when they no longer apply.
 *
 * @param i chain, evaluation, settings and events of the setup
 * @returns the steps, in order
 */
export function checklist(i: ListInput): Step[] {
  const f = stepFacts(i);
  const mine = STEPS.filter((d) => d.lists.includes(i.purpose));
  // All steps are ordered, also those that do not apply: what waits for an absent one still waits for what that one waited for.
  const sorted = inOrder(byPhase(mine), sequenceOf(f.order, f.kind));
  return sorted
    .filter((d) => d.when(f) || i.keep?.has(d.id))
    .map((d) => made(d, f, i.times?.get(d.id)));
}

function byPhase(defs: readonly StepDef[]): StepDef[] {
  return [...defs].sort((a, b) => PHASES.indexOf(a.phase) - PHASES.indexOf(b.phase));
}

/**
 * Names of the parts that are fitted, by slot. A step done to another part is open again.
 *
 * @param chain the chain as it is now
 * @returns one name for each slot that is filled
 */
export function slotNames(chain: Chain): Partial<Record<Slot, string>> {
  const names = chainNames(chain);
  return {
    host: names.host,
    socket: names.port,
    path: names.cable,
    dock: names.dock,
    card: names.card,
    supplies: chain.supplies.map((s) => `${partName(s.spec)} (${s.feeds})`).join(', '),
    picture: chain.picture.map((p) => `${partName(p.screen)} (${p.by})`).join(', '),
    system: partName(chain.system),
  };
}
