import type { Origin } from '@ruddy/core/base/contract';
import { DataTypes, literal, type ModelAttributeColumnOptions } from 'sequelize';

type Column = ModelAttributeColumnOptions;

// Sequelize writes into the definitions it is given, so each call makes a new one.
const column = (type: Column['type']) => (): Column => ({ type, allowNull: false });

export const text = column(DataTypes.TEXT);
export const uuid = column(DataTypes.UUID);
export const json = column(DataTypes.JSONB);
/** A moment: timestamptz. */
export const instant = column(DataTypes.DATE);
/** A date without a time, YYYY-MM-DD. */
export const day = column(DataTypes.DATEONLY);
export const integer = column(DataTypes.INTEGER);
/** Up to 2^53: larger values are refused when they are read, see `connect`. */
export const bigint = column(DataTypes.BIGINT);
export const real = column(DataTypes.REAL);
export const double = column(DataTypes.DOUBLE);
export const flag = column(DataTypes.BOOLEAN);
export const bytes = column(DataTypes.BLOB);
export const texts = column(DataTypes.ARRAY(DataTypes.TEXT));
export const uuids = column(DataTypes.ARRAY(DataTypes.UUID));

export const optional = (c: Column): Column => ({ ...c, allowNull: true });
export const primary = (c: Column): Column => ({ ...c, primaryKey: true });
/** The default the database gives a column that is left out. */
export const withDefault = (c: Column, defaultValue: unknown): Column => ({ ...c, defaultValue });

/** Computed by the database from other columns of the row: read only. */
export const generated = (c: Column): Column => ({
  ...c,
  allowNull: true,
  set() {
    throw new Error('a generated column cannot be written');
  },
});

/** The id of a row of another table, and what happens here when that row goes. */
export const references = (
  table: string,
  onDelete: 'CASCADE' | 'SET NULL' | 'NO ACTION' = 'NO ACTION',
  key = 'id',
  type: Column['type'] = DataTypes.UUID,
): Column => ({ type, allowNull: false, references: { model: table, key }, onDelete });

/** Author, time and origin (demo data or file) of a row. */
export const provenance = () => ({
  origin: text(),
  createdAt: instant(),
  createdBy: references('members'),
});

/** A demo row that a person changes becomes theirs. */
export const originAfterChange = (origin: Origin): Origin =>
  origin === 'demo' ? 'adopted' : origin;
/** The same, for an update of rows that are not read. */
export const adopted = () => literal(`CASE origin WHEN 'demo' THEN 'adopted' ELSE origin END`);

/** The next revision, for an update. */
export const nextRevision = () => literal('rev + 1');
