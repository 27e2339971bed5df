import { portName, socketPath } from '../../chain';
import { type HostSpec, isInside } from '../../parts';
import { freeSlots } from '../../setups';
import type { Check, FindingDraft } from '../types';
import { certainIf, possible } from './certainty';

/** What a route takes away: the shell, the drive the system starts from, the radio card. */
export const routeCosts: Check<'port' | 'host'> = {
  id: 'route-costs',
  codes: ['route/cutting', 'route/opening', 'route/boot', 'route/network', 'path/slot-used'],
  reads: ['port', 'host'],
  run({ port, host }) {
    if (!port || !host || !isInside(port.connector)) return [];
    const slot = portName(port);
    const say = (
      code: FindingDraft['code'],
      params: FindingDraft['params'] = {},
    ): FindingDraft => ({
      code,
      slots: ['host', 'socket'],
      params: { slot, ...params },
      source: 'common-practice',
    });
    const found: FindingDraft[] = [];
    const at = (attr: string) => possible([socketPath(port.key, attr)]);
    const reach = oneOf(port.reach);
    if (reach?.[0] === 'cut' && reach.length === 1) found.push(say('route/cutting'));
    else if (reach === null || reach.includes('cut'))
      found.push({ ...say('route/cutting'), ...at('reach') });
    if (port.reach === 'cover') found.push(say('route/opening'));
    const free = freeSlots(host, port.key).join(', ');
    const holds = oneOf(port.holds);
    if (holds === null || holds.length > 1) {
      const radio =
        port.connector === 'mini-card' || (holds !== null && !holds.includes('system-drive'));
      if (holds === null || holds.includes('radio') || holds.includes('system-drive'))
        found.push({
          ...(radio ? say('route/network', { lan: lanOf(host) }) : say('route/boot', { free })),
          ...at('holds'),
        });
    }
    if (port.holds === 'system-drive') found.push(say('route/boot', { free }));
    if (port.holds === 'radio') found.push(say('route/network', { lan: lanOf(host) }));
    if (port.holds === 'drive') found.push(say('path/slot-used', { holds: 'drive', free }));
    if (port.holds === null) found.push(say('path/slot-used', { holds: port.connector }));
    return found;
  },
};

/** The words a choice is stated as; null when it is not stated. */
function oneOf(
  stated: string | { readonly oneOf: readonly string[] } | null,
): readonly string[] | null {
  return typeof stated === 'string' ? [stated] : (stated?.oneOf ?? null);
}

function lanOf(host: HostSpec): string {
  return typeof host.lan === 'string' ? host.lan : 'not known';
}

/** Before a step that can lock somebody out: the recovery key, and a way back when the picture may go. */
export const lockOut: Check<'settings'> = {
  id: 'lock-out',
  codes: ['preflight/recovery-key', 'preflight/way-back'],
  reads: ['settings'],
  run({ settings }) {
    const found: FindingDraft[] = [];
    if (settings.encryption === 'yes' && settings.recoveryKey !== 'yes')
      found.push({
        code: 'preflight/recovery-key',
        slots: ['settings'],
        params: { known: settings.recoveryKey === 'no' ? 'no' : 'not known' },
        source: 'common-practice',
      });
    if (settings.internalGraphics === 'off' && settings.wayBack !== 'yes')
      found.push({
        code: 'preflight/way-back',
        slots: ['settings'],
        params: {},
        source: 'common-practice',
      });
    return found;
  },
};

/** A mobile or trimmed chip that carries the number of a desktop card. */
export const nameTrap: Check<'card'> = {
  id: 'name-trap',
  codes: ['card/name-trap'],
  reads: ['card'],
  run({ card }) {
    if (!card || card.namesake === '' || card.chip === 'desktop') return [];
    const known = typeof card.chip === 'string';
    const params: Record<string, number | string> = {
      namesake: card.namesake,
      ...(known && { chip: String(card.chip) }),
    };
    for (const [key, value] of Object.entries({
      units: card.units,
      ofUnits: card.namesakeUnits,
      memory: card.memoryGB,
      ofMemory: card.namesakeMemoryGB,
      watts: card.boardW,
      ofWatts: card.namesakeW,
    }))
      if (typeof value === 'number') params[key] = value;
    const common = {
      code: 'card/name-trap',
      slots: ['card'],
      params,
      source: 'common-practice',
    } as const;
    return [{ ...common, ...certainIf(known, ['card/chip']) }];
  },
};
