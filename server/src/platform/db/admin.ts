import { QueryTypes, type Sequelize } from 'sequelize';
import { database } from './database';

// Work on whole databases, which backups need. Names of databases are never words of people: they cannot be bound.

/** Rows of every table but those left out, by its name. */
export async function countAll(
  leftOut: readonly string[],
  db: Sequelize = database(),
): Promise<Record<string, number>> {
  const tables = await db.query<{ name: string }>(
    `SELECT tablename AS name FROM pg_tables WHERE schemaname = 'public' AND NOT tablename = ANY($1::text[]) ORDER BY 1`,
    { type: QueryTypes.SELECT, bind: [leftOut] },
  );
  if (tables.length === 0) return {};
  const rows = await db.query<{ name: string; n: number }>(
    tables
      .map(({ name }) => `SELECT '${name}' AS name, count(*)::int AS n FROM public."${name}"`)
      .join(' UNION ALL '),
    { type: QueryTypes.SELECT },
  );
  return Object.fromEntries(rows.map((r) => [r.name, r.n]));
}

/** The newest migration a database has had; empty where it has had none. */
export async function schemaOf(db: Sequelize = database()): Promise<string> {
  const [row] = await db.query<{ name: string | null }>(
    'SELECT max(name) AS name FROM schema_migrations',
    { type: QueryTypes.SELECT },
  );
  return row?.name ?? '';
}

/** Can a keeper sign in to this database? Of a restored one models cannot tell: they are bound to this process's own. */
export async function holdsKeeper(db: Sequelize): Promise<boolean> {
  const rows = await db.query(
    `SELECT 1 FROM members WHERE role = 'keeper' AND active AND password_hash IS NOT NULL LIMIT 1`,
    { type: QueryTypes.SELECT },
  );
  return rows.length > 0;
}

/** Makes what the current transaction sees known to other programs, by the id that is given back. */
export async function exportSnapshot(): Promise<string> {
  const [row] = await database().query<{ id: string }>('SELECT pg_export_snapshot() AS id', {
    type: QueryTypes.SELECT,
  });
  return row?.id ?? '';
}

export async function createDatabase(db: Sequelize, name: string): Promise<void> {
  await db.query(`CREATE DATABASE ${name} TEMPLATE template0 ENCODING 'UTF8'`);
}

/** Drops a database; with `force`, the connections to it end. */
export async function dropDatabase(
  db: Sequelize,
  name: string,
  { force }: { force: boolean },
): Promise<void> {
  await db.query(`DROP DATABASE IF EXISTS ${name}${force ? ' WITH (FORCE)' : ''}`);
}

/** Databases that match a name pattern and have no connection. */
export async function unusedDatabases(db: Sequelize, pattern: string): Promise<string[]> {
  const rows = await db.query<{ name: string }>(
    `SELECT datname AS name FROM pg_database d WHERE datname ~ $1
       AND NOT EXISTS (SELECT 1 FROM pg_stat_activity a WHERE a.datname = d.datname)`,
    { type: QueryTypes.SELECT, bind: [pattern] },
  );
  return rows.map((r) => r.name);
}

/** The role that owns the database of this process, quoted for SQL. */
export async function ownerOf(db: Sequelize = database()): Promise<string> {
  const [row] = await db.query<{ owner: string }>(
    'SELECT quote_ident(pg_get_userbyid(datdba)) AS owner FROM pg_database WHERE datname = current_database()',
    { type: QueryTypes.SELECT },
  );
  return row?.owner ?? 'CURRENT_USER';
}

/** May the role of this process do anything, programs on the machine of the database included? */
export async function isSuperuser(): Promise<boolean> {
  const [row] = await database().query<{ all: boolean }>(
    'SELECT rolsuper AS "all" FROM pg_roles WHERE rolname = current_user',
    { type: QueryTypes.SELECT },
  );
  return row?.all === true;
}
