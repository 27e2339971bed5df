export const COMPAT_SORTS = [
  'newest',
  'host',
  'port',
  'dock',
  'card',
  'n',
  'share',
  'near',
] as const;

export const VERSION_LABELS = {
  system: 'System build',
  driver: 'Card driver',
  hostFirmware: 'Host firmware',
  dockFirmware: 'Dock firmware',
} as const;

export const PROVENANCES = ['own', 'loan', 'bought', 'told'] as const;

export const PROVENANCE_LABELS = {
  own: 'Own',
  loan: 'On loan',
  bought: 'Just bought',
  told: 'Reported by others',
} as const;

export const GRID_AXES = ['host-dock', 'host-card', 'dock-card'] as const;
