import { ItemModel } from '../parts/models/item';
import { PartModel } from '../parts/models/part';
import type { SlotRow } from './queries/slot-rows';
import type { Chain } from '@ruddy/core/chain';
import {
  type AnySpec,
  type CardSpec,
  type Differs,
  type DockSpec,
  type HostSpec,
  NO_SETTINGS,
  NOTHING_INSTALLED,
  type PartKind,
  type PieceSpec,
  pieceSpec,
  type ScreenSpec,
  type SupplySpec,
  type SystemSpec,
} from '@ruddy/core/parts';
import type { ChainInput } from '@ruddy/core/plan/contract';
import type { SetupDetails } from './models/setup';
import type { SlotName } from './models/setup-slot';
import { invalid } from '../platform/http/problem';

const LETTERS = 'abcdef';

/** The key of a piece of the path: its place, host side first. */
export function pieceKey(index: number): string {
  return LETTERS.charAt(index) || String(index);
}

/** The chain of a setup's slots and details. `noCable` tells an empty path from one not chosen. */
export function chainOf(rows: readonly SlotRow[], details: SetupDetails): Chain {
  const all = (slot: SlotName) => rows.filter((r) => r.slot === slot);
  const one = (slot: SlotName) => all(slot)[0];
  const pieces = all('path').map((r, i) => ({ key: pieceKey(i), spec: r.spec as PieceSpec }));
  const host = one('host');
  return {
    host: (host?.spec as HostSpec | undefined) ?? null,
    socket: host?.socket ?? null,
    path: pieces.length > 0 ? pieces : details.noCable ? [] : null,
    dock: (one('dock')?.spec as DockSpec | undefined) ?? null,
    card: (one('card')?.spec as CardSpec | undefined) ?? null,
    loads: details.loads ?? [],
    supplies: all('supply').map((r, i) => ({
      key: pieceKey(i),
      feeds: r.detail.feeds ?? 'both',
      spec: r.spec as SupplySpec,
    })),
    picture: all('screen').map((r, i) => ({
      key: pieceKey(i),
      by: r.detail.by ?? 'card',
      plug: r.detail.plug ?? 'displayport',
      screen: r.spec as ScreenSpec,
    })),
    system: (one('system')?.spec as SystemSpec | undefined) ?? null,
    installed: details.installed ?? NOTHING_INSTALLED,
    settings: details.settings ?? NO_SETTINGS,
    uses: details.uses ?? [],
  };
}

type Slotted = { id: string; piece?: string | undefined } | AnySpec;

/** In what the pieces named differ from their parts. A piece of another part is refused at its place. */
async function differing(
  pieces: ReadonlyMap<string, { part: string; path: string }>,
): Promise<ReadonlyMap<string, Differs>> {
  if (pieces.size === 0) return new Map();
  const rows = await ItemModel.findAll({ where: { id: [...pieces.keys()] } });
  for (const [id, { part, path }] of pieces)
    if (!rows.some((r) => r.id === id && r.partId === part))
      throw invalid(path, 'No item of this part has this id');
  return new Map(rows.map((r) => [r.id, r.differs]));
}

interface NamedParts {
  /** Parts by id, with the place that names each and the kinds that fit there. */
  parts: Map<string, { path: string; kinds: readonly PartKind[] }>;
  /** Pieces by id, with the part each must be of. */
  pieces: Map<string, { part: string; path: string }>;
}

