import { chargeFacts, type ChargeFacts } from '../charging';
import { coolFacts, type CoolFacts } from '../cooling';
import { pictureFacts, type PictureFacts } from '../display';
import { fitFacts, type FitFacts } from '../fit';
import type { RuleId } from '../house';
import { powerFacts, type PowerFacts } from '../power';
import type { Chain, DockSpec, SocketSpec } from '../schema';
import { holdRequirements, releaseNews, type Held, type ReleaseNews } from '../software';
import type { Context } from './types';

/** Facts that do not hang on which world of the link is true: each subject of its own, and the slots as they are stated. */
export interface BodyFacts {
  readonly power: PowerFacts;
  readonly charging: ChargeFacts;
  readonly fit: FitFacts | null;
  readonly cooling: CoolFacts | null;
  readonly pictures: readonly PictureFacts[];
  readonly held: readonly Held[];
  readonly news: readonly ReleaseNews[];
  /** The port in use and the dock as stated. */
  readonly port: SocketSpec | null;
  readonly box: DockSpec | null;
  readonly supplies: Chain['supplies'];
  readonly system: Chain['system'];
  readonly settings: Chain['settings'];
  readonly uses: Chain['uses'];
}

/** The facts of every subject beside the link. */
export function bodyFacts(
  chain: Chain,
  context: Pick<Context, 'asOf' | 'requirements' | 'releases'>,
  rule: (id: RuleId) => number,
): BodyFacts {
  const { card, dock, supplies, system, settings, uses } = chain;
  const releases = context.releases ?? [];
  const charging = chargeFacts(chain, rule);
  const power = powerFacts(chain, charging.contract, rule);
  return {
    power,
    charging,
    fit: fitFacts(card, dock, rule),
    cooling: coolFacts(card, dock, power.boardW, rule),
    pictures: pictureFacts(chain, rule),
    held: holdRequirements(context.requirements ?? [], releases, chain, context.asOf),
    news: releaseNews(releases, chain, context.asOf),
    port: chain.host?.sockets.find((s) => s.key === chain.socket) ?? null,
    box: dock,
    supplies,
    system,
    settings,
    uses,
  };
}

/** Facts that are the same in every world: a check that reads only these runs once. */
export const STEADY = [
  'host',
  'card',
  'loads',
  'installed',
  'power',
  'charging',
  'fit',
  'cooling',
  'pictures',
  'held',
  'news',
  'port',
  'box',
  'supplies',
  'system',
  'settings',
  'uses',
] as const;
