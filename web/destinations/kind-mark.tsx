import type { DestinationKind } from "@vennet/core/destination/kinds/kinds";
import { kinds } from "./kinds";

/** The kind of a destination: a shape and its word. */
export function KindMark({ kind }: { kind: DestinationKind }) {
  const { icon: Icon, word } = kinds[kind];
  return (
    <span className="inline-flex items-center gap-1 whitespace-nowrap">
      <Icon aria-hidden size={14} />
      {word}
    </span>
  );
}
