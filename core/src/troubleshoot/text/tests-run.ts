import { testWords as t } from './tests-link';

/** Tests of runs, titles, screen and system. */
export const RUN_TEST_WORDS = {
  'screen-on-card': t(
    'Put the screen on the card',
    'Its own output, straight, not through a hub; then the same run again.',
    'It is better',
    'No change',
  ),
  'other-output': t(
    'Another output, cable and mode',
    'One after the other, a low mode first; choose the input on the screen.',
    'There is a picture',
    'No change',
  ),
  resolutions: t(
    'Run 1080p and 2160p',
    'The same title and preset. Frames that do not change are not held by the card.',
    'The same frames',
    'Fewer at 2160p',
  ),
  presets: t(
    'Run the lowest and the top preset',
    'The same title and resolution.',
    'The same frames',
    'Fewer at the top',
  ),
  'host-power-up': t(
    'Raise the power limit of the host',
    "Its performance mode, within the maker's limits. The same run again.",
    '5 % faster or more',
    'No change',
  ),
  'host-limits': t(
    "Read the host's watts and heat under load",
    'Against its sustained limit and its highest temperature.',
    'At a limit',
    'Below both',
  ),
  'one-core': t(
    'Read the load of each core',
    'One thread that is nearly full holds the frames.',
    'One is nearly full',
    'None is',
  ),
  'cap-off': t(
    'Switch cap and sync off',
    'In title and driver, then the same run.',
    'More frames',
    'No change',
  ),
  'lid-open': t(
    'Open the lid',
    'Or free the vents, on a stand. Then the same load.',
    'It is better',
    'No change',
  ),
  'force-card': t(
    'Force the card for this program',
    'In the graphics settings of the system, then start the program anew.',
    'It is cured',
    'No change',
  ),
  'other-title': t(
    'Run a title of another engine',
    'One that ran well on a chain like this. Fine there means that the chain is fine.',
    'Fine there',
    'The same fault',
  ),
  'textures-down': t(
    'Textures one step down',
    'Only this setting; the same run.',
    'It is better',
    'No change',
  ),
  'no-saving': t(
    'Switch power saving of link and sleep off',
    'For link, card and system; then the same again.',
    'It is cured',
    'No change',
  ),
  'capture-off': t(
    'Stop capture, overlay and what else runs',
    'Everything that records, shows figures or syncs. The same run again.',
    'The hitch is gone',
    'No change',
  ),
  'key-when': t(
    'When is the key asked for?',
    'Compare starts with and without the card, or before and after the change of graphics.',
    'Only when graphics changed',
    'At other times too',
  ),
  'profile-reset': t(
    'Reset the display settings of the program',
    'Once, with the screen in use attached.',
    'It is right',
    'No change',
  ),
  'versions-changed': t(
    'Compare versions with the last known good',
    'System build, driver, firmware. The page shows what the record knows.',
    'Something changed',
    'Nothing changed',
  ),
  'opened-plugs': t(
    'Look at every plug you touched inside',
    'Charger out, host off, only as far as the maker allows: ribbons, fan, battery.',
    'One was not in place',
    'All in place',
  ),
  'start-order': t(
    'Read the start order in the firmware setup',
    'Which drive does it look for, and is it still there?',
    'It looks for a drive that is gone',
    'It is right',
  ),
} as const;
