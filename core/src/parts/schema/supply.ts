import * as z from 'zod';
import { choiceAttr, numAttr, type When, wordAttr } from './meta';
import { manual, named, WIDE_KINDS } from './meta-common';

/** The marks of an efficiency programme, least first; `brick` is an outside supply with none. */
export const EFFICIENCY_MARKS = {
  white: '80 PLUS',
  bronze: '80 PLUS Bronze',
  silver: '80 PLUS Silver',
  gold: '80 PLUS Gold',
  platinum: '80 PLUS Platinum',
  titanium: '80 PLUS Titanium',
  brick: 'Brick, no mark',
} as const;

const count = (label: string, when: { when?: When }, help = '') =>
  numAttr(label, '', 0, 12, {
    whole: true,
    ...when,
    ...(help && { help }),
    findOut: {
      how: 'Count the power cables that come with the supply, and the plugs on each.',
      minutes: 2,
    },
  });

/** What a supply offers, whether it is a part of its own or built into a dock. */
export const supplyAttrs = (when: { when?: When } = {}) => ({
  supplyW: numAttr('Supply rating', 'W', 20, 2000, {
    ...when,
    typical: [400, 750],
    findOut: manual('the rating of the supply', 2),
  }),
  supplyStandard: choiceAttr(
    'Made for short peaks',
    { atx3: 'ATX 3.x', older: 'Older, or no standard' },
    {
      ...when,
      help: 'ATX 3.x supplies above 450 W bear twice their rating for a moment.',
      findOut: { how: 'Read the standard on the label.', minutes: 1 },
    },
  ),
  efficiency: choiceAttr('Efficiency mark', EFFICIENCY_MARKS, {
    ...when,
    help: 'Only for what the wall socket gives.',
  }),
  condition: choiceAttr('Bought', { new: 'New', used: 'Second hand or old' }, when),
  cables8Pin: count(
    'Power cables with one 8-pin (6+2)',
    when,
    'One plug on one cable back to the supply.',
  ),
  cables8PinPair: count(
    'Power cables with two 8-pin (6+2)',
    when,
    'Both heads share the wires of one cable: they may be used together as long as the card takes little enough.',
  ),
  cables6Pin: count('Power cables with one 6-pin', when),
  cables16Pin: count('Power cables with a 16-pin', when),
  cables16Are: wordAttr('Kind of its 16-pin cables', WIDE_KINDS, {
    ...when,
    help: 'A cable with the older 12-pin plug fits a 12-pin socket only.',
  }).default('sense'),
  cable16PinW: choiceAttr(
    'The 16-pin cable allows',
    { '150': '150 W', '300': '300 W', '450': '450 W', '600': '600 W' },
    {
      ...when,
      help: 'Set by its sense pins; printed on the plug.',
      findOut: { how: 'Read the watts on the plug.', minutes: 1 },
    },
  ),
  cablesCpu8Pin: count(
    'Processor 8-pin cables',
    when,
    'Same number of pins, other wiring: never for a card.',
  ),
});

export const supplySchema = z.strictObject({
  ...named,
  form: wordAttr('Form', { atx: 'ATX', sfx: 'SFX', flex: 'Flex ATX', brick: 'Brick' }),
  ...supplyAttrs(),
});

export type SupplySpec = z.infer<typeof supplySchema>;
/** The attributes a supply and a dock with a supply inside have in common. */
export type SupplyAttrs = Omit<SupplySpec, 'maker' | 'model' | 'variant' | 'form'>;
