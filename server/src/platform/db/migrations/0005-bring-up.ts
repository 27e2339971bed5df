import type { Sequelize } from 'sequelize';

const INSTALLED = `'{"linkFirmware": "", "cardFirmware": ""}'::jsonb`;
const HOST = `'{"openDepth": null, "openScrews": null, "fixings": null, "fanOnLid": null, "compound": null}'::jsonb`;

/**
 * Hosts say how they are opened, entries of the log in which order the chain came up; tries are found by host and kind of link. The
 * guard of the log is lifted for these two statements. Versions of link controller and card join the others, not known.
 */
export async function up(db: Sequelize): Promise<void> {
  const statements = [
    `UPDATE parts SET spec = ${HOST} || spec WHERE kind = 'host'`,
    `UPDATE part_revisions r SET spec = ${HOST} || r.spec FROM parts p WHERE p.id = r.part_id AND p.kind = 'host'`,
    `ALTER TABLE log_entries ADD COLUMN order_used text
       CHECK (order_used IN ('all-off', 'slaved', 'dock-first', 'host-first', 'any-time'))`,
    `UPDATE setups SET details = jsonb_set(details, '{installed}', ${INSTALLED} || (details -> 'installed')) WHERE details ? 'installed'`,
    'ALTER TABLE log_entries DISABLE TRIGGER keep_facts',
    `UPDATE log_entries SET chain = jsonb_set(chain, '{installed}', ${INSTALLED} || (chain -> 'installed')) WHERE jsonb_typeof(chain -> 'installed') = 'object'`,
    `UPDATE log_entries SET chain = jsonb_set(chain, '{host}', ${HOST} || (chain -> 'host')) WHERE jsonb_typeof(chain -> 'host') = 'object'`,
    'ALTER TABLE log_entries ENABLE TRIGGER keep_facts',
    `CREATE INDEX events_tried ON events ((body ->> 'host'), (body ->> 'link')) WHERE kind = 'ended'`,
    `CREATE INDEX events_corrects ON events (corrects) WHERE corrects IS NOT NULL`,
    `CREATE INDEX events_kinds ON events (setup_id, kind, seq)`,
  ];
  await db.transaction(async (transaction) => {
    for (const statement of statements) await db.query(statement, { transaction });
  });
}
