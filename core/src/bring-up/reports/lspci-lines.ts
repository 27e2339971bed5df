import type { PciDevice } from '../schema/report';

/** Rules for one line of a device: what is not named here is not kept, so serial numbers and the like never get in. */
type LineRule = readonly [pattern: RegExp, take: (d: PciDevice, m: RegExpExecArray) => void];

const PORTS: readonly (readonly [string, PciDevice['port']])[] = [
  ['Root Port', 'root'],
  ['Upstream Port', 'upstream'],
  ['Downstream Port', 'downstream'],
  ['Bridge', 'bridge'],
  ['Endpoint', 'endpoint'],
];

function number(text: string | undefined): number | null {
  const n = Number(text);
  return text === undefined || !Number.isFinite(n) ? null : n;
}

/** "256MB" as MB. */
function megabytes(size: string): number {
  const m = /^(\d+)\s*([KMGT])B?$/i.exec(size.trim());
  const factor = { K: 1 / 1024, M: 1, G: 1024, T: 1024 * 1024 }[m?.[2]?.toUpperCase() ?? 'M'] ?? 1;
  return Number(m?.[1] ?? 0) * factor;
}

function lanes(text: string | undefined): number {
  return Math.min(32, Number(text ?? 0));
}

/** Lines as `lspci -vv` prints them; versions differ in spacing and remarks, so patterns look for the words only. */
export const LINE_RULES: readonly LineRule[] = [
  [
    /Capabilities: <access denied>/i,
    (d) => void (d.state = d.state === 'gone' ? 'gone' : 'denied'),
  ],
  [/Unknown header type 7f/i, (d) => void (d.state = 'gone')],
  [
    /\bExpress \(v\d\) ([^,\n]+)|\bExpress ((?:Root|Upstream|Downstream|Legacy|Endpoint)[^,\n]*)/,
    (d, m) => {
      const words = m[1] ?? m[2] ?? '';
      d.port = PORTS.find(([name]) => words.includes(name))?.[1] ?? d.port;
    },
  ],
  [
    /\bLnkCap:.*?Speed ([\d.]+)\s*GT\/s.*?Width x(\d+)/i,
    (d, m) => void (d.cap = { gts: number(m[1]), lanes: lanes(m[2]) }),
  ],
  [
    /\bLnkSta:.*?Speed (?:([\d.]+)\s*GT\/s|unknown).*?Width x(\d+)/i,
    (d, m) => void (d.now = { gts: number(m[1]), lanes: lanes(m[2]) }),
  ],
  [/\bDLActive([+-])/, (d, m) => void (d.active ??= m[1] === '+')],
  [/\bLnkCap2:.*?Speeds: (?:[\d.]+-)?([\d.]+)\s*GT\/s/i, (d, m) => void (d.topGts = number(m[1]))],
  [/\bSltSta:.*?PresDet([+-])/, (d, m) => void (d.present ??= m[1] === '+')],
  [/\bHotPlug([+-])/, (d, m) => void (d.hotplug ??= m[1] === '+')],
  [
    /\bBus: primary=[0-9a-f]{2}, secondary=([0-9a-f]{2}), subordinate=([0-9a-f]{2})/i,
    (d, m) =>
      void (d.bus = {
        secondary: parseInt(m[1] ?? '0', 16),
        subordinate: parseInt(m[2] ?? '0', 16),
      }),
  ],
  [/\bRegion \d+: Memory at <(?:unassigned|ignored)>/i, (d) => void (d.assigned = false)],
  [/\bRegion \d+: Memory at [0-9a-f]{4,16}\b/i, (d) => void (d.assigned ??= true)],
  [/\bKernel driver in use: ([\w.-]{1,64})/, (d, m) => void (d.driver = m[1] ?? null)],
  [
    /\bBAR \d+: current size: (\d+[KMGT]B?), supported: (.+)$/i,
    (d, m) => {
      const now = megabytes(m[1] ?? '');
      const most = Math.max(now, ...(m[2] ?? '').split(/\s+/).map(megabytes));
      // The largest window is the card's memory; smaller ones are doorbells.
      if (!d.window || most > d.window.mostMB) d.window = { nowMB: now, mostMB: most };
    },
  ],
  [
    /\bCESta:(.+)$/,
    (d, m) =>
      void (d.corrected = (m[1] ?? '')
        .split(/\s+/)
        .flatMap((f) => (f.endsWith('+') ? [f.slice(0, -1).slice(0, 24)] : []))),
  ],
];
