import type { SimulatedBench } from '../simulated-bench';
import { dmiEntries, drmEntries, powerEntries, typecEntries } from './classes';
import { value, type Entry } from './entry';
import { hostNodes } from './host';
import { place } from './node';
import { pciEntries } from './pci';
import { thunderboltEntries } from './thunderbolt';

/** Every entry of the tree, in the order in which it is built. */
export function classesOf(w: SimulatedBench): Entry[] {
  const placed = place(hostNodes(w));
  const drivers = [...new Set(placed.flatMap((p) => (p.node.driver ? [p.node.driver] : [])))];
  return [
    ...placed.flatMap(pciEntries),
    ...drivers.map((d) => value(`sys/bus/pci/drivers/${d}/uevent`, '')),
    ...thunderboltEntries(w, placed),
    ...typecEntries(w),
    ...powerEntries(w),
    ...drmEntries(w),
    ...dmiEntries(w),
    ...(w.driverIn && w.chain.installed.driver
      ? [value('sys/module/benchgfx/version', w.chain.installed.driver)]
      : []),
  ];
}
