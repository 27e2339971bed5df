import * as z from 'zod';
import {
  ADAPTER_ENDS,
  CABLE_CONNECTORS,
  carriesTunnel,
  DIRECT_PLUGS,
  TUNNEL_PLUGS,
} from './connectors';
import { choiceAttr, numAttr, wordAttr } from './meta';
import { manual, named, portFamily } from './meta-common';

export const cableSchema = z.strictObject({
  ...named,
  connector: wordAttr('Connector', CABLE_CONNECTORS),
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
  lengthMm: numAttr('Length', 'mm', 50, 60_000, {
    typical: [300, 1000],
    findOut: { how: 'Measure from plug to plug with a tape.', minutes: 1 },
  }),
  markedGbps: numAttr('Marked rate', 'Gb/s', 0.48, 120, {
    when: { attr: 'connector', is: ['usb-c'] },
    help: 'The rate printed on the plug or packing, not the watts.',
    findOut: {
      how: 'Read the mark on the plug: a rate in Gb/s, not watts. No mark means treat it as a charging cable.',
      minutes: 1,
    },
  }),
  markedW: numAttr('Marked watts', 'W', 15, 240, {
    when: { attr: 'connector', is: ['usb-c'] },
    help: 'What it charges with; says nothing about its rate. Nothing printed: 60.',
  }),
  pcieGen: numAttr('Good to PCIe generation', '', 1, 5, {
    whole: true,
    when: { attr: 'connector', is: DIRECT_PLUGS },
    help: 'The generation the maker promises at this length.',
    findOut: manual('up to which PCIe generation the cable is promised', 3),
  }),
  family: portFamily,
});

const DIRECT_ENDS = {
  attr: 'hostEnd',
  is: Object.keys(ADAPTER_ENDS).filter((k) => !TUNNEL_PLUGS.some((t) => t === k)),
};

/** A piece that changes the plug: it fills a slot of the host, joins two shapes, or ends in a card slot. */
export const adapterSchema = z
  .strictObject({
    ...named,
    hostEnd: wordAttr('End towards the host', ADAPTER_ENDS, {
      help: 'The plug or slot it goes into on the host side.',
    }),
    farEnd: wordAttr('End towards the card', ADAPTER_ENDS, {
      help: 'What it offers: the next cable or dock, or a card slot that needs no dock.',
    }),
    pcieGen: numAttr('Good to PCIe generation', '', 1, 5, {
      whole: true,
      when: DIRECT_ENDS,
      findOut: manual('up to which PCIe generation the adapter is promised', 3),
    }),
    lanes: numAttr('PCIe lanes wired', '', 1, 16, {
      whole: true,
      when: DIRECT_ENDS,
      findOut: { how: "Count the wired contacts, or read the maker's data sheet.", minutes: 5 },
    }),
    lengthMm: numAttr('Length of its own ribbon', 'mm', 0, 5000, {
      when: DIRECT_ENDS,
      help: '0 for a plain board.',
      findOut: { how: 'Measure the ribbon with a tape.', minutes: 1 },
    }),
  })
  .superRefine((a, ctx) => {
    const issue = (message: string) => ctx.addIssue({ code: 'custom', path: ['farEnd'], message });
    if (a.hostEnd === 'pcie-slot')
      ctx.addIssue({
        code: 'custom',
        path: ['hostEnd'],
        message: 'A card slot is the end towards the card',
      });
    if (a.hostEnd === a.farEnd) issue('Both ends are the same; describe it as a cable');
    if (carriesTunnel(a.hostEnd) !== carriesTunnel(a.farEnd))
      issue(
        'A tunnel and direct PCIe are different links; no adapter joins them, only a dock does',
      );
  });

export type CableSpec = z.infer<typeof cableSchema>;
export type AdapterSpec = z.infer<typeof adapterSchema>;
export type PieceSpec = CableSpec | AdapterSpec;
