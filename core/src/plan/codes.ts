import type { Severity } from './severity';

export type Area =
  | 'link'
  | 'cable'
  | 'plan'
  | 'log'
  | 'power'
  | 'charging'
  | 'fit'
  | 'cooling'
  | 'screen'
  | 'software'
  | 'route'
  | 'card'
  | 'preflight';

/** Every finding the core can make, with its area and severity. */
export const FINDING_CODES = {
  'link/no-tunnel': { area: 'link', severity: 'blocks' },
  'link/no-pcie': { area: 'link', severity: 'blocks' },
  'link/too-old': { area: 'link', severity: 'blocks' },
  'link/other-family': { area: 'link', severity: 'blocks' },
  'link/plug-mismatch': { area: 'link', severity: 'blocks' },
  'cable/missing': { area: 'cable', severity: 'blocks' },
  'cable/no-data': { area: 'cable', severity: 'blocks' },
  'software/security': { area: 'software', severity: 'blocks' },
  'software/no-outside': { area: 'software', severity: 'blocks' },
  'software/refused': { area: 'software', severity: 'blocks' },
  'power/plugs-short': { area: 'power', severity: 'blocks' },
  'power/over': { area: 'power', severity: 'blocks' },
  'power/uncovered': { area: 'power', severity: 'blocks' },
  'power/no-supply': { area: 'power', severity: 'blocks' },
  'fit/too-big': { area: 'fit', severity: 'blocks' },
  'fit/supply-form': { area: 'fit', severity: 'blocks' },
  'plan/unchosen': { area: 'plan', severity: 'blocks' },
  'power/two-on-card': { area: 'power', severity: 'care' },
  'route/cutting': { area: 'route', severity: 'care' },
  'route/boot': { area: 'route', severity: 'care' },
  'route/network': { area: 'route', severity: 'care' },
  'preflight/recovery-key': { area: 'preflight', severity: 'care' },
  'preflight/way-back': { area: 'preflight', severity: 'care' },
  'software/firmware-first': { area: 'software', severity: 'care' },
  'software/unmet': { area: 'software', severity: 'care' },
  'software/withdrawn': { area: 'software', severity: 'care' },
  'software/repackaged': { area: 'software', severity: 'care' },
  'software/driver-class': { area: 'software', severity: 'care' },
  'software/approval': { area: 'software', severity: 'care' },
  'cable/too-long': { area: 'cable', severity: 'care' },
  'cable/beyond-standard': { area: 'cable', severity: 'care' },
  'cable/joined': { area: 'cable', severity: 'care' },
  'cable/direct-long': { area: 'cable', severity: 'care' },
  'dock/firmware-cap': { area: 'link', severity: 'care' },
  'link/pinch': { area: 'link', severity: 'care' },
  'power/tight': { area: 'power', severity: 'care' },
  'power/peak': { area: 'power', severity: 'care' },
  'power/slot': { area: 'power', severity: 'care' },
  'power/sense': { area: 'power', severity: 'care' },
  'charging/drains': { area: 'charging', severity: 'care' },
  'charging/refused': { area: 'charging', severity: 'care' },
  'fit/bend': { area: 'fit', severity: 'care' },
  'fit/unheld': { area: 'fit', severity: 'care' },
  'fit/heavy': { area: 'fit', severity: 'care' },
  'cooling/hot': { area: 'cooling', severity: 'care' },
  'screen/no-plug': { area: 'screen', severity: 'care' },
  'screen/too-much': { area: 'screen', severity: 'care' },
  'screen/panel': { area: 'screen', severity: 'care' },
  'card/name-trap': { area: 'card', severity: 'care' },
  'log/contradiction': { area: 'log', severity: 'care' },
  'link/all-off': { area: 'link', severity: 'note' },
  'link/looks-like-video': { area: 'link', severity: 'note' },
  'power/beside': { area: 'power', severity: 'note' },
  'power/used': { area: 'power', severity: 'note' },
  'power/cpu-plug': { area: 'power', severity: 'note' },
  'fit/open-board': { area: 'fit', severity: 'note' },
  'route/opening': { area: 'route', severity: 'note' },
  'path/slot-used': { area: 'link', severity: 'note' },
  'charging/none': { area: 'charging', severity: 'note' },
  'fit/short-only': { area: 'fit', severity: 'note' },
  'fit/screws': { area: 'fit', severity: 'note' },
  'cooling/lid': { area: 'cooling', severity: 'note' },
  'cooling/loud': { area: 'cooling', severity: 'note' },
  'screen/compressed': { area: 'screen', severity: 'note' },
  'screen/through-dock': { area: 'screen', severity: 'note' },
  'software/heed': { area: 'software', severity: 'note' },
  'software/newer': { area: 'software', severity: 'note' },
  'software/many-chips': { area: 'software', severity: 'note' },
  'link/shared': { area: 'link', severity: 'note' },
  'link/read-out': { area: 'link', severity: 'note' },
  'card/inner-switch': { area: 'link', severity: 'note' },
  'host/look-alike': { area: 'link', severity: 'note' },
  'cable/watts': { area: 'cable', severity: 'note' },
} as const satisfies Record<string, { area: Area; severity: Severity }>;
export type FindingCode = keyof typeof FINDING_CODES;
