import * as z from 'zod';
import { CARRIES, PORT_STANDARDS, SOCKET_CONNECTORS, TUNNEL_PLUGS, UPLINK_STANDARDS } from './connectors';
import { TB3_COMPAT, wordsOf } from './host';
import { choiceAttr, numAttr, textAttr, wordAttr } from './meta';
import { manual, named, portFamily } from './meta-common';

const TUNNELLED = { attr: 'connector', is: TUNNEL_PLUGS };

export const dockSchema = z
  .strictObject({
    ...named,
    form: wordAttr('Kind of dock', { enclosure: 'Enclosure', 'open-board': 'Open board', 'all-in-one': 'All-in-one' }),
    connector: wordAttr('Uplink connector', SOCKET_CONNECTORS, {
      help: 'What its cable ends in: a board with a fixed lead may end in an M.2 or mini card plug.',
    }),
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
        findOut: { how: 'Look for a second USB socket on the dock that goes to the host.', minutes: 1 },
      },
    ),
    slotGen: numAttr('Slot PCIe generation', '', 1, 5, {
      whole: true,
      findOut: manual('the PCIe generation of the slot', 5),
    }),
    slotLanes: numAttr('Slot lanes wired', '', 1, 16, {
      whole: true,
      help: 'The slot looks like sixteen lanes; four are usually wired.',
      findOut: { how: "Count the wired contacts in the slot, or read the maker's data sheet.", minutes: 5 },
    }),
    family: portFamily,
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
      ctx.addIssue({ code: 'custom', path: ['capFirmware'], message: 'Say from which firmware the cap changed' });
  });

export type DockSpec = z.infer<typeof dockSchema>;
export type ControllerClass = 'a' | 'b' | 'c' | 'd';
