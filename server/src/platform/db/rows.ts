import {
  type Attributes,
  type CreationAttributes,
  col,
  fn,
  type Model,
  type ModelStatic,
  type ModelAttributeColumnOptions,
  Utils,
  where,
  type WhereOptions,
} from 'sequelize';

/**
 * Creates a row unless one with its key is there, in one statement, so that two at once cannot fail.
 * @returns whether the row was created
 */
export async function createOnce<M extends Model>(
  model: ModelStatic<M>,
  values: CreationAttributes<M>,
): Promise<boolean> {
  const built = model.build(values).get({ plain: true }) as Record<string, unknown>;
  const row = Utils.mapValueFieldNames(built, Object.keys(built), model);
  const created: unknown = await model.sequelize
    ?.getQueryInterface()
    .bulkInsert(
      model.getTableName(),
      [row],
      { ignoreDuplicates: true, returning: keyFields(model) } as object,
      fieldTypes(model),
    );
  return Array.isArray(created) && created.length > 0;
}

/** Columns of the primary key. */
function keyFields(model: ModelStatic<Model>): string[] {
  const attributes = model.getAttributes() as Record<string, ModelAttributeColumnOptions>;
  return model.primaryKeyAttributes.map((name) => attributes[name]?.field ?? name);
}

function fieldTypes(model: ModelStatic<Model>): Record<string, ModelAttributeColumnOptions> {
  return Object.fromEntries(
    Object.entries(model.getAttributes()).map(([name, a]) => [a.field ?? name, a]),
  );
}

/** Is there a row of this id? */
export async function exists<M extends Model>(model: ModelStatic<M>, id: string): Promise<boolean> {
  const where = { id } as unknown as WhereOptions<Attributes<M>>;
  return (await model.count({ where })) > 0;
}

/** Equal to a text in any case, as the indexes on names compare. */
export const sameText = (column: string, text: string) =>
  where(fn('lower', col(column)), fn('lower', text));
