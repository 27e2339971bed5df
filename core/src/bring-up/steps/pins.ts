import type { Installed, SoftwareRole } from '../../parts';
import type { Pin } from '../../setups';

/** A pin that is left: another version is installed, or about to be. */
export interface PinLeft extends Pin {
  readonly now: string;
}

/**
 * Version holds that the installed versions no longer meet. An unknown version breaks no hold.
 *
 * @param pins holds of the setup
 * @param installed versions in use, by component
 * @returns holds that are broken, with both versions
 */
export function pinsLeft(pins: readonly Pin[], installed: Partial<Installed>): PinLeft[] {
  return pins.flatMap((p) => {
    const now = installed[p.role]?.trim() ?? '';
    return now !== '' && now !== p.version ? [{ ...p, now }] : [];
  });
}

/**
 * Holds every known version at its present value; existing holds are kept.
 *
 * @param pins holds of the setup
 * @param installed versions in use
 * @param reason reason noted with each new hold
 * @returns all holds
 */
export function pinAll(pins: readonly Pin[], installed: Installed, reason: string): Pin[] {
  const known = (Object.entries(installed) as [SoftwareRole, string][]).filter(([, v]) => v !== '');
  const fresh = known.filter(([role]) => !pins.some((p) => p.role === role));
  return [...pins, ...fresh.map(([role, version]) => ({ role, version, reason }))];
}
