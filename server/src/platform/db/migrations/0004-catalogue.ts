import type { Sequelize } from 'sequelize';

const ORIGIN = `origin text NOT NULL CHECK (origin IN ('demo', 'own', 'imported', 'adopted'))`;
const BY = `created_at timestamptz NOT NULL, created_by uuid NOT NULL REFERENCES members(id)`;

const TABLES = `
ALTER TABLE part_revisions ADD COLUMN sources jsonb NOT NULL DEFAULT '{}', ADD COLUMN retired boolean NOT NULL DEFAULT false;

CREATE TABLE items (
  id uuid PRIMARY KEY, ${ORIGIN}, ${BY},
  part_id uuid NOT NULL REFERENCES parts(id) ON DELETE CASCADE,
  label text NOT NULL CHECK (label <> ''),
  how text NOT NULL CHECK (how IN ('own', 'borrowed', 'gone')),
  owner text NOT NULL, condition text CHECK (condition IN ('new', 'used', 'worn', 'faulty')),
  acquired_on date, bought_from text NOT NULL, claim text NOT NULL, note text NOT NULL,
  private jsonb NOT NULL DEFAULT '{}', rev integer NOT NULL DEFAULT 1
);
CREATE INDEX items_part ON items (part_id, id);

CREATE TABLE item_facts (
  id uuid PRIMARY KEY, ${ORIGIN}, ${BY},
  item_id uuid NOT NULL REFERENCES items(id) ON DELETE CASCADE,
  kind text NOT NULL CHECK (kind IN ('version', 'measured', 'fault')),
  body jsonb NOT NULL, happened_on date NOT NULL
);
CREATE INDEX item_facts_item ON item_facts (item_id, happened_on);

CREATE TABLE prices (
  id uuid PRIMARY KEY, ${ORIGIN}, ${BY},
  part_id uuid NOT NULL REFERENCES parts(id) ON DELETE CASCADE,
  item_id uuid REFERENCES items(id) ON DELETE SET NULL,
  kind text NOT NULL CHECK (kind IN ('offer', 'paid', 'shipping', 'resale')),
  minor bigint NOT NULL CHECK (minor >= 0), currency text NOT NULL CHECK (currency ~ '^[A-Z]{3}$'),
  condition text CHECK (condition IN ('new', 'used', 'refurbished')),
  on_date date NOT NULL, source text NOT NULL, note text NOT NULL,
  with_ids uuid[] NOT NULL DEFAULT '{}', before_minor bigint, discount_percent real, withdrawn_at timestamptz
);
CREATE INDEX prices_part ON prices (part_id, on_date) WHERE withdrawn_at IS NULL;

CREATE TABLE exchange_rates (
  id uuid PRIMARY KEY, ${ORIGIN}, ${BY},
  from_cur text NOT NULL, to_cur text NOT NULL CHECK (to_cur <> from_cur),
  rate double precision NOT NULL CHECK (rate > 0), on_date date NOT NULL, source text NOT NULL, withdrawn_at timestamptz
);

ALTER TABLE setup_slots ADD COLUMN item_id uuid REFERENCES items(id) ON DELETE SET NULL;
CREATE INDEX setup_slots_item ON setup_slots (item_id) WHERE item_id IS NOT NULL;

CREATE TABLE jobs (
  id uuid PRIMARY KEY, ${BY},
  kind text NOT NULL, state text NOT NULL CHECK (state IN ('running', 'done', 'failed', 'cancelled')),
  done integer NOT NULL DEFAULT 0, total integer NOT NULL DEFAULT 0, message text NOT NULL DEFAULT '',
  cancel_requested boolean NOT NULL DEFAULT false, heartbeat_at timestamptz NOT NULL, result jsonb
);
CREATE TABLE job_rows (
  job_id uuid NOT NULL REFERENCES jobs(id) ON DELETE CASCADE, row integer NOT NULL,
  fate text NOT NULL, part text NOT NULL, notes jsonb NOT NULL, PRIMARY KEY (job_id, row)
);
CREATE INDEX job_rows_fate ON job_rows (job_id, fate, row);

CREATE TRIGGER keep_facts BEFORE UPDATE OR DELETE ON item_facts FOR EACH ROW EXECUTE FUNCTION keep_facts();
`;

/**
 * A demo part with a piece, a price or a box of one's own stays; what belongs to parts that stay is adopted with them. Facts of pieces
 * are as append-only as those of setups; they go when their demo piece goes.
 */
