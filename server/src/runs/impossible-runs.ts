import type { Actor, Services } from '../platform/http/route';
import { createOnce } from '../platform/db/rows';
import { requireSetup } from '../setups/setups';
import { ImpossibleRunModel } from './models/impossible-run';

/** Experiments that cannot be made on a setup, by their ids. */
export async function listImpossible(setupId: string): Promise<string[]> {
  await requireSetup(setupId);
  const rows = await ImpossibleRunModel.findAll({ where: { setupId }, order: ['experiment'] });
  return rows.map((r) => r.experiment);
}

/** Remembers that an experiment cannot be made on a setup, or that it can. */
export async function setImpossible(
  s: Services,
  setupId: string,
  said: { readonly experiment: string; readonly impossible: boolean },
  actor: Actor,
): Promise<string[]> {
  await requireSetup(setupId);
  const { experiment, impossible } = said;
  if (impossible)
    await createOnce(ImpossibleRunModel, {
      setupId,
      experiment,
      createdAt: s.now(),
      createdBy: actor.id,
    });
  else await ImpossibleRunModel.destroy({ where: { setupId, experiment } });
  return listImpossible(setupId);
}
