import * as z from 'zod';
import {
  CABLE_CONNECTORS,
  CARRIES,
  PORT_STANDARDS,
  SOCKET_CONNECTORS,
  TUNNEL_PLUGS,
  UPLINK_STANDARDS,
} from './connectors';
import { TB3_COMPAT } from './host';
import { choiceAttr, numAttr, textAttr, wordAttr } from './meta';
import { manual, named, portFamily } from './meta-common';
import { DP_LEVELS } from './screen';
import { wordsOf } from './stated';
import { supplyAttrs } from './supply';

const TUNNELLED = { attr: 'connector', is: TUNNEL_PLUGS };
const SUPPLIED = { when: { attr: 'supply', is: ['inside', 'brick'] } };
/** Asked of open boards only: there nothing but the board carries the card. */
const OPEN = { attr: 'form', is: ['open-board'] };
const tape = (what: string) => ({
  how: `Measure ${what} with a tape, or read the data sheet.`,
  minutes: 3,
});

export const dockSchema = z
  .strictObject({
    ...named,
    form: wordAttr('Kind of dock', {
      enclosure: 'Enclosure',
      'open-board': 'Open board',
      'all-in-one': 'All-in-one',
    }),
    connector: wordAttr('Uplink connector', SOCKET_CONNECTORS, {
      help: 'What its cable ends in: a board with a fixed lead may end in an M.2 or mini card plug.',
    }),
    fixedLead: choiceAttr(
      'Fixed lead',
      { yes: 'Yes', no: 'No' },
      {
        when: { attr: 'connector', is: Object.keys(CABLE_CONNECTORS) },
        help: 'A cable that does not come off the dock. Without one a separate cable is needed.',
        findOut: {
          how: 'Look whether the cable comes off the dock, or whether the dock has a socket for one.',
          minutes: 1,
        },
      },
    ),
    uplink: choiceAttr('Uplink standard', UPLINK_STANDARDS, {
      by: { attr: 'connector', may: CARRIES },
      findOut: manual('the uplink standard of the dock', 3),
    }),
    tb3Compat: choiceAttr(TB3_COMPAT.label, { yes: 'Yes', no: 'No' }, TB3_COMPAT),
    controllerClass: choiceAttr(
      'Controller class',
      {
        a: 'A: first generation, about 17.6 Gb/s',
        b: 'B: about 22 Gb/s',
        c: 'C: about 26 Gb/s',
        d: 'D: no cap of its own',
      },
      {
        when: TUNNELLED,
        help: 'What the link chip passes on at most to the card. Not sure: the dock is judged over all its link allows.',
        findOut: {
          how: "Read the link chip's revision in the maker's data sheet, or measure a copy rate under load.",
          minutes: 15,
        },
      },
    ),
    capGbps: numAttr('Own measured cap to the card', 'Gb/s', 1, 120, {
      when: TUNNELLED,
      help: 'Usable rate host to card. It wins over the class.',
    }),
    capFirmware: textAttr('Cap holds from firmware', 60, false, {
      when: TUNNELLED,
      help: 'Only when a firmware version changed it.',
    }).default(''),
    capBeforeGbps: numAttr('Cap before that firmware', 'Gb/s', 1, 120, { when: TUNNELLED }),
    ownLead: choiceAttr(
      'Hub on its own USB cable',
      { yes: 'Yes', no: 'No' },
      {
        when: TUNNELLED,
        help: 'A second USB cable back to the host keeps hub and LAN off the link.',
        findOut: {
          how: 'Look for a second USB socket on the dock that goes to the host.',
          minutes: 1,
        },
      },
    ),
    slotGen: numAttr('Slot PCIe generation', '', 1, 5, {
      whole: true,
      findOut: manual('the PCIe generation of the slot', 5),
    }),
    slotLanes: numAttr('Slot lanes wired', '', 1, 16, {
      whole: true,
      help: 'The slot looks like sixteen lanes; four are usually wired.',
      findOut: {
        how: "Count the wired contacts in the slot, or read the maker's data sheet.",
        minutes: 5,
      },
    }),
    family: portFamily,
    slotW: numAttr('Slot gives', 'W', 0, 75, {
      typical: [60, 75],
      help: '75 W by the standard; some boards give less.',
      findOut: manual('what its slot gives', 3),
    }),
    supply: choiceAttr(
      'Supply',
      {
        inside: 'Built in',
        brick: 'A brick comes with it',
        separate: 'Takes a separate one',
        none: 'None needed',
      },
      { findOut: manual('the supply of the dock', 2) },
    ),
    ...supplyAttrs(SUPPLIED),
    supplyForm: choiceAttr(
      'Room for a supply',
      { atx: 'ATX', sfx: 'SFX', flex: 'Flex ATX', outside: 'None: it stands beside' },
      { when: { attr: 'supply', is: ['separate'] } },
    ),
    chargeOutW: numAttr('Charges the host with', 'W', 0, 240, {
      typical: [15, 100],
      findOut: manual('what the dock gives the host', 2),
      help: 'As advertised for that port; 0 for none.',
    }),
    innerLengthMm: numAttr('Room inside, length', 'mm', 60, 600, {
      typical: [300, 340],
      findOut: tape('from the bracket to the far wall'),
    }),
    innerHeightMm: numAttr('Room inside, height', 'mm', 60, 300, {
      typical: [140, 180],
      findOut: tape('from the slot to the lid'),
    }),
    innerSlots: numAttr('Room inside, slots', '', 1, 5, {
      typical: [2, 3.5],
      findOut: tape('the width at the bracket; a slot is 20.3 mm'),
    }),
    beyond: choiceAttr(
      'A card too big for it',
      { no: 'Does not go', 'lid-off': 'Goes with the lid off', outside: 'Goes outside the case' },
      {
        when: { attr: 'form', is: ['enclosure'] },
        help: "Only where the dock's maker allows it: live parts lie open then, and nothing guides the air.",
        findOut: {
          how: "Look whether the dock runs without its lid, and what its maker's manual says of it.",
          minutes: 3,
        },
      },
    ),
    retention: choiceAttr(
      'Holds the card by',
      { bracket: 'A screw at the bracket', clamp: 'A clamp', none: 'Its slot only' },
      {
        when: OPEN,
        help: 'An enclosure holds it by the bracket.',
        findOut: { how: 'Look at the board where the bracket stands.', minutes: 1 },
      },
    ),
    maxWeightG: numAttr('Bears a card of', 'g', 100, 6000, {
      when: OPEN,
      help: 'An enclosure carries its card.',
      findOut: manual('the weight of card the board bears', 3),
    }),
    screws: numAttr('Screws to open it', '', 0, 40, { whole: true }),
    airflowCfm: numAttr('Air through it', 'CFM', 1, 400, {
      typical: [20, 80],
      help: 'Of its fans together; an open board has no limit.',
      findOut: manual('the flow of its fans', 3),
    }),
    noiseDb: numAttr('Noise under load', 'dB(A)', 10, 80),
    videoOut: choiceAttr('Video output of its own', DP_LEVELS, { when: TUNNELLED }),
  })
  .superRefine((d, ctx) => {
    const may = CARRIES[d.connector];
    const wrong = wordsOf(d.uplink).find((w) => !may.includes(w));
    if (wrong)
      ctx.addIssue({
        code: 'custom',
        path: ['uplink'],
        message: `${SOCKET_CONNECTORS[d.connector]} cannot carry "${PORT_STANDARDS[wrong]}"`,
      });
    if (d.capFirmware === '' && d.capBeforeGbps !== null)
      ctx.addIssue({
        code: 'custom',
        path: ['capFirmware'],
        message: 'Say from which firmware the cap changed',
      });
  });

export type DockSpec = z.infer<typeof dockSchema>;
export type ControllerClass = 'a' | 'b' | 'c' | 'd';
