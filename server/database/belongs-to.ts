import { ForeignKey } from "typeorm";

/**
 * A column with the id of a row of another entity's table. The row that it is in goes with that one.
 * @param entity the entity's class name, so that entities need not import each other
 * @param name of the foreign key
 */
export function BelongsTo(entity: string, name: string): PropertyDecorator {
  return ForeignKey(entity, { name, onDelete: "CASCADE" });
}
