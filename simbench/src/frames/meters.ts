import { chanceOf } from '../chance';
import type { Ask, MadeRun } from './queue';
import type { MadeRig } from './rig';

/** What meters beside a run show: with their own noise. */
export interface Meters {
  readonly 'card-load': number;
  readonly 'card-w': number;
  readonly 'card-mhz': number;
  readonly 'memory-mhz': number;
}

export function readMeters(rig: MadeRig, run: MadeRun, ask: Ask): Meters {
  const c = chanceOf(rig.seed * 31337 + ask.repeat * 17 + ask.width);
  const busy = Math.min(1, run.busyMs / run.totalMs);
  return {
    'card-load': Math.max(0, Math.min(100, 100 * busy + 2.5 * c.normal())),
    'card-w': rig.boardW * (0.25 + 0.75 * busy * run.clock ** 2) * rig.fullShare + 3 * c.normal(),
    'card-mhz': 2400 * run.clock + 4 * c.normal(),
    'memory-mhz': 1750 + 2 * c.normal(),
  };
}
