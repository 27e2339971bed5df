import { type FixKind, type FixPart, partsToTry } from './queries/parts-to-try';
import { setImmediate } from 'node:timers/promises';
import { type Chain, isAdapter, partName, portName } from '@ruddy/core/chain';
import type { PartSpecs, PieceSpec, ScreenSpec, SupplySpec, SystemSpec } from '@ruddy/core/parts';
import { adjustmentsFor, applyAdjust, evaluate, type Finding, rankFixes } from '@ruddy/core/plan';
import type { FixRow, SetupChange } from '@ruddy/core/plan/contract';
import type { Services } from '../platform/http/route';
import { pieceKey } from '../setups/chain';
import { groundsFor } from './context';

interface Candidate {
  readonly words: string;
  readonly change: SetupChange;
  readonly chain: Chain;
  /** Another part: ranked after what needs none. */
  readonly buys?: boolean;
}

/** Time for trying, and how many are tried before others get their turn. */
const BUDGET_MS = 1500;
const CHUNK = 40;
const ITEMS = 4;

const KINDS: Partial<Record<Finding['slots'][number], readonly FixKind[]>> = {
  path: ['cable', 'adapter'],
  dock: ['dock'],
  card: ['card'],
  supplies: ['supply'],
  picture: ['screen'],
  system: ['system'],
};

const put = <T>(list: readonly T[], index: number, value: T) =>
  list.map((x, i) => (i === index ? value : x));

/** Paths with a cable in the place of a cable, an adapter in that of an adapter; where there is no cable one comes last. */
function withPiece(chain: Chain, spec: PieceSpec): { index: number; chain: Chain }[] {
  const pieces = chain.path ?? [];
  const alike = pieces.flatMap((p, i) => (isAdapter(p.spec) === isAdapter(spec) ? [i] : []));
  const atEnd = pieces.length === 0 || (alike.length === 0 && !isAdapter(spec));
  const places = atEnd ? [pieces.length] : alike;
  return places.map((index) => {
    const piece = { key: pieceKey(index), spec };
    const path = index === pieces.length ? [...pieces, piece] : put(pieces, index, piece);
    return { index, chain: { ...chain, path } };
  });
}

function withSupply(chain: Chain, spec: SupplySpec): { index: number; chain: Chain }[] {
  const { supplies } = chain;
  if (supplies.length === 0) {
    const only = { key: pieceKey(0), feeds: 'both' as const, spec };
    return [{ index: 0, chain: { ...chain, supplies: [only] } }];
  }
  return supplies.map((old, index) => ({
    index,
    chain: { ...chain, supplies: put(supplies, index, { ...old, spec }) },
  }));
}

function withScreen(chain: Chain, screen: ScreenSpec): { index: number; chain: Chain }[] {
  const { picture } = chain;
  return picture.map((old, index) => ({
    index,
    chain: { ...chain, picture: put(picture, index, { ...old, screen }) },
  }));
}

/** The chain with a part of the catalogue, once for each place it can take. */
function withPart(chain: Chain, c: FixPart): Candidate[] {
  const words = `Take ${partName(c.spec as PartSpecs[FixKind])}`;
  const at =
    (slot: NonNullable<SetupChange['part']>['slot']) =>
    (x: { index: number; chain: Chain }): Candidate => ({
      words,
      change: { part: { slot, index: x.index, id: c.id } },
      chain: x.chain,
    });
  switch (c.kind) {
    case 'cable':
    case 'adapter':
      return withPiece(chain, c.spec as PieceSpec).map(at('path'));
    case 'dock':
      return [at('dock')({ index: 0, chain: { ...chain, dock: c.spec as Chain['dock'] } })];
    case 'card':
      return [at('card')({ index: 0, chain: { ...chain, card: c.spec as Chain['card'] } })];
    case 'system':
      return [at('system')({ index: 0, chain: { ...chain, system: c.spec as SystemSpec } })];
    case 'supply':
      return withSupply(chain, c.spec as SupplySpec).map(at('supply'));
    case 'screen':
      return withScreen(chain, c.spec as ScreenSpec).map(at('screen'));
  }
}

function otherPorts(chain: Chain): Candidate[] {
  return (chain.host?.sockets ?? [])
    .filter((k) => k.key !== chain.socket)
    .map((k) => ({
      words: `Use the port ${portName(k)}`,
      change: { socket: k.key },
      chain: { ...chain, socket: k.key },
    }));
}

/** Price of the part of each change, from the caller; null where no part is needed. */
export type PricesOfChanges = (
  s: Services,
  chain: Chain,
  changes: readonly SetupChange[],
) => Promise<FixRow['price'][]>;

/**
 * Changes that remove a finding, best first: settings and versions, then other ports, then catalogue parts in the
 * slots of the finding. Each gets a complete evaluation, with the requirements of its own parts.
 */
export async function fixesFor(
  s: Services,
  chain: Chain,
  finding: Pick<Finding, 'code' | 'about'>,
  pricesOf: PricesOfChanges,
): Promise<{ items: FixRow[]; tried: number }> {
  const grounds = await groundsFor(s, [chain]);
  const began = performance.now();
  const before = evaluate({ chain, context: grounds });
  const costMs = Math.max(0.2, performance.now() - began);
  const found = before.findings.find(
    (f) => f.code === finding.code && (finding.about === undefined || f.about === finding.about),
  );
  if (!found) return { items: [], tried: 0 };
  const kinds = [...new Set(found.slots.flatMap((slot) => KINDS[slot] ?? []))];
  const ports = found.slots.some((slot) => slot === 'socket' || slot === 'path' || slot === 'host');
  const adjusted = adjustmentsFor(found, chain).map(({ words, ...change }): Candidate => ({
    words,
    change,
    chain: applyAdjust(chain, { words, ...change }),
  }));
  const parts = (await partsToTry(kinds))
    .flatMap((c) => withPart(chain, c))
    .map((c) => ({ ...c, buys: true }));
  const all: Candidate[] = [...adjusted, ...(ports ? otherPorts(chain) : []), ...parts];
  // A chain of which little is known takes long to judge: as many are tried as the time allows, and the answer says how many.
  const candidates = all.slice(0, Math.max(adjusted.length + 8, Math.floor(BUDGET_MS / costMs)));
  // Another part brings its own requirements. Log entries are left out: they are about the present chain.
  const context = await groundsFor(s, [chain, ...candidates.map((c) => c.chain)]);
  const winners: Candidate[] = [];
  for (let i = 0; i < candidates.length; i += CHUNK) {
    winners.push(
      ...rankFixes({ chain, context }, found, candidates.slice(i, i + CHUNK), ITEMS).map(
        (f) => f.candidate,
      ),
    );
    await setImmediate();
  }
  const ranked = rankFixes({ chain, context }, found, winners, ITEMS);
  const prices = await pricesOf(
    s,
    chain,
    ranked.map((f) => f.candidate.change),
  );
  const items = ranked.map((f, i): FixRow => ({
    words: f.candidate.words,
    change: f.candidate.change,
    verdict: f.verdict,
    coverage: f.coverage,
    usable: f.usable,
    stops: f.stops,
    care: f.care,
    price: prices[i] ?? null,
  }));
  return { items, tried: candidates.length };
}
