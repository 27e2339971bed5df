import { lookAlikes, portName, takesOf } from '../../chain';
import { LOAD_KINDS } from '../../parts';
import type { Check, FindingDraft } from '../types';

/** What hangs from the dock and takes from the link, each with its rates; on its own cable it takes nothing. */
export const shared: Check<'loads' | 'dock' | 'link'> = {
  id: 'shared',
  codes: ['link/shared'],
  reads: ['loads', 'dock', 'link'],
  run({ loads, dock, link }) {
    if (link.kind !== 'tunnel') return [];
    const lead = typeof dock?.ownLead === 'string' ? dock.ownLead : null;
    return loads.flatMap((load, i): FindingDraft[] => {
      const { down, up } = takesOf(load, lead);
      if (down.hi === 0 && up.hi === 0) return [];
      const params = { what: LOAD_KINDS[load.kind], kind: load.kind, down, up };
      return [{ code: 'link/shared', slots: ['loads'], about: String(i), params, source: 'usb4' }];
    });
  },
};

/** Ports of the host that have the same plug as the one in use but another standard: only the mark tells them apart. */
export const lookAlike: Check<'host' | 'socket'> = {
  id: 'look-alike',
  codes: ['host/look-alike'],
  reads: ['host', 'socket'],
  run({ host, socket }) {
    if (!host || !socket) return [];
    const own = host.sockets.find((s) => s.key === socket.key);
    const twins = lookAlikes(host, socket.key);
    if (twins.length === 0) return [];
    const others = twins.map(portName).join('; ');
    const params = {
      port: own?.position || socket.key,
      mark: own?.mark || 'nothing',
      others,
      n: twins.length,
    };
    return [{ code: 'host/look-alike', slots: ['socket'], params, source: 'common-practice' }];
  },
};

/** Some cards carry a switch: what their graphics function shows is not the link to the dock. */
export const innerSwitch: Check<'card'> = {
  id: 'inner-switch',
  codes: ['card/inner-switch'],
  reads: ['card'],
  run({ card }) {
    if (typeof card?.innerSwitch !== 'string' || card.innerSwitch === 'none') return [];
    const shows = card.innerSwitch === 'full' ? '16 GT/s ×16' : '2.5 GT/s ×1';
    return [
      { code: 'card/inner-switch', slots: ['card'], params: { shows }, source: 'kernel-abi' },
    ];
  },
};
