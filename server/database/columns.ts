import type { QueryDeepPartialEntity } from "typeorm";

/**
 * Values for an entity's columns. TypeORM's own type looks into what JSON columns hold and takes their depth for
 * relations, so it cannot follow them; what is given is checked here instead.
 */
export function columns<E extends object>(values: Partial<E>): QueryDeepPartialEntity<E> {
  return values as QueryDeepPartialEntity<E>;
}
