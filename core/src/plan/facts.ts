import { chargeFacts } from '../charging';
import { coolFacts } from '../cooling';
import { pictureFacts } from '../display';
import { fitFacts } from '../fit';
import { RuleBook } from '../house';
import { joinLink, worlds, type LinkFacts, type World } from '../link';
import { boardPower, powerFacts } from '../power';
import type { Chain } from '../schema';
import { holdRequirements, releaseNews } from '../software';
import type { BodyFacts } from './body';
import { isSteady, joinFindings, runChecks } from './run-checks';
import type { Check, Context, Facts, Finding } from './types';

/** Made when first read, and only once. */
function once<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}

/** An object whose members are made when they are first read. */
function lazy<T extends object>(makers: { readonly [K in keyof T]: () => T[K] }): T {
  const made = {} as T;
  for (const key of Object.keys(makers) as (keyof T)[])
    Object.defineProperty(made, key, { get: once(makers[key]), enumerable: true });
  return made;
}

/** Facts that do not hang on which world of the link is true, each made when somebody reads it. */
export function bodyFacts(
  chain: Chain,
  context: Pick<Context, 'asOf' | 'requirements' | 'releases'>,
  rule: RuleBook['get'],
): BodyFacts {
  const releases = context.releases ?? [];
  const charging = once(() => chargeFacts(chain, rule));
  return lazy<BodyFacts>({
    power: () => powerFacts(chain, charging().contract, rule),
    charging,
    fit: () => fitFacts(chain.card, chain.dock, rule),
    cooling: () => coolFacts(chain.card, chain.dock, boardPower(chain), rule),
    pictures: () => pictureFacts(chain, rule),
    held: () => holdRequirements(context.requirements ?? [], releases, chain, context.asOf),
    news: () => releaseNews(releases, chain, context.asOf),
    port: () => chain.host?.sockets.find((s) => s.key === chain.socket) ?? null,
    box: () => chain.dock,
    supplies: () => chain.supplies,
    system: () => chain.system,
    settings: () => chain.settings,
    uses: () => chain.uses,
  });
}

/** All that can be known of a chain before anything is concluded: its worlds, the link in each, and the facts of its body. */
export interface Grounds {
  readonly rules: RuleBook;
  readonly worlds: () => World[];
  readonly links: () => LinkFacts[];
  readonly body: BodyFacts;
  /** The facts of one world; without one, only what is the same in all. */
  readonly facts: (world: number | null) => Facts;
}

/** The facts of a chain as its releases have it, made when they are first read: who runs a few checks pays for those alone. */
export function groundsOf(chain: Chain, context: Context): Grounds {
  const rules = new RuleBook(context.house);
  const all = once(() => worlds(chain, rules));
  const links = once(() => all().map((w) => joinLink(w.facts, rules)));
  const body = bodyFacts(chain, context, (id) => rules.get(id));
  const { host, card, loads, installed } = chain;
  const facts = (world: number | null): Facts => {
    const own = world === null ? { host, card, loads, installed } : all()[world]?.facts;
    const joined = world === null ? {} : { link: links()[world] };
    return Object.assign(Object.create(body) as Facts, own, joined);
  };
  return { rules, worlds: all, links, body, facts };
}

/** What some checks find on these grounds: those that hang on the link in every world, the others once. */
export function findings(checks: readonly Check[], g: Grounds): Finding[] {
  const steady = checks.filter(isSteady);
  const open = checks.filter((c) => !isSteady(c));
  const drafts = open.length > 0 ? g.worlds().map((_, i) => runChecks(open, g.facts(i), g.rules)) : [];
  return [
    ...(open.length > 0 ? joinFindings(g.worlds(), drafts) : []),
    ...joinFindings([], [runChecks(steady, g.facts(null), g.rules)]),
  ];
}
