import { originAfterChange } from '../platform/db/columns';
import type * as z from 'zod';
import { goodNow, orderWorked } from '@ruddy/core/bring-up';
import type {
  attemptBody,
  AttemptRow,
  endBody,
  goodBody,
  stepBody,
  struckBody,
  tryBody,
  usedBody,
} from '@ruddy/core/bring-up/contract';
import { entryVersions } from '@ruddy/core/compatibility';
import type { Installed } from '@ruddy/core/parts';
import { EventModel } from '../setups/models/event';
import { LogEntryModel } from '../plan/models/log-entry';
import { HttpProblem, invalid, notFound, refuseFuture } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { attemptsOf, countedAs, stepsOf } from './bring-up-read';
import { chainOf } from '../setups/chain';
import { newId } from '../platform/db/ids';
import { add, once, type Work } from '../setups/once';
import { storeOutcome } from '../plan/outcomes';
import { readSetup } from '../setups/setup-store';
import { takeOver } from '../setups/versions';

async function end(
  w: Work,
  a: AttemptRow,
  outcome: 'passed' | 'failed' | 'left',
  reason: string,
  id = newId(),
): Promise<void> {
  const steps = await stepsOf(w.setupId);
  const mine = steps.filter((e) => e.attempt === a.id);
  const failed = [...mine].reverse().find((e) => e.state === 'failed');
  await add(w, {
    id,
    kind: 'ended',
    body: {
      attempt: a.id,
      no: a.no,
      purpose: a.purpose,
      order: a.order,
      outcome,
      worked: a.purpose === 'undock' ? null : orderWorked(steps, a.id),
      ...countedAs(w.chain),
      build: w.stored.setup.installed.systemBuild,
      symptom: outcome === 'passed' ? null : (failed?.symptom ?? null),
      reason,
    },
  });
}

/** Begin an attempt. One that is still open ends: as failed when a step of it failed, otherwise as left. */
export function beginAttempt(
  s: Services,
  setupId: string,
  b: z.output<typeof attemptBody>,
  actor: Actor,
): Promise<boolean> {
  return once(s, setupId, b, 'attempt', actor, async (w) => {
    if (!w.chain.host && !w.chain.dock && !w.chain.card)
      throw invalid('setup', 'This setup has no parts yet; choose some on Plan first');
    const attempts = await attemptsOf(setupId);
    const steps = await stepsOf(setupId);
    for (const open of attempts.filter((a) => a.ended === null)) {
      const last = new Map(
        steps.filter((e) => e.attempt === open.id).map((e) => [e.step, e.state]),
      );
      await end(
        w,
        open,
        [...last.values()].includes('failed') ? 'failed' : 'left',
        'another attempt was begun',
      );
    }
    const { purpose, order, driver } = b;
    const no = Math.max(0, ...attempts.map((a) => a.no)) + 1;
    await add(w, {
      id: b.id,
      kind: 'attempt',
      body: { no, purpose, order, driver, build: w.stored.setup.installed.systemBuild },
    });
    if (w.stored.setup.state === 'planned' && purpose === 'bring-up') await becomes(w, 'building');
  });
}

export async function becomes(w: Work, state: 'building' | 'live' | 'retired'): Promise<void> {
  const { row } = w.stored;
  const from = row.state;
  await row.update({
    state,
    rev: row.rev + 1,
    savedAt: w.at,
    origin: originAfterChange(row.origin),
  });
  await add(w, { id: newId(), kind: 'state', body: { from, to: state } });
}

async function openAttempt(w: Work, id: string): Promise<AttemptRow> {
  const attempt = (await attemptsOf(w.setupId)).find((a) => a.id === id);
  if (!attempt) throw notFound('attempt of this setup');
  if (attempt.ended)
    throw new HttpProblem(409, `Attempt ${attempt.no} is over`, {
      detail: `Attempt ${attempt.no} is over; begin another to go on.`,
    });
  return attempt;
}

async function markGood(w: Work, id: string, note: string): Promise<void> {
  await add(w, { id, kind: 'good', body: { ...goodNow(w.chain), note } });
}

async function writeEntry(
  w: Work,
  a: AttemptRow,
  o: NonNullable<z.output<typeof stepBody>['outcome']>,
): Promise<void> {
  const said = {
    symptoms: [],
    fixes: [],
    provenance: 'own' as const,
    confidence: 1,
    corrects: null,
  };
  const body = {
    ...said,
    id: o.id,
    outcome: o.outcome,
    note: o.note,
    order: a.order,
    happenedOn: w.happenedAt.toISOString().slice(0, 10),
  };
  const made = { origin: 'own' as const, at: w.at, by: w.by };
  await storeOutcome(
    w.setupId,
    { ...body, versions: entryVersions(w.chain.installed) },
    w.chain,
    made,
    'outcome/',
  );
  if (o.good) await markGood(w, newId(), '');
  if (w.stored.setup.state === 'building' && o.outcome !== 'fails') await becomes(w, 'live');
}

