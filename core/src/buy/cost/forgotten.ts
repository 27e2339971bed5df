import { type Chain, endsInSlot } from '../../chain';
import type { ForgottenCode } from '../../setups';

/**
 * What a chain needs beside its parts and no part of it stands for: what is often ordered a week later. Common
 * practice, no published source.
 * @param chain the chain
 * @returns codes of the things
 */
export function forgottenItems(chain: Chain): ForgottenCode[] {
  const found: ForgottenCode[] = [];
  if (chain.path === null) found.push('cable');
  const wantsSupply = chain.dock
    ? chain.dock.supply === 'separate'
    : chain.card !== null && endsInSlot(chain.path);
  if (wantsSupply && chain.supplies.length === 0) found.push('supply');
  const ownPanel = chain.host?.form === 'laptop' || chain.host?.form === 'handheld';
  const toPanel = chain.settings.toPanel === 'yes';
  if (chain.picture.length === 0 && !(ownPanel && toPanel)) found.push('screen');
  if (chain.picture.some((p) => p.by === 'card' || p.by === 'dock')) found.push('display-cable');
  if (chain.picture.length === 0 && ownPanel && toPanel) found.push('dummy-plug');
  if (chain.host && (chain.host.form !== 'laptop' || chain.settings.lid === 'closed'))
    found.push('input');
  return found;
}
