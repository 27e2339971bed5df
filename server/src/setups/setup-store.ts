import { slotRows, type SlotRow } from './queries/slot-rows';
import { ItemModel } from '../parts/models/item';
import { PartModel } from '../parts/models/part';
import { Op, Transaction } from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import { chainNames, FEEDS, partName, SHOWN_BY } from '@ruddy/core/chain';
import {
  LOAD_KINDS,
  type PartKind,
  SOFTWARE_NAMES,
  type SoftwareRole,
  WORK,
} from '@ruddy/core/parts';
import { placesOf, type SetupFields, setupFields } from '@ruddy/core/setups';
import type { Setup, SetupSlots } from '@ruddy/core/setups/contract';
import { dockedNames } from '@ruddy/core/setups/text';
import { SetupModel } from './models/setup';
import { SetupRevisionModel } from './models/setup-revision';
import { SetupSlotModel, type SlotDetail, type SlotName } from './models/setup-slot';
import { SocketModel } from '../parts/models/socket';
import { invalid, notFound } from '../platform/http/problem';
import { chainOf } from './chain';
import { newId } from '../platform/db/ids';

/** A setup as stored: its row, its slots and their rows. */
export interface StoredSetup {
  setup: Setup;
  rows: SlotRow[];
}

/** Slots of which a setup has several, by their name in the API. */
const LISTS: Partial<Record<SlotName, string>> = {
  path: 'path',
  supply: 'supplies',
  screen: 'screens',
  spare: 'spares',
};

/** The place of a slot as the API names it: `dock`, `path/0`. */
function placeOf(r: { slot: SlotName; ord: number }): string {
  const list = LISTS[r.slot];
  return list ? `${list}/${r.ord}` : r.slot;
}

function slotsOf(rows: readonly SlotRow[], noCable: boolean): SetupSlots {
  const all = (slot: SlotName) => rows.filter((r) => r.slot === slot);
  const one = (slot: SlotName) => all(slot)[0];
  const path = all('path').map((r) => r.part_id);
  const host = one('host');
  return {
    host: host?.part_id ?? null,
    socket: host?.socket ?? null,
    path: path.length > 0 ? path : noCable ? [] : null,
    dock: one('dock')?.part_id ?? null,
    card: one('card')?.part_id ?? null,
    supplies: all('supply').map((r) => ({ part: r.part_id, feeds: r.detail.feeds ?? 'both' })),
    screens: all('screen').map((r) => ({
      part: r.part_id,
      by: r.detail.by ?? 'card',
      plug: r.detail.plug ?? 'displayport',
    })),
    system: one('system')?.part_id ?? null,
    items: Object.fromEntries(
      rows.flatMap((r) => (r.item_id === null ? [] : [[placeOf(r), r.item_id]])),
    ),
    spares: all('spare').map((r) => ({ part: r.part_id, purpose: r.detail.purpose ?? '' })),
  };
}

/** A row and its slots as the API's setup. */
export function toSetup(row: SetupModel, rows: readonly SlotRow[]): Setup {
  return {
    id: row.id,
    name: row.name,
    state: row.state,
    slots: slotsOf(rows, row.details.noCable === true),
    ...setupFields(row.details),
    rev: row.rev,
    origin: row.origin,
    clonedFrom: row.clonedFrom,
    createdAt: row.createdAt.toISOString(),
    savedAt: row.savedAt.toISOString(),
  };
}

/** Read one setup with its slots, locked for an edit when asked. */
export async function readSetup(
  id: string,
  lock = false,
): Promise<StoredSetup & { row: SetupModel }> {
  const row = await SetupModel.findByPk(id, {
    ...(lock && { lock: Transaction.LOCK.UPDATE }),
  });
  if (!row) throw notFound('setup');
  const rows = (await slotRows([id])).get(id) ?? [];
  return { row, rows, setup: toSetup(row, rows) };
}

async function kinds(ids: readonly string[]): Promise<Map<string, PartKind>> {
  const rows = await PartModel.findAll({ where: { id: [...ids] }, attributes: ['id', 'kind'] });
  return new Map(rows.map((r) => [r.id, r.kind]));
}

/** The pieces that slots name. */
function itemsNamed(
  named: readonly (readonly [place: string, id: string])[],
): Promise<ItemModel[]> {
  return ItemModel.findAll({ where: { id: named.map(([, id]) => id) } });
}

/** A piece that is named must be of the part that stands there. */
async function checkItems(slots: SetupSlots, where: string): Promise<void> {
  const named = Object.entries(slots.items);
  if (named.length === 0) return;
  const places = placesOf(slots);
  const rows = await itemsNamed(named);
  for (const [place, id] of named)
    if (!places.has(place) || rows.find((r) => r.id === id)?.partId !== places.get(place))
      throw invalid(`${where}/items/${place}`, 'No item of the part that stands there has this id');
}

/** A part wanted in a place, with the path an error names. */
interface WantedSlot {
  readonly slot: SlotName;
  readonly ord: number;
  readonly partId: string;
  readonly path: string;
  readonly detail?: SlotDetail;
}

/** Every part the slots name. */
function wantedSlots(slots: SetupSlots, where: string): WantedSlot[] {
  const one = (slot: 'host' | 'dock' | 'card' | 'system'): WantedSlot[] => {
    const partId = slots[slot];
    return partId === null ? [] : [{ slot, ord: 0, partId, path: `${where}/${slot}` }];
  };
  const several = (
    slot: SlotName,
    place: string,
    list: readonly ({ part: string } & SlotDetail)[],
  ): WantedSlot[] =>
    list.map(({ part: partId, ...detail }, ord) => ({
      slot,
      ord,
      partId,
      path: `${where}/${place}/${ord}/part`,
      detail,
    }));
  const path = (slots.path ?? []).map((partId, ord): WantedSlot => ({
    slot: 'path',
    ord,
    partId,
    path: `${where}/path/${ord}`,
  }));
  return [
    ...one('host'),
    ...path,
    ...one('dock'),
    ...one('card'),
    ...one('system'),
    ...several('supply', 'supplies', slots.supplies),
    ...several('screen', 'screens', slots.screens),
    ...several('spare', 'spares', slots.spares),
  ];
}

