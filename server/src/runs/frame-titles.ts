import type * as z from 'zod';
import {
  evidenceOfRuns,
  evidenceOfStated,
  type FrameAsk,
  type FrameEvidence,
  type FrameTitle,
  pixelsOf,
  statedTitle,
} from '@ruddy/core/runs';
import type { framesAsked } from '@ruddy/core/runs/contract';
import { houseRules } from '../setups/rules';
import { frameTitleRows, evidenceMark } from './queries/frame-titles';
import { runsOfTitles } from './runs-read';
import { statedOfTitles } from './stated-figures';

/** Evidence by title as of the mark; reading and judging every run takes longer than asking whether there is a new one. */
let kept: { mark: string; byTitle: Map<string, readonly FrameEvidence[]> } = {
  mark: '',
  byTitle: new Map(),
};

async function evidenceByTitle(
  ids: readonly string[],
): Promise<ReadonlyMap<string, readonly FrameEvidence[]>> {
  const mark = `${await evidenceMark()} ${JSON.stringify(await houseRules())}`;
  if (mark !== kept.mark) kept = { mark, byTitle: new Map() };
  const { byTitle } = kept;
  const unread = ids.filter((id) => !byTitle.has(id));
  const runs = await runsOfTitles(unread);
  const stated = await statedOfTitles(unread);
  for (const id of unread) {
    const own = runs.filter((r) => r.titleId === id);
    const said = stated.filter((f) => f.titleId === id);
    byTitle.set(id, [...evidenceOfRuns(own).evidence, ...said.map(evidenceOfStated)]);
  }
  return byTitle;
}

/** What is known of the frames of titles: those with runs or start values, or those named. */
export async function frameTitles(ids: readonly string[] | null): Promise<FrameTitle[]> {
  const rows = await frameTitleRows(ids);
  const evidence = await evidenceByTitle(rows.map((r) => r.id));
  return rows.map(({ id, name, params }) => ({
    id,
    name,
    evidence: evidence.get(id) ?? [],
    stated: statedTitle(params),
  }));
}

/** Frames that are asked for, title by title and size by size. */
export async function frameAsks(f: z.output<typeof framesAsked>): Promise<FrameAsk[]> {
  const titles = await frameTitles(f.titleIds ?? null);
  const { panel, powerMode, preset, rayTracing, capFps } = f;
  return titles.flatMap((title) =>
    f.resolutions.map((resolution) => ({
      title,
      resolution,
      picture: {
        pixels: pixelsOf(resolution) ?? 1,
        panel,
        capFps,
        powerMode,
        preset,
        rayTracing,
      },
    })),
  );
}
