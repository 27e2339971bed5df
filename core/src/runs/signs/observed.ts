import { mean } from '../../base';
import type { Sensor } from '../capture/types';
import { lookOf, type RunGroup, type RunSeen } from '../comparison/groups';

/**
 * The mean of one sensor over the runs of a group that have it.
 * @param c the group
 * @param sensor which
 * @returns in the unit of the sensor; null where no run has it
 */
export function sensorMean(c: Pick<RunGroup, 'runs'>, sensor: Sensor): number | null {
  const list = c.runs.flatMap((r) => r.sensors?.[sensor]?.mean ?? []);
  return list.length > 0 ? mean(list) : null;
}

/**
 * Groups of the same title, look, rig and settings at other sizes, that nothing but the rig holds.
 * @param c the group
 * @param groups every group that is known; not modified
 * @returns groups, smallest size first
 */
export function otherSizes(c: RunGroup, groups: readonly RunGroup[]): RunGroup[] {
  const { first } = c;
  const same = (o: RunSeen) =>
    o.setupId === first.setupId &&
    o.titleId === first.titleId &&
    o.rig.slot === first.rig.slot &&
    o.rig.card === first.rig.card &&
    o.settings.powerMode === first.settings.powerMode &&
    o.settings.deviceSet === first.settings.deviceSet &&
    lookOf(o.settings) === lookOf(first.settings);
  return groups
    .filter(
      (o) =>
        o.panel === c.panel &&
        o.pixels !== c.pixels &&
        o.capFps === null &&
        !o.generated &&
        same(o.first),
    )
    .sort((a, b) => a.pixels - b.pixels);
}
