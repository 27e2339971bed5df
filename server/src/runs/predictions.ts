import { SetupModel } from '../setups/models/setup';
import { ProfileFitModel } from './models/profile-fit';
import { mean } from '@ruddy/core/base';
import {
  cellsOf,
  type Fit,
  forecast,
  lookOf,
  type RunGroup,
  scoreOf,
  type TitleModel,
  type TitleParams,
} from '@ruddy/core/runs';
import type { PredictionRow, Predictions, RunEntry } from '@ruddy/core/runs/contract';
import { runsOfTitles } from './runs-read';

interface Dated {
  titleId: string;
  madeAt: Date;
  fit: Fit;
}

/** The calibration that stood before the first of these runs was recorded; none may know any of them. */
function before(
  fits: readonly Dated[],
  c: RunGroup,
  recorded: ReadonlyMap<string, number>,
): Dated | null {
  const first = Math.min(...c.runs.map((r) => recorded.get(r.id) ?? Infinity));
  return fits.find((f) => f.titleId === c.first.titleId && f.madeAt.getTime() < first) ?? null;
}

function rowOf(
  c: RunGroup,
  f: Dated,
  title: { name: string; params: TitleParams | null },
  names: ReadonlyMap<string, string>,
): PredictionRow | null {
  const { settings, rig, titleId, setupId } = c.first;
  const model: TitleModel = { id: titleId, name: title.name, params: null, fit: f.fit };
  const found = forecast(model, rig, {
    pixels: c.pixels,
    panel: c.panel,
    capFps: settings.capFps || null,
    powerMode: settings.powerMode,
    preset: settings.preset,
    rayTracing: settings.rayTracing === 'on',
    look: lookOf(settings),
  });
  if ('missing' in found) return null;
  return {
    runIds: c.runs.map((r) => r.id),
    setupId,
    setupName: names.get(setupId) ?? '',
    title: title.name,
    resolution: settings.resolution,
    panel: c.panel,
    at: c.first.happenedAt,
    fitMadeAt: f.madeAt.toISOString(),
    predicted: found.fps,
    measured: 1000 / mean(c.ms),
  };
}

/** Is this setup one of the demo? Its score may count the runs that came with it; no other may. */
async function isDemo(setupId: string | null): Promise<boolean> {
  if (setupId === null) return false;
  return (await SetupModel.findByPk(setupId))?.origin === 'demo';
}

/**
 * Runs against what was predicted of them from the calibration there was before they were recorded, newest first, with the running score
 * over all of them. Runs of the demo were made by a model of its own kind: they count in the score of a demo setup only. Repeats count as one; what a limit held or what was generated says nothing of a prediction.
 */
export async function predictionsOf(setupId: string | null): Promise<Predictions> {
  const stored = await ProfileFitModel.findAll({
    where: { fit: { refused: null } },
    order: [
      ['madeAt', 'DESC'],
      ['id', 'DESC'],
    ],
    limit: 500,
  });
  const fits = stored.map(({ profileId: titleId, madeAt, fit }): Dated => ({
    titleId,
    madeAt,
    fit,
  }));
  const runs: RunEntry[] = await runsOfTitles([...new Set(fits.map((f) => f.titleId))]);
  const recorded = new Map(runs.map((r) => [r.id, Date.parse(r.recordedAt)]));
  const names = new Map(runs.map((r) => [r.setupId, r.setupName]));
  const demo = new Set(runs.filter((r) => r.origin === 'demo').map((r) => r.id));
  const all = await isDemo(setupId);
  const rows = cellsOf(runs).flatMap((c) => {
    if (c.capped || c.generated || c.first.rig.slot) return [];
    const f = before(fits, c, recorded);
    return (f && rowOf(c, f, { name: c.first.title, params: null }, names)) ?? [];
  });
  const counts = rows.filter((r) => all || !r.runIds.some((id) => demo.has(id)));
  const score = scoreOf(counts.map((r) => ({ predicted: r.predicted, measured: r.measured })));
  const own = rows.filter((r) => setupId === null || r.setupId === setupId);
  return { items: own.sort((a, b) => b.at.localeCompare(a.at)), score };
}
