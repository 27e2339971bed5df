import { isInside } from '../../schema';
import { freeSlots, portName } from '../../setup';
import type { Check, Draft } from '../types';

/** What a route takes away: the shell, the drive the system starts from, the radio card. */
export const routeCosts: Check<'port' | 'host'> = {
  id: 'route-costs',
  codes: ['route/cutting', 'route/opening', 'route/boot', 'route/network', 'path/slot-used'],
  reads: ['port', 'host'],
  run({ port, host }) {
    if (!port || !host || !isInside(port.connector)) return [];
    const slot = portName(port);
    const say = (code: Draft['code'], params: Draft['params'] = {}): Draft => ({
      code,
      slots: ['host', 'socket'],
      params: { slot, ...params },
      source: 'common-practice',
    });
    const found: Draft[] = [];
    if (port.reach === 'cut') found.push(say('route/cutting'));
    if (port.reach === 'cover') found.push(say('route/opening'));
    const free = freeSlots(host, port.key).join(', ');
    if (port.holds === 'system-drive') found.push(say('route/boot', { free }));
    if (port.holds === 'radio') found.push(say('route/network', { lan: typeof host.lan === 'string' ? host.lan : 'not known' }));
    if (port.holds === 'drive') found.push(say('path/slot-used', { holds: 'drive', free }));
    if (port.holds === null) found.push(say('path/slot-used', { holds: port.connector }));
    return found;
  },
};

/** Before a step that can lock somebody out: the recovery key, and a way back when the picture may go. */
export const lockOut: Check<'settings'> = {
  id: 'lock-out',
  codes: ['preflight/recovery-key', 'preflight/way-back'],
  reads: ['settings'],
  run({ settings }) {
    const found: Draft[] = [];
    if (settings.encryption === 'yes' && settings.recoveryKey !== 'yes')
      found.push({
        code: 'preflight/recovery-key',
        slots: ['settings'],
        params: { known: settings.recoveryKey === 'no' ? 'no' : 'not known' },
        source: 'common-practice',
      });
    if (settings.internalGraphics === 'off' && settings.wayBack !== 'yes')
      found.push({ code: 'preflight/way-back', slots: ['settings'], params: {}, source: 'common-practice' });
    return found;
  },
};

/** A mobile or trimmed chip that carries the number of a desktop card. */
export const nameTrap: Check<'card'> = {
  id: 'name-trap',
  codes: ['card/name-trap'],
  reads: ['card'],
  run({ card }) {
    if (!card || (card.chip !== 'mobile' && card.chip !== 'trimmed') || card.namesake === '') return [];
    const params: Record<string, number | string> = { namesake: card.namesake, chip: card.chip };
    for (const [key, value] of Object.entries({
      units: card.units,
      ofUnits: card.namesakeUnits,
      memory: card.memoryGB,
      ofMemory: card.namesakeMemoryGB,
      watts: card.boardW,
      ofWatts: card.namesakeW,
    }))
      if (typeof value === 'number') params[key] = value;
    return [{ code: 'card/name-trap', slots: ['card'], params, source: 'common-practice' }];
  },
};
