import type { Sequelize } from 'sequelize';

const made = `id uuid PRIMARY KEY,
  origin text NOT NULL CHECK (origin IN ('demo', 'own', 'imported', 'adopted')),
  created_at timestamptz NOT NULL, created_by uuid NOT NULL REFERENCES members(id)`;

/**
 * What an entry is searched by: names, standards, controllers, system, versions, symptoms, fixes and day, in small letters. In PL/pgSQL,
 * which takes each part out of the chain once: a function in SQL unpacks the whole chain at every mention of it. They name each other with
 * their schema, for a dump is restored without a search path.
 */
const WORDS = `
CREATE FUNCTION log_names(part jsonb) RETURNS text LANGUAGE plpgsql IMMUTABLE AS $$
BEGIN
  RETURN concat_ws(' ', part ->> 'maker', part ->> 'model', part ->> 'variant', part ->> 'family', part ->> 'controllerClass');
END $$;
CREATE FUNCTION log_socket(chain jsonb) RETURNS jsonb LANGUAGE plpgsql IMMUTABLE AS $$
DECLARE sockets jsonb := chain #> '{host,sockets}'; used text := chain ->> 'socket'; s jsonb;
BEGIN
  IF jsonb_typeof(sockets) = 'array' THEN
    FOR s IN SELECT * FROM jsonb_array_elements(sockets) LOOP
      IF s ->> 'key' = used THEN RETURN s; END IF;
    END LOOP;
  END IF;
  RETURN NULL;
END $$;
CREATE FUNCTION log_words(chain jsonb, versions jsonb, symptoms text[], fixes text[], happened_on date) RETURNS text LANGUAGE plpgsql IMMUTABLE AS $$
DECLARE socket jsonb := public.log_socket(chain); path jsonb := chain -> 'path'; pieces text := ''; noted text := ''; p jsonb; v text;
BEGIN
  IF jsonb_typeof(path) = 'array' THEN
    FOR p IN SELECT * FROM jsonb_array_elements(path) LOOP pieces := pieces || ' ' || public.log_names(p -> 'spec'); END LOOP;
  END IF;
  FOR v IN SELECT value FROM jsonb_each_text(versions) LOOP noted := noted || ' ' || v; END LOOP;
  RETURN lower(concat_ws(' ', public.log_names(chain -> 'host'), socket ->> 'position', socket ->> 'connector', socket ->> 'standard',
    socket ->> 'controller', pieces, public.log_names(chain -> 'dock'), public.log_names(chain -> 'card'), public.log_names(chain -> 'system'),
    chain #>> '{system,platform}', noted, array_to_string(symptoms, ' '), array_to_string(fixes, ' '), to_char(happened_on, 'YYYY-MM-DD')));
END $$;
CREATE FUNCTION log_controllers(chain jsonb) RETURNS text LANGUAGE plpgsql IMMUTABLE AS $$
BEGIN
  RETURN lower(concat_ws(' ', public.log_socket(chain) ->> 'controller', chain #>> '{dock,controllerClass}'));
END $$;
CREATE FUNCTION log_system(chain jsonb, versions jsonb) RETURNS text LANGUAGE plpgsql IMMUTABLE AS $$
BEGIN
  RETURN lower(concat_ws(' ', public.log_names(chain -> 'system'), chain #>> '{system,platform}', versions ->> 'system'));
END $$;
CREATE FUNCTION log_joined(list text[]) RETURNS text LANGUAGE plpgsql IMMUTABLE AS $$
BEGIN
  RETURN lower(array_to_string(list, '; '));
END $$;
CREATE FUNCTION log_family(chain jsonb, card text) RETURNS text LANGUAGE plpgsql IMMUTABLE AS $$
BEGIN
  RETURN coalesce(nullif(regexp_replace(trim(lower(coalesce(chain #>> '{card,family}', ''))), '\\s+', ' ', 'g'), ''), card);
END $$;
`;

