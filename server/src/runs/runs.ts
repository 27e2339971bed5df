import { exists } from '../platform/db/rows';
import { EventModel } from '../setups/models/event';
import { CaptureModel } from './models/capture';
import { ProfileModel } from './models/profile';
import { RunModel } from './models/run';
import { RunChannelModel } from './models/run-channel';
import { inTransaction } from '../platform/db/transaction';
import type * as z from 'zod';
import type { Origin } from '@ruddy/core/base/contract';
import type { Chain } from '@ruddy/core/chain';
import type { ChannelBody, runBody, RunEntry, saidBody } from '@ruddy/core/runs/contract';
import { HttpProblem, invalid, notFound, refuseFuture } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { chainOf } from '../setups/chain';
import { addEvent } from '../setups/events';
import { figure } from './run-figures';
import { foldedRun, listRuns } from './runs-read';
import { settleForecast } from './settled-forecasts';
import { readSetup } from '../setups/setup-store';

export type RunInput = z.output<typeof runBody>;
interface Made {
  origin: Origin;
  at: Date;
  happenedAt: Date;
  by: string;
}

async function addChannels(runId: string, list: readonly ChannelBody[], place: string) {
  for (const [i, c] of list.entries()) {
    const known = await CaptureModel.findByPk(c.sha256, { attributes: ['n'] });
    if (!known) throw invalid(`${place}channels/${i}/sha256`, 'These values have not been sent');
    if (known.n !== c.n) throw invalid(`${place}channels/${i}/n`, `${known.n} values were sent`);
    const { channel, t0Ms, dtMs, n, sha256 } = c;
    await RunChannelModel.upsert({ runId, channel, t0Ms, dtMs, n, sha256 });
  }
}

/** The row of a run: what was set, what came out, and the chain as it was. */
async function insertRun({
  setupId,
  run,
  chain,
  made,
}: {
  setupId: string;
  run: RunInput;
  chain: Chain;
  made: Made;
}): Promise<void> {
  const { source, saw } = run;
  const own = { ...(saw !== '' && { saw }), ...(source && { source }) };
  await RunModel.create({
    id: run.id,
    origin: made.origin,
    createdAt: made.at,
    createdBy: made.by,
    setupId,
    titleId: run.titleId,
    kind: run.kind,
    happenedAt: made.happenedAt,
    recordedAt: made.at,
    chain,
    settings: run.settings,
    context: run.context,
    result: run.result,
    reason: run.reason,
    cutS: run.cutS,
    segments: run.segments,
    program: source?.program ?? '',
    private: Object.keys(own).length > 0 ? own : null,
  });
}

/** Store a run with the chain as it was: a fact of its setup's record. The same id twice is answered, not doubled. */
export async function storeRun(
  setupId: string,
  run: RunInput,
  chain: Chain,
  made: Made,
  place = '',
): Promise<'stored' | 'same'> {
  const twin = await RunModel.findByPk(run.id);
  if (twin) {
    if (twin.setupId === setupId) return 'same';
    throw new HttpProblem(409, 'Another run has this id');
  }
  const title = await ProfileModel.findByPk(run.titleId);
  if (!title) throw invalid(`${place}titleId`, 'No title has this id');
  await addEvent({
    id: run.id,
    setupId,
    kind: 'run',
    body: { title: title.name, kind: run.kind, result: run.result, reason: run.reason },
    happenedAt: made.happenedAt,
    recordedAt: made.at,
    origin: made.origin,
    by: made.by,
  });
  await insertRun({ setupId, run, chain, made });
  await addChannels(run.id, run.channels, place);
  await figure({
    id: run.id,
    cutS: run.cutS,
    segments: run.segments,
    setFps: run.settings.capFps,
  });
  return 'stored';
}

/** Stores a run of a setup's present chain. */
export async function addRun(
  s: Services,
  setupId: string,
  run: RunInput,
  actor: Actor,
): Promise<{ entry: RunEntry; fresh: boolean }> {
  const at = s.now();
  const happenedAt = run.happenedAt ? new Date(run.happenedAt) : at;
  refuseFuture('happenedAt', happenedAt.toISOString().slice(0, 10), at);
  const fate = await inTransaction(async () => {
    const { rows, row } = await readSetup(setupId, true);
    const chain = chainOf(rows, row.details);
    return storeRun(setupId, run, chain, { origin: 'own', at, happenedAt, by: actor.id });
  });
  const entry = await oneRun(run.id);
  if (fate === 'stored') await settleForecast(s, entry);
  return { entry, fresh: fate === 'stored' };
}

export async function oneRun(id: string): Promise<RunEntry> {
  const [entry] = (await listRuns({ ids: [id], limit: 1 })).items;
  if (!entry) throw notFound('run');
  return entry;
}

/** What is said of a run later: another fact of its setup. Figures that hang on it are made anew. */
export async function sayOfRun(
  s: Services,
  runId: string,
  body: z.output<typeof saidBody>,
  actor: Actor,
): Promise<RunEntry> {
  const { id, saw, channels, ...said } = body;
  await inTransaction(async () => {
    const run = await foldedRun(runId);
    if (await exists(EventModel, id)) return;
    if (said.titleId !== undefined && !(await exists(ProfileModel, said.titleId)))
      throw invalid('titleId', 'No title has this id');
    if (channels) {
      const frames = channels.findIndex((c) => c.channel === 'frames' || c.channel === 'shown');
      if (frames >= 0)
        throw invalid(
          `channels/${frames}/channel`,
          'Frames of a run are never replaced; store another run',
        );
      await addChannels(runId, channels, '');
    }
    await addEvent({
      id,
      setupId: run.setupId,
      kind: 'run-said',
      body: { run: runId, ...said },
      happenedAt: s.now(),
      recordedAt: s.now(),
      origin: 'own',
      by: actor.id,
      private: saw === undefined ? null : { saw },
    });
    const moves = [channels, said.starts, said.cutS, said.segments, said.settings?.capFps];
    if (moves.some((m) => m !== undefined)) await refigure(runId);
  });
  return oneRun(runId);
}

/** Make the figures of a run anew from what was said of it last. */
export async function refigure(runId: string): Promise<void> {
  const run = await foldedRun(runId);
  await figure({
    id: runId,
    cutS: run.cutS,
    segments: run.segments,
    setFps: run.settings.capFps,
  });
}