const DEMO = `
CREATE OR REPLACE FUNCTION keep_facts() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF current_setting('ruddy.removing_demo', true) = 'on' AND OLD.origin = 'demo' THEN
    IF TG_OP = 'DELETE' THEN RETURN OLD; END IF;
    IF to_jsonb(OLD) - 'origin' = to_jsonb(NEW) - 'origin' AND NEW.origin = 'adopted' THEN RETURN NEW; END IF;
  END IF;
  IF TG_OP = 'UPDATE' AND to_jsonb(OLD) ? 'private' AND NEW.private IS NULL AND to_jsonb(OLD) - 'private' = to_jsonb(NEW) - 'private' THEN
    RETURN NEW;
  END IF;
  RAISE EXCEPTION 'facts are append-only: % on %', TG_OP, TG_TABLE_NAME USING ERRCODE = 'restrict_violation';
END $$;

CREATE OR REPLACE VIEW demo_kept_parts AS
  SELECT p.id FROM parts p WHERE p.origin = 'demo' AND (
    EXISTS (SELECT 1 FROM setup_slots t JOIN setups s ON s.id = t.setup_id
      WHERE t.part_id = p.id AND (s.origin <> 'demo' OR s.id IN (SELECT id FROM demo_kept_setups)))
    OR EXISTS (SELECT 1 FROM items i WHERE i.part_id = p.id AND (i.origin <> 'demo'
      OR EXISTS (SELECT 1 FROM item_facts f WHERE f.item_id = i.id AND f.origin <> 'demo')))
    OR EXISTS (SELECT 1 FROM prices c WHERE (c.part_id = p.id OR p.id = ANY (c.with_ids)) AND c.origin <> 'demo'));

CREATE OR REPLACE FUNCTION remove_demo() RETURNS void LANGUAGE plpgsql AS $$
BEGIN
  PERFORM set_config('ruddy.removing_demo', 'on', true);
  CREATE TEMP TABLE going_setups ON COMMIT DROP AS SELECT id FROM demo_going_setups;
  CREATE TEMP TABLE kept_parts ON COMMIT DROP AS SELECT id FROM demo_kept_parts;
  UPDATE log_entries SET origin = 'adopted' WHERE origin = 'demo' AND setup_id NOT IN (SELECT id FROM going_setups);
  UPDATE events SET origin = 'adopted' WHERE origin = 'demo' AND setup_id NOT IN (SELECT id FROM going_setups);
  UPDATE setups SET origin = 'adopted' WHERE origin = 'demo' AND id NOT IN (SELECT id FROM going_setups);
  UPDATE sockets SET origin = 'adopted' WHERE part_id IN (SELECT id FROM kept_parts) AND origin = 'demo';
  UPDATE items SET origin = 'adopted' WHERE part_id IN (SELECT id FROM kept_parts) AND origin = 'demo' AND (
    EXISTS (SELECT 1 FROM item_facts f WHERE f.item_id = items.id AND f.origin <> 'demo')
    OR EXISTS (SELECT 1 FROM setup_slots t WHERE t.item_id = items.id AND t.setup_id NOT IN (SELECT id FROM going_setups)));
  UPDATE item_facts SET origin = 'adopted' WHERE origin = 'demo' AND item_id IN (SELECT id FROM items WHERE origin <> 'demo');
  UPDATE parts SET origin = 'adopted' WHERE id IN (SELECT id FROM kept_parts);
  DELETE FROM log_entries WHERE origin = 'demo';
  DELETE FROM events WHERE origin = 'demo';
  DELETE FROM setups WHERE origin = 'demo';
  DELETE FROM prices WHERE origin = 'demo';
  DELETE FROM exchange_rates WHERE origin = 'demo';
  DELETE FROM item_facts WHERE origin = 'demo';
  DELETE FROM items WHERE origin = 'demo';
  DELETE FROM parts WHERE origin = 'demo';
  DELETE FROM settings WHERE origin = 'demo';
  PERFORM set_config('ruddy.removing_demo', 'off', true);
END $$;
`;

/** Pieces with what was seen on them, prices, rates of exchange, long work as rows, and revisions that keep where values came from. */
export async function up(db: Sequelize): Promise<void> {
  await db.transaction(async (transaction) => {
    await db.query(TABLES, { transaction });
    await db.query(DEMO, { transaction });
    // Revisions before this one did not say where their values came from; the newest is what stands now.
    await db.query(
      `UPDATE part_revisions r SET sources = p.sources, retired = p.retired_at IS NOT NULL FROM parts p WHERE p.id = r.part_id AND p.rev = r.rev`,
      { transaction },
    );
  });
}
