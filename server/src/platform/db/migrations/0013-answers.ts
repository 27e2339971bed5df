import type { Sequelize } from 'sequelize';

/** New attributes by kind of part, unknown in stored rows; an unknown 16-pin plug has sense pins. */
const DOCK = `'{"fixedLead": null, "beyond": null, "cables16Are": "sense"}'::jsonb`;
const CARD = `'{"sockets16Are": "sense"}'::jsonb`;
const SUPPLY = `'{"cables16Are": "sense"}'::jsonb`;
const SETTINGS = `'{"cardSits": null}'::jsonb`;

const upgraded = (kind: string, spec: string) => `CASE ${kind}
  WHEN 'dock' THEN ${DOCK} || ${spec} WHEN 'card' THEN ${CARD} || ${spec} WHEN 'supply' THEN ${SUPPLY} || ${spec} ELSE ${spec} END`;

/** A stored chain with the new attributes of what stands in it. */
const chains = (table: string) => [
  ...(
    [
      ['dock', DOCK],
      ['card', CARD],
      ['settings', SETTINGS],
    ] as const
  ).map(
    ([part, what]) =>
      `UPDATE ${table} SET chain = jsonb_set(chain, '{${part}}', ${what} || (chain -> '${part}')) WHERE jsonb_typeof(chain -> '${part}') = 'object'`,
  ),
  `UPDATE ${table} SET chain = jsonb_set(chain, '{supplies}',
     (SELECT jsonb_agg(jsonb_set(s, '{spec}', ${SUPPLY} || (s -> 'spec')) ORDER BY ord) FROM jsonb_array_elements(chain -> 'supplies') WITH ORDINALITY AS x(s, ord)))
   WHERE jsonb_typeof(chain -> 'supplies') = 'array' AND jsonb_array_length(chain -> 'supplies') > 0`,
];

/**
 * A piece may differ from its part: what is known of this one only, each with where it is known from. Docks say whether their lead is fixed
 * and whether a card too big for them goes in, cards and supplies of which kind their 16-pin plugs are, setups how the card sits.
 */
export async function up(db: Sequelize): Promise<void> {
  const statements = [
    `ALTER TABLE items ADD COLUMN differs jsonb NOT NULL DEFAULT '{}'`,
    `UPDATE parts SET spec = ${upgraded('kind', 'spec')} WHERE kind IN ('dock', 'card', 'supply')`,
    `UPDATE part_revisions r SET spec = ${upgraded('p.kind', 'r.spec')} FROM parts p WHERE p.id = r.part_id AND p.kind IN ('dock', 'card', 'supply')`,
    `UPDATE setups SET details = jsonb_set(details, '{settings}', ${SETTINGS} || (details -> 'settings')) WHERE jsonb_typeof(details -> 'settings') = 'object'`,
    'ALTER TABLE log_entries DISABLE TRIGGER keep_facts',
    'ALTER TABLE runs DISABLE TRIGGER keep_facts',
    ...['log_entries', 'runs', 'benches', 'practices'].flatMap(chains),
    'ALTER TABLE log_entries ENABLE TRIGGER keep_facts',
    'ALTER TABLE runs ENABLE TRIGGER keep_facts',
  ];
  await db.transaction(async (transaction) => {
    for (const statement of statements) await db.query(statement, { transaction });
  });
}
