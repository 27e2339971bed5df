import { RuleBook } from '../base';
import {
  boardPower,
  type Chain,
  chargeFacts,
  coolFacts,
  fitFacts,
  holdRequirements,
  joinLink,
  type LinkFacts,
  pictureFacts,
  powerFacts,
  releaseNews,
  type Completion,
  completions,
} from '../chain';
import type { StaticFacts } from './body';
import { isCompletionIndependent, joinFindings, runChecks } from './run-checks';
import type { Check, Facts } from './check';
import type { Context } from './types';
import type { Finding } from './finding';

/** Completion-independent facts of a chain, each computed on first read and cached. */
class Body implements StaticFacts, Pick<Facts, 'host' | 'card' | 'loads' | 'installed'> {
  // Not `#`: the facts of a world are made from this object and read through to it.
  readonly host: Facts['host'];
  readonly card: Facts['card'];
  readonly loads: Facts['loads'];
  readonly installed: Facts['installed'];
  private readonly made: { -readonly [K in keyof StaticFacts]?: StaticFacts[K] } = {};

  constructor(
    private readonly chain: Chain,
    private readonly context: Pick<Context, 'asOf' | 'requirements' | 'releases'>,
    private readonly rule: RuleBook['get'],
  ) {
    ({ host: this.host, card: this.card, loads: this.loads, installed: this.installed } = chain);
  }

  get power() {
    return (this.made.power ??= powerFacts(this.chain, this.charging.drawn, this.rule));
  }
  get charging() {
    return (this.made.charging ??= chargeFacts(this.chain, this.rule));
  }
  get fit() {
    if (this.made.fit === undefined) {
      const { card, dock, settings } = this.chain;
      this.made.fit = fitFacts(card, dock, this.rule, settings.cardSits);
    }
    return this.made.fit;
  }
  get cooling() {
    const { card, dock } = this.chain;
    if (this.made.cooling === undefined)
      this.made.cooling = coolFacts(card, dock, boardPower(this.chain), this.rule);
    return this.made.cooling;
  }
  get pictures() {
    return (this.made.pictures ??= pictureFacts(this.chain, this.rule));
  }
  get held() {
    const { requirements = [], releases = [], asOf } = this.context;
    return (this.made.held ??= holdRequirements(requirements, releases, this.chain, asOf));
  }
  get news() {
    return (this.made.news ??= releaseNews(
      this.context.releases ?? [],
      this.chain,
      this.context.asOf,
    ));
  }
  get port() {
    return this.chain.host?.sockets.find((s) => s.key === this.chain.socket) ?? null;
  }
  get box() {
    return this.chain.dock;
  }
  get supplies() {
    return this.chain.supplies;
  }
  get system() {
    return this.chain.system;
  }
  get settings() {
    return this.chain.settings;
  }
  get uses() {
    return this.chain.uses;
  }
}

/**
 * Facts that do not depend on which completion of the link is true.
 * @param chain the chain
 * @param context date, requirements and releases
 * @param rule reads a house rule
 * @returns facts, each computed when it is first read
 */
export function bodyFacts(
  chain: Chain,
  context: Pick<Context, 'asOf' | 'requirements' | 'releases'>,
  rule: RuleBook['get'],
): StaticFacts {
  return resolveBody(new Body(chain, context, rule));
}

/**
 * The facts of a chain as plain data.
 * @param b facts that may not be computed yet
 * @returns all of them computed
 */
export function resolveBody(b: StaticFacts): StaticFacts {
  const { power, charging, fit, cooling, pictures, held, news } = b;
  const { port, box, supplies, system, settings, uses } = b;
  return {
    power,
    charging,
    fit,
    cooling,
    pictures,
    held,
    news,
    port,
    box,
    supplies,
    system,
    settings,
    uses,
  };
}

/** All that can be known of a chain before anything is concluded: its worlds, the link in each, and the facts of its body. */
export interface Grounds {
  readonly rules: RuleBook;
  readonly worlds: () => Completion[];
  readonly links: () => LinkFacts[];
  readonly body: StaticFacts;
  /** The facts of one world; without one, only what is the same in all. */
  readonly facts: (world: number | null) => Facts;
}

/**
 * What checks read of a chain, computed when it is first read: a few checks cost only what they read.
 * @param chain the chain
 * @param context what it is judged by
 * @returns completions and facts
 */
export function groundsOf(chain: Chain, context: Context): Grounds {
  const rules = new RuleBook(context.house);
  let all: Completion[] | null = null;
  let links: LinkFacts[] | null = null;
  const body = new Body(chain, context, (id) => rules.get(id));
  const grounds: Grounds = {
    rules,
    body,
    worlds: () => (all ??= completions(chain, rules)),
    links: () => (links ??= grounds.worlds().map((w) => joinLink(w.facts, rules))),
    facts: (world) => {
      // What is the same in every world never asks for the link.
      if (world === null) return body as unknown as Facts;
      const link = grounds.links()[world];
      return Object.assign(Object.create(body) as Facts, grounds.worlds()[world]?.facts, { link });
    },
  };
  return grounds;
}

/**
 * What checks find: those that depend on the link in every completion, the others once.
 * @param checks that are run
 * @param g what they read
 * @returns findings in the order of `CHECKS`
 */
export function findings(checks: readonly Check[], g: Grounds): Finding[] {
  const steady = checks.filter(isCompletionIndependent);
  const open = checks.filter((c) => !isCompletionIndependent(c));
  const drafts =
    open.length > 0 ? g.worlds().map((_, i) => runChecks(open, g.facts(i), g.rules)) : [];
  return [
    ...(open.length > 0 ? joinFindings(g.worlds(), drafts) : []),
    ...joinFindings([], [runChecks(steady, g.facts(null), g.rules)]),
  ];
}
