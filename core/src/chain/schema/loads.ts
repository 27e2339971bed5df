import * as z from 'zod';
import { choiceAttr, LOAD_KINDS, numAttr, wordAttr } from '../../parts';

/** Something else that hangs from the dock and uses the link while it is in use. */
export const loadSchema = z.strictObject({
  kind: wordAttr('What', LOAD_KINDS),
  downGbps: numAttr('Takes to the dock', 'Gb/s', 0, 120, {
    help: 'While in use, stated or measured. For a screen: the trained DisplayPort rate, 17.28 for HBR2 with four lanes, 25.92 for HBR3; its picture cannot take more.',
    findOut: {
      how: 'Run a large copy over it and read the rate, or take what its link can do at most.',
      minutes: 5,
    },
  }),
  upGbps: numAttr('Takes back', 'Gb/s', 0, 120, {
    when: { attr: 'kind', is: ['hub', 'lan', 'drive'] },
    findOut: { how: 'Run a large copy the other way and read the rate.', minutes: 5 },
  }),
  ownLead: choiceAttr(
    'On a cable of its own',
    { yes: 'Yes', no: 'No' },
    {
      when: { attr: 'kind', is: ['hub', 'lan', 'drive'] },
      help: 'A second cable back to the host takes nothing from the link. Not sure: as the dock says.',
    },
  ),
  pictureGbps: numAttr('The picture alone needs', 'Gb/s', 0, 120, {
    when: { attr: 'kind', is: ['video'] },
    help: 'What its stream takes from the link: pixel clock in MHz times bits a pixel, over 1000. 3840 × 2160 at 60 Hz with 24 bits: 12.8.',
    findOut: {
      how: 'Read resolution, refresh rate and colour depth in the display settings.',
      minutes: 2,
    },
  }),
  asymmetric: choiceAttr(
    'Link turned to 120 out, 40 back',
    { yes: 'Yes', no: 'No' },
    {
      when: { attr: 'kind', is: ['video'] },
      help: 'Only on an 80 Gb/s link: it may turn a lane round for the picture.',
      findOut: {
        how: "Read tx_lanes and rx_lanes of the dock's router: three and one mean turned.",
        minutes: 5,
      },
    },
  ),
  allocates: choiceAttr(
    'Both ends allocate bandwidth',
    { yes: 'Yes', no: 'No' },
    {
      when: { attr: 'kind', is: ['video'] },
      help: 'Decides how many screens may start, not what is left for the card.',
      findOut: {
        how: 'Look for DisplayPort bandwidth allocation in the log of the USB4 driver.',
        minutes: 10,
      },
    },
  ),
});
export type Load = z.infer<typeof loadSchema>;

export const loadsSchema = z.array(loadSchema).max(16, { error: 'Loads: at most 16' });
