import { ItemModel } from '../parts/models/item';
import type { Chain } from '@ruddy/core/chain';
import type { AnySpec, HostSpec } from '@ruddy/core/parts';
import { evaluate, type Evaluation } from '@ruddy/core/plan';
import type { ChainInput } from '@ruddy/core/plan/contract';
import { verdictSentence, sentence } from '@ruddy/core/plan/text';
import { canBeLent, type LendKind } from '@ruddy/core/workshop';
import type { ChainCheck } from '@ruddy/core/workshop/contract';
import { invalid } from '../platform/http/problem';
import type { Services } from '../platform/http/route';
import { chainOf, resolveChain } from '../setups/chain';
import { groundsFor } from '../plan/context';
import { readSetup } from '../setups/setup-store';

/** Where a piece of a kind goes in a chain, in words. */
const PLACES: Readonly<Record<LendKind, string>> = {
  host: 'as the host',
  cable: 'as the cable',
  adapter: 'as the adapter',
  dock: 'as the dock',
  card: 'as the card',
  supply: 'as the supply',
  screen: 'as the screen',
};
const RANK = { works: 3, care: 2, unknown: 1, blocked: 0 } as const;
const WORST = { blocks: 0, care: 1, note: 2 } as const;

/** The chains that come of putting a part where its kind goes: one, or one for each port of a host. */
function changes(
  kind: LendKind,
  part: { id: string },
  spec: AnySpec,
  chain: Chain,
): Partial<ChainInput>[] {
  switch (kind) {
    case 'host':
      return (spec as HostSpec).sockets.map((k) => ({ host: part, socket: k.key }));
    case 'dock':
      return [{ dock: part }];
    case 'card':
      return [{ card: part }];
    case 'supply':
      return [
        {
          supplies: [
            { feeds: chain.supplies[0]?.feeds ?? 'both', spec: part },
            ...chain.supplies.slice(1).map((s) => ({ feeds: s.feeds, spec: s.spec })),
          ],
        },
      ];
    case 'screen': {
      const [first, ...rest] = chain.picture;
      return [
        {
          picture: [
            { by: first?.by ?? 'card', plug: first?.plug ?? 'displayport', screen: part },
            ...rest.map((p) => ({ by: p.by, plug: p.plug, screen: p.screen })),
          ],
        },
      ];
    }
    default: {
      // The first piece of the same kind gives way; where there is none it comes at the end.
      const path = chain.path ?? [];
      const same = path.findIndex((p) => 'construction' in p.spec === (kind === 'cable'));
      const whole: NonNullable<ChainInput['path']> = path.map((p) => p.spec);
      return [{ path: same < 0 ? [...whole, part] : whole.map((p, i) => (i === same ? part : p)) }];
    }
  }
}

/** Evaluates the borrower's present chain, and the same chain with the item in its slot. Nothing is stored. */
export async function checkLoan(s: Services, itemId: string, setupId: string): Promise<ChainCheck> {
  const item = await ItemModel.findByPk(itemId, { include: 'part' });
  if (!item?.part) throw invalid('itemId', 'No item has this id');
  const { part } = item;
  const kind = part.kind as LendKind;
  if (!canBeLent(kind)) throw invalid('itemId', 'This is nothing that can be lent');
  const { rows, row, setup } = await readSetup(setupId);
  const chain = chainOf(rows, row.details);
  const ways = await Promise.all(
    changes(kind, { id: part.id }, part.spec, chain).map((c) => resolveChain(c, chain)),
  );
  const grounds = await groundsFor(s, [chain, ...ways]);
  const judge = (c: Chain) => evaluate({ chain: c, context: grounds });
  const before = judge(chain);
  const judged = ways.map(judge);
  const after = judged.reduce(
    (best, e) => (RANK[e.predicted.verdict.state] > RANK[best.predicted.verdict.state] ? e : best),
    judged[0] ?? before,
  );
  const known = new Set(before.findings.map((f) => sentence(f).what));
  const ended = (words: string) => (/[.!?]$/.test(words) ? words : `${words}.`);
  const said = (w: ReturnType<typeof sentence>) =>
    [w.what, w.todo]
      .filter((x) => x !== '')
      .map(ended)
      .join(' ');
  const brings = after.findings
    .filter((f) => !known.has(sentence(f).what))
    .map((f) => ({ severity: f.severity, text: said(sentence(f)) }))

    .sort((a, b) => WORST[a.severity] - WORST[b.severity]);
  const short = (e: Evaluation) => ({
    verdict: e.predicted.verdict.state,
    sentence: verdictSentence(e),
  });
  return {
    setup: { id: setup.id, name: setup.name },
    place: PLACES[kind],
    before: short(before),
    after: short(after),
    brings,
    same: rows.some((r) => r.item_id === itemId),
  };
}
