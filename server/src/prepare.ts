import { bringAuditBack } from './platform/audit/queries/kept';
import { database } from './platform/db/database';
import { migrate } from './platform/db/migrate';
import { refreshFigures } from './runs/run-figures';
import { refigure } from './runs/runs';

/** Bring a database to where this program works with it: schema, then figures that older versions computed. */
export async function prepareDatabase(): Promise<{ migrations: string[]; runs: number }> {
  const migrations = await migrate(database());
  await bringAuditBack();
  const runs = await refreshFigures((id) => refigure(id));
  return { migrations, runs };
}
