import type { Sequelize } from 'sequelize';

const ORIGIN = `origin text NOT NULL CHECK (origin IN ('demo', 'own', 'imported', 'adopted'))`;
const BY = `created_at timestamptz NOT NULL, created_by uuid NOT NULL REFERENCES members(id)`;

const TABLES = `
CREATE TABLE members (
  id uuid PRIMARY KEY, ${ORIGIN}, created_at timestamptz NOT NULL,
  name text NOT NULL CHECK (name <> ''), role text NOT NULL CHECK (role IN ('reader', 'member', 'keeper')),
  password_hash text, active boolean NOT NULL DEFAULT true
);
INSERT INTO members (id, origin, created_at, name, role)
  VALUES ('00000000-0000-7000-8000-000000000001', 'own', now(), 'this machine', 'keeper');

CREATE TABLE settings (
  id uuid PRIMARY KEY, ${ORIGIN}, ${BY},
  member_id uuid REFERENCES members(id), key text NOT NULL, value jsonb NOT NULL,
  reason text NOT NULL DEFAULT '', rev integer NOT NULL DEFAULT 1,
  UNIQUE NULLS NOT DISTINCT (member_id, key)
);

CREATE TABLE parts (
  id uuid PRIMARY KEY, ${ORIGIN}, ${BY},
  kind text NOT NULL CHECK (kind IN ('host', 'cable', 'dock', 'card')),
  spec jsonb NOT NULL, spec_version integer NOT NULL DEFAULT 1, sources jsonb NOT NULL DEFAULT '{}',
  rev integer NOT NULL DEFAULT 1, retired_at timestamptz,
  maker text GENERATED ALWAYS AS (spec->>'maker') STORED,
  model text GENERATED ALWAYS AS (spec->>'model') STORED,
  variant text GENERATED ALWAYS AS (spec->>'variant') STORED,
  search text GENERATED ALWAYS AS (lower((spec->>'maker') || ' ' || (spec->>'model') || ' ' || coalesce(spec->>'variant', ''))) STORED,
  CHECK (maker <> '' AND model <> '')
);
CREATE UNIQUE INDEX parts_name ON parts (kind, lower(maker), lower(model), lower(variant)) WHERE retired_at IS NULL;
CREATE INDEX parts_list ON parts (kind, lower(maker), lower(model), lower(variant), id);

CREATE TABLE part_revisions (
  id uuid PRIMARY KEY, part_id uuid NOT NULL REFERENCES parts(id) ON DELETE CASCADE,
  rev integer NOT NULL, spec jsonb NOT NULL, spec_version integer NOT NULL,
  at timestamptz NOT NULL, by uuid NOT NULL REFERENCES members(id), UNIQUE (part_id, rev)
);

CREATE TABLE sockets (
  id uuid PRIMARY KEY, ${ORIGIN}, ${BY},
  part_id uuid NOT NULL REFERENCES parts(id) ON DELETE CASCADE,
  key text NOT NULL, role text NOT NULL DEFAULT 'port', retired_at timestamptz,
  UNIQUE (part_id, key)
);

CREATE TABLE setups (
  id uuid PRIMARY KEY, ${ORIGIN}, ${BY},
  name text NOT NULL CHECK (name <> ''), state text NOT NULL CHECK (state IN ('planned', 'building', 'live', 'retired')),
  cloned_from uuid REFERENCES setups(id) ON DELETE SET NULL,
  rev integer NOT NULL DEFAULT 1, next_seq integer NOT NULL DEFAULT 0,
  details jsonb NOT NULL DEFAULT '{}', saved_at timestamptz NOT NULL
);
CREATE INDEX setups_list ON setups (lower(name), id);

CREATE TABLE setup_slots (
  setup_id uuid NOT NULL REFERENCES setups(id) ON DELETE CASCADE,
  slot text NOT NULL CHECK (slot IN ('host', 'path', 'dock', 'card')), ord integer NOT NULL DEFAULT 0,
  part_id uuid NOT NULL REFERENCES parts(id), socket_id uuid REFERENCES sockets(id),
  PRIMARY KEY (setup_id, slot, ord), CHECK (socket_id IS NULL OR slot = 'host')
);
CREATE INDEX setup_slots_part ON setup_slots (part_id);

CREATE TABLE setup_revisions (
  id uuid PRIMARY KEY, setup_id uuid NOT NULL REFERENCES setups(id) ON DELETE CASCADE,
  rev integer NOT NULL, snapshot jsonb NOT NULL, edit_session uuid,
  at timestamptz NOT NULL, by uuid NOT NULL REFERENCES members(id), UNIQUE (setup_id, rev)
);

CREATE TABLE events (
  id uuid PRIMARY KEY, ${ORIGIN}, ${BY},
  setup_id uuid NOT NULL REFERENCES setups(id) ON DELETE CASCADE,
  seq integer NOT NULL, kind text NOT NULL, body jsonb NOT NULL, body_version integer NOT NULL DEFAULT 1,
  happened_at timestamptz NOT NULL, recorded_at timestamptz NOT NULL,
  corrects uuid REFERENCES events(id), private jsonb, UNIQUE (setup_id, seq)
);

CREATE TABLE log_entries (
  id uuid PRIMARY KEY REFERENCES events(id) ON DELETE CASCADE, ${ORIGIN}, ${BY},
  setup_id uuid NOT NULL REFERENCES setups(id) ON DELETE CASCADE,
  chain_key text, chain jsonb NOT NULL, versions jsonb NOT NULL,
  outcome text NOT NULL CHECK (outcome IN ('works', 'care', 'unreliable', 'fails')),
  symptoms text[] NOT NULL, fixes text[] NOT NULL,
  provenance text NOT NULL CHECK (provenance IN ('own', 'loan', 'bought', 'told')),
  confidence real NOT NULL CHECK (confidence BETWEEN 0 AND 1),
  happened_on date NOT NULL, recorded_at timestamptz NOT NULL,
  supersedes uuid REFERENCES log_entries(id), content_hash text NOT NULL UNIQUE, private jsonb
);
CREATE INDEX log_entries_chain ON log_entries (chain_key, setup_id, happened_on);
CREATE INDEX log_entries_list ON log_entries (happened_on DESC, id DESC);
`;

