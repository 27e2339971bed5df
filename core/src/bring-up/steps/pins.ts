import type { Installed, SoftwareRole } from '../../parts';
import type { Pin } from '../../setups';

/** A pin that is left: another version is installed, or about to be. */
export interface PinLeft extends Pin {
  readonly now: string;
}

/** The pins these versions leave. What is not known leaves none: an empty field is no update. */
export function pinsLeft(pins: readonly Pin[], installed: Partial<Installed>): PinLeft[] {
  return pins.flatMap((p) => {
    const now = installed[p.role]?.trim() ?? '';
    return now !== '' && now !== p.version ? [{ ...p, now }] : [];
  });
}

/** What pinning the versions of now would hold: those that are known, with pins that are there kept as they are. */
export function pinAll(pins: readonly Pin[], installed: Installed, reason: string): Pin[] {
  const known = (Object.entries(installed) as [SoftwareRole, string][]).filter(([, v]) => v !== '');
  const fresh = known.filter(([role]) => !pins.some((p) => p.role === role));
  return [...pins, ...fresh.map(([role, version]) => ({ role, version, reason }))];
}
