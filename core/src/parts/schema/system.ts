import * as z from 'zod';
import { choiceAttr, numAttr, textAttr, wordAttr } from './meta';
import { named } from './meta-common';

export const SYSTEM_FAMILIES = {
  windows: 'Windows',
  linux: 'Linux',
  macos: 'macOS',
  other: 'Other',
} as const;

/** An operating system as it is installed on hosts. */
export const systemSchema = z.strictObject({
  ...named,
  family: wordAttr('Family', SYSTEM_FAMILIES, {
    findOut: { how: 'Choose the system of the host among the parts.', minutes: 1 },
  }),
  outsideCards: choiceAttr(
    'Takes a card from outside',
    { yes: 'Yes', no: 'No' },
    {
      findOut: {
        how: "Look for outside graphics in the system maker's support pages.",
        minutes: 10,
      },
    },
  ),
});
export type SystemSpec = z.infer<typeof systemSchema>;

const version = (label: string, how: string) =>
  textAttr(label, 60, false, { findOut: { how, minutes: 5 } }).default('');

/** What is installed. Empty: not known. */
export const installedSchema = z.strictObject({
  dockFirmware: version(
    'Dock firmware',
    "Read nvm_version of the dock's router, or look in the maker's update tool.",
  ),
  hostFirmware: version(
    'Host firmware',
    'Read it in the firmware setup, or in the system information.',
  ),
  systemBuild: version(
    'System build',
    'Read the build in the system settings, or the kernel version.',
  ),
  driver: version(
    'Card driver',
    "Read it in the driver's own panel, or in the device's properties.",
  ),
  linkSoftware: version('Link software', "Read it in the link maker's control program."),
  linkFirmware: version(
    'Link controller firmware',
    "Read nvm_version of the host's own router, or look in the control program of the link.",
  ),
  cardFirmware: version(
    'Card firmware',
    "Read it in the driver's own panel, under the details of the card.",
  ),
});
export type Installed = z.infer<typeof installedSchema>;
export type SoftwareRole = keyof Installed;

const yesNo = { yes: 'Yes', no: 'No' } as const;

/** What a link permits before it is approved. */
export const SECURITY_WORDS = {
  none: 'None: everything connects',
  user: 'User: asks once',
  secure: 'Secure: asks, with a key',
  dponly: 'Pictures only',
  usbonly: 'USB only',
  nopcie: 'No PCIe',
} as const;

/** How the host is set while docked, and what stands beside it. */
export const settingsSchema = z.strictObject({
  approval: choiceAttr(
    'Dock approved',
    { none: 'Not yet', once: 'Once', always: 'Always' },
    { findOut: { how: "Look under the link's own list of devices.", minutes: 2 } },
  ),
  securityLevel: choiceAttr('Security level of the link', SECURITY_WORDS, {
    findOut: {
      how: 'Read it in the firmware setup, or "security" of the Thunderbolt domain in sysfs.',
      minutes: 5,
    },
  }),
  driverKind: choiceAttr(
    'Driver from',
    { maker: "The card's maker", repackaged: 'Repackaged by somebody else', system: 'The system' },
    { help: 'A repackaged driver runs with full rights.' },
  ),
  driverClass: choiceAttr('Driver class', { consumer: 'Consumer', professional: 'Professional' }),
  internalGraphics: choiceAttr('Internal graphics', { on: 'On', off: 'Switched off' }),
  wayBack: choiceAttr('Another way in if the picture goes', yesNo, {
    help: 'Remote login from another machine, or a firmware reset that brings the panel back.',
  }),
  toPanel: choiceAttr("Picture goes back to the host's panel", yesNo),
  encryption: choiceAttr('Disk encrypted', yesNo, {
    findOut: { how: "Look under the system's disk or privacy settings.", minutes: 2 },
  }),
  recoveryKey: choiceAttr('Recovery key at hand', yesNo, {
    when: { attr: 'encryption', is: ['yes'] },
  }),
  ownCharger: choiceAttr("Host's own charger plugged in", yesNo),
  chargeLead: choiceAttr('A second USB-C cable charges the host', yesNo, {
    help: 'Dock to host, beside a link that carries no power.',
  }),
  cardSits: choiceAttr(
    'The card sits',
    {
      inside: 'Inside, dock closed',
      'lid-off': 'In the dock, lid off',
      outside: 'Outside the case',
    },
    { help: "Only as the dock's maker allows." },
  ),
  lid: choiceAttr('Lid', { open: 'Open', closed: 'Closed' }),
  hostDrawW: numAttr('Host draws while working', 'W', 3, 400, {
    findOut: {
      how: 'Read the battery discharge rate undocked under the same load, or a meter at the charger.',
      minutes: 10,
    },
  }),
  overclockPercent: numAttr('Card power limit changed by', '%', -60, 50, {
    help: 'Minus for an undervolted or limited card.',
  }),
});
export type Settings = z.infer<typeof settingsSchema>;
/** Settings that are chosen from words: those a step may ask for. */
export const WORD_SETTINGS = [
  'approval',
  'securityLevel',
  'driverKind',
  'driverClass',
  'internalGraphics',
  'wayBack',
  'toPanel',
  'encryption',
  'recoveryKey',
  'ownCharger',
  'chargeLead',
  'lid',
] as const satisfies readonly (keyof Settings)[];
export type WordSetting = (typeof WORD_SETTINGS)[number];
export const NO_SETTINGS: Settings = settingsSchema.parse({});

export const WORK = {
  games: 'Games',
  render: 'Rendering',
  cad: 'CAD',
  editing: 'Photo or film editing',
  compute: 'Computing, learning',
  desk: 'Desk work',
} as const;

/** What it is wanted for. */
export const useSchema = z.strictObject({
  work: wordAttr('For', WORK),
  resolution: choiceAttr('At', {
    '1080p': '1920×1080',
    '1440p': '2560×1440',
    '2160p': '3840×2160',
    other: 'Other',
  }),
  note: textAttr('Which', 120, false, {
    help: 'Which titles or programs, and what would be good enough.',
  }).default(''),
});
export const usesSchema = z.array(useSchema).max(8, { error: 'Uses: at most 8' });
export type Use = z.infer<typeof useSchema>;
