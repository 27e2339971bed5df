import * as z from 'zod';
import { numAttr } from './meta';
import { named } from './meta-common';

/** A whole machine that could be bought instead of a set: with graphics of its own. */
const shape = {
  ...named,
  singleThread: numAttr('Single-thread index', '', 1, 10_000, {
    help: 'How fast one thread runs beside a reference processor of 100, by the same test as hosts.',
  }),
  frameIndex: numAttr('Frame index', '', 1, 10_000, {
    help: 'How fast its graphics draw beside a reference card of 100, by the same test as cards, at the watts this machine allows.',
  }),
  memoryGB: numAttr('Graphics memory', 'GB', 1, 256),
  pcieGen: numAttr('PCIe generation of its graphics', '', 1, 5, { whole: true }),
  lanes: numAttr('PCIe lanes of its graphics', '', 1, 16, { whole: true }),
  drawW: numAttr('Draws under load', 'W', 10, 1500),
  noiseDb: numAttr('Noise under load', 'dB(A)', 10, 80),
};
export const laptopSchema = z.strictObject({
  ...shape,
  weightG: numAttr('Weight with its charger', 'g', 300, 10_000),
  panelHz: numAttr('Panel refresh rate', 'Hz', 24, 500),
});
export const desktopSchema = z.strictObject({ ...shape, volumeL: numAttr('Volume', 'l', 1, 200) });
export type LaptopSpec = z.infer<typeof laptopSchema>;
export type DesktopSpec = z.infer<typeof desktopSchema>;
export type MachineSpec = LaptopSpec | DesktopSpec;
