import type { DestinationKind } from "@vennet/core/destination/kinds/kinds";
import { useOutletContext } from "react-router";
import type { Book } from "../api/client";
import { kinds } from "./kinds";

/** The kind of a destination: a shape and its word. */
export function KindMark({ kind }: { kind: DestinationKind }) {
  const { icon: Icon, word } = kinds[kind];
  // On the Shelf there is no publication.
  const publication = useOutletContext<Book | undefined>();
  return (
    <span className="inline-flex items-center gap-1 whitespace-nowrap">
      <Icon aria-hidden size={14} />
      {kind === "place" && publication?.finished ? "In this file" : word}
    </span>
  );
}
