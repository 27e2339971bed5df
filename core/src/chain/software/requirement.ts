import {
  type ReleaseSpec,
  type RequirementSpec,
  SOFTWARE_NAMES,
  type SoftwareRole,
} from '../../parts';
import type { AttrPath, Chain } from '../schema/chain';
import { cardMeant, installedPath, means, releaseTouches, subjectsOf } from './match';
import { compareVersions } from './version';

/** A requirement held against a chain. Those that do not apply are not returned. */
export interface RequirementStatus {
  readonly requirement: RequirementSpec;
  /** Place in the list given, so that two alike stay apart. */
  readonly index: number;
  readonly state: 'met' | 'unmet' | 'unknown';
  readonly role: SoftwareRole | null;
  /** The version installed, empty when not known. */
  readonly have: string;
  /** What would have to be known. */
  readonly hangsOn: readonly AttrPath[];
  /** A release that fulfils it, the newest not withdrawn; null when none is known. */
  readonly by: ReleaseSpec | null;
  /** Does the workaround still hold for the version installed? `null` without one. */
  readonly workaround: 'holds' | 'ended' | 'not known' | null;
}

/**
 * Is a version between two others, both ends included?
 * @param v the version
 * @param from the oldest; empty for any
 * @param until the newest; empty for any
 * @returns null where it cannot be said
 * @example within('1.9', '1.2', '1.10') // => true
 */
export function within(v: string, from: string, until: string): boolean | null {
  if (from === '' && until === '') return true;
  if (v === '') return null;
  const low = from === '' ? 0 : compareVersions(v, from);
  const high = until === '' ? 0 : compareVersions(v, until);
  if (low === null || high === null) return null;
  return low >= 0 && high <= 0;
}

type Applies = { applies: false } | { applies: true; hangsOn: AttrPath[] };

function appliesTo(r: RequirementSpec, chain: Chain, asOf: string): Applies {
  const no = { applies: false } as const;
  if (!subjectsOf(chain, r.subject).some((p) => means(r, p)) || !cardMeant(r.andCard, chain))
    return no;
  if ((r.fromOn !== '' && asOf < r.fromOn) || (r.untilOn !== '' && asOf > r.untilOn)) return no;
  const hangsOn: AttrPath[] = [];
  if (r.onSystem !== null) {
    const on: readonly string[] = typeof r.onSystem === 'string' ? [r.onSystem] : r.onSystem.oneOf;
    if (chain.system === null) hangsOn.push('system/family');
    else if (!on.includes(chain.system.family)) return no;
  }
  const build = within(chain.installed.systemBuild, r.systemFrom, r.systemUntil);
  if (build === false) return no;
  return {
    applies: true,
    hangsOn: build === null ? [...hangsOn, 'installed/systemBuild'] : hangsOn,
  };
}

function metBy(
  r: RequirementSpec,
  chain: Chain,
  role: SoftwareRole | null,
): { met: boolean | null; path: AttrPath[] } {
  if (role) {
    const met = within(chain.installed[role], r.atLeast, r.atMost);
    return { met, path: met === null ? [installedPath(role)] : [] };
  }
  if (r.needs !== 'repackaged') return { met: false, path: [] };
  const kind = chain.settings.driverKind;
  const known = typeof kind === 'string';
  return { met: known ? kind === 'repackaged' : null, path: known ? [] : ['settings/driverKind'] };
}

/** The newest release not withdrawn that fulfils a requirement on this chain. */
function fulfilled(
  r: RequirementSpec,
  role: SoftwareRole | null,
  releases: readonly ReleaseSpec[],
  chain: Chain,
  asOf: string,
) {
  if (!role) return null;
  const may = releases.filter(
    (x) =>
      x.what === role &&
      (x.withdrawnOn === '' || x.withdrawnOn > asOf) &&
      releaseTouches(x, chain) &&
      within(x.variant, r.atLeast, r.atMost) === true,
  );
  return may.reduce<ReleaseSpec | null>(
    (best, x) => (best && (compareVersions(best.variant, x.variant) ?? 0) >= 0 ? best : x),
    null,
  );
}

function workaroundOf(
  r: RequirementSpec,
  role: SoftwareRole | null,
  chain: Chain,
): RequirementStatus['workaround'] {
  if (r.workaround === '') return null;
  const version = chain.installed[role ?? 'driver'];
  const holds = within(version, r.workaroundFrom, r.workaroundUntil);
  return holds === null ? 'not known' : holds ? 'holds' : 'ended';
}

/**
 * Holds requirements against a chain at a date. One that is about another part, system, build or time is left
 * out; one whose versions cannot be read or compared is "unknown" and names what to find out.
 * @param requirements of the catalogue
 * @param releases of the catalogue
 * @param chain the chain
 * @param asOf ISO date
 * @returns the status of each that applies
 */
export function holdRequirements(
  requirements: readonly RequirementSpec[],
  releases: readonly ReleaseSpec[],
  chain: Chain,
  asOf: string,
): RequirementStatus[] {
  return requirements.flatMap((requirement, index): RequirementStatus[] => {
    const applies = appliesTo(requirement, chain, asOf);
    if (!applies.applies) return [];
    const role = requirement.needs in SOFTWARE_NAMES ? (requirement.needs as SoftwareRole) : null;
    const { met, path } = metBy(requirement, chain, role);
    const hangsOn = met === true ? [] : [...applies.hangsOn, ...path];
    return [
      {
        requirement,
        index,
        state: met === true ? 'met' : met === null || hangsOn.length > 0 ? 'unknown' : 'unmet',
        role,
        have: role ? chain.installed[role] : '',
        hangsOn,
        by: fulfilled(requirement, role, releases, chain, asOf),
        workaround: workaroundOf(requirement, role, chain),
      },
    ];
  });
}
