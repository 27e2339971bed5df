import type {
  Chain,
  ChargeFacts,
  CoolFacts,
  FitFacts,
  PictureFacts,
  PowerFacts,
  ReleaseNews,
  RequirementStatus,
} from '../chain';
import type { DockSpec, SocketSpec } from '../parts';

/** Facts that do not hang on which world of the link is true: each subject of its own, and the slots as they are stated. */
export interface StaticFacts {
  readonly power: PowerFacts;
  readonly charging: ChargeFacts;
  readonly fit: FitFacts | null;
  readonly cooling: CoolFacts | null;
  readonly pictures: readonly PictureFacts[];
  readonly held: readonly RequirementStatus[];
  readonly news: readonly ReleaseNews[];
  /** The port in use and the dock as stated. */
  readonly port: SocketSpec | null;
  readonly box: DockSpec | null;
  readonly supplies: Chain['supplies'];
  readonly system: Chain['system'];
  readonly settings: Chain['settings'];
  readonly uses: Chain['uses'];
}

/** Facts that are the same in every world: a check that reads only these runs once. */
export const COMPLETION_INDEPENDENT = [
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
