import { inTransaction } from '../platform/db/transaction';
import type { Chain } from '@ruddy/core/chain';
import { EventModel } from './models/event';
import { HttpProblem, invalid } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { chainOf } from './chain';
import { addEvent, type NewEvent } from './events';
import { readSetup } from './setup-store';

/** One command on a setup: the setup is locked, so that two of them come one after the other. */
export interface Work {
  setupId: string;
  stored: Awaited<ReturnType<typeof readSetup>>;
  chain: Chain;
  at: Date;
  happenedAt: Date;
  by: string;
}

/** Run a command once: an id that is known here with the same kind is answered, nothing is doubled. */
export async function once(
  s: Services,
  setupId: string,
  body: { id: string; happenedAt?: string | undefined },
  kind: NewEvent['kind'],
  actor: Actor,
  run: (w: Work) => Promise<void>,
): Promise<boolean> {
  const at = s.now();
  const happenedAt = body.happenedAt ? new Date(body.happenedAt) : at;
  if (happenedAt.getTime() > at.getTime() + 60_000)
    throw invalid('happenedAt', 'This would be in the future');
  return inTransaction(async () => {
    const stored = await readSetup(setupId, true);
    const known = await EventModel.findByPk(body.id, { raw: true });
    if (known && (known.setupId !== setupId || known.kind !== kind))
      throw new HttpProblem(409, 'Another fact has this id', {
        errors: [{ path: 'id', message: 'Another fact has this id' }],
      });
    if (known) return false;
    const chain = chainOf(stored.rows, stored.row.details);
    await run({ setupId, stored, chain, at, happenedAt, by: actor.id });
    return true;
  });
}

export function add(
  w: Work,
  e: Pick<NewEvent, 'id' | 'kind' | 'body'> & Partial<Pick<NewEvent, 'corrects' | 'happenedAt'>>,
) {
  const made = {
    setupId: w.setupId,
    happenedAt: w.happenedAt,
    recordedAt: w.at,
    origin: 'own' as const,
    by: w.by,
  };
  return addEvent({ ...made, ...e });
}
