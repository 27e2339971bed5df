import { select } from '../platform/db/database';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { listFeeds } from './feeds';
import { listSearches } from '../buy/searches';
import { SetupModel } from '../setups/models/setup';
import { exportRuns } from './bundle-runs';
import { slotRows } from '../setups/chain';
import { exportPeople } from './people-load';
import { allPrices, listRates } from '../buy/prices';
import { logInFile, packEntries } from '../compatibility/log-file';
import { listFigures } from '../troubleshoot/figures';
import { listRules } from '../setups/rules';
import { toSetup } from '../setups/setup-store';
import { exportStated } from '../compatibility/stated';

/** Parts, pieces, prices and rates. */
async function exportCatalogue(): Promise<
  Pick<Bundle, 'parts' | 'items' | 'itemFacts' | 'prices' | 'rates'>
> {
  const parts = await select<Bundle['parts'][number]>(
    'SELECT id, kind, spec, sources, retired_at IS NOT NULL AS retired FROM parts ORDER BY kind, id',
  );
  const items = await select<Bundle['items'][number]>(
    `SELECT id, part_id AS "partId", label, how, owner, condition, acquired_on::text AS "acquiredOn", bought_from AS "boughtFrom", claim, note, differs,
       coalesce(private ->> 'serial', '') AS serial FROM items ORDER BY id`,
  );
  const itemFacts = await select<Bundle['itemFacts'][number]>(
    `SELECT id, item_id AS "itemId", kind, happened_on::text AS "happenedOn", (body ->> 'gbps')::float AS gbps, body ->> 'role' AS role,
       body ->> 'words' AS words FROM item_facts ORDER BY item_id, happened_on, id`,
  );
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
  const events = await select<{
    id: string;
    setupId: string;
    kind: Bundle['events'][number]['kind'];
    body: Record<string, unknown>;
    happenedAt: Date;
    recordedAt: Date;
    corrects: string | null;
    private: Record<string, unknown> | null;
    seq: number;
  }>(
    `SELECT id, setup_id AS "setupId", kind, body, happened_at AS "happenedAt", recorded_at AS "recordedAt", corrects, private, seq
     FROM events WHERE kind NOT IN ('outcome', 'run') ORDER BY setup_id, seq`,
  );
  return events.map((e) => ({
    ...e,
    happenedAt: e.happenedAt.toISOString(),
    recordedAt: e.recordedAt.toISOString(),
  }));
}

/** Everything the workshop knows as one bundle, in a fixed order, so that two exports compare. */
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
