import type { Sequelize } from 'sequelize';

const SOCKET = `'{"tb3Compat": null, "completionBytes": null, "family": ""}'::jsonb`;
const CABLE = `'{"family": ""}'::jsonb`;
const DOCK = `'{"tb3Compat": null, "controllerClass": null, "capGbps": null, "capFirmware": "", "capBeforeGbps": null, "ownLead": null, "family": ""}'::jsonb`;
const CARD = `'{"innerSwitch": null}'::jsonb`;

/** A host's spec with the new attributes of each socket, "not known". */
const host = (spec: string) => `jsonb_set(${spec}, '{sockets}',
  (SELECT jsonb_agg(${SOCKET} || s ORDER BY ord) FROM jsonb_array_elements(${spec} -> 'sockets') WITH ORDINALITY AS x(s, ord)))`;

const upgraded = (kind: string, spec: string) => `CASE ${kind}
  WHEN 'host' THEN ${host(spec)} WHEN 'cable' THEN ${CABLE} || ${spec} WHEN 'dock' THEN ${DOCK} || ${spec} ELSE ${CARD} || ${spec} END`;

const orNull = (part: string, value: string) =>
  `CASE WHEN jsonb_typeof(chain -> '${part}') = 'object' THEN ${value} ELSE 'null'::jsonb END`;

const PIECES = `CASE WHEN jsonb_typeof(chain -> 'path') = 'array' THEN coalesce(
  (SELECT jsonb_agg(jsonb_set(p, '{spec}', ${CABLE} || (p -> 'spec')) ORDER BY ord) FROM jsonb_array_elements(chain -> 'path') WITH ORDINALITY AS x(p, ord)),
  '[]'::jsonb) ELSE 'null'::jsonb END`;

/** Chain keys gain the adapter, "none" so far, before dock and card; written as JSON.stringify writes them. */
const KEY = `(SELECT '[' || string_agg(e::text, ',' ORDER BY ord) || ']' FROM (
    SELECT e, ord FROM jsonb_array_elements(chain_key::jsonb) WITH ORDINALITY AS x(e, ord) WHERE ord <= 3
    UNION ALL SELECT '"none"'::jsonb, 3.5
    UNION ALL SELECT e, ord FROM jsonb_array_elements(chain_key::jsonb) WITH ORDINALITY AS x(e, ord) WHERE ord > 3
  ) y)`;

/**
 * Adapters become a kind of part; the attributes that the new kinds of paths need become "not known" in what is stored; chains in the
 * log gain loads and installed versions, and their keys the adapter. The guard of the log is lifted for this one statement.
 */
export async function up(db: Sequelize): Promise<void> {
  const statements = [
    'ALTER TABLE parts DROP CONSTRAINT parts_kind_check',
    `ALTER TABLE parts ADD CONSTRAINT parts_kind_check CHECK (kind IN ('host', 'cable', 'adapter', 'dock', 'card'))`,
    `UPDATE parts SET spec = ${upgraded('kind', 'spec')}`,
    `UPDATE part_revisions r SET spec = ${upgraded('(SELECT kind FROM parts p WHERE p.id = r.part_id)', 'r.spec')}`,
    'ALTER TABLE log_entries DISABLE TRIGGER keep_facts',
    `UPDATE log_entries SET chain = chain || jsonb_build_object(
       'host', ${orNull('host', host("(chain -> 'host')"))}, 'path', ${PIECES},
       'dock', ${orNull('dock', `${DOCK} || (chain -> 'dock')`)}, 'card', ${orNull('card', `${CARD} || (chain -> 'card')`)},
       'loads', '[]'::jsonb, 'installed', '{"dockFirmware": ""}'::jsonb),
       chain_key = CASE WHEN chain_key IS NULL THEN NULL ELSE ${KEY} END`,
    'ALTER TABLE log_entries ENABLE TRIGGER keep_facts',
  ];
  await db.transaction(async (transaction) => {
    for (const statement of statements) await db.query(statement, { transaction });
  });
}
