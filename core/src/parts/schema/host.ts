import * as z from 'zod';
import {
  CARRIES,
  CONNECTOR_LANES,
  PORT_STANDARDS,
  type PortStandard,
  SOCKET_CONNECTORS,
  TUNNEL_PLUGS,
  WITHOUT_PCIE,
} from './connectors';
import { attrs, choiceAttr, numAttr, textAttr, wordAttr } from './meta';
import { manual, named, portFamily } from './meta-common';
import { wordsOf } from './stated';

export const TB3_COMPAT = {
  when: { attr: 'connector', is: ['usb-c'] },
  label: 'Speaks Thunderbolt 3',
  help: 'Matters where a USB4 end meets an older Thunderbolt end. Thunderbolt 4 and 5 always do; USB4 may leave it out.',
  findOut: manual('Thunderbolt 3 compatibility', 5),
} as const;

/** Sockets that sit inside the host. */
const INSIDE = { attr: 'connector', is: ['m2', 'mini-card', 'expresscard', 'pcie-slot'] };

const socketShape = z.strictObject({
  key: z
    .string()
    .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, {
      error: 'Short name: small letters, digits and single hyphens, like left-rear',
    })
    .max(40, { error: 'Short name: at most 40 characters' })
    .register(attrs, {
      label: 'Short name',
      input: 'text',
      unsure: false,
      help: 'Permanent: setups and readings point to it. Like left-rear.',
    }),
  position: textAttr('Position on the case', 80, false, {
    help: 'Where a hand finds it: left, rear of two.',
  }).default(''),
  mark: textAttr('Mark beside the port', 80, false, {
    help: 'What is printed there, in words.',
  }).default(''),
  connector: wordAttr('Connector', SOCKET_CONNECTORS),
  standard: choiceAttr('Standard', PORT_STANDARDS, {
    by: { attr: 'connector', may: CARRIES },
    help: "The shape of the plug proves nothing. Look for the mark beside the port, then in the maker's manual.",
    findOut: {
      how: "Read the mark beside the port, then the port table in the maker's manual.",
      minutes: 5,
    },
  }),
  tunnelling: choiceAttr(
    'Tunnels PCIe',
    { yes: 'Yes', no: 'No' },
    {
      when: { attr: 'connector', is: ['usb-c'] },
      help: 'USB4 may leave it out; Thunderbolt must have it.',
      findOut: {
        how: 'Look for "PCIe tunnelling" in the maker\'s manual and in the firmware setup, or list the USB4 router\'s PCIe adapters.',
        minutes: 10,
      },
    },
  ),
  tb3Compat: choiceAttr(TB3_COMPAT.label, { yes: 'Yes', no: 'No' }, TB3_COMPAT),
  controller: choiceAttr(
    'Controller',
    { 'built-in': 'Built into the processor', separate: 'Separate chip' },
    {
      when: { attr: 'connector', is: TUNNEL_PLUGS },
      help: 'A separate chip sits behind a PCIe link of its own, which can be the narrowest.',
      findOut: manual('which controller drives the port', 10),
    },
  ),
  pcieGen: numAttr('PCIe generation', '', 1, 5, {
    whole: true,
    help: 'Of the link behind the port; of the port itself where it is direct PCIe.',
    findOut: manual('the PCIe generation behind this port', 10),
  }),
  lanes: numAttr('PCIe lanes wired', '', 1, 16, {
    whole: true,
    help: 'Some hosts wire two lanes, not four.',
    findOut: {
      how: 'Read LnkSta of the root port in the bus listing under load, or the block diagram in the manual.',
      minutes: 10,
    },
  }),
  completionBytes: numAttr('Answers reads in pieces of', 'bytes', 64, 4096, {
    whole: true,
    help: 'Leave open unless measured or stated. Hosts that answer in 64-byte pieces are slower to the card.',
  }),
  family: portFamily,
  holds: choiceAttr(
    'In it now',
    {
      'system-drive': 'The drive the system starts from',
      drive: 'Another drive',
      radio: 'The radio card',
      nothing: 'Nothing',
    },
    {
      when: INSIDE,
      findOut: {
        how: "Look in the firmware setup, or under the cover as far as the maker's manual allows.",
        minutes: 10,
      },
    },
  ),
  reach: choiceAttr(
    'Reached by',
    { outside: 'From outside', cover: 'Taking a cover off', cut: 'Cutting the shell' },
    {
      when: INSIDE,
      help: 'Cutting cannot be undone, and a battery may lie behind it.',
      findOut: manual('how the slot is reached', 5),
    },
  ),
  chargeInW: numAttr('Charges the host with', 'W', 0, 240, {
    findOut: manual('which ports charge, and with how much', 2),
  }),
  chargeOutW: numAttr('Gives out', 'W', 0, 240, { findOut: manual('what the port gives out', 2) }),
});

