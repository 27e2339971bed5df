import { type Attributes, type WhereOptions } from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import { newId } from '../platform/db/ids';
import { createOnce } from '../platform/db/rows';
import { SettingModel } from './models/setting';
import { writeSetting } from './queries/write-setting';

export interface Setting {
  value: unknown;
  reason: string;
  rev: number;
}

/** Author and time of a setting. */
export interface Writer {
  at: Date;
  by: string;
  origin?: Origin;
}

/** Settings of the workshop, not of a member, by their keys. */
export async function settingsWhere(
  where: WhereOptions<Attributes<SettingModel>>,
): Promise<SettingModel[]> {
  return SettingModel.findAll({ where: { ...where, memberId: null }, order: [['key', 'ASC']] });
}

export async function readSetting(key: string): Promise<Setting | null> {
  const [row] = await settingsWhere({ key });
  return row ? { value: row.value, reason: row.reason, rev: row.rev } : null;
}

/** Set a value, or set it anew under the next revision. Null stands for "as it shipped". */
export async function putSetting(
  key: string,
  value: unknown,
  writer: Writer,
  reason = '',
): Promise<void> {
  await writeSetting({ id: newId(), key, value, reason, origin: 'own', ...writer });
}

/** Set a value that the workshop has not set yet; says whether it was. */
export function putSettingOnce(
  key: string,
  value: NonNullable<unknown>,
  { at, by, origin = 'own' }: Writer,
  reason = '',
): Promise<boolean> {
  return createOnce(SettingModel, {
    id: newId(),
    origin,
    createdAt: at,
    createdBy: by,
    memberId: null,
    key,
    value,
    reason,
  });
}
