import { lookup } from 'node:dns/promises';
import ipaddr from 'ipaddr.js';

/** Reason why a feed was not read, for the member who configured it. */
export class FeedProblem extends Error {}

export interface Address {
  readonly address: string;
  readonly family: 4 | 6;
}
export type Resolve = (host: string) => Promise<readonly Address[]>;

/** Ranges a feed may lie in when the keeper allows this machine and the local network. */
const NEAR = ['loopback', 'private', 'uniqueLocal'];

export const resolveHost: Resolve = async (host) => {
  const found = await lookup(host, { all: true, verbatim: true });
  return found.map(({ address, family }) => ({ address, family: family === 6 ? 6 : 4 }));
};

/** May an address be connected to? An IPv4 address inside an IPv6 one is judged as what it is. */
export function allowed(address: string, near: boolean): boolean {
  if (!ipaddr.isValid(address)) return false;
  const range = ipaddr.process(address).range();
  return range === 'unicast' || (near && NEAR.includes(range));
}

/**
 * The one address a reading connects to: all that the name stands for are checked, because a name that also leads inside is not to be
 * trusted, and the connection goes to the address that was checked and to no other.
 */
export async function checkedAddress(
  host: string,
  near: boolean,
  resolve: Resolve,
): Promise<Address> {
  const bare = host.replace(/^\[|\]$/g, '');
  let found: readonly Address[];
  if (ipaddr.isValid(bare))
    found = [{ address: bare, family: ipaddr.parse(bare).kind() === 'ipv6' ? 6 : 4 }];
  else
    try {
      found = await resolve(bare);
    } catch {
      throw new FeedProblem(`The name ${bare} cannot be found`);
    }
  const first = found[0];
  if (!first) throw new FeedProblem(`The name ${bare} leads nowhere`);
  const bad = found.find((a) => !allowed(a.address, near));
  if (bad && NEAR.includes(ipaddr.isValid(bad.address) ? ipaddr.process(bad.address).range() : ''))
    throw new FeedProblem(
      `${bare} is ${bad.address}, on this machine or in the local network. A keeper may allow that for this feed.`,
    );
  if (bad) throw new FeedProblem(`${bare} is ${bad.address}, which no feed can have`);
  return first;
}
