import { bare, type Range } from '../base';
import { lookAlikes, portName, type Slot } from '../chain';
import { evaluate } from './evaluate';
import type { EvaluateInput, VerdictState } from './types';

export interface PortRole {
  readonly key: string;
  readonly name: string;
  readonly mark: string;
  /**
   * `dock`: the best port for this chain. `also`: it would do, with less or the same. `free`: it takes no dock, so hub and charger go
   * there. `other-plug`: another kind of link. `open`: not enough is known.
   */
  readonly role: 'dock' | 'also' | 'free' | 'other-plug' | 'open';
  readonly inUse: boolean;
  /** What the chain would carry through this port, Gb/s down; null when nothing is known or it does not fit. */
  readonly usable: Range | null;
  readonly verdict: VerdictState;
  /** Ports with the same plug and something else inside: only the mark tells them apart. */
  readonly looksLike: readonly string[];
}

const FITS: readonly Slot[] = ['path', 'dock'];

/**
 * Which port of the host takes the dock and which stays free for a hub: the chain is judged through each. Ports of
 * one shape with something else inside are named as ambiguous.
 * @param input chain and context
 * @returns one entry for each port
 */
export function portRoles({ chain, context }: EvaluateInput): PortRole[] {
  const sockets = chain.host?.sockets ?? [];
  const judged = sockets.map((s) => {
    const e = evaluate({
      chain: { ...chain, socket: s.key },
      context: { asOf: context.asOf, house: context.house },
    });
    // Only what concerns the link: a supply too small is no fault of a port.
    const blocks = e.findings.filter(
      (f) =>
        f.severity === 'blocks' &&
        f.code !== 'plan/unchosen' &&
        (f.area === 'link' || f.area === 'cable'),
    );
    const plug = blocks.some(
      (f) => f.code === 'link/plug-mismatch' && f.slots.some((x) => FITS.includes(x)),
    );
    const dead = blocks.some(
      (f) => f.certainty === 'certain' && f.slots.includes('socket') && !plug,
    );
    const down = e.predicted.link.usable?.down ?? null;
    return { s, plug, dead, open: blocks.length > 0, down, verdict: e.predicted.verdict.state };
  });
  const able = judged.filter((j) => !j.plug && !j.open && j.down !== null);
  const best = [...able].sort(
    (a, b) =>
      (b.down?.lo ?? 0) - (a.down?.lo ?? 0) ||
      Number(b.s.key === chain.socket) - Number(a.s.key === chain.socket),
  )[0];
  return judged.map((j): PortRole => {
    const role = j.dead
      ? 'free'
      : j.plug
        ? 'other-plug'
        : j.open
          ? 'open'
          : j === best
            ? 'dock'
            : 'also';
    const usable = role !== 'other-plug' && role !== 'free' ? bare(j.down) : null;
    const { key, mark } = j.s;
    const looksLike = chain.host ? lookAlikes(chain.host, key).map(portName) : [];
    return {
      key,
      name: portName(j.s),
      mark,
      role,
      inUse: key === chain.socket,
      usable,
      verdict: j.verdict,
      looksLike,
    };
  });
}
