import { email } from "./email.ts";
import { file } from "./file.ts";
import type { DestinationKindOf } from "./kind.ts";
import { place } from "./place.ts";
import { telephone } from "./telephone.ts";
import { web } from "./web.ts";

/** Every kind of destination, in the order in which they are listed. */
export const kinds = { web, email, file, place, telephone };

export type DestinationKind = keyof typeof kinds;

/** Where a link leads. It is kept in the link's own mark, so a chapter can be read by itself. */
export type Destination = ShapeOf<(typeof kinds)[DestinationKind]>;

type ShapeOf<K> = K extends DestinationKindOf<infer D> ? D : never;

/** The names of all kinds, in the order of the table. */
export const kindNames = Object.keys(kinds) as DestinationKind[];

/** What is known of a destination's kind. */
export function kindOf<D extends Destination>({ kind }: D): DestinationKindOf<D> {
  return kinds[kind] as unknown as DestinationKindOf<D>;
}
