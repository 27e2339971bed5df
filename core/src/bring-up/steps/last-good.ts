import { type Chain, chainNames, type ChainNames } from '../../chain';
import { type Installed, SOFTWARE_ROLES, type SoftwareRole } from '../../parts';

/** A state of a setup that a user marked as good. */
export interface Good {
  readonly installed: Installed;
  readonly names: ChainNames;
}

export interface SinceGood {
  readonly what: SoftwareRole | keyof ChainNames;
  readonly from: string;
  readonly to: string;
}

/**
 * Parts and versions of a chain, to be stored as its last good state.
 *
 * @param chain the chain as it is now
 * @returns installed versions and the names of the parts
 */
export function goodNow(chain: Chain): Good {
  return { installed: chain.installed, names: chainNames(chain) };
}

/**
 * Changes since a last good state. Fields that the state lacks are not compared.
 *
 * @param good the stored state
 * @param chain the chain as it is now
 * @returns changes, versions first, then parts
 */
export function sinceGood(good: Good, chain: Chain): SinceGood[] {
  const now = goodNow(chain);
  const versions = SOFTWARE_ROLES.map((what) => ({
    what,
    from: good.installed[what],
    to: now.installed[what],
  }));
  const parts = (Object.keys(now.names) as (keyof ChainNames)[]).map((what) => ({
    what,
    from: good.names[what],
    to: now.names[what],
  }));
  return [...versions, ...parts].filter(({ from, to }) => from !== '' && from !== to);
}
