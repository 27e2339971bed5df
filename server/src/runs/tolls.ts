import { RunModel } from './models/run';
import { cellsOf, pairsOf, type TollRead, tollsOf } from '@ruddy/core/runs';
import type { TollRow } from '@ruddy/core/runs/contract';
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

const toRow = (t: TollRead): TollRow => ({
  titleId: t.titleId,
  title: t.title,
  ms: t.mid,
  lo: t.lo,
  hi: t.hi,
  basis: t.basis,
  trafficMB: t.trafficMB,
  beyondTraffic: t.beyondTraffic,
  uneven: t.uneven,
  pairs: t.pairs.length,
});

/** What the link costs each title of these setups, from every pair that is known, whichever setup its other side is of. */
export async function tollRows(setupIds: readonly string[]): Promise<Map<string, TollRow[]>> {
  const runs = await runsOfTitles(await titlesOf(setupIds));
  const { pairs } = pairsOf(cellsOf(runs));
  return new Map(setupIds.map((id) => [id, tollsOf(pairs, id).map(toRow)]));
}

/** The toll that says most of a setup: a figure before an interval, more pairs before fewer. */
export function bestToll(rows: readonly TollRow[]): TollRow | null {
  const worth = (t: TollRow) => (t.basis === 'interval' ? 0 : 100) + t.pairs;
  return rows.reduce<TollRow | null>((a, b) => (a && worth(a) >= worth(b) ? a : b), null);
}
