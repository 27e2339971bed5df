import type * as z from 'zod';
import type { Chain } from '@ruddy/core/chain';
import type { evaluateBody } from '@ruddy/core/plan/contract';
import { invalid } from '../platform/http/problem';
import { chainOf, resolveChain } from './chain';
import { readSetup } from './setup-store';

type Given = Partial<Pick<z.output<typeof evaluateBody>, 'chain' | 'setupId' | 'patch'>>;

/** The chain a body names: given whole or by id, or that of a setup, with a patch on top. */
export async function givenChain(body: Given): Promise<Chain> {
  let base = null;
  if (body.setupId) {
    const { rows, row } = await readSetup(body.setupId);
    base = chainOf(rows, row.details);
  }
  const first = body.chain ? await resolveChain(body.chain, null) : base;
  const chain = body.patch ? await resolveChain(body.patch, first) : first;
  if (!chain) throw invalid('chain', 'Give either a chain or a setupId');
  return chain;
}
