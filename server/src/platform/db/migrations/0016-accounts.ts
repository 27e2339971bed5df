import type { Sequelize } from 'sequelize';

/**
 * Accounts: one-time codes with recovery codes, browsers known to be a member's, when a password was last given in a
 * session. The audit trail: entries are added and, once they are older than the rule says, removed; never changed.
 */
const STATEMENTS = [
  `ALTER TABLE members ADD COLUMN code_secret text, ADD COLUMN code_pending text, ADD COLUMN code_step bigint`,
  `CREATE TABLE recovery_codes (code_hash bytea PRIMARY KEY CHECK (length(code_hash) = 32),
     member_id uuid NOT NULL REFERENCES members(id) ON DELETE CASCADE, used_at timestamptz)`,
  'CREATE INDEX recovery_codes_member ON recovery_codes (member_id)',
  `ALTER TABLE sessions ADD COLUMN id uuid NOT NULL DEFAULT gen_random_uuid(), ADD COLUMN confirmed_at timestamptz,
     ADD COLUMN address text NOT NULL DEFAULT '', ADD COLUMN browser text NOT NULL DEFAULT ''`,
  'UPDATE sessions SET confirmed_at = begun_at',
  `ALTER TABLE sessions ALTER COLUMN confirmed_at SET NOT NULL, ALTER COLUMN id DROP DEFAULT,
     ALTER COLUMN address DROP DEFAULT, ALTER COLUMN browser DROP DEFAULT`,
  'CREATE UNIQUE INDEX sessions_id ON sessions (id)',
  `CREATE TABLE known_browsers (token_hash bytea NOT NULL CHECK (length(token_hash) = 32),
     member_id uuid NOT NULL REFERENCES members(id) ON DELETE CASCADE, seen_at timestamptz NOT NULL, PRIMARY KEY (token_hash, member_id))`,
  'CREATE INDEX known_browsers_member ON known_browsers (member_id)',
  'DELETE FROM sign_in_tries',
  // Without a reference to members: what somebody did stays when the member goes.
  `CREATE TABLE audit_events (id uuid PRIMARY KEY, at timestamptz NOT NULL, kind text NOT NULL, request_id text,
     actor_id uuid, actor text NOT NULL, address text NOT NULL, act text NOT NULL, about text NOT NULL,
     status integer NOT NULL, why text NOT NULL)`,
  'CREATE INDEX audit_events_at ON audit_events (at, id)',
  `CREATE FUNCTION keep_audit() RETURNS trigger LANGUAGE plpgsql AS $$
   BEGIN
     IF TG_OP = 'DELETE' AND current_setting('ruddy.audit_rule', true) = 'on' THEN RETURN OLD; END IF;
     RAISE EXCEPTION 'the audit trail is append-only: %', TG_OP USING ERRCODE = 'restrict_violation';
   END $$`,
  `CREATE TRIGGER keep_audit BEFORE UPDATE OR DELETE ON audit_events FOR EACH ROW EXECUTE FUNCTION keep_audit()`,
  `CREATE TRIGGER keep_audit_whole BEFORE TRUNCATE ON audit_events FOR EACH STATEMENT EXECUTE FUNCTION keep_audit()`,
];

export async function up(db: Sequelize): Promise<void> {
  await db.transaction(async (transaction) => {
    for (const statement of STATEMENTS) await db.query(statement, { transaction });
  });
}
