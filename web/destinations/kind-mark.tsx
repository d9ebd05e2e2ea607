import type { DestinationKind } from "@vennet/core/destination/kinds/kinds";
import { useOutletContext } from "react-router";
import type { Book } from "../api/client";
import { kinds } from "./kinds";

/** The kind of a destination: a shape and its word. */
export function KindMark({ kind }: { kind: DestinationKind }) {
  const { icon: Icon } = kinds[kind];
  const wordOf = useKindWord();
  return (
    <span className="inline-flex items-center gap-1 whitespace-nowrap">
      <Icon aria-hidden size={14} />
      {wordOf(kind)}
    </span>
  );
}

/** What the kinds of destinations are called in this publication: a place is in a book, or in a finished file. */
export function useKindWord(): (kind: DestinationKind) => string {
  // On the Shelf there is no publication.
  const publication = useOutletContext<Book | undefined>();
  return (kind) => (kind === "place" && publication?.finished ? "In this file" : kinds[kind].word);
}
