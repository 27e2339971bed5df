import { createOnce, exists } from '../platform/db/rows';
import { ProfileModel } from './models/profile';
import { ProfileFitModel } from './models/profile-fit';
import { titleModels } from './queries/title-models';
import type * as z from 'zod';
import type { Origin } from '@ruddy/core/base/contract';
import type { FrameAsk } from '@ruddy/core/plan';
import { calibrate, cellsOf, type Fit, pixelsOf } from '@ruddy/core/runs';
import type { fitBody, FitEntry, framesAsked } from '@ruddy/core/runs/contract';
import { HttpProblem, notFound } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { runsOfTitles } from './runs-read';

const toEntry = (f: ProfileFitModel): FitEntry => ({
  id: f.id,
  titleId: f.profileId,
  madeAt: f.madeAt.toISOString(),
  fit: f.fit,
});

/** Calibrations of a title, newest first. */
export async function listFits(titleId: string): Promise<FitEntry[]> {
  const rows = await ProfileFitModel.findAll({
    where: { profileId: titleId },
    order: [
      ['madeAt', 'DESC'],
      ['id', 'DESC'],
    ],
    limit: 50,
  });
  return rows.map(toEntry);
}

interface Made {
  origin: Origin;
  at: Date;
  by: string;
}

/** Keep a calibration as it was made. The same id twice changes nothing. */
export async function storeFit(
  f: { id: string; titleId: string; madeAt: Date; fit: Fit },
  made: Made,
): Promise<'stored' | 'same'> {
  const isNew = await createOnce(ProfileFitModel, {
    id: f.id,
    origin: made.origin,
    createdAt: made.at,
    createdBy: made.by,
    profileId: f.titleId,
    madeAt: f.madeAt,
    fit: f.fit,
  });
  return isNew ? 'stored' : 'same';
}

/**
 * Calibrate a title from its runs. `before`: only runs recorded earlier count, and the calibration is dated then: what would have been
 * predicted is told from what was fitted afterwards.
 */
export async function makeFit(
  s: Services,
  titleId: string,
  body: z.output<typeof fitBody>,
  actor: Actor,
): Promise<FitEntry> {
  if (!(await exists(ProfileModel, titleId))) throw notFound('title');
  const madeAt = body.before ? new Date(body.before) : s.now();
  const runs = await runsOfTitles([titleId]);
  const fit = calibrate(cellsOf(runs.filter((r) => Date.parse(r.recordedAt) <= madeAt.getTime())));
  if (!fit)
    throw new HttpProblem(422, 'No run of this title tells of frames', {
      detail: 'A run needs frame times or frames/s, and its resolution.',
    });
  await storeFit(
    { id: body.id, titleId, madeAt, fit },
    { origin: 'own', at: s.now(), by: actor.id },
  );
  return { id: body.id, titleId, madeAt: madeAt.toISOString(), fit };
}

/** Frames that are asked for, title by title and size by size. */
export async function frameAsks(f: z.output<typeof framesAsked>): Promise<FrameAsk[]> {
  const models = await titleModels(f.titleIds ?? null);
  const { panel, powerMode, preset, rayTracing, capFps } = f;
  return models.flatMap((model) =>
    f.resolutions.map((resolution) => ({
      model,
      resolution,
      asked: {
        pixels: pixelsOf(resolution) ?? 1,
        panel,
        capFps,
        powerMode,
        preset,
        rayTracing,
        look: null,
      },
    })),
  );
}
