import type { Sequelize } from 'sequelize';

/**
 * Practice on hidden faults: what was hidden where, what was asked of it, and what was named. Searches for a cause are events of their
 * setup, figures of the net lie among the settings: neither needs a table. Titles say what engine they are built on.
 */
const SQL = `
CREATE TABLE practices (
  id uuid PRIMARY KEY,
  origin text NOT NULL CHECK (origin IN ('demo', 'own', 'imported', 'adopted')),
  created_at timestamptz NOT NULL, created_by uuid NOT NULL REFERENCES members(id),
  case_no integer, name text NOT NULL CHECK (name <> ''), chain jsonb NOT NULL, seed integer NOT NULL, faults jsonb NOT NULL,
  order_used text NOT NULL CHECK (order_used IN ('all-off', 'host-first')),
  symptoms text[] NOT NULL CHECK (cardinality(symptoms) > 0), steps jsonb NOT NULL DEFAULT '[]',
  named text, ended jsonb, CHECK ((named IS NULL) = (ended IS NULL))
);
CREATE INDEX practices_list ON practices (created_at DESC, id DESC);
ALTER TABLE profiles ADD COLUMN engine text NOT NULL DEFAULT '';
CREATE INDEX events_troubles ON events (setup_id, seq) WHERE kind = 'trouble';
`;

export async function up(db: Sequelize): Promise<void> {
  await db.transaction(async (transaction) => {
    await db.query(SQL, { transaction });
  });
}
