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
      throw invalid(path, 'No piece of this part has this id');
  return new Map(rows.map((r) => [r.id, r.differs]));
}

/** Fill in the parts that a chain names by id. An unknown id or socket is refused at its place. */
export async function resolveChain(input: Partial<ChainInput>, base: Chain | null): Promise<Chain> {
  const named = new Map<string, { path: string; kinds: readonly PartKind[] }>();
  const pieces = new Map<string, { part: string; path: string }>();
  const note = (value: Slotted | null | undefined, path: string, ...kinds: PartKind[]) => {
    if (!value || !('id' in value)) return;
    named.set(value.id, { path, kinds });
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
  const rows = await PartModel.findAll({ where: { id: [...named.keys()] } });
  for (const [id, { path, kinds }] of named)
    if (!rows.some((r) => r.id === id && kinds.includes(r.kind)))
      throw invalid(path, `No ${kinds.join(' or ')} has this id`);
  const own = await differing(pieces);
  const whole = <T extends AnySpec>(value: Slotted | null): T | null => {
    if (value === null || !('id' in value)) return value as T | null;
    return pieceSpec(
      rows.find((r) => r.id === value.id)?.spec as AnySpec,
      own.get(value.piece ?? ''),
    ) as T;
  };

  const host = input.host === undefined ? (base?.host ?? null) : whole<HostSpec>(input.host);
  const socket =
    input.socket === undefined
      ? input.host === undefined
        ? (base?.socket ?? null)
        : null
      : input.socket;
  if (socket !== null && !host?.sockets.some((s) => s.key === socket))
    throw invalid(
      'chain/socket',
      host ? `The host has no socket "${socket}"` : 'A socket needs a host',
    );
  const path =
    input.path === undefined
      ? (base?.path ?? null)
      : (input.path?.map((p, i) => ({
          key: pieceKey(i),
          spec: whole<PieceSpec>(p) as PieceSpec,
        })) ?? null);
  return {
    host,
    socket,
    path,
    dock: input.dock === undefined ? (base?.dock ?? null) : whole<DockSpec>(input.dock),
    card: input.card === undefined ? (base?.card ?? null) : whole<CardSpec>(input.card),
    loads: input.loads ?? base?.loads ?? [],
    supplies:
      input.supplies?.map((s, i) => ({
        key: pieceKey(i),
        feeds: s.feeds,
        spec: whole<SupplySpec>(s.spec) as SupplySpec,
      })) ??
      base?.supplies ??
      [],
    picture:
      input.picture?.map((p, i) => ({
        ...p,
        key: pieceKey(i),
        screen: whole<ScreenSpec>(p.screen) as ScreenSpec,
      })) ??
      base?.picture ??
      [],
    system: input.system === undefined ? (base?.system ?? null) : whole<SystemSpec>(input.system),
    installed: input.installed ?? base?.installed ?? NOTHING_INSTALLED,
    settings: input.settings ?? base?.settings ?? NO_SETTINGS,
    uses: input.uses ?? base?.uses ?? [],
  };
}
