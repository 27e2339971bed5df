import { select } from '../platform/db/database';
import type * as z from 'zod';
import type { Origin } from '@ruddy/core/base/contract';
import type { FrameAsk } from '@ruddy/core/plan';
import { calibrate, cellsOf, type Fit, pixelsOf, type TitleModel } from '@ruddy/core/runs';
import type { fitBody, FitEntry, framesAsked } from '@ruddy/core/runs/contract';
import { HttpProblem, notFound } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { runsOfTitles } from './runs-read';

interface FitRow {
  id: string;
  titleId: string;
  madeAt: Date;
  fit: Fit;
}
const toEntry = (r: FitRow): FitEntry => ({ ...r, madeAt: r.madeAt.toISOString() });

/** Calibrations of a title, newest first. */
export async function listFits(titleId: string): Promise<FitEntry[]> {
  const rows = await select<FitRow>(
    'SELECT id, profile_id AS "titleId", made_at AS "madeAt", fit FROM profile_fits WHERE profile_id = $1 ORDER BY made_at DESC, id DESC LIMIT 50',
    [titleId],
  );
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
  const fresh = await select(
    `INSERT INTO profile_fits (id, origin, created_at, created_by, profile_id, made_at, fit) VALUES ($1, $2, $3, $4, $5, $6, $7)
     ON CONFLICT (id) DO NOTHING RETURNING id`,
    [f.id, made.origin, made.at, made.by, f.titleId, f.madeAt, JSON.stringify(f.fit)],
  );
  return fresh.length > 0 ? 'stored' : 'same';
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
  const [title] = await select('SELECT 1 FROM profiles WHERE id = $1', [titleId]);
  if (!title) throw notFound('title');
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

/** What is known of titles: stated start values and the newest calibration that is in use. All of them, or those named. */
export async function titleModels(ids: readonly string[] | null): Promise<TitleModel[]> {
  return select<TitleModel>(
    `SELECT p.id, p.name, p.params, (SELECT f.fit FROM profile_fits f WHERE f.profile_id = p.id AND f.fit ->> 'refused' IS NULL
       ORDER BY f.made_at DESC, f.id DESC LIMIT 1) AS fit
     FROM profiles p WHERE (p.kind <> 'work' OR $1::uuid[] IS NOT NULL) AND ($1::uuid[] IS NULL OR p.id = ANY ($1))
       AND ($1::uuid[] IS NOT NULL OR p.params IS NOT NULL OR EXISTS (SELECT 1 FROM profile_fits f WHERE f.profile_id = p.id AND f.fit ->> 'refused' IS NULL))
     ORDER BY (SELECT count(*) FROM runs r WHERE r.title_id = p.id) DESC, lower(p.name) LIMIT 64`,
    [ids ? [...ids] : null],
  );
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
