import * as z from 'zod';
import { attrs, choiceAttr, numAttr, textAttr, wordAttr } from './meta';

const CONNECTORS = {
  'usb-c': 'USB-C',
  'oculink-4i': 'OCuLink 4i (small, four lanes)',
} as const;

const PORT_STANDARDS = {
  'usb-c': 'USB-C that carries no PCIe',
  'usb4-20': 'USB4, 20 Gb/s',
  'usb4-40': 'USB4, 40 Gb/s',
  'thunderbolt-4': 'Thunderbolt 4',
  oculink: 'OCuLink (direct PCIe)',
} as const;

const UPLINK_STANDARDS = {
  'usb4-20': PORT_STANDARDS['usb4-20'],
  'usb4-40': PORT_STANDARDS['usb4-40'],
  'thunderbolt-4': PORT_STANDARDS['thunderbolt-4'],
  oculink: PORT_STANDARDS.oculink,
} as const;

const manual = (what: string, minutes: number) => ({ how: `Look up ${what} in the maker's manual or data sheet.`, minutes });

const named = {
  maker: textAttr('Maker', 80, true),
  model: textAttr('Model', 80, true),
  variant: textAttr('Variant', 80, false, { help: 'A memory size, a colour, a revision: what sets it apart.' }).default(''),
};

export const socketSchema = z
  .strictObject({
    key: z
      .string()
      .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, { error: 'Short name: small letters, digits and single hyphens, like left-rear' })
      .max(40, { error: 'Short name: at most 40 characters' })
      .register(attrs, {
        label: 'Short name',
        input: 'text',
        unsure: false,
        help: 'Permanent: setups and readings point to it. Like left-rear.',
      }),
    position: textAttr('Position on the case', 80, false, { help: 'Where a hand finds it: left, rear of two.' }).default(''),
    mark: textAttr('Mark beside the port', 80, false, { help: 'What is printed there, in words.' }).default(''),
    connector: wordAttr('Connector', CONNECTORS),
    standard: choiceAttr('Standard', PORT_STANDARDS, {
      help: "The shape of the plug proves nothing. Look for the mark beside the port, then in the maker's manual.",
      findOut: { how: "Read the mark beside the port, then the port table in the maker's manual.", minutes: 5 },
    }),
    tunnelling: choiceAttr(
      'Tunnels PCIe',
      { yes: 'Yes', no: 'No' },
      {
        help: 'Only for USB-C ports. USB4 may leave it out; Thunderbolt 4 must have it.',
        findOut: {
          how: 'Look for "PCIe tunnelling" in the maker\'s manual and in the firmware setup, or list the USB4 router\'s PCIe adapters.',
          minutes: 10,
        },
      },
    ),
    controller: choiceAttr(
      'Controller',
      { 'built-in': 'Built into the processor', separate: 'Separate chip' },
      {
        help: 'A separate chip sits behind a PCIe link of its own, which can be the narrowest.',
        findOut: manual('which controller drives the port', 10),
      },
    ),
    pcieGen: numAttr('PCIe generation', '', 1, 5, {
      whole: true,
      help: 'Of the link behind the port; of the port itself for OCuLink.',
      findOut: manual('the PCIe generation behind this port', 10),
    }),
    lanes: numAttr('PCIe lanes wired', '', 1, 8, {
      whole: true,
      help: 'Some hosts wire two lanes, not four.',
      findOut: {
        how: 'Read LnkSta of the root port in the bus listing under load, or the block diagram in the manual.',
        minutes: 10,
      },
    }),
    chargeInW: numAttr('Charges the host with', 'W', 0, 240, { findOut: manual('which ports charge, and with how much', 2) }),
    chargeOutW: numAttr('Gives out', 'W', 0, 240, { findOut: manual('what the port gives out', 2) }),
  })
  .superRefine((s, ctx) => {
    const oculink = s.connector === 'oculink-4i';
    if (oculink && s.standard !== null && s.standard !== 'oculink')
      ctx.addIssue({ code: 'custom', path: ['standard'], message: 'An OCuLink connector carries OCuLink only' });
    if (!oculink && (s.standard === 'oculink' || (typeof s.standard === 'object' && s.standard?.oneOf.includes('oculink'))))
      ctx.addIssue({ code: 'custom', path: ['standard'], message: 'A USB-C connector cannot carry OCuLink' });
    if (oculink && typeof s.lanes === 'number' && s.lanes > 4)
      ctx.addIssue({ code: 'custom', path: ['lanes'], message: 'OCuLink 4i has four lanes at most' });
    if (s.standard === 'usb-c' && s.tunnelling === 'yes')
      ctx.addIssue({
        code: 'custom',
        path: ['tunnelling'],
        message: 'A plain USB-C port does not tunnel; choose a USB4 or Thunderbolt standard',
      });
  });

