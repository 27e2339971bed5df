import type { Sequelize } from 'sequelize';

/** What goes with the demo; a title of the demo stays where somebody has runs or stated figures of it. */
const DEMO = `
CREATE OR REPLACE FUNCTION remove_demo_runs() RETURNS void LANGUAGE plpgsql AS $$
BEGIN
  PERFORM set_config('ruddy.removing_demo', 'on', true);
  UPDATE runs SET origin = 'adopted' WHERE origin = 'demo' AND setup_id NOT IN (SELECT id FROM demo_going_setups);
  DELETE FROM runs WHERE origin = 'demo';
  DELETE FROM stated_figures WHERE origin = 'demo';
  UPDATE profiles SET origin = 'adopted' WHERE origin = 'demo' AND (EXISTS (SELECT 1 FROM runs r WHERE r.title_id = profiles.id)
    OR EXISTS (SELECT 1 FROM stated_figures f WHERE f.title_id = profiles.id));
  DELETE FROM profiles WHERE origin = 'demo';
  DELETE FROM sessions_planned WHERE origin = 'demo';
  DELETE FROM captures c WHERE NOT EXISTS (SELECT 1 FROM run_channels r WHERE r.sha256 = c.sha256);
  PERFORM set_config('ruddy.removing_demo', 'off', true);
END $$;
`;

/** Figures that people state of titles are evidence beside runs; and runs that somebody cannot make are advised no more. */
export async function up(db: Sequelize): Promise<void> {
  const statements = [
    `CREATE TABLE stated_figures (id uuid PRIMARY KEY, origin text NOT NULL CHECK (origin IN ('demo', 'own', 'imported', 'adopted')), created_at timestamptz NOT NULL, created_by uuid NOT NULL REFERENCES members(id),
       title_id uuid NOT NULL REFERENCES profiles(id) ON DELETE CASCADE, setup_id uuid REFERENCES setups(id) ON DELETE SET NULL,
       body jsonb NOT NULL)`,
    'CREATE INDEX stated_figures_title ON stated_figures (title_id)',
    `CREATE TABLE impossible_runs (setup_id uuid REFERENCES setups(id) ON DELETE CASCADE, experiment text NOT NULL,
       created_at timestamptz NOT NULL, created_by uuid NOT NULL REFERENCES members(id), PRIMARY KEY (setup_id, experiment))`,
    DEMO,
  ];
  await db.transaction(async (transaction) => {
    for (const statement of statements) await db.query(statement, { transaction });
  });
}