/** An entry no longer needs a setup here: what comes from a file counts by the setup it was of (\`unit\`). */
const ENTRIES = [
  'ALTER TABLE log_entries DROP CONSTRAINT log_entries_id_fkey',
  'ALTER TABLE log_entries ALTER COLUMN setup_id DROP NOT NULL',
  `ALTER TABLE log_entries ADD COLUMN unit uuid, ADD COLUMN seq integer NOT NULL DEFAULT 0, ADD COLUMN came_from text NOT NULL DEFAULT ''`,
  'UPDATE log_entries e SET unit = e.setup_id, seq = v.seq FROM events v WHERE v.id = e.id',
  'ALTER TABLE log_entries ALTER COLUMN unit SET NOT NULL',
  `ALTER TABLE log_entries ADD CONSTRAINT log_entries_own CHECK (setup_id IS NULL OR unit = setup_id)`,
  `ALTER TABLE log_entries
     ADD COLUMN host text GENERATED ALWAYS AS (chain_key::jsonb ->> 0) STORED,
     ADD COLUMN link text GENERATED ALWAYS AS ((chain_key::jsonb ->> 1) || ' ' || (chain_key::jsonb ->> 2)) STORED,
     ADD COLUMN dock text GENERATED ALWAYS AS (
       CASE WHEN chain_key::jsonb ->> 4 = 'none' THEN 'no dock, ' || (chain_key::jsonb ->> 3) ELSE chain_key::jsonb ->> 4 END) STORED,
     ADD COLUMN card text GENERATED ALWAYS AS (chain_key::jsonb ->> 5) STORED,
     ADD COLUMN family text GENERATED ALWAYS AS (log_family(chain, chain_key::jsonb ->> 5)) STORED,
     ADD COLUMN controllers text GENERATED ALWAYS AS (log_controllers(chain)) STORED,
     ADD COLUMN system_name text GENERATED ALWAYS AS (log_system(chain, versions)) STORED,
     ADD COLUMN symptom_words text GENERATED ALWAYS AS (log_joined(symptoms)) STORED,
     ADD COLUMN fix_words text GENERATED ALWAYS AS (log_joined(fixes)) STORED,
     ADD COLUMN words text GENERATED ALWAYS AS (log_words(chain, versions, symptoms, fixes, happened_on)) STORED`,
  'CREATE INDEX log_entries_supersedes ON log_entries (supersedes) WHERE supersedes IS NOT NULL',
  'CREATE INDEX log_entries_unit ON log_entries (unit, chain_key, happened_on)',
];

const UNIT =
  'entry_id, unit, chain_key, versions, host, link, dock, card, family, outcome, told, confidence, happened_on, seq';
const NEWEST = `SELECT e.id, e.unit, e.chain_key, e.versions, e.host, e.link, e.dock, e.card, e.family, e.outcome, e.provenance = 'told',
    e.confidence, e.happened_on, e.seq FROM log_entries e`;
const COUNTS = `e.chain_key IS NOT NULL AND NOT EXISTS (SELECT 1 FROM log_entries x WHERE x.supersedes = e.id)`;
const ORDER = 'ORDER BY e.happened_on DESC, e.seq DESC, e.id DESC';

/**
 * The log as it counts: of each setup, chain and set of versions the newest entry that was not corrected, so that ten retries of one
 * evening count once. Made from the entries and kept in step with them by a trigger, so that whatever stores them need not know.
 */
const UNITS = `
CREATE TABLE log_units (
  entry_id uuid PRIMARY KEY REFERENCES log_entries(id) ON DELETE CASCADE,
  unit uuid NOT NULL, chain_key text NOT NULL, versions jsonb NOT NULL,
  host text NOT NULL, link text NOT NULL, dock text NOT NULL, card text NOT NULL, family text NOT NULL,
  outcome text NOT NULL, told boolean NOT NULL, confidence real NOT NULL, happened_on date NOT NULL,
  seq integer NOT NULL,
  worked boolean GENERATED ALWAYS AS (outcome IN ('works', 'care')) STORED,
  v_system text GENERATED ALWAYS AS (versions ->> 'system') STORED,
  v_driver text GENERATED ALWAYS AS (versions ->> 'driver') STORED,
  v_host text GENERATED ALWAYS AS (versions ->> 'hostFirmware') STORED,
  v_dock text GENERATED ALWAYS AS (versions ->> 'dockFirmware') STORED,
  UNIQUE (unit, chain_key, versions)
);
CREATE INDEX log_units_chain ON log_units (chain_key);
CREATE INDEX log_units_host_dock ON log_units (host, dock);
CREATE INDEX log_units_host_card ON log_units (host, card);
CREATE INDEX log_units_dock_card ON log_units (dock, card);

CREATE FUNCTION log_count(of_unit uuid, of_chain text, of_versions jsonb) RETURNS void LANGUAGE plpgsql
  -- Its plan is kept while a file of many entries grows the table from nothing: it must use the indexes from the first row on.
  SET enable_seqscan TO off SET enable_hashjoin TO off SET enable_mergejoin TO off AS $$
BEGIN
  DELETE FROM log_units u WHERE u.unit = of_unit AND u.chain_key = of_chain AND u.versions = of_versions;
  INSERT INTO log_units (${UNIT}) ${NEWEST}
    WHERE e.unit = of_unit AND e.chain_key = of_chain AND e.versions = of_versions AND ${COUNTS} ${ORDER} LIMIT 1;
END $$;
CREATE FUNCTION log_counts() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE entry log_entries := CASE WHEN TG_OP = 'DELETE' THEN OLD ELSE NEW END;
BEGIN
  IF entry.chain_key IS NOT NULL THEN PERFORM log_count(entry.unit, entry.chain_key, entry.versions); END IF;
  IF entry.supersedes IS NOT NULL THEN
    PERFORM log_count(e.unit, e.chain_key, e.versions) FROM log_entries e WHERE e.id = entry.supersedes AND e.chain_key IS NOT NULL;
  END IF;
  RETURN NULL;
END $$;
CREATE TRIGGER log_counts AFTER INSERT OR DELETE ON log_entries FOR EACH ROW EXECUTE FUNCTION log_counts();
INSERT INTO log_units (${UNIT}) SELECT DISTINCT ON (e.unit, e.chain_key, e.versions) ${NEWEST.slice('SELECT '.length)} WHERE ${COUNTS}
  ORDER BY e.unit, e.chain_key, e.versions, e.happened_on DESC, e.seq DESC, e.id DESC;

-- The units as they would be if one entry had never been logged; all of them for NULL.
CREATE FUNCTION log_units_without(gone uuid) RETURNS SETOF log_units LANGUAGE sql STABLE AS $$
  SELECT * FROM log_units WHERE entry_id IS DISTINCT FROM gone
  UNION ALL
  (SELECT e.id, e.unit, e.chain_key, e.versions, e.host, e.link, e.dock, e.card, e.family, e.outcome, e.provenance = 'told', e.confidence,
     e.happened_on, e.seq, e.outcome IN ('works', 'care'), e.versions ->> 'system', e.versions ->> 'driver', e.versions ->> 'hostFirmware',
     e.versions ->> 'dockFirmware'
   FROM log_units u JOIN log_entries e ON e.unit = u.unit AND e.chain_key = u.chain_key AND e.versions = u.versions
   WHERE u.entry_id = gone AND e.id <> gone AND ${COUNTS} ${ORDER} LIMIT 1)
$$;
`;

