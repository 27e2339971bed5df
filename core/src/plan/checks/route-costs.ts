import { capital, maybe } from '../../base/text';
import { portName, socketPath } from '../../chain';
import { type HostSpec, isInside, type SocketSpec } from '../../parts';
import { freeSlots } from '../../setups';
import { defineCheck, type DraftOf } from '../check';
import { kind, possible } from '../kind';

/** What is in a slot, where that decides what the route costs. */
const HOLDS: Readonly<Record<string, string>> = {
  m2: 'often the drive the system starts from',
  'mini-card': 'often the radio card, and with it the network',
  drive: 'a drive that is not the one the system starts from',
};

const LAN = {
  yes: {
    why: 'Wireless network and Bluetooth are lost; the LAN socket is left.',
    todo: 'Lay a LAN cable first.',
  },
  no: {
    why: 'Wireless network and Bluetooth are lost, and the host has no LAN socket.',
    todo: 'Have a USB network adapter ready, with its driver installed.',
  },
  'not known': {
    why: 'Wireless network and Bluetooth are lost; whether the host has a LAN socket is not known.',
    todo: 'Have a USB network adapter ready, with its driver installed.',
  },
} as const;
type Lan = keyof typeof LAN;

const FINDINGS = {
  'route/cutting': kind<{ slot: string }>('care', ({ slot }, c) => ({
    what: maybe(
      c,
      'Cutting cannot be undone, and a battery may lie behind the shell',
      'The shell may have to be cut: that cannot be undone',
    ),
    why: maybe(c, `${capital(slot)} is reached only by cutting.`, c.notKnown),
    todo: "Take another route if there is one. The maker's manual and a licensed repairer count before this.",
  })),
  'route/boot': kind<{ slot: string; free: string }>('care', ({ slot, free }, c) => ({
    what: maybe(
      c,
      `The drive in ${slot} holds the system`,
      `The drive in ${slot} may hold the system`,
    ),
    why: 'This route takes its slot; the host then starts from nothing.',
    todo: free
      ? `Move the drive to ${free}, or start from another drive first; check it before the adapter goes in.`
      : 'No other slot is known to be free: start from a USB drive first, and check it before the adapter goes in.',
  })),
  'route/network': kind<{ slot: string; lan: Lan }>('care', ({ slot, lan }, c) => ({
    what: maybe(c, `The radio card leaves ${slot}`, `The radio card may have to leave ${slot}`),
    ...LAN[lan],
  })),
  'route/opening': kind<{ slot: string }>('note', ({ slot }) => ({
    what: `Shock and shorts threaten when the host is opened to reach ${slot}`,
    why: 'A charged battery sits under most lids, a fan cable may hang on the cover, thermal compound may conduct.',
    todo: "Power off, charger out, battery off where the maker allows; mind static. Only as far as the maker's manual goes.",
  })),
  'path/slot-used': kind<{ slot: string; holds: string; free?: string }>(
    'note',
    ({ slot, holds }) => ({
      what: `This route takes ${slot}`,
      why: `What sits in that slot must make room: ${HOLDS[holds] ?? 'look what it is'}.`,
      todo: "Mains out, battery off where the maker allows it. Move what is in it first, and open the host only as far as the maker's manual says.",
    }),
  ),
};
type Draft = DraftOf<typeof FINDINGS>;

/** The words a choice is stated as; null when it is not stated. */
function oneOf(
  stated: string | { readonly oneOf: readonly string[] } | null,
): readonly string[] | null {
  return typeof stated === 'string' ? [stated] : (stated?.oneOf ?? null);
}

const COMMON = { slots: ['host', 'socket'], source: 'common-practice' } as const;

/** What reaching the slot takes: a cut or an opened shell. */
function reaching(port: SocketSpec, slot: string): Draft[] {
  const reach = oneOf(port.reach);
  const cutting = { code: 'route/cutting', ...COMMON, params: { slot } } as const;
  if (reach?.length === 1 && reach[0] === 'cut') return [cutting];
  const found: Draft[] = [];
  if (reach === null || reach.includes('cut'))
    found.push({ ...cutting, ...possible([socketPath(port.key, 'reach')]) });
  if (port.reach === 'cover') found.push({ code: 'route/opening', ...COMMON, params: { slot } });
  return found;
}

/** What leaves the slot: the system's drive, the radio card, another drive. */
function leaving(port: SocketSpec, host: HostSpec, slot: string): Draft[] {
  const free = freeSlots(host, port.key).join(', ');
  const lan: Lan = typeof host.lan === 'string' ? host.lan : 'not known';
  const boot = { code: 'route/boot', ...COMMON, params: { slot, free } } as const;
  const network = { code: 'route/network', ...COMMON, params: { slot, lan } } as const;
  const used = (more: { holds: string; free?: string }): Draft => ({
    code: 'path/slot-used',
    ...COMMON,
    params: { slot, ...more },
  });
  if (port.holds === 'system-drive') return [boot];
  if (port.holds === 'radio') return [network];
  if (port.holds === 'drive') return [used({ holds: 'drive', free })];
  const holds = oneOf(port.holds);
  const unstated = port.holds === null ? [used({ holds: port.connector })] : [];
  if (holds?.length === 1) return unstated;
  const mayRadio = holds === null || holds.includes('radio');
  const mayBoot = holds === null || holds.includes('system-drive');
  const radio = port.connector === 'mini-card' || (holds !== null && !mayBoot);
  const open = possible([socketPath(port.key, 'holds')]);
  return mayRadio || mayBoot ? [{ ...(radio ? network : boot), ...open }, ...unstated] : unstated;
}

/** What a route takes away: the shell, the drive the system starts from, the radio card. */
export const routeCosts = defineCheck({
  id: 'route-costs',
  reads: ['port', 'host'],
  searchGroup: 'route',
  findings: FINDINGS,
  run({ port, host }) {
    if (!port || !host || !isInside(port.connector)) return [];
    const slot = portName(port);
    return [...reaching(port, slot), ...leaving(port, host, slot)];
  },
});
