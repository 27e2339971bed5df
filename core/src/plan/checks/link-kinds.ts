import type { Range } from '../../base';
import { capital, maybe, partNoun, rate } from '../../base/text';
import { portFamilies, portName, type Slot, tooOldToMeet, tunnelOf } from '../../chain';
import { hasPcie, PORT_STANDARDS } from '../../parts';
import { defineCheck } from '../check';
import { kind, possible } from '../kind';

/** A slot or port wired for something else than PCIe: no adapter makes a card appear. */
export const noPcie = defineCheck({
  id: 'no-pcie',
  reads: ['socket'],
  searchGroup: 'link',
  findings: {
    'link/no-pcie': kind<{ port: string; standard: string }>('blocks', ({ port, standard }, c) => ({
      what: maybe(c, 'This port carries no PCIe', 'This port may carry no PCIe'),
      why: `The ${port} port is ${standard}; no adapter makes a card appear behind it.`,
      todo: maybe(
        c,
        'Choose another port or slot of this host.',
        "Look for the slot's lanes in the maker's manual before you buy.",
      ),
    })),
  },
  run({ socket }) {
    if (!socket || hasPcie(socket.standard) || socket.connector === 'usb-c') return [];
    const params = { port: portName(socket), standard: PORT_STANDARDS[socket.standard] };
    return [{ code: 'link/no-pcie', slots: ['socket'], params, source: 'common-practice' }];
  },
});

/** A USB4 end without Thunderbolt 3 facing an older Thunderbolt end: USB passes, no card appears. */
export const tooOld = defineCheck({
  id: 'too-old',
  reads: ['socket', 'dock'],
  searchGroup: 'link',
  findings: {
    'link/too-old': kind<{ at: Slot; older: string }>('blocks', ({ at, older }, c) => ({
      what: maybe(c, 'The two ends do not meet', 'The two ends may not meet'),
      why: maybe(
        c,
        `${capital(partNoun(at))} does not speak Thunderbolt 3, the other end is ${older}: USB passes, but no card appears.`,
        `${c.notKnown} A USB4 end without Thunderbolt 3 facing an older Thunderbolt end passes USB, but no card appears.`,
      ),
      todo: maybe(
        c,
        'Choose a dock and a port of the same age.',
        `Find out whether ${partNoun(at)} speaks Thunderbolt 3.`,
      ),
    })),
  },
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
});

/** A maker's own port goes with parts of its own family only. */
export const ownPort = defineCheck({
  id: 'own-port',
  reads: ['socket', 'path', 'dock'],
  searchGroup: 'link',
  findings: {
    'link/other-family': kind<{ a: string; b: string; part: Slot }>(
      'blocks',
      ({ a, b, part }, c) => ({
        what: maybe(
          c,
          "The maker's own ports are of two families",
          "The maker's own ports may be of two families",
        ),
        why: b
          ? `One end is "${a}", the other "${b}": alike in shape, not in wiring.`
          : 'Such ports go with parts of their own family only, and one end is not named.',
        todo: `Read the name of the port on host and dock; ${partNoun(part)} must match.`,
      }),
    ),
  },
  run({ socket, path, dock }) {
    const all = portFamilies({ socket, path, dock });
    if (all.length < 2) return [];
    const named = all.filter((p) => p.name !== '');
    const first = named[0];
    const other = named.find((p) => p.name.toLowerCase() !== first?.name.toLowerCase());
    const common = { code: 'link/other-family', source: 'common-practice' } as const;
    if (first && other) {
      const params = { a: first.name, b: other.name, part: other.slot };
      return [{ ...common, slots: [other.slot], params }];
    }
    const open = all.filter((p) => p.name === '');
    if (open.length === 0) return [];
    const part = open[0]?.slot ?? 'dock';
    return [
      {
        ...common,
        slots: [part],
        ...possible(open.map((p) => p.attr)),
        params: { a: first?.name ?? '', b: '', part },
      },
    ];
  },
});

/** Dock firmware older than the one that lifted its cap. */
export const firmwareCap = defineCheck({
  id: 'firmware-cap',
  reads: ['dock', 'installed', 'link'],
  searchGroup: 'link',
  findings: {
    // The cap in Gb/s.
    'dock/firmware-cap': kind<{ now: string; from: string; cap: Range }>(
      'care',
      ({ now, from, cap }, c) => ({
        what: maybe(c, 'Dock firmware holds the dock back', 'Dock firmware may hold the dock back'),
        why: `Firmware ${from} changed the cap of this dock; installed: ${now}. Now it passes ${rate(cap)} Gb/s at most.`,
        todo: maybe(
          c,
          "Update the dock before first use. A broken update can kill it: charger in, no sleep, cable untouched, as the maker's manual says.",
          'Read the installed firmware first.',
        ),
      }),
      { cause: 'dock-firmware' },
    ),
  },
  run({ dock, installed, link }) {
    if (!dock || dock.capFirmware === '' || !tunnelOf(dock.uplink)) return [];
    const cap = link.shapes.flatMap((s) => s.limits).find((l) => l.kind === 'cap');
    if (cap?.attr !== 'installed/dockFirmware') return [];
    const known = installed.dockFirmware !== '' && cap.value.lo === cap.value.hi;
    return [
      {
        code: 'dock/firmware-cap',
        slots: ['dock'],
        ...(!known && possible(['installed/dockFirmware'])),
        params: {
          now: installed.dockFirmware || 'not known',
          from: dock.capFirmware,
          cap: cap.value,
        },
        source: 'common-practice',
      },
    ];
  },
});
