import { type ReleaseSpec, SOFTWARE_ROLES, type SoftwareRole } from '../../parts';
import type { Chain } from '../schema/chain';
import { releaseTouches } from './match';
import { compareVersions } from './version';

/** What the known releases say of a version installed. */
export interface ReleaseNews {
  readonly role: SoftwareRole;
  readonly have: string;
  /** The release installed was taken back by its maker. */
  readonly withdrawn: ReleaseSpec | null;
  /** A newer one that is not withdrawn. */
  readonly newer: ReleaseSpec | null;
}

/**
 * For every version installed: was it withdrawn, and is there a newer one?
 * @param releases of the catalogue
 * @param chain the chain
 * @param asOf ISO date; later releases do not count
 * @returns one entry for each version that is installed
 */
export function releaseNews(
  releases: readonly ReleaseSpec[],
  chain: Chain,
  asOf: string,
): ReleaseNews[] {
  return SOFTWARE_ROLES.flatMap((role): ReleaseNews[] => {
    const have = chain.installed[role];
    if (have === '') return [];
    const mine = releases.filter(
      (r) =>
        r.what === role &&
        releaseTouches(r, chain) &&
        (r.releasedOn === '' || r.releasedOn <= asOf),
    );
    const gone = (r: ReleaseSpec) => r.withdrawnOn !== '' && r.withdrawnOn <= asOf;
    const withdrawn = mine.find((r) => gone(r) && compareVersions(r.variant, have) === 0) ?? null;
    const newer = mine
      .filter((r) => !gone(r) && (compareVersions(r.variant, have) ?? 0) > 0)
      .reduce<ReleaseSpec | null>(
        (best, r) => (best && (compareVersions(best.variant, r.variant) ?? 0) >= 0 ? best : r),
        null,
      );
    return withdrawn || newer ? [{ role, have, withdrawn, newer }] : [];
  });
}

/**
 * The chain with what releases say of the dock's cap: a release that lifts or lowers it stands in where the part
 * itself says nothing. Of several the newest that gives a figure counts.
 * @param chain the chain; not modified
 * @param releases of the catalogue
 * @returns the chain, or a copy with the cap
 */
export function withReleaseCaps(chain: Chain, releases: readonly ReleaseSpec[]): Chain {
  const { dock } = chain;
  if (!dock || dock.capFirmware !== '') return chain;
  const caps = releases.filter(
    (r) => r.what === 'dockFirmware' && r.capGbps !== null && releaseTouches(r, chain),
  );
  const newest = caps.reduce<ReleaseSpec | null>(
    (best, r) => (best && (compareVersions(best.variant, r.variant) ?? 0) >= 0 ? best : r),
    null,
  );
  if (!newest) return chain;
  return {
    ...chain,
    dock: {
      ...dock,
      capGbps: dock.capGbps ?? newest.capGbps,
      capFirmware: newest.variant,
      capBeforeGbps: dock.capBeforeGbps ?? newest.capBeforeGbps,
    },
  };
}
