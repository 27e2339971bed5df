import { portFamilies, portName, tooOldToMeet, tunnelOf } from '../../chain';
import { hasPcie, PORT_STANDARDS } from '../../parts';
import type { Check, FindingDraft } from '../types';

/** A slot or port wired for something else than PCIe: no adapter makes a card appear. */
export const noPcie: Check<'socket'> = {
  id: 'no-pcie',
  codes: ['link/no-pcie'],
  reads: ['socket'],
  run({ socket }) {
    if (!socket || hasPcie(socket.standard) || socket.connector === 'usb-c') return [];
    const params = { port: portName(socket), standard: PORT_STANDARDS[socket.standard] };
    return [{ code: 'link/no-pcie', slots: ['socket'], params, source: 'common-practice' }];
  },
};

/** A USB4 end without Thunderbolt 3 facing an older Thunderbolt end: USB passes, no card appears. */
export const tooOld: Check<'socket' | 'dock'> = {
  id: 'too-old',
  codes: ['link/too-old'],
  reads: ['socket', 'dock'],
  run({ socket, dock }) {
    const at = socket?.tunnels ? tooOldToMeet(socket, dock) : null;
    if (!at || !socket || !dock) return [];
    const older = at === 'dock' ? socket.standard : dock.uplink;
    return [
      {
        code: 'link/too-old',
        slots: [at],
        params: { at, older: PORT_STANDARDS[older] },
        source: 'usb4',
      },
    ];
  },
};

/** A maker's own port goes with parts of its own family only. */
export const ownPort: Check<'socket' | 'path' | 'dock'> = {
  id: 'own-port',
  codes: ['link/other-family'],
  reads: ['socket', 'path', 'dock'],
  run({ socket, path, dock }) {
    const all = portFamilies({ socket, path, dock });
    if (all.length < 2) return [];
    const named = all.filter((p) => p.name !== '');
    const first = named[0];
    const other = named.find((p) => p.name.toLowerCase() !== first?.name.toLowerCase());
    const common = { code: 'link/other-family' as const, source: 'common-practice' as const };
    if (first && other)
      return [
        {
          ...common,
          slots: [other.slot],
          params: { a: first.name, b: other.name, part: other.slot },
        },
      ];
    const open = all.filter((p) => p.name === '');
    if (open.length === 0) return [];
    const draft: FindingDraft = {
      ...common,
      slots: [open[0]?.slot ?? 'dock'],
      certainty: 'possible',
      hangsOn: open.map((p) => p.attr),
      params: { a: first?.name ?? '', b: '', part: open[0]?.slot ?? 'dock' },
    };
    return [draft];
  },
};

/** Dock firmware older than the one that lifted its cap. */
export const firmwareCap: Check<'dock' | 'installed' | 'link'> = {
  id: 'firmware-cap',
  codes: ['dock/firmware-cap'],
  reads: ['dock', 'installed', 'link'],
  run({ dock, installed, link }) {
    if (!dock || dock.capFirmware === '' || !tunnelOf(dock.uplink)) return [];
    const cap = link.shapes.flatMap((s) => s.limits).find((l) => l.kind === 'cap');
    if (cap?.attr !== 'installed/dockFirmware') return [];
    const known = installed.dockFirmware !== '' && cap.value.lo === cap.value.hi;
    return [
      {
        code: 'dock/firmware-cap',
        slots: ['dock'],
        ...(!known && { certainty: 'possible' as const, hangsOn: ['installed/dockFirmware'] }),
        params: {
          now: installed.dockFirmware || 'not known',
          from: dock.capFirmware,
          cap: cap.value,
        },
        source: 'common-practice',
      },
    ];
  },
};
