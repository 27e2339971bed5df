import { type Model, type ModelStatic, QueryTypes, Utils } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { start, type Harness } from './harness';

interface Column {
  table: string;
  column: string;
  type: string;
  optional: boolean;
  generated: boolean;
  default: string | null;
  primary: boolean;
  references: string | null;
  onDelete: string | null;
}

const COLUMNS = `SELECT c.relname AS table, a.attname AS column, format_type(a.atttypid, a.atttypmod) AS type,
    NOT a.attnotnull AS optional, a.attgenerated <> '' AS generated,
    CASE WHEN a.attgenerated = '' THEN pg_get_expr(d.adbin, d.adrelid) END AS default,
    EXISTS (SELECT 1 FROM pg_index i WHERE i.indrelid = c.oid AND i.indisprimary AND a.attnum = ANY(i.indkey)) AS primary,
    f.confrelid::regclass::text || '.' || r.attname AS references, f.confdeltype::text AS "onDelete"
  FROM pg_class c JOIN pg_attribute a ON a.attrelid = c.oid AND a.attnum > 0 AND NOT a.attisdropped
    LEFT JOIN pg_attrdef d ON d.adrelid = c.oid AND d.adnum = a.attnum
    LEFT JOIN pg_constraint f ON f.contype = 'f' AND f.conrelid = c.oid AND f.conkey = ARRAY[a.attnum]
    LEFT JOIN pg_attribute r ON r.attrelid = f.confrelid AND r.attnum = f.confkey[1]
  WHERE c.relnamespace = 'public'::regnamespace AND c.relkind = 'r' AND c.relname <> 'schema_migrations'
  ORDER BY 1, a.attnum`;

const ON_DELETE: Record<string, string> = { a: 'NO ACTION', c: 'CASCADE', n: 'SET NULL' };
const TYPES: Record<string, string> = {
  'timestamp with time zone': 'TIMESTAMP WITH TIME ZONE',
  'character varying(255)': 'VARCHAR(255)',
};

let h: Harness;
let stored: Column[];
beforeAll(async () => {
  h = await start();
  stored = await h.db.query<Column>(COLUMNS, { type: QueryTypes.SELECT });
});
afterAll(() => h.close());

/** A default as both sides can be compared: text without its quotes and cast. */
function plainDefault(text: string | null): string | null {
  if (text === null) return null;
  return text.replace(/^'(.*)'::.*$/, '$1').replace(/^now\(\)$/, 'now');
}

function defaultOf(value: unknown): string | null {
  if (value === undefined) return null;
  if (typeof value === 'string') return value;
  if (value instanceof Utils.Fn) return 'now';
  return JSON.stringify(value);
}

const modelsOf = () => h.db.modelManager.models as ModelStatic<Model>[];

/** What a model says of its columns, in the words of the database. */
function declared(model: ModelStatic<Model>): Column[] {
  return Object.values(model.getAttributes()).map((a) => {
    const ref = a.references as { model: string; key: string } | undefined;
    return {
      table: model.tableName,
      column: a.field ?? '',
      type: (a.type as { toSql(): string }).toSql(),
      optional: a.allowNull ?? true,
      generated: typeof a.set === 'function',
      default: defaultOf(a.defaultValue),
      primary: a.primaryKey === true,
      references: ref ? `${ref.model}.${ref.key}` : null,
      onDelete: ref ? (a.onDelete ?? null) : null,
    };
  });
}

describe('models', () => {
  it('each table has one, and each model a table', () => {
    expect(
      modelsOf()
        .map((m) => m.tableName)
        .sort(),
    ).toEqual([...new Set(stored.map((c) => c.table))]);
  });

  it('say of every column what the migrations made', () => {
    const made = stored.map((c) => ({
      ...c,
      type: TYPES[c.type] ?? c.type.toUpperCase(),
      default:
        c.type.endsWith('[]') && c.default?.startsWith("'{}'") ? '[]' : plainDefault(c.default),
      onDelete: c.onDelete === null ? null : ON_DELETE[c.onDelete],
    }));
    const said = modelsOf().flatMap(declared);
    const key = (c: Column) => `${c.table}.${c.column}`;
    const sorted = (list: readonly object[]) =>
      [...(list as Column[])].sort((a, b) => key(a).localeCompare(key(b)));
    expect(sorted(said)).toEqual(sorted(made));
  });
});
