import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Chain } from '../src/chain';
import {
  adapterSchema,
  attributesOf,
  cableSchema,
  cardSchema,
  dockSchema,
  hostSchema,
  screenSchema,
  socketSchema,
  supplySchema,
  systemSchema,
} from '../src/parts';
import {
  areaOf,
  type AreaState,
  type Evaluation,
  JUDGED_AREAS,
  type VerdictState,
} from '../src/plan';
import { chains, type Shape, type Values } from './any-chain';
import { judge } from './make';
import { scaled } from '../../scripts/lib/test-scale.mjs';

interface Known {
  readonly name: string;
  readonly blank: (c: Chain) => Chain;
}
const unsure = (schema: Shape) =>
  attributesOf(schema).flatMap(([key, m]) => (m.unsure ? [key] : []));

/** Every attribute of a chain that is known and could be "not sure", each with the chain in which it is not known. */
function knownOf(c: Chain): Known[] {
  const of = (
    kind: string,
    schema: Shape,
    spec: object | null,
    put: (c: Chain, spec: never) => Chain,
  ): Known[] =>
    spec === null
      ? []
      : unsure(schema).flatMap((key) =>
          (spec as Values)[key] === null
            ? []
            : [{ name: `${kind}.${key}`, blank: (x) => put(x, { ...spec, [key]: null } as never) }],
        );
  const at = <T>(list: readonly T[], i: number, value: T) =>
    list.map((x, k) => (k === i ? value : x));
  const socket = c.host?.sockets[0] ?? null;
  return [
    ...of('host', hostSchema as unknown as Shape, c.host, (x, host) => ({ ...x, host })),
    ...of('socket', socketSchema as unknown as Shape, socket, (x, s) => ({
      ...x,
      host: x.host && { ...x.host, sockets: [s] },
    })),
    ...(c.path ?? []).flatMap(({ spec }, i) => {
      const cable = !('hostEnd' in spec);
      const schema = cable ? cableSchema : (adapterSchema as unknown as Shape);
      return of(cable ? 'cable' : 'adapter', schema, spec, (x, s) => ({
        ...x,
        path: at(x.path ?? [], i, { key: x.path?.[i]?.key ?? '', spec: s }),
      }));
    }),
    ...of('dock', dockSchema as unknown as Shape, c.dock, (x, dock) => ({ ...x, dock })),
    ...of('card', cardSchema, c.card, (x, card) => ({ ...x, card })),
    ...c.supplies.flatMap(({ spec }, i) =>
      of('supply', supplySchema, spec, (x, s) => ({
        ...x,
        supplies: at(x.supplies, i, { ...x.supplies[i], spec: s } as never),
      })),
    ),
    ...c.picture.flatMap(({ screen }, i) =>
      of('screen', screenSchema, screen, (x, s) => ({
        ...x,
        picture: at(x.picture, i, { ...x.picture[i], screen: s } as never),
      })),
    ),
    ...of('system', systemSchema, c.system, (x, system) => ({ ...x, system })),
  ];
}

/** What a verdict may become when less is known: never nearer to "works", and nothing new is proved. */
const MAY_BECOME: Record<VerdictState, readonly VerdictState[]> = {
  works: ['works', 'care', 'unknown'],
  care: ['care', 'unknown'],
  unknown: ['unknown'],
  blocked: ['blocked', 'unknown'],
};
const AREA_MAY: Record<AreaState, readonly AreaState[]> = {
  none: ['none', 'good', 'care', 'open'],
  good: ['none', 'good', 'care', 'open'],
  care: ['care', 'open'],
  open: ['open'],
  stops: ['stops', 'open'],
};

/** What is wrong with knowing less; empty when nothing is. */
function helped(before: Evaluation, after: Evaluation): string[] {
  const b = before.predicted;
  const a = after.predicted;
  const wrong: string[] = [];
  if (!MAY_BECOME[b.verdict.state].includes(a.verdict.state))
    wrong.push(`verdict ${b.verdict.state} -> ${a.verdict.state}`);
  b.areas.forEach((area, i) => {
    const now = a.areas[i]?.state ?? 'none';
    if (!AREA_MAY[area.state].includes(now))
      wrong.push(`${area.area} ${area.state} -> ${now} (${area.because.join()})`);
  });
  // Where an area is open or stops, its figures are the question and not each care.
  const settled = [null, ...JUDGED_AREAS].filter(
    (area) => !a.areas.some((x) => x.area === area && /open|stops/.test(x.state)),
  );
  for (const area of settled) {
    const care = (e: Evaluation) =>
      e.findings.filter((f) => f.severity === 'care' && areaOf(f.code) === area).map((f) => f.code);
    const was = [...new Set(care(before))];
    const now = [...new Set(care(after))];
    if (now.length < was.length) wrong.push(`care of ${area}: ${was.join()} -> ${now.join()}`);
  }
  const open = (e: Evaluation['predicted']) => e.coverage.of - e.coverage.known;
  if (open(a) < open(b)) wrong.push(`open areas ${open(b)} -> ${open(a)}`);
  return wrong;
}

describe('knowing less never helps', () => {
  it('blanking a value never improves verdict, care list or coverage', () => {
    const blanked = new Map<string, number>();
    const timesBlanked = (k: Known) => blanked.get(k.name) ?? 0;
    const states = new Set<string>();
    fc.assert(
      fc.property(chains, (chain) => {
        const known = knownOf(chain);
        fc.pre(known.length > 0);
        // The attribute blanked least often so far: a random one would need many more chains to meet them all.
        const one = known.reduce((least, k) => (timesBlanked(k) < timesBlanked(least) ? k : least));
        blanked.set(one.name, timesBlanked(one) + 1);
        const before = judge(chain);
        states.add(before.predicted.verdict.state);
        expect([one.name, ...helped(before, judge(one.blank(chain)))]).toEqual([one.name]);
      }),
      // A failure is told as it was found: shrinking whole chains would take longer than the test.
      { numRuns: scaled(2000), endOnFailure: true },
    );
    expect([...states].sort()).toEqual(['blocked', 'care', 'unknown', 'works']);
    const all = [
      ...unsure(hostSchema as unknown as Shape).map((k) => `host.${k}`),
      ...unsure(socketSchema as unknown as Shape)
        .filter((k) => k !== 'completionBytes')
        .map((k) => `socket.${k}`),
      ...unsure(cableSchema).map((k) => `cable.${k}`),
      ...unsure(adapterSchema as unknown as Shape).map((k) => `adapter.${k}`),
      ...unsure(dockSchema as unknown as Shape)
        .filter((k) => k !== 'capBeforeGbps' && k !== 'capGbps')
        .map((k) => `dock.${k}`),
      ...unsure(cardSchema).map((k) => `card.${k}`),
      ...unsure(supplySchema).map((k) => `supply.${k}`),
      ...unsure(screenSchema).map((k) => `screen.${k}`),
      ...unsure(systemSchema).map((k) => `system.${k}`),
    ];
    expect(all.filter((name) => !blanked.has(name))).toEqual([]);
  });
});
