import type { Sequelize } from 'sequelize';

const HOST = `'{"singleThread": null}'::jsonb`;
const CARD = `'{"memoryMHz": null, "frameIndex": null}'::jsonb`;
const CONTEXT = `'{"sameProcessor": null, "slotGen": null, "slotLanes": null}'::jsonb`;

const made = `id uuid PRIMARY KEY,
  origin text NOT NULL CHECK (origin IN ('demo', 'own', 'imported', 'adopted')),
  created_at timestamptz NOT NULL, created_by uuid NOT NULL REFERENCES members(id)`;

const added = (table: string, part: 'host' | 'card', what: string) =>
  `UPDATE ${table} SET chain = jsonb_set(chain, '{${part}}', ${what} || (chain -> '${part}')) WHERE jsonb_typeof(chain -> '${part}') = 'object'`;

/** Fits of the demo rest on runs that go with it. */
const DEMO = `
CREATE OR REPLACE FUNCTION remove_demo_runs() RETURNS void LANGUAGE plpgsql AS $$
BEGIN
  PERFORM set_config('ruddy.removing_demo', 'on', true);
  UPDATE runs SET origin = 'adopted' WHERE origin = 'demo' AND setup_id NOT IN (SELECT id FROM demo_going_setups);
  DELETE FROM runs WHERE origin = 'demo';
  DELETE FROM profile_fits WHERE origin = 'demo';
  UPDATE profiles SET origin = 'adopted' WHERE origin = 'demo' AND EXISTS (SELECT 1 FROM runs r WHERE r.title_id = profiles.id);
  DELETE FROM profiles WHERE origin = 'demo';
  DELETE FROM sessions_planned WHERE origin = 'demo';
  DELETE FROM captures c WHERE NOT EXISTS (SELECT 1 FROM run_channels r WHERE r.sha256 = c.sha256);
  PERFORM set_config('ruddy.removing_demo', 'off', true);
END $$;
`;

/**
 * Titles say what they ask for, and synthetic tests their year; calibrations are kept by the day they were made, so that what was
 * predicted before a run can be told from what was fitted to it. Hosts and cards gain their indices, cards their memory clock, runs in a
 * desktop slot what the slot is; what meters showed is kept beside the figures of a run.
 */
export async function up(db: Sequelize): Promise<void> {
  const statements = [
    `CREATE TABLE profile_fits (${made},
       profile_id uuid NOT NULL REFERENCES profiles(id) ON DELETE CASCADE, made_at timestamptz NOT NULL, fit jsonb NOT NULL)`,
    'CREATE INDEX profile_fits_of ON profile_fits (profile_id, made_at DESC)',
    'ALTER TABLE profiles DROP COLUMN fit, ADD COLUMN year integer CHECK (year BETWEEN 1990 AND 2100)',
    'ALTER TABLE run_figures ADD COLUMN sensors jsonb',
    DEMO,
    `UPDATE parts SET spec = ${HOST} || spec WHERE kind = 'host'`,
    `UPDATE parts SET spec = ${CARD} || spec WHERE kind = 'card'`,
    `UPDATE part_revisions r SET spec = ${HOST} || r.spec FROM parts p WHERE p.id = r.part_id AND p.kind = 'host'`,
    `UPDATE part_revisions r SET spec = ${CARD} || r.spec FROM parts p WHERE p.id = r.part_id AND p.kind = 'card'`,
    'ALTER TABLE log_entries DISABLE TRIGGER keep_facts',
    'ALTER TABLE runs DISABLE TRIGGER keep_facts',
    ...['log_entries', 'runs', 'benches'].flatMap((t) => [
      added(t, 'host', HOST),
      added(t, 'card', CARD),
    ]),
    `UPDATE runs SET context = ${CONTEXT} || context`,
    'ALTER TABLE log_entries ENABLE TRIGGER keep_facts',
    'ALTER TABLE runs ENABLE TRIGGER keep_facts',
  ];
  await db.transaction(async (transaction) => {
    for (const statement of statements) await db.query(statement, { transaction });
  });
}