function namedIn(input: Partial<ChainInput>): NamedParts {
  const parts: NamedParts['parts'] = new Map();
  const pieces: NamedParts['pieces'] = new Map();
  const note = (value: Slotted | null | undefined, path: string, ...kinds: PartKind[]) => {
    if (!value || !('id' in value)) return;
    parts.set(value.id, { path, kinds });
    if (value.piece)
      pieces.set(value.piece, { part: value.id, path: path.replace(/id$/, 'piece') });
  };
  note(input.host, 'chain/host/id', 'host');
  note(input.dock, 'chain/dock/id', 'dock');
  note(input.card, 'chain/card/id', 'card');
  note(input.system, 'chain/system/id', 'system');
  input.supplies?.forEach((s, i) => note(s.spec, `chain/supplies/${i}/spec/id`, 'supply'));
  input.picture?.forEach((p, i) => note(p.screen, `chain/picture/${i}/screen/id`, 'screen'));
  input.path?.forEach((p, i) => note(p, `chain/path/${i}/id`, 'cable', 'adapter'));
  return { parts, pieces };
}

/** The spec of what stands in a slot: given whole, or that of the part or piece it names. */
type Whole = <T extends AnySpec>(value: Slotted) => T;

/** Reads the parts and pieces named. An unknown id is refused at its place. */
async function readNamed({ parts, pieces }: NamedParts): Promise<Whole> {
  const rows = await PartModel.findAll({ where: { id: [...parts.keys()] } });
  for (const [id, { path, kinds }] of parts)
    if (!rows.some((r) => r.id === id && kinds.includes(r.kind)))
      throw invalid(path, `No ${kinds.join(' or ')} has this id`);
  const own = await differing(pieces);
  const specs = new Map(rows.map((r) => [r.id, r.spec]));
  return <T extends AnySpec>(value: Slotted): T => {
    if (!('id' in value)) return value as T;
    return pieceSpec(specs.get(value.id) as AnySpec, own.get(value.piece ?? '')) as T;
  };
}

/** The port of a host: the one that is named, or that of the base while the host stays. */
function socketOf(input: Partial<ChainInput>, base: Chain | null, host: HostSpec | null) {
  const kept = input.host === undefined ? (base?.socket ?? null) : null;
  const socket = input.socket === undefined ? kept : input.socket;
  if (socket !== null && !host?.sockets.some((s) => s.key === socket))
    throw invalid(
      'chain/socket',
      host ? `The host has no socket "${socket}"` : 'A socket needs a host',
    );
  return socket;
}

/** Fill in the parts that a chain names by id; what is not given stays as in the base. An unknown id or socket is refused at its place. */
export async function resolveChain(input: Partial<ChainInput>, base: Chain | null): Promise<Chain> {
  const from = base ?? EMPTY_CHAIN;
  const whole = await readNamed(namedIn(input));
  const one = <T extends AnySpec>(given: Slotted | null | undefined, kept: T | null): T | null => {
    if (given === undefined) return kept;
    return given === null ? null : whole<T>(given);
  };
  const host = one<HostSpec>(input.host, from.host);
  const path = input.path?.map((p, i) => ({ key: pieceKey(i), spec: whole<PieceSpec>(p) }));
  const supplies = input.supplies?.map((s, i) => ({
    key: pieceKey(i),
    feeds: s.feeds,
    spec: whole<SupplySpec>(s.spec),
  }));
  const picture = input.picture?.map((p, i) => ({
    ...p,
    key: pieceKey(i),
    screen: whole<ScreenSpec>(p.screen),
  }));
  return {
    host,
    socket: socketOf(input, base, host),
    path: input.path === undefined ? from.path : (path ?? null),
    dock: one<DockSpec>(input.dock, from.dock),
    card: one<CardSpec>(input.card, from.card),
    loads: input.loads ?? from.loads,
    supplies: supplies ?? from.supplies,
    picture: picture ?? from.picture,
    system: one<SystemSpec>(input.system, from.system),
    installed: input.installed ?? from.installed,
    settings: input.settings ?? from.settings,
    uses: input.uses ?? from.uses,
  };
}

/** Nothing chosen. */
const EMPTY_CHAIN: Chain = {
  host: null,
  socket: null,
  path: null,
  dock: null,
  card: null,
  loads: [],
  supplies: [],
  picture: [],
  system: null,
  installed: NOTHING_INSTALLED,
  settings: NO_SETTINGS,
  uses: [],
};
