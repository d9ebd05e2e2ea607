import { placesOf } from "@vennet/core/manuscript/outline";
import type { Node } from "prosemirror-model";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { useGonePlaces } from "../../destinations/known-destinations";
import { Button } from "../../parts/button";

/** Tells of places that were taken out of the open text while links lead to them, with the way to send those elsewhere. */
export function GoneNotice({ bookId, doc }: { bookId: string; doc: Node }) {
  const gone = useGonePlaces(bookId).data ?? [];
  const seen = useRef(new Set<string>());
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const present = new Set(placesOf(doc).map(({ id }) => id));
  for (const id of present) seen.current.add(id);
  const told = gone.filter(({ id }) => seen.current.has(id) && !present.has(id) && !closed.has(id));
  if (told.length === 0) return null;
  return (
    <ul role="status" className="border-b border-hairline bg-red-wash">
      {told.map(({ id, name }) => (
        <li key={id} className="flex flex-wrap items-center gap-x-4 px-4 py-1.5">
          <span className="min-w-0 [overflow-wrap:anywhere]">
            “{name}” is deleted, and links still lead there.
          </span>
          <Link
            to={`/books/${bookId}/links?destination=${encodeURIComponent(`#${id}`)}`}
            className="underline decoration-edge underline-offset-4 hover:text-blue"
          >
            Show the links
          </Link>
          <Button kind="quiet" onClick={() => setClosed(new Set(closed).add(id))}>
            Close
          </Button>
        </li>
      ))}
    </ul>
  );
}
