import { union, type Range } from '../base';
import type { Both, Hop, LinkFacts, Bottleneck, Q, Working } from '../chain';
import { joinValue } from './join-value';

type Arg = Working['args'][string];

/** Workings by the same rule show the hull of their arguments; otherwise the first stands. */
function joinWorking(a: Working, b: Working): Working {
  if (a.rule !== b.rule) return a;
  const args: Record<string, Arg> = {};
  for (const [k, v] of Object.entries(a.args)) args[k] = joinValue(v, b.args[k]);
  const steps = a.steps?.map((s, i) => (b.steps?.[i] ? joinWorking(s, b.steps[i]) : s));
  return { ...a, args, ...(steps && { steps }) };
}

function joinQ(qs: readonly Q[]): Q {
  // Where some worlds are broken the working shown is that of those that are not.
  const whole = qs.filter((q) => q.working.rule !== 'broken');
  const first = whole[0] ?? (qs[0] as Q);
  const working = whole.map((q) => q.working).reduce(joinWorking, first.working);
  return qs.length === 1 ? first : { ...first, ...union(...qs), working };
}

function joinTakes(hops: readonly Hop[]): Hop['takes'] {
  const byAttr = new Map<string, Hop['takes'][number]>();
  for (const t of hops.flatMap((h) => h.takes)) {
    const seen = byAttr.get(t.attr);
    byAttr.set(
      t.attr,
      seen ? { attr: t.attr, down: union(seen.down, t.down), up: union(seen.up, t.up) } : t,
    );
  }
  return [...byAttr.values()];
}

function joinBoth(stated: readonly (Both | null)[]): Both | null {
  const all = stated.filter((b) => b !== null);
  if (all.length < stated.length || all.length === 0) return null;
  return { down: joinQ(all.map((b) => b.down)), up: joinQ(all.map((b) => b.up)) };
}

/** The hull, or not known when one of them is not. */
function joinRange(stated: readonly (Range | null)[]): Range | null {
  const known = stated.filter((r) => r !== null);
  return known.length === stated.length && known.length > 0 ? union(...known) : null;
}

function joinRaw(stated: readonly Hop['raw'][]): Hop['raw'] {
  const down = joinRange(stated.map((r) => r?.down ?? null));
  const up = joinRange(stated.map((r) => r?.up ?? null));
  return down && up ? { down, up } : null;
}

function joinHop(hops: readonly Hop[]): Hop {
  const first = hops[0] as Hop;
  if (hops.length === 1) return first;
  const states = new Set(hops.map((h) => h.state));
  const known = hops.filter((h) => h.state !== 'broken');
  const shown = known[0] ?? first;
  const of = (pick: (h: Hop) => Hop['gen']) => {
    const found = known.map(pick).filter((r) => r !== undefined);
    return found.length === known.length && found.length > 0 ? union(...found) : undefined;
  };
  const gen = of((h) => h.gen);
  const lanes = of((h) => h.lanes);
  const transport = of((h) => h.transport);
  return {
    ...shown,
    ...(gen && { gen }),
    ...(lanes && { lanes }),
    ...(transport && { transport }),
    takes: joinTakes(hops),
    raw: joinRaw(hops.map((h) => h.raw)),
    usable: joinBoth(hops.map((h) => h.usable)),
    state: states.size === 1 ? first.state : 'unknown',
  };
}

function joinBottleneck(all: readonly Bottleneck[]): Bottleneck {
  const first = all[0] as Bottleneck;
  if (all.length === 1) return first;
  const hops = [...new Set(all.flatMap((p) => p.hops))].sort((a, b) => a - b);
  const same = all.every((p) => p.part === first.part);
  return {
    hops,
    certain: hops.length === 1 && all.every((p) => p.certain),
    part: same ? first.part : null,
    setBy: [...new Set(all.flatMap((p) => p.setBy))],
    rest: joinRange(all.map((p) => p.rest)),
  };
}

/**
 * The link over every completion. Its kind follows from the connectors, which are always known, so every completion
 * has the same hops.
 * @param all at least one link
 * @returns a link that contains them all
 */
export function joinLinks(all: readonly LinkFacts[]): Omit<LinkFacts, 'shapes'> {
  const first = all[0] as LinkFacts;
  const hops = first.hops.map((_, i) => joinHop(all.map((l) => l.hops[i] as Hop)));
  return {
    kind: first.kind,
    hops,
    usable: joinBoth(all.map((l) => l.usable)),
    pinch: joinBottleneck(all.map((l) => l.pinch)),
  };
}