export const hostSchema = z
  .strictObject({
    ...named,
    form: wordAttr('Kind of host', { laptop: 'Laptop', 'mini-pc': 'Mini PC', handheld: 'Handheld', desktop: 'Desktop' }),
    sockets: z
      .array(socketSchema)
      .min(1, { error: 'Sockets: a host needs at least one' })
      .max(32, { error: 'Sockets: at most 32' })
      .register(attrs, { label: 'Sockets', input: 'list', unsure: false }),
  })
  .superRefine((host, ctx) => {
    const seen = new Set<string>();
    host.sockets.forEach((s, i) => {
      if (seen.has(s.key))
        ctx.addIssue({ code: 'custom', path: ['sockets', i, 'key'], message: `Short name "${s.key}" is used twice` });
      seen.add(s.key);
    });
  });

export const cableSchema = z.strictObject({
  ...named,
  connector: wordAttr('Connector', CONNECTORS),
  construction: choiceAttr(
    'Construction',
    { passive: 'Passive', active: 'Active' },
    {
      help: 'Active cables carry a chip in the plug and reach further.',
      findOut: {
        how: "Read the packing or the maker's page; thick plugs on a long thin cable hint at an active one.",
        minutes: 3,
      },
    },
  ),
  lengthMm: numAttr('Length', 'mm', 50, 5000, { findOut: { how: 'Measure from plug to plug with a tape.', minutes: 1 } }),
  markedGbps: numAttr('Marked rate', 'Gb/s', 0.48, 80, {
    help: 'For USB-C: the rate printed on the plug or packing, not the watts.',
    findOut: {
      how: 'Read the mark on the plug: a rate in Gb/s, not watts. No mark means treat it as a charging cable.',
      minutes: 1,
    },
  }),
  markedW: numAttr('Marked watts', 'W', 15, 240, { help: 'What it charges with; says nothing about its rate.' }),
  pcieGen: numAttr('Good to PCIe generation', '', 1, 5, {
    whole: true,
    help: 'For OCuLink: the generation the maker promises at this length.',
    findOut: manual('up to which PCIe generation the cable is promised', 3),
  }),
});

export const dockSchema = z
  .strictObject({
    ...named,
    form: wordAttr('Kind of dock', { enclosure: 'Enclosure', 'open-board': 'Open board', 'all-in-one': 'All-in-one' }),
    connector: wordAttr('Uplink connector', CONNECTORS),
    uplink: choiceAttr('Uplink standard', UPLINK_STANDARDS, { findOut: manual('the uplink standard of the dock', 3) }),
    slotGen: numAttr('Slot PCIe generation', '', 1, 5, {
      whole: true,
      findOut: manual('the PCIe generation of the slot', 5),
    }),
    slotLanes: numAttr('Slot lanes wired', '', 1, 16, {
      whole: true,
      help: 'The slot looks like sixteen lanes; four are usually wired.',
      findOut: { how: "Count the wired contacts in the slot, or read the maker's data sheet.", minutes: 5 },
    }),
  })
  .superRefine((d, ctx) => {
    const oculink = d.connector === 'oculink-4i';
    const words = d.uplink === null ? [] : typeof d.uplink === 'string' ? [d.uplink] : d.uplink.oneOf;
    if (words.some((w) => (w === 'oculink') !== oculink))
      ctx.addIssue({ code: 'custom', path: ['uplink'], message: 'The uplink standard does not go with this connector' });
  });

export const cardSchema = z.strictObject({
  ...named,
  pcieGen: numAttr('PCIe generation', '', 1, 5, { whole: true, findOut: manual('the PCIe generation of the card', 3) }),
  lanes: numAttr('PCIe lanes wired', '', 1, 16, { whole: true, findOut: manual('the lanes the card is wired with', 3) }),
  memoryGB: numAttr('Memory', 'GB', 1, 256),
  boardW: numAttr('Board power', 'W', 10, 700, { findOut: manual('the board power of the card', 3) }),
});

export const PART_SCHEMAS = { host: hostSchema, cable: cableSchema, dock: dockSchema, card: cardSchema } as const;
export const PART_KINDS = ['host', 'cable', 'dock', 'card'] as const;
export type PartKind = (typeof PART_KINDS)[number];
export const partKind = z.enum(PART_KINDS);

export type SocketSpec = z.infer<typeof socketSchema>;
export type HostSpec = z.infer<typeof hostSchema>;
export type CableSpec = z.infer<typeof cableSchema>;
export type DockSpec = z.infer<typeof dockSchema>;
export type CardSpec = z.infer<typeof cardSchema>;
export interface PartSpecs {
  host: HostSpec;
  cable: CableSpec;
  dock: DockSpec;
  card: CardSpec;
}
export type AnySpec = PartSpecs[PartKind];
export type Connector = SocketSpec['connector'];
export type PortStandard = keyof typeof PORT_STANDARDS;
export type UplinkStandard = keyof typeof UPLINK_STANDARDS;
