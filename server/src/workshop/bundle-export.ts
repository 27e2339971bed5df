import { QueryTypes, type Sequelize } from 'sequelize';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { listFeeds } from './feeds';
import { listSearches } from '../buy/searches';
import { SetupModel } from '../platform/db/models';
import { exportRuns } from './bundle-runs';
import { slotRows } from '../setups/chain';
import { exportPeople } from './people-load';
import { allPrices, listRates } from '../buy/prices';
import { logInFile, packEntries } from '../compatibility/log-file';
import { listFigures } from '../troubleshoot/figures';
import { listRules } from '../setups/rules';
import { toSetup } from '../setups/setup-store';
import { exportStated } from '../compatibility/stated';

const select = <T extends object>(db: Sequelize, sql: string) =>
  db.query<T>(sql, { type: QueryTypes.SELECT });

/** Parts, pieces, prices and rates. */
async function exportCatalogue(
  db: Sequelize,
): Promise<Pick<Bundle, 'parts' | 'items' | 'itemFacts' | 'prices' | 'rates'>> {
  const parts = await select<Bundle['parts'][number]>(
    db,
    'SELECT id, kind, spec, sources, retired_at IS NOT NULL AS retired FROM parts ORDER BY kind, id',
  );
  const items = await select<Bundle['items'][number]>(
    db,
    `SELECT id, part_id AS "partId", label, how, owner, condition, acquired_on::text AS "acquiredOn", bought_from AS "boughtFrom", claim, note, differs,
       coalesce(private ->> 'serial', '') AS serial FROM items ORDER BY id`,
  );
  const itemFacts = await select<Bundle['itemFacts'][number]>(
    db,
    `SELECT id, item_id AS "itemId", kind, happened_on::text AS "happenedOn", (body ->> 'gbps')::float AS gbps, body ->> 'role' AS role,
       body ->> 'words' AS words FROM item_facts ORDER BY item_id, happened_on, id`,
  );
  const prices = (await allPrices(db)).map(({ origin, recordedAt, ...p }) => {
    void [origin, recordedAt];
    return p;
  });
  const rates = (await listRates(db)).map(({ origin, ...r }) => {
    void origin;
    return r;
  });
  return { parts, items, itemFacts, prices, rates };
}

async function exportSetups(db: Sequelize): Promise<Bundle['setups']> {
  const models = await SetupModel.findAll({ order: [['id', 'ASC']] });
  const slots = await slotRows(
    db,
    models.map((m) => m.id),
  );
  return models.map((m) => {
    const { rev, origin, savedAt, ...rest } = toSetup(m, slots.get(m.id) ?? []);
    void [rev, origin, savedAt];
    return rest;
  });
}

/** What happened with the setups; outcomes and runs have lists of their own. */
async function exportEvents(db: Sequelize): Promise<Bundle['events']> {
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
    db,
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
export async function exportBundle(db: Sequelize): Promise<Bundle> {
  const catalogue = await exportCatalogue(db);
  const setups = await exportSetups(db);
  const events = await exportEvents(db);
  const log = packEntries(await logInFile(db), true);
  const rules = (await listRules(db)).flatMap((r) =>
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
    figures: (await listFigures(db)).map(({ key, value, reason }) => ({ key, value, reason })),
    ...(await exportRuns(db)),
    ...(await exportStated(db)),
    ...(await exportPeople(db)),
    searches: (await listSearches(db)).map(({ id, name, ask }) => ({ id, name, ask })),
    feeds: (await listFeeds(db)).map(({ id, name, url, near, everyHours }) => ({
      id,
      name,
      url,
      near,
      everyHours,
    })),
  };
}
