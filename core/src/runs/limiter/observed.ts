import { mean, middleOf } from '../../base';
import type { Sensor } from '../capture/types';
import { lookOf, type RunGroup, type RunSeen } from '../model/cells';
import { MS_PER_MB_GBPS, pictureMB } from '../model/model';
import type { MeasuredValue } from '../model/pairs';
import { middleRig } from '../model/rig';
import { roughnessOf } from '../model/simulate';
import { START } from '../model/start';
import type { TollRead } from '../model/toll';
import type { Observed } from './shares';

/** The mean of one sensor over the runs of a cell that have it; null where none has. */
export function sensorMean(c: Pick<RunGroup, 'runs'>, sensor: Sensor): number | null {
  const list = c.runs.flatMap((r) => r.sensors?.[sensor]?.mean ?? []);
  return list.length > 0 ? mean(list) : null;
}

/** Cells of the same title, look, rig and settings at other sizes, that nothing but the rig holds; smallest first. */
export function otherSizes(c: RunGroup, cells: readonly RunGroup[]): RunGroup[] {
  const { first } = c;
  const same = (o: RunSeen) =>
    o.setupId === first.setupId &&
    o.titleId === first.titleId &&
    o.rig.slot === first.rig.slot &&
    o.rig.card === first.rig.card &&
    o.settings.powerMode === first.settings.powerMode &&
    o.settings.deviceSet === first.settings.deviceSet &&
    lookOf(o.settings) === lookOf(first.settings);
  return cells
    .filter(
      (o) =>
        o.panel === c.panel && o.pixels !== c.pixels && !o.capped && !o.generated && same(o.first),
    )
    .sort((a, b) => a.pixels - b.pixels);
}

/** Without an interval a toll is taken to be this far off, as a share. */
const UNSURE = 0.15;

/**
 * A toll as the shares take it. Round trips that both sides of a pair make do not show in their difference: the usual number of them is
 * added, and how far it may be off widens what is known.
 */
function tollSeen(t: TollRead | null): Observed['toll'] {
  if (!t) return null;
  if (t.basis === 'interval') return { lo: t.lo ?? 0, hi: t.hi ?? t.mid };
  const fast = mean(t.pairs.map((p) => p.a.first.rig.latencyUs)) / 1000;
  const hidden = START.trips.mid * fast;
  // Half of a 95 % interval is 1.96 standard deviations; the band of trips is taken as four wide.
  const sd = t.lo === null || t.hi === null ? UNSURE * Math.abs(t.mid) : (t.hi - t.lo) / 2 / 1.96;
  return {
    mid: t.mid + hidden,
    sd: Math.hypot(sd, ((START.trips.hi - START.trips.lo) / 4) * fast),
  };
}

/** What the way back takes, ms: as a pair measured it, or at the usual share of the picture. 0 without a panel. */
function backMs(c: RunGroup, back: MeasuredValue | null): number {
  if (!c.panel) return 0;
  const rig = middleRig(c.first.rig);
  return (
    back?.mid ?? (rig ? (START.kappa.mid * pictureMB(c.pixels) * MS_PER_MB_GBPS) / rig.upGbps : 0)
  );
}

/** What was measured of a cell and around it, as far as it tells the stages apart. */
export function observedOf(
  c: RunGroup,
  cells: readonly RunGroup[],
  toll: TollRead | null,
  back: MeasuredValue | null,
): Observed {
  const stats = c.runs.find((r) => r.stats)?.stats ?? null;
  const load = sensorMean(c, 'card-load');
  const watts = sensorMean(c, 'card-w');
  const board = c.first.rig.boardW;
  return {
    ms: mean(c.ms),
    jitter: roughnessOf(stats, 1).jitter,
    sizes: otherSizes(c, cells).map((o) => ({ ratio: o.pixels / c.pixels, ms: mean(o.ms) })),
    // In a slot the link is hardly anything, and no pair is needed to say so.
    toll: c.first.rig.slot ? { lo: 0, hi: 0.1 * mean(c.ms) } : tollSeen(toll),
    backMs: backMs(c, back),
    load: load === null ? null : load / 100,
    watts: watts === null || board === null ? null : watts / middleOf(board),
  };
}
