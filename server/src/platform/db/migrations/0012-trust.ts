import type { Sequelize } from 'sequelize';

const ORIGIN = `origin text NOT NULL CHECK (origin IN ('demo', 'own', 'imported', 'adopted'))`;
const BY = `created_at timestamptz NOT NULL, created_by uuid NOT NULL REFERENCES members(id)`;

/**
 * Sign-in: sessions by the hash of the browser's token, and failed attempts. Loans of items, from request to return.
 */
const SQL = `
ALTER TABLE members ADD COLUMN rev integer NOT NULL DEFAULT 1;
CREATE UNIQUE INDEX members_name ON members (lower(name));

CREATE TABLE sessions (
  token_hash bytea PRIMARY KEY CHECK (length(token_hash) = 32),
  member_id uuid NOT NULL REFERENCES members(id) ON DELETE CASCADE,
  begun_at timestamptz NOT NULL, seen_at timestamptz NOT NULL, expires_at timestamptz NOT NULL
);
CREATE INDEX sessions_member ON sessions (member_id);
CREATE TABLE sign_in_tries (key varchar(255) PRIMARY KEY, points integer NOT NULL DEFAULT 0, expire bigint);

CREATE TABLE loans (
  id uuid PRIMARY KEY, ${ORIGIN}, ${BY},
  item_id uuid NOT NULL REFERENCES items(id) ON DELETE CASCADE,
  member_id uuid NOT NULL REFERENCES members(id),
  setup_id uuid REFERENCES setups(id) ON DELETE SET NULL,
  asked_on date NOT NULL, from_on date, due_on date,
  condition_out text CHECK (condition_out IN ('new', 'used', 'worn', 'faulty')),
  along jsonb NOT NULL DEFAULT '[]', note text NOT NULL DEFAULT '', checked jsonb,
  returned_on date, back jsonb, withdrawn boolean NOT NULL DEFAULT false, rev integer NOT NULL DEFAULT 1,
  CHECK (due_on IS NULL OR from_on IS NOT NULL AND due_on >= from_on),
  CHECK ((returned_on IS NULL) = (back IS NULL)),
  CHECK (returned_on IS NULL OR from_on IS NOT NULL AND returned_on >= from_on),
  CHECK (NOT withdrawn OR from_on IS NULL)
);
CREATE UNIQUE INDEX loans_out ON loans (item_id) WHERE from_on IS NOT NULL AND returned_on IS NULL;
CREATE UNIQUE INDEX loans_waiting ON loans (item_id, member_id) WHERE from_on IS NULL AND NOT withdrawn;
CREATE INDEX loans_item ON loans (item_id, asked_on, id);
CREATE INDEX loans_member ON loans (member_id);
`;

/** A lent demo item stays with its part; demo members and loans are removed unless own data refers to them. */
const DEMO = `
CREATE OR REPLACE VIEW demo_kept_parts AS
  SELECT p.id FROM parts p WHERE p.origin = 'demo' AND (
    EXISTS (SELECT 1 FROM setup_slots t JOIN setups s ON s.id = t.setup_id
      WHERE t.part_id = p.id AND (s.origin <> 'demo' OR s.id IN (SELECT id FROM demo_kept_setups)))
    OR EXISTS (SELECT 1 FROM items i WHERE i.part_id = p.id AND (i.origin <> 'demo'
      OR EXISTS (SELECT 1 FROM item_facts f WHERE f.item_id = i.id AND f.origin <> 'demo')
      OR EXISTS (SELECT 1 FROM loans l WHERE l.item_id = i.id AND l.origin <> 'demo')))
    OR EXISTS (SELECT 1 FROM prices c WHERE (c.part_id = p.id OR p.id = ANY (c.with_ids)) AND c.origin <> 'demo'));

CREATE FUNCTION remove_demo_loans() RETURNS void LANGUAGE plpgsql AS $$
BEGIN
  DELETE FROM loans WHERE origin = 'demo';
  UPDATE items SET origin = 'adopted' WHERE origin = 'demo' AND EXISTS (SELECT 1 FROM loans l WHERE l.item_id = items.id);
  UPDATE members m SET origin = 'adopted' WHERE origin = 'demo' AND (password_hash IS NOT NULL OR EXISTS (SELECT 1 FROM loans l WHERE l.member_id = m.id));
  DELETE FROM members WHERE origin = 'demo';
END $$;
`;

export async function up(db: Sequelize): Promise<void> {
  await db.transaction(async (transaction) => {
    await db.query(SQL, { transaction });
    await db.query(DEMO, { transaction });
  });
}
