import type { PciDevice, Report } from '../schema/report';

/** Why a text could not be read, with the figures a person needs to fix it. */
export type ReadProblem =
  | { readonly code: 'empty' }
  | { readonly code: 'too-big'; readonly chars: number; readonly most: number }
  | { readonly code: 'binary'; readonly at: number }
  | { readonly code: 'no-devices'; readonly firstLine: string }
  | { readonly code: 'too-many'; readonly devices: number; readonly most: number }
  | { readonly code: 'bad-json'; readonly why: string }
  | { readonly code: 'bad-report'; readonly path: string; readonly why: string };

export type ReadResult =
  | { readonly ok: true; readonly report: Report }
  | { readonly ok: false; readonly problem: ReadProblem };

/**
 * Generation of a rate of one lane: 2.5, 5, 8, 16, 32, 64 GT/s are 1 to 6. Source: PCI Express Base Specification.
 *
 * @param gts rate of one lane, GT/s
 * @returns generation, 1 to 6; null for other rates and for none
 * @example genOf(16) // => 4
 */
export function genOf(gts: number | null | undefined): number | null {
  const at = [2.5, 5, 8, 16, 32, 64].indexOf(gts ?? -1);
  return at < 0 ? null : at + 1;
}

/**
 * Device without any known field.
 *
 * @param address bus address, such as `0000:04:00.0`
 * @returns the device, every field empty
 */
export function blankDevice(address: string): PciDevice {
  return {
    address,
    classCode: null,
    what: '',
    name: '',
    vendor: null,
    device: null,
    port: null,
    bus: null,
    cap: null,
    now: null,
    topGts: null,
    hotplug: null,
    active: null,
    present: null,
    driver: null,
    driverVersion: null,
    parent: null,
    assigned: null,
    asleep: false,
    errors: null,
    window: null,
    corrected: [],
    state: 'ok',
  };
}