/** Every part must exist and be of a kind that goes in its slot. */
async function checkKinds(wanted: readonly WantedSlot[]): Promise<void> {
  const known = await kinds(wanted.map((w) => w.partId));
  for (const w of wanted) {
    const fitting: readonly PartKind[] =
      w.slot === 'path' ? ['cable', 'adapter'] : [w.slot === 'spare' ? 'card' : w.slot];
    const kind = known.get(w.partId);
    if (!kind || !fitting.includes(kind))
      throw invalid(w.path, `No ${fitting.join(' or ')} has this id`);
  }
}

/** The id of the host's port the slots name; null where none is chosen. */
async function socketIdOf({ host, socket }: SetupSlots, where: string): Promise<string | null> {
  if (socket === null) return null;
  if (!host) throw invalid(`${where}/socket`, 'A port needs a host');
  const found = await SocketModel.findOne({
    where: { partId: host, key: socket, retiredAt: { [Op.is]: null } },
  });
  if (!found) throw invalid(`${where}/socket`, `The host has no socket "${socket}"`);
  return found.id;
}

/** Replace the slots of a setup. Every part must exist and be of its slot's kind; `where` is the place errors name. */
export async function writeSlots(
  setupId: string,
  slots: SetupSlots,
  where = 'slots',
): Promise<void> {
  const wanted = wantedSlots(slots, where);
  await checkKinds(wanted);
  const socketId = await socketIdOf(slots, where);
  await checkItems(slots, where);
  await SetupSlotModel.destroy({ where: { setupId } });
  await SetupSlotModel.bulkCreate(
    wanted.map((w) => ({
      setupId,
      slot: w.slot,
      ord: w.ord,
      partId: w.partId,
      socketId: w.slot === 'host' ? socketId : null,
      itemId: slots.items[placeOf(w)] ?? null,
      detail: w.detail ?? {},
    })),
  );
}

/** The labels of the pieces a setup names, in the order of its places, for snapshots: which cable it was matters a year later. */
export async function itemLabels(slots: SetupSlots): Promise<string> {
  const named = Object.entries(slots.items).sort(([a], [b]) => a.localeCompare(b));
  if (named.length === 0) return '';
  const rows = await itemsNamed(named);
  return named.map(([, id]) => rows.find((r) => r.id === id)?.label ?? '').join(', ');
}

const FOLD_MS = 10 * 60_000;

/** Stores a revision. Patches of one member within ten minutes coalesce until another member edits. */
export async function keepRevision(
  id: string,
  session: string | null,
  by: string,
  at: Date,
): Promise<void> {
  const { row, rows, setup } = await readSetup(id);
  const chain = chainOf(rows, row.details);
  const snapshot = {
    name: setup.name,
    state: setup.state,
    slots: setup.slots,
    ...setupFields(setup),
    names: {
      ...chainNames(chain),
      loads: setup.loads.map((l) => LOAD_KINDS[l.kind]).join(', '),
      supply: chain.supplies
        .map((s) => `${partName(s.spec)} (${FEEDS[s.feeds].toLowerCase()})`)
        .join(', '),
      screen: chain.picture
        .map((p) => `${partName(p.screen)} (${SHOWN_BY[p.by].toLowerCase()})`)
        .join(', '),
      system: partName(chain.system),
      pieces: await itemLabels(setup.slots),
      pins: setup.pins
        .map((p) => `${SOFTWARE_NAMES[p.role].toLowerCase()} ${p.version}`)
        .join(', '),
      ...dockedNames(setup.docked, setup.settings),
      use: setup.uses.map((u) => WORK[u.work].toLowerCase()).join(', '),
      ...Object.fromEntries(
        (Object.keys(SOFTWARE_NAMES) as SoftwareRole[]).map((r) => [
          SOFTWARE_NAMES[r].toLowerCase(),
          setup.installed[r],
        ]),
      ),
    },
  };
  const last = await SetupRevisionModel.findOne({
    where: { setupId: id },
    order: [['rev', 'DESC']],
  });
  const folds =
    last &&
    session !== null &&
    last.editSession === session &&
    last.by === by &&
    at.getTime() - last.at.getTime() < FOLD_MS;
  if (folds) await last.update({ snapshot, rev: row.rev });
  else
    await SetupRevisionModel.create({
      id: newId(),
      setupId: id,
      rev: row.rev,
      snapshot,
      editSession: session,
      at,
      by,
    });
}

/** Store a new setup row with its slots. The caller adds the event that says how it began. */
export async function insertSetup(
  s: SetupFields & {
    id: string;
    name: string;
    state: Setup['state'];
    slots: SetupSlots;
    clonedFrom: string | null;
  },
  made: { origin: Origin; at: Date; by: string },
  where = 'slots',
): Promise<void> {
  const details = { noCable: s.slots.path?.length === 0, ...setupFields(s) };
  await SetupModel.create({
    id: s.id,
    origin: made.origin,
    createdAt: made.at,
    createdBy: made.by,
    name: s.name,
    state: s.state,
    clonedFrom: s.clonedFrom,
    details,
    savedAt: made.at,
  });
  await writeSlots(s.id, s.slots, where);
  await keepRevision(s.id, null, made.by, made.at);
}
