import type { BenchRun } from '../simulate';
import { classesOf } from './all';
import type { Entry } from './entry';

export type { Entry } from './entry';
export { writeTree } from './write';
export { treeFiles } from './files';

/**
 * What the running system of a bench shows below /sys, and the little of /proc that goes with it: folders of PCI functions with their
 * configuration space, the link's own list, USB-C ports, power, screens. Null while no system runs there to show anything.
 */
export function benchTree(run: BenchRun): readonly Entry[] | null {
  return run.state.host === 'on' ? classesOf(run.world) : null;
}
