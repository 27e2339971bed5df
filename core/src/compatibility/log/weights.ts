import type { RuleId } from '../../base';
import type { Installed } from '../../parts';
import type { MatchKey } from './match';

/** What an entry may share with the chain that is asked about. */
export const SHARED_ATTRIBUTES = ['host', 'link', 'dock', 'family'] as const;
export type SharedAttribute = (typeof SHARED_ATTRIBUTES)[number];

/** How entries count: what each shared thing adds, what changed versions leave of it, and how much all near ones may weigh. */
export interface NearWeights extends Readonly<Record<SharedAttribute, number>> {
  readonly changed: number;
  readonly strength: number;
}

/**
 * The weights of near entries that the house rules give.
 * @param rule reads a house rule
 * @returns weights
 */
export function nearWeights(rule: (id: RuleId) => number): NearWeights {
  return {
    host: rule('near.host'),
    link: rule('near.link'),
    dock: rule('near.dock'),
    family: rule('near.family'),
    changed: rule('near.changed'),
    strength: rule('near.strength'),
  };
}

/** Versions as an entry keeps them; what was not noted is absent. */
export type Versions = Readonly<
  Partial<Record<'system' | 'driver' | 'hostFirmware' | 'dockFirmware', string>>
>;

/**
 * The versions an entry of the log keeps.
 * @param installed versions of a setup
 * @returns system, driver and firmware that are noted
 */
export function entryVersions({
  systemBuild,
  driver,
  hostFirmware,
  dockFirmware,
}: Installed): Versions {
  return Object.fromEntries(
    Object.entries({ system: systemBuild, driver, hostFirmware, dockFirmware }).filter(
      ([, v]) => v !== '',
    ),
  );
}

/**
 * Versions noted on both sides that differ; what one side did not note says nothing.
 * @param a versions of an entry
 * @param b versions of another
 * @returns their names
 * @example changedVersions({ driver: '1' }, { driver: '2', system: 'x' }) // => ['driver']
 */
export function changedVersions(a: Versions, b: Versions): (keyof Versions)[] {
  return (['system', 'driver', 'hostFirmware', 'dockFirmware'] as const).filter(
    (k) => a[k] !== undefined && b[k] !== undefined && a[k] !== b[k],
  );
}

/** An entry as it is weighed. */
export interface WeightedEntry {
  readonly match: MatchKey;
  readonly versions: Versions;
  readonly told: boolean;
  /** Weight of hearsay, 0 to 1. */
  readonly confidence: number;
}

export interface Factors {
  readonly shares: readonly SharedAttribute[];
  /** Sum of what is shared, 0 to 1; 1 for exactly this chain. */
  readonly shared: number;
  /** 1, or what changed versions leave. */
  readonly versions: number;
  /** 1, or the confidence of what was told. */
  readonly told: number;
  readonly weight: number;
}

/**
 * What an entry counts beside the chain that is asked about. Exactly this chain shares everything by definition; others
 * what they have in common.
 * @param asked what the chain is found by
 * @param versions of the chain
 * @param entry of the log
 * @param w weights of near entries
 * @returns the factors and their product
 */
export function factorsOf(
  asked: MatchKey,
  versions: Versions,
  entry: WeightedEntry,
  w: NearWeights,
): Factors {
  const shares = SHARED_ATTRIBUTES.filter((s) => asked[s] !== null && asked[s] === entry.match[s]);
  const exact = asked.key !== null && asked.key === entry.match.key;
  const shared = exact ? 1 : shares.reduce((sum, s) => sum + w[s], 0);
  const changed = changedVersions(versions, entry.versions).length > 0 ? w.changed : 1;
  const told = entry.told ? entry.confidence : 1;
  return { shares, shared, versions: changed, told, weight: shared * changed * told };
}
