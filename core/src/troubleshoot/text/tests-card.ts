import { testWords as t } from './tests-link';

/** Tests of card, slot, power and driver. */
export const CARD_TEST_WORDS = {
  'other-card': t(
    'Mount another card',
    'Everything off and mains out. One that the supply can feed; then look at the same thing again.',
    'It is cured',
    'No change',
  ),
  'desktop-slot': t(
    'Run the card in a desktop',
    'Everything off and mains out, both machines. A load for ten minutes.',
    'Still bad there',
    'Works there',
  ),
  reseat: t(
    'Seat the card anew',
    'Everything off, mains out, wait. Card out, look at its edge, in until the latch clicks.',
    'It is cured',
    'No change',
  ),
  'plugs-home': t(
    'Push the power plugs home, one cable a socket',
    'Mains out. Cables of this supply only, no splitter, until each clicks.',
    'It is cured',
    'No change',
  ),
  'lower-power': t(
    'Run the card at 70 % power',
    'Set the limit in the driver and repeat the load that made it drop.',
    'The drops are gone',
    'It drops as before',
  ),
  'copy-rate': t(
    'Measure the copy rate, both ways',
    'Large blocks from pinned memory, under load. Bring-up keeps the reading and grades it for this chain.',
    'Below its class',
    'As it should be',
  ),
  'span-loaded': t(
    'Read the real span under load',
    "The card's port and the dock's slot, or the controller's own: lanes and generation against what both ends can do.",
    'Below both ends',
    'As both ends can',
  ),
  'read-again': t(
    'Read it again under load',
    'A link at rest drops its rate. Put the card to work for a minute, then read.',
    'The low value is gone',
    'Still low',
  ),
  'count-errors': t(
    'Count errors over five minutes of load',
    'Corrected errors before and after, on both ends of the real span.',
    'They rose',
    'None',
  ),
  clocks: t(
    'Read core and memory clock under load',
    'Against what the card is specified for.',
    'Below specification',
    'As specified',
  ),
  'ten-minutes': t(
    'Log clocks for ten minutes of load',
    'Card and host, with temperatures.',
    'Clocks fall as it gets hot',
    'They hold',
  ),
  'window-size': t(
    "Compare the memory window with the card's memory",
    'The size of its largest window in the bus listing.',
    'Smaller than the memory',
    'As large as the memory',
  ),
  'no-space': t(
    "Look for 'no space' in the system's log",
    'Lines about the card that speak of space that cannot be assigned.',
    'There are such lines',
    'None',
  ),
  'device-state': t(
    'Read what the system says of the card',
    'In the list of devices: an error, or no driver in use.',
    'An error, or no driver',
    'A driver holds it',
  ),
  'clean-driver': t(
    'Clean the drivers out and install an allowed one',
    'In the safe start of the system, with the installer at hand and the network off.',
    'It is cured',
    'No change',
  ),
  'driver-version': t(
    'Compare the driver with what is allowed',
    'The range that card, adapter and system build ask for.',
    'Out of range',
    'In range',
  ),
  'override-rate': t(
    'Let the driver keep the rate of the slot',
    "The driver's own setting, or another version. Read the slot under load before and after.",
    'The rate goes up',
    'No change',
  ),
  'near-class': t(
    'Hold the copy rate against the class of the dock',
    'Within 8 % of what this chain should carry, the link is as good as it gets.',
    'Within 8 %',
    'Further off',
  ),
  'slot-empty': t(
    'Does the slot say that something stands in it?',
    "The presence mark of the dock's slot in the bus listing.",
    'It says empty',
    'Something stands in it',
  ),
  'lamp-out': t(
    "Watch the dock's lamp while it drops",
    'Repeat the load and keep an eye on lamp and fan.',
    'It goes out',
    'It stays on',
  ),
  'asleep-at-rest': t(
    "Read the card's power state at rest",
    'After half a minute without load.',
    'Off or asleep',
    'On',
  ),
  'no-output': t(
    'Which outputs know a screen?',
    'In the list of outputs: one of the card must be connected.',
    'None of the card',
    'One of the card',
  ),
  'measure-fit': t(
    'Measure the card against its room',
    'Length, height and slots, with mains out, against the figures on Plan.',
    'It is too large',
    'It fits',
  ),
} as const;