export const socketSchema = socketShape.superRefine((s, ctx) => {
  const issue = (key: string, message: string) =>
    ctx.addIssue({ code: 'custom', path: [key], message });
  const may = CARRIES[s.connector];
  const wrong = wordsOf<PortStandard>(s.standard).find((w) => !may.includes(w));
  if (wrong)
    issue('standard', `${SOCKET_CONNECTORS[s.connector]} cannot carry "${PORT_STANDARDS[wrong]}"`);
  const most = CONNECTOR_LANES[s.connector];
  if (most && typeof s.lanes === 'number' && s.lanes > most)
    issue(
      'lanes',
      `${SOCKET_CONNECTORS[s.connector]}: ${most} ${most === 1 ? 'lane' : 'lanes'} at most`,
    );
  if (
    typeof s.standard === 'string' &&
    (WITHOUT_PCIE as readonly string[]).includes(s.standard) &&
    s.tunnelling === 'yes'
  )
    issue(
      'tunnelling',
      'This standard does not tunnel PCIe; choose a USB4 or Thunderbolt standard',
    );
});

export const hostSchema = z
  .strictObject({
    ...named,
    form: wordAttr('Kind of host', {
      laptop: 'Laptop',
      'mini-pc': 'Mini PC',
      handheld: 'Handheld',
      desktop: 'Desktop',
    }),
    graphics: choiceAttr('Graphics inside', {
      internal: 'In the processor only',
      both: 'In the processor and a separate chip',
      none: 'None',
    }),
    lan: choiceAttr('Has a LAN socket', { yes: 'Yes', no: 'No' }),
    batteryWh: numAttr('Battery', 'Wh', 0, 200, {
      help: '0 for none.',
      findOut: manual('the size of the battery', 2),
    }),
    singleThread: numAttr('Single-thread index', '', 1, 10_000, {
      help: 'How fast one thread runs beside a reference processor of 100, all hosts by one test, docked. Only ratios are used.',
    }),
    drawW: numAttr('Draws under load', 'W', 3, 400, {
      typical: [15, 100],
      findOut: { how: 'Read the battery discharge rate undocked under load.', minutes: 10 },
    }),
    chargeMinW: numAttr('Refuses to charge below', 'W', 0, 200, {
      help: 'Some hosts do not take a weak charger at all.',
    }),
    panelWidthPx: numAttr('Panel width', 'pixels', 320, 16_384, { whole: true }),
    panelHeightPx: numAttr('Panel height', 'pixels', 200, 16_384, { whole: true }),
    panelHz: numAttr('Panel refresh rate', 'Hz', 24, 500),
    openDepth: choiceAttr(
      'The maker allows opening',
      {
        none: 'Nothing',
        hatch: 'A service hatch',
        cover: 'The bottom cover',
        board: 'Down to the board',
      },
      {
        help: 'How far the manual leads its owner; beyond it the maker has the last word.',
        findOut: manual('how far an owner may open it', 5),
      },
    ),
    openScrews: numAttr('Screws to open it', '', 0, 40, { whole: true }),
    fixings: choiceAttr('Held by', {
      screws: 'Screws',
      clips: 'Clips',
      both: 'Screws and clips',
      glue: 'Glue',
    }),
    fanOnLid: choiceAttr(
      'A fan cable runs to the lid',
      { yes: 'Yes', no: 'No' },
      {
        help: 'The lid must not be lifted off at a stroke.',
        findOut: { how: 'Lift the lid a finger wide and look, or read the manual.', minutes: 2 },
      },
    ),
    compound: choiceAttr(
      'Compound on its coolers',
      { paste: 'Ordinary', metal: 'Liquid metal: it conducts' },
      { findOut: manual('which compound is on the cooler', 5) },
    ),
    sockets: z
      .array(socketSchema)
      .min(1, { error: 'Sockets: a host needs at least one' })
      .max(32, { error: 'Sockets: at most 32' })
      .register(attrs, { label: 'Ports', input: 'list', unsure: false }),
  })
  .superRefine((host, ctx) => {
    const seen = new Set<string>();
    host.sockets.forEach((s, i) => {
      if (seen.has(s.key))
        ctx.addIssue({
          code: 'custom',
          path: ['sockets', i, 'key'],
          message: `Short name "${s.key}" is used twice`,
        });
      seen.add(s.key);
    });
  });

export type SocketSpec = z.infer<typeof socketSchema>;
export type HostSpec = z.infer<typeof hostSchema>;
