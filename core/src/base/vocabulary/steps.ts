/** The lists a chain has: bringing it up, taking it apart for the road, and putting it together again. */
export const PURPOSES = ['bring-up', 'undock', 'dock-again'] as const;
export type Purpose = (typeof PURPOSES)[number];

export const PHASES = [
  'before',
  'open',
  'mount',
  'connect',
  'check',
  'settle',
  'finish',
  'leave',
  'apart',
  'after',
] as const;
export type Phase = (typeof PHASES)[number];

/** Every step there is. A name is for good: events point to it. */
export const STEP_IDS = [
  'save-work',
  'recovery-key',
  'read-versions',
  'network',
  'dock-firmware',
  'host-firmware',
  'link-software',
  'driver-before',
  'other-drive',
  'way-back',
  'charger',
  'print',
  'host-off',
  'host-lid',
  'battery-off',
  'slot-out',
  'cut-shell',
  'adapter-in',
  'host-close',
  'host-alone',
  'dock-dead',
  'dock-open',
  'supply-in',
  'card-seat',
  'card-hold',
  'power-plugs',
  'dock-close',
  'place',
  'mains-out',
  'host-down',
  'plug-cable',
  'dock-on',
  'host-start',
  'approve',
  'listed',
  'driver-after',
  'driver-holds',
  'read-outs',
  'copy-down',
  'copy-up',
  'soak',
  'screen-path',
  'panel-path',
  'power-limits',
  'shared-memory',
  'internal-off',
  'programs',
  'first-run',
  'profiles',
  'buttons',
  'sleep-wake',
  'docked-check',
  'log-entry',
  'close-programs',
  'internal-back',
  'eject',
  'host-stop',
  'dock-off',
  'unplug-cable',
  'memory-back',
  'undocked-check',
] as const;
export type StepId = (typeof STEP_IDS)[number];

/** Schools of the power order. */
export const ORDER_IDS = ['all-off', 'slaved', 'dock-first', 'host-first', 'any-time'] as const;
export type OrderId = (typeof ORDER_IDS)[number];

/** Driver before the first plug, or after it. */
export const DRIVER_SCHOOLS = ['before', 'after'] as const;
export type DriverSchool = (typeof DRIVER_SCHOOLS)[number];
