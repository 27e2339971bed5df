import type { Installed, SoftwareRole } from './system';

/*
 * Words that computation needs, apart from the schemas that are built on them: a worker that judges chains must not
 * carry the schema library.
 */

export const LOAD_KINDS = {
  hub: 'USB hub',
  lan: 'LAN',
  drive: 'Drive',
  video: 'Screen on the dock',
} as const;

export const SOFTWARE_NAMES = {
  dockFirmware: 'Dock firmware',
  hostFirmware: 'Host firmware',
  systemBuild: 'System build',
  driver: 'Card driver',
  linkSoftware: 'Link software',
  linkFirmware: 'Link controller firmware',
  cardFirmware: 'Card firmware',
} as const;

export const NOTHING_INSTALLED: Installed = {
  dockFirmware: '',
  hostFirmware: '',
  systemBuild: '',
  driver: '',
  linkSoftware: '',
  linkFirmware: '',
  cardFirmware: '',
};

export const SOFTWARE_ROLES = Object.keys(NOTHING_INSTALLED) as SoftwareRole[];
