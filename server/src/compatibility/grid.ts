import { loggedPairs, mostLogged, partsOfKind } from './queries/pair-counts';
import type * as z from 'zod';
import { type Chain, chainSchema, partName } from '@ruddy/core/chain';
import type { CellGrounds } from '@ruddy/core/compatibility';
import type { GridAnswer, GridAxes, gridQuery } from '@ruddy/core/compatibility/contract';
import { type CardSpec, type DockSpec, type HostSpec, TUNNEL_PLUGS } from '@ruddy/core/parts';
import { idealCable } from '@ruddy/core/plan';
import type { Services } from '../platform/http/route';
import { groundsFor } from '../plan/context';

type Kind = 'host' | 'dock' | 'card';
type Spec = HostSpec | DockSpec | CardSpec;
interface PartRow {
  id: string;
  name: string;
  spec: Spec;
}

/** Rows and columns at most. */
const MOST = 200;
const THIRD: Record<GridAxes, Kind> = {
  'host-dock': 'card',
  'host-card': 'dock',
  'dock-card': 'host',
};
/** Plugs a dock can have that a cable goes to. */
const CABLED = [...TUNNEL_PLUGS, 'oculink-4i', 'oculink-8i'] as const;

async function parts(kind: Kind, own: boolean): Promise<{ list: PartRow[]; left: number }> {
  const { rows, total } = await partsOfKind(kind, own, MOST);
  const list = rows.map(({ id, spec }) => ({ id, spec: spec as Spec, name: partName(spec) }));
  return { list, left: total - rows.length };
}

const plain = (name: string) => name.replace(/\s+/g, ' ').trim().toLowerCase();

/** The part of a kind with most log entries among these; the first of them without any. */
async function bestKnown(kind: Kind, list: readonly PartRow[]): Promise<string | null> {
  const name = await mostLogged(kind, namesOf(list));
  return list.find((p) => plain(p.name) === name)?.id ?? list[0]?.id ?? null;
}

const namesOf = (list: readonly PartRow[]) => list.map((p) => plain(p.name));

/**
 * A grid of two kinds of parts: the parts whole, for whoever predicts the cells, and what was seen of each pair.
 */
export async function grid(s: Services, q: z.output<typeof gridQuery>): Promise<GridAnswer> {
  const [rowKind, colKind] = q.axes.split('-') as [Kind, Kind];
  const thirdKind = THIRD[q.axes];
  const own = q.scope === 'own';
  let [rows, cols] = await Promise.all([parts(rowKind, own), parts(colKind, own)]);
  const nobody = own && (rows.list.length === 0 || cols.list.length === 0);
  if (nobody) [rows, cols] = await Promise.all([parts(rowKind, false), parts(colKind, false)]);
  const thirds = (await parts(thirdKind, false)).list;
  // Any card fits a link; which dock or host stands between cannot be left open when something is to be predicted.
  const asked = q.third ?? (thirdKind === 'card' ? 'any' : await bestKnown(thirdKind, thirds));
  const third = asked === 'any' ? null : (thirds.find((p) => p.id === asked) ?? null);
  const seen = await loggedPairs(
    { kind: rowKind, names: namesOf(rows.list) },
    { kind: colKind, names: namesOf(cols.list) },
    { kind: thirdKind, name: third && plain(third.name) },
  );
  const place = (list: readonly PartRow[]) => new Map(list.map((p, i) => [plain(p.name), i]));
  const rowAt = place(rows.list);
  const colAt = place(cols.list);
  const empty: Chain = chainSchema.parse({
    host: null,
    socket: null,
    path: null,
    dock: null,
    card: null,
  });
  const chains = [...rows.list, ...cols.list, ...(third ? [third] : [])].map((p) => ({
    ...empty,
    [kindOf(p, rows.list, cols.list, q.axes)]: p.spec,
  }));
  const cables = Object.fromEntries(CABLED.map((c) => [c, idealCable(c)]));
  const grounds = { empty, cables, context: await groundsFor(s, chains as Chain[]) } as CellGrounds;
  return {
    rows: rows.list as unknown as GridAnswer['rows'],
    cols: cols.list as unknown as GridAnswer['cols'],
    third: third as unknown as GridAnswer['third'],
    thirds: thirds.map(({ id, name }) => ({ id, name })),
    grounds: grounds as unknown as GridAnswer['grounds'],
    seen: seen.map((x) => [
      rowAt.get(x.r) ?? 0,
      colAt.get(x.c) ?? 0,
      x.n,
      x.worked,
      x.told,
      x.newest,
    ]),
    left: { rows: rows.left, cols: cols.left },
    nobody,
  };
}

function kindOf(
  p: PartRow,
  rows: readonly PartRow[],
  cols: readonly PartRow[],
  axes: GridAxes,
): Kind {
  const [rowKind, colKind] = axes.split('-') as [Kind, Kind];
  return rows.includes(p) ? rowKind : cols.includes(p) ? colKind : THIRD[axes];
}
