import * as z from 'zod';
import { choiceAttr, numAttr } from './meta';
import { manual, named } from './meta-common';

/** Rates of a DisplayPort link with four lanes, as an output or input may have them at most. */
export const DP_LEVELS = {
  none: 'None',
  hbr: 'HBR (1.1)',
  hbr2: 'HBR2 (1.2)',
  hbr3: 'HBR3 (1.3, 1.4)',
  uhbr10: 'UHBR10 (2.x)',
  uhbr13: 'UHBR13.5 (2.x)',
  uhbr20: 'UHBR20 (2.x)',
} as const;
/** Rates of an HDMI link; from 2.1 on the number of lanes times their rate. */
export const HDMI_LEVELS = {
  none: 'None',
  '1.4': '1.4',
  '2.0': '2.0',
  'frl-18': '2.1, 18 Gb/s',
  'frl-24': '2.1, 24 Gb/s',
  'frl-32': '2.1, 32 Gb/s',
  'frl-40': '2.1, 40 Gb/s',
  'frl-48': '2.1, 48 Gb/s',
} as const;
export type DpLevel = keyof typeof DP_LEVELS;
export type HdmiLevel = keyof typeof HDMI_LEVELS;

/** Outputs of a card, inputs of a screen: the same words on both ends. */
export const videoAttrs = (end: 'output' | 'input') => ({
  dpLevel: choiceAttr(`DisplayPort ${end}`, DP_LEVELS, {
    findOut: manual(`the DisplayPort version of the ${end}`, 3),
  }),
  hdmiLevel: choiceAttr(`HDMI ${end}`, HDMI_LEVELS, {
    findOut: manual(`the HDMI version of the ${end}`, 3),
  }),
  compression: choiceAttr(
    'Display stream compression',
    { yes: 'Yes', no: 'No' },
    { help: 'Both ends must have it.', findOut: manual('display stream compression', 3) },
  ),
});

export const screenSchema = z.strictObject({
  ...named,
  widthPx: numAttr('Width', 'pixels', 320, 16_384, {
    whole: true,
    findOut: manual('the resolution of the screen', 1),
  }),
  heightPx: numAttr('Height', 'pixels', 200, 16_384, {
    whole: true,
    findOut: manual('the resolution of the screen', 1),
  }),
  hz: numAttr('Refresh rate', 'Hz', 24, 1000, {
    findOut: manual('the refresh rate of the screen', 1),
  }),
  bits: choiceAttr('Bits a pixel', {
    '24': '24 (8 a colour)',
    '30': '30 (10 a colour)',
    '36': '36 (12 a colour)',
  }),
  blanking: choiceAttr(
    'Reduced blanking',
    { v1: 'CVT version 1', v2: 'CVT version 2' },
    { help: 'Version 2 only when the screen says so.' },
  ),
  ...videoAttrs('input'),
});
export type ScreenSpec = z.infer<typeof screenSchema>;
