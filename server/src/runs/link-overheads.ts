import { cellOfRun, eightyBand, type FrameTitle, meanMsOf, pixelsOf } from '@ruddy/core/runs';
import type { LinkOverheadRow, RunEntry } from '@ruddy/core/runs/contract';
import type { Services } from '../platform/http/route';
import { RunModel } from './models/run';
import { frameTitles } from './frame-titles';
import { inFrameThread } from './frame-work';
import { runsOfTitles } from './runs-read';

/** Titles that were run on these setups. */
async function titlesOf(setupIds: readonly string[]): Promise<string[]> {
  const rows = await RunModel.findAll({
    where: { setupId: [...setupIds] },
    attributes: ['titleId'],
    group: 'titleId',
  });
  return rows.map((r) => r.titleId);
}

/** Runs of the outside card over the link, with frames and a size. */
const crosses = (r: RunEntry) =>
  !r.rig.slot &&
  r.settings.deviceSet !== 'inside' &&
  r.rig.card !== '' &&
  meanMsOf(r) !== null &&
  pixelsOf(r.settings.resolution) !== null;

/** The newest run of the title that was run most on a setup; of equals the first by name. */
function tellingRun(runs: readonly RunEntry[]): RunEntry | null {
  const byTitle = new Map<string, RunEntry[]>();
  for (const r of runs) byTitle.set(r.titleId, [...(byTitle.get(r.titleId) ?? []), r]);
  const [most] = [...byTitle.values()].sort(
    (a, b) => b.length - a.length || (a[0]?.title ?? '').localeCompare(b[0]?.title ?? ''),
  );
  return most?.at(-1) ?? null;
}

/** What the link of each setup costs a frame of the title that was run most on it; setups without such runs are left out. */
export async function linkOverheads(
  s: Services,
  setupIds: readonly string[],
): Promise<LinkOverheadRow[]> {
  const titleIds = await titlesOf(setupIds);
  const runs = (await runsOfTitles(titleIds)).filter(crosses);
  const titles = new Map<string, FrameTitle>((await frameTitles(titleIds)).map((t) => [t.id, t]));
  const asked = setupIds.flatMap((setupId) => {
    const run = tellingRun(runs.filter((r) => r.setupId === setupId));
    const title = run && titles.get(run.titleId);
    return title ? [{ setupId, run, title }] : [];
  });
  const found = await inFrameThread(
    s,
    'overheads',
    asked.map(({ run, title }) => ({
      known: { ...title, titleId: title.id, refined: false },
      cell: cellOfRun(run, null),
    })),
  );
  return asked.flatMap(({ setupId, run, title }, i) => {
    const overhead = found[i];
    if (!overhead) return [];
    const { resolution } = run.settings;
    const share = overhead.share.mid;
    return [
      {
        setupId,
        titleId: title.id,
        title: title.name,
        resolution,
        ms: eightyBand(overhead.ms),
        share,
      },
    ];
  });
}
