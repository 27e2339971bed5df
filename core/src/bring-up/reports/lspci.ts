import type { PciDevice } from '../schema/report';
import { ConfigSpace, readConfig } from './lspci-hex';
import { LINE_RULES } from './lspci-lines';
import { blankDevice, type ReadProblem, type ReadResult } from './types';

/** Most characters of a pasted text. A desktop's whole `lspci -vvv` is about 150 000. */
export const MAX_CHARS = 2_000_000;
const MAX_DEVICES = 2000;

// eslint-disable-next-line no-control-regex -- terminals colour their output with these
const COLOUR = /\u001b\[[0-9;]*[A-Za-z]/g;
const QUOTED = /^(?:[>|] ?)+/;
const HEAD = /^\s*(?:([0-9a-f]{4,8}):)?([0-9a-f]{2}):([0-9a-f]{2})\.([0-7])\s+(\S.*)$/i;
const DETAILS = /^\s*(?:Control|LnkCap|LnkSta):/;
const BYTES = /^\s*([0-9a-f]{2,3}):((?: [0-9a-f]{2}){1,16})\s*$/i;

/** A control character that no text has, where it stands; null in a text. */
function binaryAt(text: string): number | null {
  // eslint-disable-next-line no-control-regex -- these are what is looked for
  const at = text.search(/[\u0000-\u0008\u000e-\u001a\u001c-\u001f\ufffd]/);
  return at < 0 ? null : at;
}

/**
 * Refuses text that cannot be a report, before any parsing: empty, too long, or binary.
 *
 * @param text the pasted text
 * @returns the problem with its line; null where parsing may go on
 */
export function refuse(text: string): ReadProblem | null {
  if (text.trim() === '') return { code: 'empty' };
  if (text.length > MAX_CHARS) return { code: 'too-big', chars: text.length, most: MAX_CHARS };
  const at = binaryAt(text);
  return at === null ? null : { code: 'binary', at };
}

/** "VGA compatible controller [0300]: Maker Card [1234:5678] (rev a1)" as class, name and numbers. */
function readHead(d: PciDevice, rest: string): void {
  const plain = /^([0-9a-f]{4}): ([0-9a-f]{4}):([0-9a-f]{4})/i.exec(rest);
  if (plain) {
    d.classCode = plain[1]?.toLowerCase() ?? null;
    d.vendor = plain[2]?.toLowerCase() ?? null;
    d.device = plain[3]?.toLowerCase() ?? null;
    return;
  }
  const colon = rest.indexOf(': ');
  const what = colon < 0 ? rest : rest.slice(0, colon);
  const cls = /\[([0-9a-f]{4})\]$/i.exec(what);
  d.classCode = cls?.[1]?.toLowerCase() ?? null;
  d.what = (cls ? what.slice(0, cls.index).trimEnd() : what).slice(0, 120);
  let name = colon < 0 ? '' : rest.slice(colon + 2);
  if (/\(rev ff\)/i.test(name)) d.state = 'gone';
  name = name
    .replace(/\((?:rev|prog-if)[^()]*\)/gi, '')
    .replace(/\[[^[\]]*controller\]\)?/gi, '')
    .replace(/\s{2,}/g, ' ')
    .trim();
  const ids = /\[([0-9a-f]{4}):([0-9a-f]{4})\]$/i.exec(name);
  d.vendor = ids?.[1]?.toLowerCase() ?? null;
  d.device = ids?.[2]?.toLowerCase() ?? null;
  d.name = (ids ? name.slice(0, ids.index) : name).trim().slice(0, 200);
}

interface Open {
  readonly device: PciDevice;
  readonly bytes: ConfigSpace;
}

function close(o: Open | null): void {
  if (o) readConfig(o.device, o.bytes);
}

/**
 * Parses the output of `lspci`: `-v` to `-vvv`, `-n`, `-nn`, `-x` to `-xxxx`, several devices, with prompts, colours,
 * quoting and other text around it, cut off anywhere. Only known lines are kept: serial numbers and names of machines
 * have no rule. Never throws. Source: pciutils, output of version 3.9.0; registers as in `readConfig`.
 *
 * @param text the pasted text
 * @returns the report, or the problem with its line
 */
export function readLspci(text: string): ReadResult {
  const refused = refuse(text);
  if (refused) return { ok: false, problem: refused };
  const devices = new Map<string, PciDevice>();
  let open: Open | null = null;
  // Lines that only -vv and dumps print: without any, rates were not asked for.
  let told = false;
  for (const raw of text.split(/\r\n|\r|\n/)) {
    const line =
      raw.length > 4000 ? raw.slice(0, 4000) : raw.replace(COLOUR, '').replace(QUOTED, '');
    const head = HEAD.exec(line);
    if (head) {
      close(open);
      const address =
        `${head[1] ?? '0000'}:${head[2] ?? ''}:${head[3] ?? ''}.${head[4] ?? ''}`.toLowerCase();
      const device = devices.get(address) ?? blankDevice(address);
      devices.set(address, device);
      if (devices.size > MAX_DEVICES)
        return {
          ok: false,
          problem: { code: 'too-many', devices: devices.size, most: MAX_DEVICES },
        };
      readHead(device, head[5] ?? '');
      open = { device, bytes: new ConfigSpace() };
    } else if (open) {
      told ||= DETAILS.test(line) || BYTES.test(line);
      takeLine(open, line);
    }
  }
  close(open);
  if (devices.size === 0) {
    const firstLine = text.trim().split('\n', 1)[0] ?? '';
    return { ok: false, problem: { code: 'no-devices', firstLine: firstLine.slice(0, 80) } };
  }
  const list = [...devices.values()];
  return { ok: true, report: { ...base(), devices: list, missing: missing(list, told) } };
}

/** What a bus listing has no word for. */
const NOT_IN_LISTINGS = {
  domains: [],
  ports: [],
  plugs: [],
  machine: null,
  kernel: null,
  power: null,
  screens: [],
};

function base() {
  return {
    format: 'ruddy-bridge/report' as const,
    version: 1 as const,
    source: 'lspci' as const,
    routers: [],
    security: null,
    ...NOT_IN_LISTINGS,
  };
}

function takeLine(open: Open, line: string): void {
  const bytes = BYTES.exec(line);
  if (bytes) {
    const from = parseInt(bytes[1] ?? '0', 16);
    (bytes[2] ?? '')
      .trim()
      .split(' ')
      .forEach((b, i) => open.bytes.put(from + i, parseInt(b, 16)));
    return;
  }
  for (const [pattern, take] of LINE_RULES) {
    const m = pattern.exec(line);
    if (m) take(open.device, m);
  }
}

function missing(devices: readonly PciDevice[], told: boolean): string[] {
  const denied = devices.filter((d) => d.state === 'denied').length;
  if (denied > 0)
    return [`Capabilities of ${denied} of ${devices.length} devices: read without rights`];
  return told ? [] : ['Link rates and widths: the listing was printed without -vv'];
}
