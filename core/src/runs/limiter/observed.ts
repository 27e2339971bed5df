import { mean } from '../../base';
import type { Sensor } from '../capture/types';
import { lookOf, type RunGroup, type RunSeen } from '../model/cells';

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
