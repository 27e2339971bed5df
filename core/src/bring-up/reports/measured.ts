import type { PciDevice, Report, RouterReport } from '../schema/report';
import { above, deviceTree, type LinkSpan, type Node, spanAbove } from './tree';

/** A graphics function in a report, and by what it hangs. */
export interface FoundCard {
  readonly address: string;
  readonly name: string;
  /** `tunnel`: below the bridge pair of a router link. `direct`: on a port of the host. `built-in`: inside the processor. */
  readonly behind: 'tunnel' | 'direct' | 'built-in';
  readonly driver: string | null;
  readonly gone: boolean;
}

/** What a report says of one chain. */
export interface MeasuredChain {
  readonly cards: readonly FoundCard[];
  /** The card that was read; null when none hangs on a link. */
  readonly card: FoundCard | null;
  readonly cardSpan: LinkSpan | null;
  /** Only a separate controller has a real span of its own. */
  readonly hostSpan: LinkSpan | null;
  readonly inside: LinkSpan | null;
  readonly virtual: readonly LinkSpan[];
  readonly router: RouterReport | null;
  /** Capabilities could not be read, so that rates and widths are not known. */
  readonly denied: boolean;
  readonly window: PciDevice['window'];
  /** Corrected errors flagged along the card's spans. */
  readonly corrected: readonly string[];
}

/**
 * Tells a display controller by its class code, 03xx. Source: PCI Code and ID Assignment Specification, class 03h.
 *
 * @param d a device of a report
 * @returns true for VGA, 3D and other display controllers
 */
export function isDisplay(d: PciDevice): boolean {
  if (d.classCode) return d.classCode.startsWith('03');
  return /VGA compatible controller|3D controller|Display controller/i.test(d.what);
}

function behind(node: Node): FoundCard['behind'] {
  const chain = above(node);
  if (chain.some((n) => spanAbove(n)?.kind === 'virtual')) return 'tunnel';
  return chain.length > 1 ? 'direct' : 'built-in';
}

function found(node: Node): FoundCard {
  const { address, name, what, driver, state } = node.device;
  return { address, name: name || what, behind: behind(node), driver, gone: state === 'gone' };
}

/** The card's spans from its function up to the host. */
function spansOf(node: Node): LinkSpan[] {
  return above(node).flatMap((n) => {
    const s = spanAbove(n);
    return s ? [s] : [];
  });
}

/** The dock's router: the farthest one of the route that has lanes; the host's own has none. */
function routerOf(report: Report): RouterReport | null {
  const linked = report.routers.filter((r) => r.rxLanes !== null && !/-0$/.test(r.route));
  return linked[linked.length - 1] ?? null;
}

/**
 * Finds the card behind a link and the spans that count for it. A chosen address wins; otherwise a card behind a tunnel,
 * or, for a direct link, the last one on a root port.
 *
 * @param report a parsed report
 * @param want kind of link of the chain, and the address a user chose, if any
 * @returns all cards found, the chosen one with the spans above it, and the router; null fields where none is found
 */
export function measure(
  report: Report,
  want: { kind: 'tunnel' | 'direct'; address?: string | undefined },
): MeasuredChain {
  const nodes = deviceTree(report.devices);
  const displays = nodes.filter((n) => isDisplay(n.device));
  const cards = displays.map(found);
  const fit = cards.filter((c) => c.behind === want.kind);
  const other = cards.filter((c) => c.behind === (want.kind === 'tunnel' ? 'direct' : 'tunnel'));
  const card =
    cards.find((c) => c.address === want.address) ??
    fit[fit.length - 1] ??
    (want.kind === 'direct' ? other[0] : undefined) ??
    null;
  const node = displays.find((n) => n.device.address === card?.address);
  const spans = node ? spansOf(node) : [];
  const real = spans.filter((s) => s.kind === 'real');
  const tunnelled = spans.findIndex((s) => s.kind === 'virtual');
  const first = spans.find((s) => s.kind !== 'inside') ?? null;
  const beyond = tunnelled < 0 ? [] : spans.slice(tunnelled + 1).filter((s) => s.kind === 'real');
  return {
    cards,
    card,
    cardSpan: first?.kind === 'real' ? first : (real[0] ?? null),
    hostSpan: beyond[beyond.length - 1] ?? null,
    inside: spans.find((s) => s.kind === 'inside') ?? null,
    virtual: spans.filter((s) => s.kind === 'virtual'),
    router: routerOf(report),
    denied: report.devices.some((d) => d.state === 'denied'),
    window: node?.device.window ?? null,
    corrected: [...new Set(real.flatMap((s) => [...s.upper.corrected, ...s.lower.corrected]))],
  };
}