/** Columns made from others are not yet made when the guard looks; they cannot change by themselves. */
const GUARD = `
CREATE OR REPLACE FUNCTION keep_facts() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE made text[] := CASE WHEN TG_TABLE_NAME = 'log_entries'
  THEN ARRAY['host', 'link', 'dock', 'card', 'family', 'controllers', 'system_name', 'symptom_words', 'fix_words', 'words'] ELSE '{}' END;
BEGIN
  IF current_setting('ruddy.removing_demo', true) = 'on' AND OLD.origin = 'demo' THEN
    IF TG_OP = 'DELETE' THEN RETURN OLD; END IF;
    IF to_jsonb(OLD) - made - 'origin' = to_jsonb(NEW) - made - 'origin' AND NEW.origin = 'adopted' THEN RETURN NEW; END IF;
  END IF;
  IF TG_OP = 'UPDATE' AND to_jsonb(OLD) ? 'private' AND NEW.private IS NULL
    AND to_jsonb(OLD) - made - 'private' = to_jsonb(NEW) - made - 'private' THEN
    RETURN NEW;
  END IF;
  RAISE EXCEPTION 'facts are append-only: % on %', TG_OP, TG_TABLE_NAME USING ERRCODE = 'restrict_violation';
END $$;
`;

/** Statements: claims about the log, and properties of a title on a class of chains. Retracted, never deleted. */
const STATED = `
CREATE TABLE claims (
  ${made}, body jsonb NOT NULL, content_hash text NOT NULL UNIQUE, withdrawn_at timestamptz, private jsonb
);
CREATE TABLE title_notes (
  ${made}, title_id uuid NOT NULL REFERENCES profiles(id) ON DELETE CASCADE,
  body jsonb NOT NULL, content_hash text NOT NULL UNIQUE, withdrawn_at timestamptz, private jsonb
);
CREATE INDEX title_notes_title ON title_notes (title_id);

CREATE OR REPLACE FUNCTION remove_demo_stated() RETURNS void LANGUAGE sql AS $$
  DELETE FROM claims WHERE origin = 'demo';
  DELETE FROM title_notes WHERE origin = 'demo';
$$;
`;

/**
 * The log counts by units, is found by words, parts and standards, and takes entries of setups that are not here. Claims and what is said
 * of titles are kept.
 */
export async function up(db: Sequelize): Promise<void> {
  const statements = [
    WORDS,
    'ALTER TABLE log_entries DISABLE TRIGGER keep_facts',
    ...ENTRIES,
    'ALTER TABLE log_entries ENABLE TRIGGER keep_facts',
    GUARD,
    UNITS,
    STATED,
  ];
  await db.transaction(async (transaction) => {
    for (const statement of statements) await db.query(statement, { transaction });
  });
}
