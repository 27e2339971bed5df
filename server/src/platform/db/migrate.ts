import { QueryTypes, type Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { select } from './database';
import { outsideTransaction } from './transaction';
import * as first from './migrations/0001-first';
import * as paths from './migrations/0002-paths';
import * as body from './migrations/0003-body';
import * as catalogue from './migrations/0004-catalogue';
import * as bringUp from './migrations/0005-bring-up';
import * as benches from './migrations/0006-benches';
import * as runs from './migrations/0007-runs';
import * as toll from './migrations/0008-toll';
import * as log from './migrations/0009-log';
import * as trouble from './migrations/0010-trouble';
import * as scout from './migrations/0011-scout';
import * as trust from './migrations/0012-trust';
import * as answers from './migrations/0013-answers';
import * as forecasts from './migrations/0014-forecasts';
import * as accounts from './migrations/0016-accounts';
import * as statedFigures from './migrations/0015-stated-figures';

/** Migrations are listed by hand: a glob would not survive the bundle. */
const MIGRATIONS = [
  { name: '0001-first', up: first.up },
  { name: '0002-paths', up: paths.up },
  { name: '0003-body', up: body.up },
  { name: '0004-catalogue', up: catalogue.up },
  { name: '0005-bring-up', up: bringUp.up },
  { name: '0006-benches', up: benches.up },
  { name: '0007-runs', up: runs.up },
  { name: '0008-toll', up: toll.up },
  { name: '0009-log', up: log.up },
  { name: '0010-trouble', up: trouble.up },
  { name: '0011-scout', up: scout.up },
  { name: '0012-trust', up: trust.up },
  { name: '0013-answers', up: answers.up },
  { name: '0014-forecasts', up: forecasts.up },
  { name: '0015-stated-figures', up: statedFigures.up },
  { name: '0016-accounts', up: accounts.up },
];

const KNOWN: ReadonlySet<string> = new Set(MIGRATIONS.map((m) => m.name));

/** The newest migration of this program. */
export const LATEST = MIGRATIONS.map((m) => m.name).at(-1) ?? '';

/** Has the database had migrations, but not all of them? */
export async function isBehind(): Promise<boolean> {
  const [there] = await select<{ has: boolean }>(
    `SELECT to_regclass('public.schema_migrations') IS NOT NULL AS has`,
  );
  if (!there?.has) return false;
  const newest = await newestStep();
  return newest !== null && newest < LATEST;
}

/** The newest step the database of this process has. */
export async function newestStep(): Promise<string | null> {
  const [row] = await select<{ name: string }>(
    'SELECT name FROM schema_migrations ORDER BY name DESC LIMIT 1',
  );
  return row?.name ?? null;
}

/** The database was brought further by a newer program; nothing was changed. */
export class NewerDatabase extends Error {
  constructor(readonly steps: readonly string[]) {
    super(
      `it was last used by a newer Ruddy Bridge (schema ${steps.at(-1) ?? ''}; this program knows up to ${LATEST}). ` +
        'Start that version, or restore a backup from before the upgrade. Nothing was changed.',
    );
  }
}

/**
 * Bring the schema up to date. Several processes may call it at once: one works, the others wait.
 * @throws NewerDatabase where a newer program used it
 */
export async function migrate(db: Sequelize): Promise<string[]> {
  return db.transaction(async (transaction) => {
    await db.query('SELECT pg_advisory_xact_lock(4310)', { type: QueryTypes.SELECT, transaction });
    const storage = new SequelizeStorage({ sequelize: db, tableName: 'schema_migrations' });
    const umzug = new Umzug({
      migrations: MIGRATIONS.map(({ name, up }) => ({ name, up: () => up(db) })),
      storage,
      logger: undefined,
    });
    // Each step has a transaction of its own, and what is done stays noted when a later one fails.
    return outsideTransaction(async () => {
      const newer = (await storage.executed()).filter((name) => !KNOWN.has(name));
      if (newer.length > 0) throw new NewerDatabase(newer.sort());
      return (await umzug.up()).map((m) => m.name);
    });
  });
}