/** Note how a step went, with the versions and settings met at it. The last one writes the entry of the log. */
export function noteStep(
  s: Services,
  setupId: string,
  b: z.output<typeof stepBody>,
  actor: Actor,
): Promise<boolean> {
  return once(s, setupId, b, 'step', actor, async (w) => {
    const attempt = await openAttempt(w, b.attempt);
    const met = {
      installed: b.installed as Partial<Installed>,
      settings: b.settings,
      attempt: attempt.id,
    };
    const noted = await takeOver(w.stored, met, w);
    const { step, state, reason, symptom, about, wrong } = b;
    await add(w, {
      id: b.id,
      kind: 'step',
      body: {
        attempt: attempt.id,
        no: attempt.no,
        step,
        state,
        reason,
        symptom,
        about,
        noted,
        wrong,
      },
    });
    // What was just taken over belongs to the chain that is logged.
    const fresh = await readSetup(setupId);
    const now = { ...w, stored: fresh, chain: chainOf(fresh.rows, fresh.row.details) };
    if (b.outcome) await writeEntry(now, attempt, b.outcome);
    if (b.ends) await end(now, attempt, 'passed', '');
  });
}

/** End an attempt that did not pass. */
export function endAttempt(
  s: Services,
  setupId: string,
  attemptId: string,
  b: z.output<typeof endBody>,
  actor: Actor,
): Promise<boolean> {
  return once(s, setupId, b, 'ended', actor, async (w) =>
    end(w, await openAttempt(w, attemptId), b.outcome, b.reason, b.id),
  );
}

/** Write down a try from before. */
export function addTry(
  s: Services,
  setupId: string,
  b: z.output<typeof tryBody>,
  actor: Actor,
): Promise<boolean> {
  refuseFuture('on', b.on, s.now());
  return once(s, setupId, { id: b.id }, 'ended', actor, async (w) => {
    if (!w.chain.host)
      throw invalid('setup', 'This setup has no host yet; tries are counted by host and port');
    const outcome = b.worked ? ('passed' as const) : ('failed' as const);
    const said = {
      order: b.order,
      outcome,
      worked: b.worked,
      build: b.build,
      symptom: null,
      reason: b.reason,
    };
    await add(w, {
      id: b.id,
      kind: 'ended',
      body: { attempt: null, no: null, purpose: 'bring-up', ...said, ...countedAs(w.chain) },
      happenedAt: new Date(`${b.on}T12:00:00Z`),
    });
  });
}

/** Note a stretch of use. */
export function noteUse(
  s: Services,
  setupId: string,
  { id, ...body }: z.output<typeof usedBody>,
  actor: Actor,
): Promise<boolean> {
  refuseFuture('until', body.until, s.now());
  const happenedAt = new Date(Math.min(Date.parse(`${body.until}T12:00:00Z`), s.now().getTime()));
  return once(
    s,
    setupId,
    { id },
    'used',
    actor,
    async (w) => void (await add(w, { id, kind: 'used', body, happenedAt })),
  );
}

/** Kinds of facts that are taken back as they are. A step is undone, an outcome corrected by another. */
const STRIKABLE = ['note', 'reading', 'version', 'ended', 'good', 'run', 'used', 'trouble'];

/** Take a fact back. Both stay on record; it no longer counts. */
export function strike(
  s: Services,
  setupId: string,
  b: z.output<typeof struckBody>,
  actor: Actor,
): Promise<boolean> {
  return once(s, setupId, { id: b.id }, 'struck', actor, async (w) => {
    const old = await EventModel.findByPk(b.corrects, { raw: true });
    if (old?.setupId !== setupId)
      throw invalid('corrects', 'Nothing in the record of this setup has this id');
    const logged = await LogEntryModel.findByPk(b.corrects, {
      raw: true,
    });
    if (logged || !STRIKABLE.includes(old.kind))
      throw invalid(
        'corrects',
        `A fact of the kind "${old.kind}" is not deleted; correct it instead`,
      );
    if (
      await EventModel.findOne({
        where: { corrects: b.corrects },
        raw: true,
      })
    )
      throw new HttpProblem(409, 'It was deleted or corrected before');
    await add(w, { id: b.id, kind: 'struck', body: { reason: b.reason }, corrects: b.corrects });
  });
}

/** Marks the present state of a setup as its last good one. */
export function keepGood(
  s: Services,
  setupId: string,
  b: z.output<typeof goodBody>,
  actor: Actor,
): Promise<boolean> {
  return once(s, setupId, { id: b.id }, 'good', actor, (w) => markGood(w, b.id, b.note));
}
