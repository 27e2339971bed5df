import type { Sequelize } from 'sequelize';

/**
 * Simulated benches: what they were made of, where their clock stands, and everything that happened on them with a seq without gaps.
 * Bench time runs from `base_ms` at `base_at` with `speed`. Jobs count their
 * changes, so that a stream can say which one it saw last.
 */
const SQL = `
CREATE TABLE benches (
  id uuid PRIMARY KEY,
  origin text NOT NULL CHECK (origin IN ('demo', 'own', 'imported', 'adopted')),
  created_at timestamptz NOT NULL, created_by uuid NOT NULL REFERENCES members(id),
  name text NOT NULL CHECK (name <> ''), seed integer NOT NULL, chain jsonb NOT NULL,
  setup_id uuid REFERENCES setups(id) ON DELETE SET NULL,
  speed real NOT NULL DEFAULT 1 CHECK (speed >= 0 AND speed <= 100),
  base_ms bigint NOT NULL DEFAULT 0 CHECK (base_ms >= 0), base_at timestamptz NOT NULL DEFAULT now(),
  next_seq integer NOT NULL DEFAULT 1,
  lines integer NOT NULL DEFAULT 0, reads integer NOT NULL DEFAULT 0
);
CREATE INDEX benches_setup ON benches (setup_id) WHERE setup_id IS NOT NULL;
CREATE TABLE bench_events (
  bench_id uuid NOT NULL REFERENCES benches(id) ON DELETE CASCADE,
  seq integer NOT NULL, bench_ms bigint NOT NULL,
  kind text NOT NULL CHECK (kind IN ('act', 'line', 'clock')), body jsonb NOT NULL,
  act_id uuid UNIQUE, PRIMARY KEY (bench_id, seq)
);
CREATE INDEX bench_events_acts ON bench_events (bench_id, seq) WHERE kind = 'act';
ALTER TABLE jobs ADD COLUMN seq integer NOT NULL DEFAULT 1;
`;

export async function up(db: Sequelize): Promise<void> {
  await db.transaction((transaction) => db.query(SQL, { transaction }));
}