/** Facts are never changed: only \`private\` may be erased, and demo rows go or are adopted inside remove_demo(). */
const FACTS = `
CREATE FUNCTION keep_facts() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF current_setting('ruddy.removing_demo', true) = 'on' AND OLD.origin = 'demo' THEN
    IF TG_OP = 'DELETE' THEN RETURN OLD; END IF;
    IF to_jsonb(OLD) - 'origin' = to_jsonb(NEW) - 'origin' AND NEW.origin = 'adopted' THEN RETURN NEW; END IF;
  END IF;
  IF TG_OP = 'UPDATE' AND NEW.private IS NULL AND to_jsonb(OLD) - 'private' = to_jsonb(NEW) - 'private' THEN
    RETURN NEW;
  END IF;
  RAISE EXCEPTION 'facts are append-only: % on %', TG_OP, TG_TABLE_NAME USING ERRCODE = 'restrict_violation';
END $$;
CREATE TRIGGER keep_facts BEFORE UPDATE OR DELETE ON events FOR EACH ROW EXECUTE FUNCTION keep_facts();
CREATE TRIGGER keep_facts BEFORE UPDATE OR DELETE ON log_entries FOR EACH ROW EXECUTE FUNCTION keep_facts();

CREATE VIEW demo_kept_setups AS
  SELECT s.id FROM setups s WHERE s.origin = 'demo'
    AND EXISTS (SELECT 1 FROM events e WHERE e.setup_id = s.id AND e.origin <> 'demo');
CREATE VIEW demo_kept_parts AS
  SELECT p.id FROM parts p WHERE p.origin = 'demo' AND EXISTS (
    SELECT 1 FROM setup_slots t JOIN setups s ON s.id = t.setup_id
    WHERE t.part_id = p.id AND (s.origin <> 'demo' OR s.id IN (SELECT id FROM demo_kept_setups)));

-- Demo outcomes that go: those of demo setups that go. What stays keeps its history.
CREATE VIEW demo_going_setups AS
  SELECT id FROM setups WHERE origin = 'demo' AND id NOT IN (SELECT id FROM demo_kept_setups);

CREATE FUNCTION remove_demo() RETURNS void LANGUAGE plpgsql AS $$
BEGIN
  PERFORM set_config('ruddy.removing_demo', 'on', true);
  CREATE TEMP TABLE going_setups ON COMMIT DROP AS SELECT id FROM demo_going_setups;
  CREATE TEMP TABLE kept_parts ON COMMIT DROP AS SELECT id FROM demo_kept_parts;
  UPDATE log_entries SET origin = 'adopted' WHERE origin = 'demo' AND setup_id NOT IN (SELECT id FROM going_setups);
  UPDATE events SET origin = 'adopted' WHERE origin = 'demo' AND setup_id NOT IN (SELECT id FROM going_setups);
  UPDATE setups SET origin = 'adopted' WHERE origin = 'demo' AND id NOT IN (SELECT id FROM going_setups);
  UPDATE sockets SET origin = 'adopted' WHERE part_id IN (SELECT id FROM kept_parts) AND origin = 'demo';
  UPDATE parts SET origin = 'adopted' WHERE id IN (SELECT id FROM kept_parts);
  DELETE FROM log_entries WHERE origin = 'demo';
  DELETE FROM events WHERE origin = 'demo';
  DELETE FROM setups WHERE origin = 'demo';
  DELETE FROM parts WHERE origin = 'demo';
  DELETE FROM settings WHERE origin = 'demo';
  PERFORM set_config('ruddy.removing_demo', 'off', true);
END $$;
`;

/** The tables of the first slice, their constraints, and the guards of append-only facts. */
export async function up(db: Sequelize): Promise<void> {
  await db.transaction(async (transaction) => {
    await db.query(TABLES, { transaction });
    await db.query(FACTS, { transaction });
  });
}
