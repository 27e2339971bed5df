import { type Chain, chainNames, type ChainNames } from '../../chain';
import { type Installed, SOFTWARE_ROLES, type SoftwareRole } from '../../parts';

/** A state of a setup that somebody marked as good. */
export interface Good {
  readonly installed: Installed;
  readonly names: ChainNames;
}

export interface SinceGood {
  readonly what: SoftwareRole | keyof ChainNames;
  readonly from: string;
  readonly to: string;
}

/** What a setup looks like now, to be marked as good. */
export function goodNow(chain: Chain): Good {
  return { installed: chain.installed, names: chainNames(chain) };
}

/** What changed since a state marked as good: versions first, then parts. What was not noted then is not held against now. */
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
