import { originAfterChange } from '../platform/db/columns';
import { exists } from '../platform/db/rows';
import { inTransaction } from '../platform/db/transaction';
import type * as z from 'zod';
import { changeSlots, setupFields } from '@ruddy/core/setups';
import type { cloneBody, Setup, setupBody, SetupPatch } from '@ruddy/core/setups/contract';
import { SetupModel } from './models/setup';
import { HttpProblem } from '../platform/http/problem';
import { checkRevision, type Actor, type Services } from '../platform/http/route';
import { addEvent } from './events';
import { newId } from '../platform/db/ids';
import { insertSetup, keepRevision, readSetup, writeSlots } from './setup-store';

/** Store a new setup. A repeated id is answered with what is stored. */
export async function createSetup(
  s: Services,
  body: z.output<typeof setupBody>,
  actor: Actor,
): Promise<{ setup: Setup; fresh: boolean }> {
  return inTransaction(async () => {
    if (await SetupModel.findByPk(body.id))
      return { setup: (await readSetup(body.id)).setup, fresh: false };
    const at = s.now();
    await insertSetup({ ...body, clonedFrom: null }, { origin: 'own', at, by: actor.id });
    await addEvent({
      id: newId(),
      setupId: body.id,
      kind: 'created',
      body: { name: body.name },
      happenedAt: at,
      recordedAt: at,
      origin: 'own',
      by: actor.id,
    });
    return { setup: (await readSetup(body.id)).setup, fresh: true };
  });
}

/** A copy under another name; it starts as planned and remembers where it came from. */
export async function cloneSetup(
  s: Services,
  id: string,
  body: z.output<typeof cloneBody>,
  actor: Actor,
): Promise<Setup> {
  return inTransaction(async () => {
    const source = (await readSetup(id)).setup;
    if (await SetupModel.findByPk(body.id)) return (await readSetup(body.id)).setup;
    const at = s.now();
    const made = { origin: 'own' as const, at, by: actor.id };
    await insertSetup(
      { ...source, id: body.id, name: body.name, state: 'planned', clonedFrom: id },
      made,
    );
    await addEvent({
      id: newId(),
      setupId: body.id,
      kind: 'cloned',
      body: { from: source.name },
      happenedAt: at,
      recordedAt: at,
      origin: 'own',
      by: actor.id,
    });
    return (await readSetup(body.id)).setup;
  });
}

async function noteChanges(before: Setup, patch: SetupPatch, actor: Actor, at: Date) {
  const base = {
    setupId: before.id,
    happenedAt: at,
    recordedAt: at,
    origin: 'own' as const,
    by: actor.id,
  };
  if (patch.state && patch.state !== before.state)
    await addEvent({
      ...base,
      id: newId(),
      kind: 'state',
      body: { from: before.state, to: patch.state },
    });
}

/** Change a setup by a merge patch. What a person changes becomes theirs, an example too. */
export async function patchSetup(
  s: Services,
  id: string,
  patch: SetupPatch,
  revision: number,
  actor: Actor,
): Promise<Setup> {
  return inTransaction(async () => {
    const { row, setup } = await readSetup(id, true);
    checkRevision(revision, row.rev, setup);
    const at = s.now();
    const slots = changeSlots(setup.slots, patch.slots);
    await row.update({
      name: patch.name ?? row.name,
      state: patch.state ?? row.state,
      origin: originAfterChange(row.origin),
      details: { noCable: slots.path?.length === 0, ...setupFields(patch, setup) },
      rev: row.rev + 1,
      savedAt: at,
    });
    if (patch.slots) await writeSlots(id, slots);
    await noteChanges(setup, patch, actor, at);
    await keepRevision(id, patch.session ?? null, actor.id, at);
    return (await readSetup(id)).setup;
  });
}

/** Refuse to add to a setup that does not exist, before any work is done for it. */
export async function requireSetup(id: string): Promise<void> {
  if (!(await exists(SetupModel, id))) throw new HttpProblem(404, 'No such setup');
}
