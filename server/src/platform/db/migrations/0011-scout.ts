import type { Sequelize } from 'sequelize';

/**
 * Whole machines become kinds of the catalogue; searches are kept under a name. Feeds with what was read of them: an item is a fact as it
 * was published, what a person did about it stands beside it.
 */
const SQL = `
ALTER TABLE parts DROP CONSTRAINT parts_kind_check;
ALTER TABLE parts ADD CONSTRAINT parts_kind_check CHECK (kind IN
  ('host', 'cable', 'adapter', 'dock', 'card', 'supply', 'screen', 'system', 'release', 'requirement', 'laptop', 'desktop'));
CREATE TABLE searches (
  id uuid PRIMARY KEY,
  origin text NOT NULL CHECK (origin IN ('demo', 'own', 'imported', 'adopted')),
  created_at timestamptz NOT NULL, created_by uuid NOT NULL REFERENCES members(id),
  name text NOT NULL CHECK (name <> ''), ask jsonb NOT NULL, rev integer NOT NULL DEFAULT 1
);
CREATE INDEX searches_list ON searches (created_at DESC, id DESC);
CREATE TABLE feeds (
  id uuid PRIMARY KEY,
  origin text NOT NULL CHECK (origin IN ('demo', 'own', 'imported', 'adopted')),
  created_at timestamptz NOT NULL, created_by uuid NOT NULL REFERENCES members(id),
  name text NOT NULL CHECK (name <> ''), url text NOT NULL UNIQUE, near boolean NOT NULL DEFAULT false,
  every_hours integer CHECK (every_hours BETWEEN 1 AND 720), rev integer NOT NULL DEFAULT 1,
  etag text NOT NULL DEFAULT '', modified text NOT NULL DEFAULT '',
  read_at timestamptz, next_at timestamptz, problem text NOT NULL DEFAULT '', unchanged boolean NOT NULL DEFAULT false
);
CREATE TABLE feed_items (
  id uuid PRIMARY KEY,
  feed_id uuid NOT NULL REFERENCES feeds(id) ON DELETE CASCADE,
  key text NOT NULL, body jsonb NOT NULL, published_at timestamptz, read_at timestamptz NOT NULL,
  state text NOT NULL DEFAULT 'new' CHECK (state IN ('new', 'read', 'kept')), release_id uuid REFERENCES parts(id) ON DELETE SET NULL,
  UNIQUE (feed_id, key)
);
CREATE INDEX feed_items_list ON feed_items (coalesce(published_at, read_at) DESC, id DESC);
`;

export async function up(db: Sequelize): Promise<void> {
  await db.transaction(async (transaction) => {
    await db.query(SQL, { transaction });
  });
}
