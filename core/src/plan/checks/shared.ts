import type { Range } from '../../base';
import { asRange, rate } from '../../base/text';
import { lookAlikes, portName, takesOf } from '../../chain';
import { LOAD_KINDS } from '../../parts';
import { defineCheck } from '../check';
import { kind } from '../kind';

/** Rates in Gb/s, host to dock and back. */
interface Shared {
  what: string;
  kind: keyof typeof LOAD_KINDS;
  down: Range;
  up: Range;
}

/** What hangs from the dock and takes from the link, each with its rates; on its own cable it takes nothing. */
export const shared = defineCheck({
  id: 'shared',
  reads: ['loads', 'dock', 'link'],
  searchGroup: 'none',
  findings: {
    'link/shared': kind<Shared>(
      'note',
      (p) => {
        const back = p.up.hi > 0 ? ` and ${rate(p.up)} back` : '';
        const video = p.kind === 'video';
        return {
          what: `${p.what}: takes ${rate(p.down)} Gb/s to the dock${back}`,
          why: video
            ? 'Its picture crosses the same link; what its trained rate has beyond the picture stays free for the card.'
            : 'It shares the link with the card while it is in use.',
          todo: video
            ? 'Put the screen on the card.'
            : 'Give the hub its own cable back, or leave it idle while it matters.',
        };
      },
      { cause: 'shared-link' },
    ),
  },
  run({ loads, dock, link }) {
    if (link.kind !== 'tunnel') return [];
    const lead = typeof dock?.ownLead === 'string' ? dock.ownLead : null;
    return loads.flatMap((load, i) => {
      const { down, up } = takesOf(load, lead);
      if (down.hi === 0 && up.hi === 0) return [];
      return [
        {
          code: 'link/shared' as const,
          slots: ['loads' as const],
          about: String(i),
          params: { what: LOAD_KINDS[load.kind], kind: load.kind, down, up },
          source: 'usb4' as const,
        },
      ];
    });
  },
});

/** Ports of the host that have the same plug as the one in use but another standard: only the mark tells them apart. */
export const lookAlike = defineCheck({
  id: 'look-alike',
  reads: ['host', 'socket'],
  searchGroup: 'none',
  findings: {
    'host/look-alike': kind<{ port: string; mark: string; others: string; n: number }>(
      'note',
      (p) => {
        const one = asRange(p.n).lo === 1;
        return {
          what: `${one ? 'Another port looks' : 'Other ports look'} like this one and ${one ? 'carries' : 'carry'} something else`,
          why: `Use ${p.port} (marked: ${p.mark}), not ${p.others}.`,
          todo: 'Go by the mark and the place on the case; the shape of the plug proves nothing.',
        };
      },
      { cause: 'look-alike-port' },
    ),
  },
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
});

/** Some cards carry a switch: what their graphics function shows is not the link to the dock. */
export const innerSwitch = defineCheck({
  id: 'inner-switch',
  reads: ['card'],
  searchGroup: 'none',
  findings: {
    'card/inner-switch': kind<{ shows: string }>(
      'note',
      ({ shows }) => ({
        what: `The card's own graphics always shows ${shows}`,
        why: 'It sits behind a switch on the card. That reading is not the link to the dock.',
        todo: "Read the bridge above it: the card's upstream port against the slot.",
      }),
      { area: 'link' },
    ),
  },
  run({ card }) {
    if (typeof card?.innerSwitch !== 'string' || card.innerSwitch === 'none') return [];
    const shows = card.innerSwitch === 'full' ? '16 GT/s ×16' : '2.5 GT/s ×1';
    return [
      { code: 'card/inner-switch', slots: ['card'], params: { shows }, source: 'kernel-abi' },
    ];
  },
});
