import { minOf, type RuleBook } from '../../base';
import { computeHop, packetRule } from './hops';
import { findBottleneck } from './pinch';
import { isDirect } from './plugs';
import { hopShapes } from './shapes';
import type { Both, Hop, LinkFacts, SlotFacts, Working } from './types';

function least(hops: readonly Hop[]): Both | null {
  const known = hops.flatMap((h) => (h.usable ? [h.usable] : []));
  if (known.length === 0) return null;
  const working: Working = { rule: 'least-of-hops', args: { hops: known.length }, source: 'house' };
  return {
    down: { ...minOf(...known.map((u) => u.down)), unit: 'Gb/s', working },
    up: { ...minOf(...known.map((u) => u.up)), unit: 'Gb/s', working },
  };
}

/**
 * Joins the facts of port, path, dock and card into hops, the usable rate of the chain and its bottleneck.
 * @param facts the slots of a chain in one completion
 * @param rules house rules
 * @returns the link; rates in Gb/s
 */
export function joinLink(facts: SlotFacts, rules: RuleBook): LinkFacts {
  const kind = isDirect(facts) ? 'direct' : 'tunnel';
  const shapes = hopShapes(facts, rules);
  const p = packetRule(kind, facts, rules);
  const hops = shapes.map((s) => computeHop(s, p));
  return { kind, shapes, hops, usable: least(hops), pinch: findBottleneck(shapes, p) };
}
