import { Op } from 'sequelize';
import { PriceModel } from '../buy/models/price';
import { priceInFile } from '../buy/prices';
import { ItemModel } from '../parts/models/item';
import { PartModel } from '../parts/models/part';
import { partInFile } from '../parts/part-in-file';
import { EventModel } from '../setups/models/event';
import { SetupSlotModel } from '../setups/models/setup-slot';
import { NO_COST_SAID, NO_DOCKED, placesOf } from '@ruddy/core/setups';
import type { Bundle, ShareReport } from '@ruddy/core/workshop/contract';
import { contentHash } from '../platform/db/ids';
import { requireSetup } from '../setups/setups';
import { readSetup } from '../setups/setup-store';

type PartRow = Bundle['parts'][number];

/**
 * A setup with its parts as one file, in the format everything is carried in. What is about people, pieces and machines stays: notes,
 * what was used so far, serial numbers, whose a piece is, what happened. Money leaves only when asked for: prices, and
 * what was said of the money of the plan.
 */
export async function shareFile(id: string, withPrices: boolean): Promise<Bundle> {
  await requireSetup(id);
  const { setup } = await readSetup(id);
  const ids = [...new Set(placesOf(setup.slots).values())];
  const parts = await PartModel.findAll({ where: { id: ids }, order: ['kind', 'id'] });
  const prices = withPrices ? await offersAmong(ids) : [];
  const { rev, origin, savedAt, ...rest } = setup;
  void [rev, origin, savedAt];
  return {
    format: 'ruddy-bridge/bundle',
    version: 1,
    parts: parts.map(partInFile).map((p) => ({ ...p, sources: withoutNotes(p.sources) })),
    setups: [
      {
        ...rest,
        slots: { ...setup.slots, items: {} },
        notes: '',
        present: '',
        docked: NO_DOCKED,
        pins: [],
        clonedFrom: null,
        state: 'planned',
        cost: withPrices ? setup.cost : NO_COST_SAID,
      },
    ],
    items: [],
    itemFacts: [],
    prices,
    rates: [],
    events: [],
    chains: [],
    outcomes: [],
    rules: [],
    profiles: [],
    statedFigures: [],
    runs: [],
    captures: [],
    mappings: [],
    sessions: [],
    claims: [],
    figures: [],
    titleNotes: [],
    searches: [],
    feeds: [],
    members: [],
    loans: [],
  };
}

/** Prices offered for these parts, alone or in one box with each other. They name no piece and carry no note. */
async function offersAmong(ids: readonly string[]): Promise<Bundle['prices']> {
  const offers = await PriceModel.findAll({
    where: {
      withdrawnAt: null,
      kind: 'offer',
      partId: [...ids],
      withIds: { [Op.contained]: [...ids] },
    },
    order: ['onDate', 'id'],
  });
  return offers.map((p) => ({ ...priceInFile(p), itemId: null, note: '' }));
}

/** How many pieces of a setup have their serial number written down. */
async function serialsIn(setupId: string): Promise<number> {
  const slots = await SetupSlotModel.findAll({ where: { setupId, itemId: { [Op.ne]: null } } });
  const items = await ItemModel.findAll({ where: { id: slots.flatMap((s) => s.itemId ?? []) } });
  const serials = new Map(items.map((i) => [i.id, i.private.serial ?? '']));
  return slots.filter((s) => s.itemId !== null && serials.get(s.itemId) !== '').length;
}

/** Origins of values are removed; notes written about them stay. */
function withoutNotes(sources: PartRow['sources']): PartRow['sources'] {
  return Object.fromEntries(
    Object.entries(sources).map(([place, s]) => [place, { ...s, note: '' }]),
  );
}

/** What would leave and what would stay, counted before the act. */
export async function shareReport(id: string): Promise<ShareReport> {
  const file = await shareFile(id, true);
  const { setup } = await readSetup(id);
  const events = await EventModel.count({ where: { setupId: id } });
  const serials = await serialsIn(id);
  return {
    leaves: [
      { what: 'parts with their values', n: file.parts.length },
      { what: 'set of choices: port, versions, settings, uses', n: 1 },
      { what: 'prices offered and what was said of the money, when chosen', n: file.prices.length },
    ],
    stays: [
      {
        what: 'notes and present graphics, your words',
        n: Number(setup.notes !== '') + Number(setup.present !== ''),
      },
      {
        what: 'docked settings, buttons, programs and tuning',
        n: Number(contentHash(setup.docked) !== contentHash(NO_DOCKED)),
      },
      { what: 'items: whose they are and where bought', n: Object.keys(setup.slots.items).length },
      { what: 'serial numbers', n: serials },
      { what: 'entries of the record: outcomes, readings, notes', n: events },
    ],
  };
}
