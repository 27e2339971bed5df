import { QueryTypes, type Sequelize } from 'sequelize';

type Define = (db: Sequelize) => void;
let current: Sequelize | undefined;

/**
 * Makes a connected database the one this process works on: models are bound to it, and queries and
 * transactions go to it. A process works on one database at a time; a second one, such as the scratch
 * database of a backup's test, is used through its own connection.
 */
export function useDatabase(db: Sequelize, models: readonly Define[]): void {
  if (current === db) return;
  current = db;
  for (const define of models) define(db);
}

/** The database this process works on. */
export function database(): Sequelize {
  if (!current) throw new Error('no database is connected yet');
  return current;
}

/** Rows of a statement that answers with rows. Values are bound, never written into the text. */
export function select<Row extends object>(
  sql: string,
  bind: readonly unknown[] = [],
): Promise<Row[]> {
  return database().query<Row>(sql, { type: QueryTypes.SELECT, bind: [...bind] });
}

/** Runs a statement whose answer is not needed. Values are bound, never written into the text. */
export async function execute(sql: string, bind: readonly unknown[] = []): Promise<void> {
  await database().query(sql, { bind: [...bind] });
}

/** Does the database answer? Rejects when it does not. */
export function answers(): Promise<void> {
  return execute('SELECT 1');
}
