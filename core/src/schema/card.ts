import * as z from 'zod';
import { choiceAttr, numAttr } from './meta';
import { manual, named } from './meta-common';

export const cardSchema = z.strictObject({
  ...named,
  pcieGen: numAttr('PCIe generation', '', 1, 5, { whole: true, findOut: manual('the PCIe generation of the card', 3) }),
  lanes: numAttr('PCIe lanes wired', '', 1, 16, { whole: true, findOut: manual('the lanes the card is wired with', 3) }),
  innerSwitch: choiceAttr(
    'Switch on the card',
    {
      none: 'None',
      full: 'Yes: its graphics always shows the full rate',
      'one-lane': 'Yes: its graphics always shows 2.5 GT/s, one lane',
    },
    {
      help: 'Some families carry a switch; what their graphics function shows is not the link to the dock.',
      findOut: { how: "Look for two bridges of the card's own maker above its graphics in the bus listing.", minutes: 5 },
    },
  ),
  memoryGB: numAttr('Memory', 'GB', 1, 256),
  boardW: numAttr('Board power', 'W', 10, 700, { findOut: manual('the board power of the card', 3) }),
});

export type CardSpec = z.infer<typeof cardSchema>;
