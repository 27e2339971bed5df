import * as z from 'zod';

const hex4 = z.string().regex(/^[0-9a-f]{4}$/, { error: 'four hexadecimal digits' });
const short = (max: number) => z.string().max(max);
const link = z
  .object({ gts: z.number().min(0).max(128).nullable(), lanes: z.number().int().min(0).max(32) })
  .nullable();

const address = z.string().regex(/^[0-9a-f]{4,8}:[0-9a-f]{2}:[0-9a-f]{2}\.[0-7]$/, {
  error: 'an address like 0000:3a:00.0',
});
const tally = z.number().int().min(0).max(1e12);

/**
 * One PCI function as a system shows it: what it is, where it sits, and what its link can do and does. Serial numbers, MAC addresses
 * and names of hosts or people have no place in it, so that reading a report drops them.
 */
export const pciDeviceSchema = z.object({
  address,
  /**
   * Address of the bridge above by the device's real path, where the report has paths; otherwise bus numbers decide.
   */
  parent: address.nullable().default(null),
  classCode: hex4.nullable().default(null),
  what: short(120).default(''),
  name: short(200).default(''),
  vendor: hex4.nullable().default(null),
  device: hex4.nullable().default(null),
  port: z.enum(['root', 'upstream', 'downstream', 'endpoint', 'bridge']).nullable().default(null),
  /** Buses behind a bridge. */
  bus: z
    .object({
      secondary: z.number().int().min(0).max(255),
      subordinate: z.number().int().min(0).max(255),
    })
    .nullable()
    .default(null),
  /** What the link can do at most, GT/s a lane and lanes. */
  cap: link.default(null),
  /** What the link does now; a rate of null is shown as unknown. */
  now: link.default(null),
  /** Highest supported rate, GT/s, where it is listed. */
  topGts: z.number().min(0).max(128).nullable().default(null),
  hotplug: z.boolean().nullable().default(null),
  /** Data link up, where the port tells. */
  active: z.boolean().nullable().default(null),
  /** Something stands in the slot of this port, where the port tells. */
  present: z.boolean().nullable().default(null),
  driver: short(64).nullable().default(null),
  driverVersion: short(60).nullable().default(null),
  /** Its memory regions got room; null where that was not read. */
  assigned: z.boolean().nullable().default(null),
  /** Its power is off for the moment. */
  asleep: z.boolean().default(false),
  /** Errors counted since the start of the system. */
  errors: z.object({ corrected: tally, nonfatal: tally, fatal: tally }).nullable().default(null),
  /** Memory window of a card that can be resized, MB: now and at most. */
  window: z.object({ nowMB: z.number(), mostMB: z.number() }).nullable().default(null),
  /** Corrected errors that are flagged. */
  corrected: z.array(short(24)).max(32).default([]),
  /** `denied`: read without rights. `gone`: it answers with all ones, so it fell off the bus. */
  state: z.enum(['ok', 'denied', 'gone']).default('ok'),
});

/** One Thunderbolt or USB4 router as the kernel's own list shows it. Its unique id is not read. */
export const routerSchema = z.object({
  route: z.string().regex(/^[0-9a-f]+-[0-9a-f]+$/, { error: 'a route like 0-1' }),
  generation: z.number().int().min(1).max(9).nullable().default(null),
  rxGbps: z.number().min(0).max(200).nullable().default(null),
  txGbps: z.number().min(0).max(200).nullable().default(null),
  rxLanes: z.number().int().min(0).max(8).nullable().default(null),
  txLanes: z.number().int().min(0).max(8).nullable().default(null),
  authorized: z.number().int().min(0).max(2).nullable().default(null),
  nvm: short(60).nullable().default(null),
  name: short(120).default(''),
});

/** A host's own link controller, below the PCI function that drives it. */
export const domainSchema = z.object({
  id: z.number().int().min(0).max(255),
  controller: address.nullable().default(null),
  generation: z.number().int().min(1).max(9).nullable().default(null),
  nvm: short(60).nullable().default(null),
});

/** A USB4 port of a router: whether a link stands there, and which USB-C plug of the case it is. */
export const usb4PortSchema = z.object({
  domain: z.number().int().min(0).max(255),
  port: z.number().int().min(0).max(255),
  link: z.enum(['none', 'usb4', 'tbt', 'xdomain']).nullable().default(null),
  plug: z.number().int().min(0).max(255).nullable().default(null),
});

/** A USB-C plug of the case. */
export const plugSchema = z.object({
  index: z.number().int().min(0).max(255),
  /** A device is connected at the other end. */
  partner: z.boolean(),
  cable: z.enum(['passive', 'active']).nullable().default(null),
});

export const SECURITY_LEVELS = ['none', 'user', 'secure', 'dponly', 'usbonly', 'nopcie'] as const;

/** What was read of one machine: the open format of probe and pasted text alike. */
export const reportSchema = z.object({
  format: z.literal('ruddy-bridge/report', { error: 'format: must be "ruddy-bridge/report"' }),
  version: z.literal(1, { error: 'version: this program reads version 1' }),
  source: z.enum(['lspci', 'probe']).default('probe'),
  devices: z.array(pciDeviceSchema).max(2000, { error: 'devices: at most 2000' }),
  routers: z.array(routerSchema).max(64, { error: 'routers: at most 64' }).default([]),
  security: z.enum(SECURITY_LEVELS).nullable().default(null),
  domains: z.array(domainSchema).max(16).default([]),
  ports: z.array(usb4PortSchema).max(64).default([]),
  plugs: z.array(plugSchema).max(32).default([]),
  /** What the machine says it is. Names of models, never of the one machine. */
  machine: z
    .object({
      maker: short(60),
      model: short(60),
      variant: short(60),
      chassis: z.number().int().min(0).max(255).nullable(),
      firmware: short(60),
    })
    .nullable()
    .default(null),
  kernel: short(120).nullable().default(null),
  power: z
    .object({
      mains: z.boolean().nullable(),
      percent: z.number().min(0).max(100).nullable(),
      state: short(40),
    })
    .nullable()
    .default(null),
  /** Connectors of graphics, and whether a screen answers there. */
  screens: z
    .array(z.object({ name: short(60), connected: z.boolean(), mode: short(40) }))
    .max(64)
    .default([]),
  /** What could not be read, in words. */
  missing: z.array(short(200)).max(50).default([]),
});

export type PciDevice = z.infer<typeof pciDeviceSchema>;
export type RouterReport = z.infer<typeof routerSchema>;
export type Report = z.infer<typeof reportSchema>;
