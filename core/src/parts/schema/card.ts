import * as z from 'zod';
import { choiceAttr, numAttr, textAttr, wordAttr } from './meta';
import { manual, named, WIDE_KINDS } from './meta-common';
import { videoAttrs } from './screen';

const plugs = (label: string, help = '') =>
  numAttr(label, '', 0, 4, {
    whole: true,
    ...(help && { help }),
    findOut: { how: 'Look at the edge of the card and count its sockets.', minutes: 1 },
  });
const tape = (what: string) => ({
  how: `Measure ${what} with a tape, or read the data sheet.`,
  minutes: 2,
});
const SMALLER = { attr: 'chip', is: ['mobile', 'trimmed'] };

export const cardSchema = z.strictObject({
  ...named,
  pcieGen: numAttr('PCIe generation', '', 1, 5, {
    whole: true,
    findOut: manual('the PCIe generation of the card', 3),
  }),
  lanes: numAttr('PCIe lanes wired', '', 1, 16, {
    whole: true,
    findOut: manual('the lanes the card is wired with', 3),
  }),
  innerSwitch: choiceAttr(
    'Switch on the card',
    {
      none: 'None',
      full: 'Yes: its graphics always shows the full rate',
      'one-lane': 'Yes: its graphics always shows 2.5 GT/s, one lane',
    },
    {
      help: 'Some families carry a switch; what their graphics function shows is not the link to the dock.',
      findOut: {
        how: "Look for two bridges of the card's own maker above its graphics in the bus listing.",
        minutes: 5,
      },
    },
  ),
  memoryGB: numAttr('Memory', 'GB', 1, 256),
  memoryMHz: numAttr('Memory clock under load', 'MHz', 100, 20_000, {
    help: 'As the meter you use shows it; a card held at a lower one is in a power state.',
  }),
  frameIndex: numAttr('Frame index', '', 1, 10_000, {
    help: 'How fast it draws beside a reference card of 100, all cards by one test in a desktop. Only ratios are used.',
  }),
  boardW: numAttr('Board power', 'W', 10, 700, {
    typical: [75, 350],
    findOut: manual('the board power of the card', 3),
  }),
  slotW: numAttr('Of it from the slot', 'W', 0, 75, {
    help: 'A slot gives 75 W at most; a board may give less.',
  }),
  plugs8Pin: plugs('8-pin sockets'),
  plugs6Pin: plugs('6-pin sockets'),
  plugs16Pin: plugs('16-pin sockets'),
  sockets16Are: wordAttr('Kind of its 16-pin sockets', WIDE_KINDS, {
    help: 'The older 12-pin socket takes its own cable or the adapter from the box of the card.',
  }).default('sense'),
  adapter16Pin: plugs(
    '8-pin plugs its 16-pin adapter wants',
    'The adapter in the box of the card; 0 for none.',
  ),
  plugSide: choiceAttr('Power sockets at', { top: 'The upper edge', end: 'The far end' }),
  plugAngled: choiceAttr(
    'Angled power plug',
    { yes: 'Yes', no: 'No' },
    { help: 'An angled plug needs no room to bend.' },
  ),
  lengthMm: numAttr('Length', 'mm', 40, 500, {
    typical: [170, 340],
    findOut: tape('from the bracket to the far end'),
  }),
  heightMm: numAttr('Height', 'mm', 40, 250, {
    typical: [110, 140],
    findOut: tape('from the contacts to the upper edge'),
  }),
  slots: numAttr('Slots wide', '', 1, 5, {
    typical: [2, 3.5],
    findOut: tape('the thickness; a slot is 20.3 mm'),
  }),
  weightG: numAttr('Weight', 'g', 50, 5000, {
    typical: [600, 2000],
    findOut: { how: 'Use a kitchen scale.', minutes: 1 },
  }),
  cooler: choiceAttr('Cooler', {
    'open-air': 'Open-air fans',
    blower: 'Blower',
    liquid: 'Liquid',
    passive: 'None, needs a draught',
  }),
  family: textAttr('Family its drivers know it by', 80, false).default(''),
  chip: choiceAttr('Chip', {
    desktop: 'Desktop chip, whole',
    trimmed: 'Trimmed',
    mobile: 'Mobile chip',
  }),
  units: numAttr('Shader units', '', 1, 100_000, { whole: true }),
  namesake: textAttr('Desktop card of the same number', 80, false, { when: SMALLER }).default(''),
  namesakeUnits: numAttr('That one has units', '', 1, 100_000, { whole: true, when: SMALLER }),
  namesakeMemoryGB: numAttr('That one has memory', 'GB', 1, 256, { when: SMALLER }),
  namesakeW: numAttr('That one may draw', 'W', 10, 700, { when: SMALLER }),
  ...videoAttrs('output'),
});

export type CardSpec = z.infer<typeof cardSchema>;
