import type { Sequelize } from 'sequelize';

const SOCKET = `'{"holds": null, "reach": null}'::jsonb`;
const HOST = `'{"graphics": null, "lan": null, "batteryWh": null, "drawW": null, "chargeMinW": null, "panelWidthPx": null, "panelHeightPx": null, "panelHz": null}'::jsonb`;
const DOCK = `'{"slotW": null, "supply": null, "supplyW": null, "supplyStandard": null, "efficiency": null, "condition": null, "cables8Pin": null, "cables8PinPair": null, "cables6Pin": null, "cables16Pin": null, "cable16PinW": null, "cablesCpu8Pin": null, "supplyForm": null, "chargeOutW": null, "innerLengthMm": null, "innerHeightMm": null, "innerSlots": null, "retention": null, "maxWeightG": null, "screws": null, "airflowCfm": null, "noiseDb": null, "videoOut": null}'::jsonb`;
const CARD = `'{"slotW": null, "plugs8Pin": null, "plugs6Pin": null, "plugs16Pin": null, "adapter16Pin": null, "plugSide": null, "plugAngled": null, "lengthMm": null, "heightMm": null, "slots": null, "weightG": null, "cooler": null, "family": "", "chip": null, "units": null, "namesake": "", "namesakeUnits": null, "namesakeMemoryGB": null, "namesakeW": null, "dpLevel": null, "hdmiLevel": null, "compression": null}'::jsonb`;
const INSTALLED = `'{"dockFirmware": "", "hostFirmware": "", "systemBuild": "", "driver": "", "linkSoftware": ""}'::jsonb`;
const SETTINGS = `'{"approval": null, "securityLevel": null, "driverKind": null, "driverClass": null, "internalGraphics": null, "wayBack": null, "toPanel": null, "encryption": null, "recoveryKey": null, "ownCharger": null, "chargeLead": null, "lid": null, "hostDrawW": null, "overclockPercent": null}'::jsonb`;

/** A host's spec with the new attributes of itself and of each socket, "not known". */
const host = (spec: string) => `${HOST} || jsonb_set(${spec}, '{sockets}',
  (SELECT jsonb_agg(${SOCKET} || s ORDER BY ord) FROM jsonb_array_elements(${spec} -> 'sockets') WITH ORDINALITY AS x(s, ord)))`;

const upgraded = (kind: string, spec: string) => `CASE ${kind}
  WHEN 'host' THEN ${host(spec)} WHEN 'dock' THEN ${DOCK} || ${spec} WHEN 'card' THEN ${CARD} || ${spec} ELSE ${spec} END`;

const orNull = (part: string, value: string) =>
  `CASE WHEN jsonb_typeof(chain -> '${part}') = 'object' THEN ${value} ELSE 'null'::jsonb END`;

/**
 * Supplies, screens, systems, releases and requirements become kinds of the catalogue and, but for the last two, slots of a setup; a
 * slot may say how (what a supply feeds, where a screen hangs). Parts, chains in the log and setups gain the attributes the budgets
 * need, "not known". The guard of the log is lifted for this one statement.
 */
export async function up(db: Sequelize): Promise<void> {
  const statements = [
    'ALTER TABLE parts DROP CONSTRAINT parts_kind_check',
    `ALTER TABLE parts ADD CONSTRAINT parts_kind_check CHECK (kind IN
       ('host', 'cable', 'adapter', 'dock', 'card', 'supply', 'screen', 'system', 'release', 'requirement'))`,
    `CREATE INDEX parts_software ON parts (lower(maker), lower(model)) WHERE kind IN ('release', 'requirement') AND retired_at IS NULL`,
    'ALTER TABLE setup_slots DROP CONSTRAINT setup_slots_slot_check',
    `ALTER TABLE setup_slots ADD CONSTRAINT setup_slots_slot_check CHECK (slot IN
       ('host', 'path', 'dock', 'card', 'supply', 'screen', 'system', 'spare'))`,
    `ALTER TABLE setup_slots ADD COLUMN detail jsonb NOT NULL DEFAULT '{}'`,
    `UPDATE parts SET spec = ${upgraded('kind', 'spec')}`,
    `UPDATE part_revisions r SET spec = ${upgraded('(SELECT kind FROM parts p WHERE p.id = r.part_id)', 'r.spec')}`,
    `UPDATE setups SET details = details || jsonb_build_object('installed', ${INSTALLED} || coalesce(details -> 'installed', '{}'::jsonb))`,
    'ALTER TABLE log_entries DISABLE TRIGGER keep_facts',
    `UPDATE log_entries SET chain = chain || jsonb_build_object(
       'host', ${orNull('host', host("(chain -> 'host')"))},
       'dock', ${orNull('dock', `${DOCK} || (chain -> 'dock')`)}, 'card', ${orNull('card', `${CARD} || (chain -> 'card')`)},
       'supplies', '[]'::jsonb, 'picture', '[]'::jsonb, 'system', 'null'::jsonb, 'uses', '[]'::jsonb,
       'installed', ${INSTALLED} || coalesce(chain -> 'installed', '{}'::jsonb), 'settings', ${SETTINGS})`,
    'ALTER TABLE log_entries ENABLE TRIGGER keep_facts',
  ];
  await db.transaction(async (transaction) => {
    for (const statement of statements) await db.query(statement, { transaction });
  });
}
