import {
  cellOfRun,
  classifyRuns,
  evidenceOfRuns,
  evidenceOfStated,
  FRAME_MODEL_VERSION,
  type FrameTitle,
  meanMsOf,
  missingFor,
  pixelsOf,
  type RunClass,
  scoreForecasts,
  statedTitle,
} from '@ruddy/core/runs';
import type {
  KeptForecast,
  RunEntry,
  SettledForecasts,
  SettledRow,
} from '@ruddy/core/runs/contract';
import type { Services } from '../platform/http/route';
import { createOnce } from '../platform/db/rows';
import { inFrameThread } from './frame-work';
import { RunForecastModel } from './models/run-forecast';
import { frameTitleRows } from './queries/frame-titles';
import { runsByIds, runsOfTitles } from './runs-read';
import { statedOfTitles } from './stated-figures';

/** Says a run anything of a forecast? Not one that a limit held, that was generated, that was made in a slot, or that does not count. */
function settles(r: RunEntry, its: RunClass | undefined): boolean {
  return (
    its !== undefined &&
    meanMsOf(r) !== null &&
    pixelsOf(r.settings.resolution) !== null &&
    its.capFps === null &&
    !its.generated &&
    !its.slot &&
    its.counts
  );
}

/** What was known of the title of a run before it was stored, by its earlier runs. */
async function knownBefore(
  run: RunEntry,
  earlier: readonly RunEntry[],
): Promise<FrameTitle | null> {
  const [title] = await frameTitleRows([run.titleId]);
  if (!title) return null;
  const figures = (await statedOfTitles([run.titleId])).filter((f) => f.at <= run.recordedAt);
  const { id, name, params } = title;
  const evidence = [...evidenceOfRuns(earlier).evidence, ...figures.map(evidenceOfStated)];
  return { id, name, evidence, stated: statedTitle(params) };
}

/** The forecast of a run from what was known before it; null where it says nothing of one, or too little was known. */
async function forecastBefore(s: Services, run: RunEntry): Promise<KeptForecast | null> {
  const earlier = (await runsOfTitles([run.titleId])).filter(
    (r) => r.id !== run.id && r.titleId === run.titleId && r.recordedAt <= run.recordedAt,
  );
  if (!settles(run, classifyRuns([...earlier, run]).get(run.id))) return null;
  const title = await knownBefore(run, earlier);
  const cell = cellOfRun(run, null);
  if (!title || missingFor(cell, title).length > 0) return null;
  const known = { ...title, titleId: title.id, refined: false };
  const { basis, fps } = await inFrameThread(s, 'forecast', { known, cell });
  // A repeat is no test of a forecast.
  if (basis === 'measured') return null;
  const evidence = title.evidence.length;
  return { madeAt: s.now().toISOString(), model: FRAME_MODEL_VERSION, evidence, basis, fps };
}

/** Keeps a forecast with its run. The same run twice changes nothing. */
export async function keepForecast(runId: string, f: KeptForecast): Promise<void> {
  const { madeAt, model, evidence, basis, fps } = f;
  await createOnce(RunForecastModel, {
    runId,
    madeAt: new Date(madeAt),
    model,
    evidence,
    basis,
    fps,
  });
}

/** Forecasts a run that was just stored from what was known before, and keeps that. A failure is reported; the run stands. */
export async function settleForecast(s: Services, run: RunEntry): Promise<void> {
  try {
    const found = await forecastBefore(s, run);
    if (found) await keepForecast(run.id, found);
  } catch (e) {
    s.unexpected?.(e);
  }
}

function rowOf(run: RunEntry, f: RunForecastModel, its: RunClass | undefined): SettledRow | null {
  const ms = meanMsOf(run);
  if (ms === null || !settles(run, its)) return null;
  const { model, evidence, basis, fps } = f;
  return {
    runId: run.id,
    setupId: run.setupId,
    setupName: run.setupName,
    titleId: run.titleId,
    title: run.title,
    resolution: run.settings.resolution,
    panel: run.settings.screenPath === 'panel',
    at: run.happenedAt,
    measured: 1000 / ms,
    madeAt: f.madeAt.toISOString(),
    model,
    evidence,
    basis,
    fps,
  };
}

/**
 * Runs against the forecasts that were made of them before they were known, newest first, with their score. Only runs of one's own are
 * forecast; those of the demo were made by a program.
 */
export async function settledForecasts(asked: {
  setupId?: string | undefined;
  titleId?: string | undefined;
}): Promise<SettledForecasts> {
  const kept = await RunForecastModel.findAll({
    order: [['madeAt', 'DESC'], 'runId'],
    limit: 2000,
  });
  const byRun = new Map(kept.map((f) => [f.runId, f]));
  const runs = await runsByIds([...byRun.keys()]);
  const classes = classifyRuns(await runsOfTitles([...new Set(runs.map((r) => r.titleId))]));
  const rows = runs
    .flatMap((run) => rowOf(run, byRun.get(run.id) as RunForecastModel, classes.get(run.id)) ?? [])
    .filter((r) => asked.titleId === undefined || r.titleId === asked.titleId);
  const items = rows
    .filter((r) => asked.setupId === undefined || r.setupId === asked.setupId)
    .sort((a, b) => b.at.localeCompare(a.at));
  return { items, score: scoreForecasts(rows), titles: titleScores(rows) };
}

/** How well the forecasts of each title held, by name. */
function titleScores(rows: readonly SettledRow[]): SettledForecasts['titles'] {
  const names = new Map(rows.map((r) => [r.titleId, r.title]));
  return [...names]
    .map(([titleId, title]) => ({
      titleId,
      title,
      score: scoreForecasts(rows.filter((r) => r.titleId === titleId)),
    }))
    .sort((a, b) => a.title.localeCompare(b.title));
}
