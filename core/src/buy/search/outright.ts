import { type HouseRules, stated, toRange } from '../../base';
import { partName } from '../../chain';
import type { MachineSpec } from '../../parts';
import {
  type Banded,
  directRates,
  eightyBand,
  type FrameAsk,
  frameForecastOf,
  LATENCY_US,
  type RigFacts,
} from '../../runs';

export type MachineKind = 'laptop' | 'desktop';

/** Link of graphics inside a machine where it is unknown (common practice, no published source). */
const INSIDE = { gen: { lo: 3, hi: 5 }, lanes: { lo: 8, hi: 16 } } as const;

/**
 * Complete system as a rig of the frame model: its own processor and graphics, a direct link between them.
 *
 * @param spec the machine
 * @param house the workshop's rules
 * @returns the rig
 */
export function machineRig(spec: MachineSpec, house: HouseRules): RigFacts {
  const rates = directRates(
    toRange(spec.pcieGen, INSIDE.gen),
    toRange(spec.lanes, INSIDE.lanes),
    house,
  );
  return {
    host: partName(spec),
    card: partName(spec),
    hostIndex: stated(spec.singleThread),
    cardIndex: stated(spec.frameIndex),
    down: rates.down,
    up: rates.up,
    latencyUs: LATENCY_US.direct,
    memoryGB: stated(spec.memoryGB),
    boardW: null,
    memoryMHz: null,
    slot: false,
  };
}

/**
 * Predicted frame rate of a complete system.
 *
 * @param spec the machine
 * @param frames titles and resolutions asked for
 * @param house the workshop's rules
 * @returns frames/s with a band for each; null where the model has too little
 */
export function machineFps(
  spec: MachineSpec,
  frames: readonly FrameAsk[],
  house: HouseRules,
): (Banded | null)[] {
  const rig = machineRig(spec, house);
  return frames.map((f) => {
    // Its picture is on its own outputs.
    const found = frameForecastOf(rig, { ...f, picture: { ...f.picture, panel: false } }, true);
    return found && eightyBand(found.fps);
  });
}
