import { slotRows } from '../setups/queries/slot-rows';
import { Op } from 'sequelize';
import { itemInFile } from '../parts/items';
import { ItemFactModel } from '../parts/models/item-fact';
import { ItemModel } from '../parts/models/item';
import { PartModel } from '../parts/models/part';
import { partInFile } from '../parts/part-in-file';
import { EventModel } from '../setups/models/event';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { listFeeds } from './feeds';
import { listSearches } from '../buy/searches';
import { SetupModel } from '../setups/models/setup';
import { exportStatedFigures } from '../runs/stated-figures';
import { exportRuns } from './bundle-runs';
import { exportPeople } from './people-load';
import { allPrices, listRates } from '../buy/prices';
import { packEntries } from '../compatibility/log-file';
import { logInFile } from '../compatibility/queries/log-in-file';
import { listFigures } from '../troubleshoot/figures';
import { listRules } from '../setups/rules';
import { toSetup } from '../setups/setup-store';
import { exportStated } from '../compatibility/stated';

/** Parts, pieces, prices and rates. */
async function exportCatalogue(): Promise<
  Pick<Bundle, 'parts' | 'items' | 'itemFacts' | 'prices' | 'rates'>
> {
  const parts = (await PartModel.findAll({ order: ['kind', 'id'] })).map(partInFile);
  const items = (await ItemModel.findAll({ order: ['id'] })).map(itemInFile);
  const facts = await ItemFactModel.findAll({ order: ['itemId', 'happenedOn', 'id'] });
  const itemFacts = facts.map(({ id, itemId, kind, happenedOn, body }) => ({
    id,
    itemId,
    kind,
    happenedOn,
    ...body,
  }));
  const prices = (await allPrices()).map(({ origin, recordedAt, ...p }) => {
    void [origin, recordedAt];
    return p;
  });
  const rates = (await listRates()).map(({ origin, ...r }) => {
    void origin;
    return r;
  });
  return { parts, items, itemFacts, prices, rates };
}

async function exportSetups(): Promise<Bundle['setups']> {
  const models = await SetupModel.findAll({ order: [['id', 'ASC']] });
  const slots = await slotRows(models.map((m) => m.id));
  return models.map((m) => {
    const { rev, origin, savedAt, ...rest } = toSetup(m, slots.get(m.id) ?? []);
    void [rev, origin, savedAt];
    return rest;
  });
}

/** What happened with the setups; outcomes and runs have lists of their own. */
async function exportEvents(): Promise<Bundle['events']> {
  const events = await EventModel.findAll({
    where: { kind: { [Op.notIn]: ['outcome', 'run'] } },
    order: ['setupId', 'seq'],
  });
  return events.map((e) => ({
    id: e.id,
    setupId: e.setupId,
    kind: e.kind as Bundle['events'][number]['kind'],
    body: e.body as Record<string, unknown>,
    happenedAt: e.happenedAt.toISOString(),
    recordedAt: e.recordedAt.toISOString(),
    corrects: e.corrects,
    private: e.private as Record<string, unknown> | null,
    seq: e.seq,
  }));
}

/** All data of the workshop as one bundle, in a fixed order, so that two exports can be compared. */
export async function exportBundle(): Promise<Bundle> {
  const catalogue = await exportCatalogue();
  const setups = await exportSetups();
  const events = await exportEvents();
  const log = packEntries(await logInFile(), true);
  const rules = (await listRules()).flatMap((r) =>
    r.value === null ? [] : [{ id: r.id, value: r.value, reason: r.reason }],
  );
  return {
    format: 'ruddy-bridge/bundle',
    version: 1,
    ...catalogue,
    setups,
    events,
    ...log,
    rules,
    figures: (await listFigures()).map(({ key, value, reason }) => ({ key, value, reason })),
    statedFigures: await exportStatedFigures(),
    ...(await exportRuns()),
    ...(await exportStated()),
    ...(await exportPeople()),
    searches: (await listSearches()).map(({ id, name, ask }) => ({ id, name, ask })),
    feeds: (await listFeeds()).map(({ id, name, url, near, everyHours }) => ({
      id,
      name,
      url,
      near,
      everyHours,
    })),
  };
}
