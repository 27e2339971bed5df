import type { Sequelize } from 'sequelize';

const made = `id uuid PRIMARY KEY,
  origin text NOT NULL CHECK (origin IN ('demo', 'own', 'imported', 'adopted')),
  created_at timestamptz NOT NULL, created_by uuid NOT NULL REFERENCES members(id)`;

/**
 * Runs are facts. Their values lie apart, found by the SHA-256 of their bytes, so that they can be sent before the run and twice without
 * harm. What is computed from them (\`run_figures\`) is no fact: it can be made anew at any time.
 */
const TABLES = `
CREATE TABLE profiles (
  ${made},
  name text NOT NULL CHECK (name <> ''), kind text NOT NULL CHECK (kind IN ('title', 'work')), note text NOT NULL DEFAULT '',
  rev integer NOT NULL DEFAULT 1, params jsonb, fit jsonb
);
CREATE UNIQUE INDEX profiles_name ON profiles (lower(name));
CREATE TABLE captures (
  sha256 text PRIMARY KEY CHECK (sha256 ~ '^[0-9a-f]{64}$'),
  n integer NOT NULL CHECK (n > 0), data bytea NOT NULL, sent_at timestamptz NOT NULL
);
ALTER TABLE captures ALTER COLUMN data SET STORAGE EXTERNAL;
CREATE TABLE runs (
  ${made},
  setup_id uuid NOT NULL REFERENCES setups(id) ON DELETE CASCADE,
  title_id uuid NOT NULL REFERENCES profiles(id),
  kind text NOT NULL CHECK (kind IN ('frames', 'score', 'time', 'none')),
  happened_at timestamptz NOT NULL, recorded_at timestamptz NOT NULL,
  chain jsonb NOT NULL, settings jsonb NOT NULL, context jsonb NOT NULL,
  result jsonb, reason text NOT NULL DEFAULT '', cut_s double precision NOT NULL DEFAULT 0 CHECK (cut_s >= 0),
  segments jsonb NOT NULL DEFAULT '[]', program text NOT NULL DEFAULT '', private jsonb
);
CREATE INDEX runs_setup ON runs (setup_id, happened_at DESC, id DESC);
CREATE INDEX runs_list ON runs (happened_at DESC, id DESC);
CREATE INDEX runs_title ON runs (title_id);
CREATE TABLE run_channels (
  run_id uuid NOT NULL REFERENCES runs(id) ON DELETE CASCADE,
  channel text NOT NULL, t0_ms double precision NOT NULL DEFAULT 0, dt_ms double precision CHECK (dt_ms > 0),
  n integer NOT NULL CHECK (n > 0), sha256 text NOT NULL REFERENCES captures(sha256),
  PRIMARY KEY (run_id, channel)
);
CREATE INDEX run_channels_capture ON run_channels (sha256);
CREATE TABLE run_figures (
  run_id uuid PRIMARY KEY REFERENCES runs(id) ON DELETE CASCADE,
  version integer NOT NULL, stats jsonb NOT NULL, shown jsonb, segments jsonb NOT NULL DEFAULT '[]'
);
CREATE TABLE csv_mappings (signature text PRIMARY KEY, mapping jsonb NOT NULL, used_at timestamptz NOT NULL);
CREATE TABLE sessions_planned (
  ${made}, body jsonb NOT NULL
);
CREATE INDEX events_said ON events ((body ->> 'run')) WHERE kind = 'run-said';
CREATE TRIGGER keep_facts BEFORE UPDATE OR DELETE ON runs FOR EACH ROW EXECUTE FUNCTION keep_facts();
`;

/** Demo runs go with their setups, or are adopted with them; a demo title that a run still needs stays. */
const DEMO = `
CREATE FUNCTION remove_demo_runs() RETURNS void LANGUAGE plpgsql AS $$
BEGIN
  PERFORM set_config('ruddy.removing_demo', 'on', true);
  UPDATE runs SET origin = 'adopted' WHERE origin = 'demo' AND setup_id NOT IN (SELECT id FROM demo_going_setups);
  DELETE FROM runs WHERE origin = 'demo';
  UPDATE profiles SET origin = 'adopted' WHERE origin = 'demo' AND EXISTS (SELECT 1 FROM runs r WHERE r.title_id = profiles.id);
  DELETE FROM profiles WHERE origin = 'demo';
  DELETE FROM sessions_planned WHERE origin = 'demo';
  DELETE FROM captures c WHERE NOT EXISTS (SELECT 1 FROM run_channels r WHERE r.sha256 = c.sha256);
  PERFORM set_config('ruddy.removing_demo', 'off', true);
END $$;
`;

export async function up(db: Sequelize): Promise<void> {
  await db.transaction(async (transaction) => {
    await db.query(TABLES, { transaction });
    await db.query(DEMO, { transaction });
  });
}
