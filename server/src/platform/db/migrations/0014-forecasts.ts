import type { Sequelize } from 'sequelize';

/** What goes with the demo; frames are computed from runs, so that nothing computed is left behind. */
const DEMO = `
CREATE OR REPLACE FUNCTION remove_demo_runs() RETURNS void LANGUAGE plpgsql AS $$
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

/**
 * Calibrations are not stored any more: the posterior of a title is computed from its runs. What is kept instead is the forecast of each
 * run from what was known before it, with its date, to see how well forecasts hold.
 */
export async function up(db: Sequelize): Promise<void> {
  const statements = [
    'DROP TABLE profile_fits',
    `CREATE TABLE run_forecasts (run_id uuid PRIMARY KEY REFERENCES runs(id) ON DELETE CASCADE, made_at timestamptz NOT NULL,
       model text NOT NULL, evidence integer NOT NULL CHECK (evidence >= 0), basis text NOT NULL, fps jsonb NOT NULL)`,
    DEMO,
  ];
  await db.transaction(async (transaction) => {
    for (const statement of statements) await db.query(statement, { transaction });
  });
}
