import type { Sequelize } from 'sequelize';
import { migrate } from './platform/db/migrate';
import { refreshFigures } from './runs/run-figures';
import { refigure } from './runs/runs';

/** Bring a database to where this program works with it: schema, then figures that older versions computed. */
export async function prepareDatabase(
  db: Sequelize,
): Promise<{ migrations: string[]; runs: number }> {
  const migrations = await migrate(db);
  const runs = await refreshFigures(db, (id) => refigure(db, id));
  return { migrations, runs };
}
