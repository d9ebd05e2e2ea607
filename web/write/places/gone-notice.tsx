import { placesOf } from "@vennet/core/manuscript/outline";
import type { Node } from "prosemirror-model";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { answerOf, api } from "../../api/client";
import { useGonePlaces, usePlaces } from "../../destinations/known-destinations";
import { kindWords } from "../../destinations/known-place";
import { useStepDone } from "../../links/use-step-done";
import { Button } from "../../parts/button";
import { useGoneWithChapters } from "./gone-with-chapters";

/** Tells of places that were taken out of the open text, or went with a chapter, while links lead to them, with the way to send those elsewhere. */
export function GoneNotice({ bookId, doc }: { bookId: string; doc: Node }) {
  const gone = useGonePlaces(bookId).data ?? [];
  const seen = useRef(new Set<string>());
  const withChapters = useGoneWithChapters(({ ids }) => ids);
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const present = new Set(placesOf(doc).map(({ id }) => id));
  for (const id of present) seen.current.add(id);
  const told = gone.filter(
    ({ id }) => (seen.current.has(id) || withChapters.has(id)) && !present.has(id) && !closed.has(id),
  );
  if (told.length === 0) return null;
  return (
    <ul role="status" className="border-b border-hairline bg-red-wash">
      {told.map(({ id, name }) => (
        <li key={id} className="flex flex-wrap items-center gap-x-4 px-4 py-1.5">
          <span className="min-w-0 [overflow-wrap:anywhere]">
            “{name}” is deleted, and links still lead there.
          </span>
          <LeadElsewhere bookId={bookId} place={id} />
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

/** Leads all links to a place that is gone to another one. */
function LeadElsewhere({ bookId, place }: { bookId: string; place: string }) {
  const places = usePlaces(bookId).data ?? [];
  const stepDone = useStepDone(bookId);
  const [problem, setProblem] = useState<string | null>(null);
  const [target, setTarget] = useState("");
  const lead = async (): Promise<void> => {
    setProblem(null);
    try {
      stepDone(
        await answerOf(
          api.POST("/api/books/{bookId}/links/edits", {
            params: { path: { bookId } },
            body: {
              matching: { destination: `#${place}` },
              edit: { kind: "retarget", destination: { kind: "place", target } },
            },
          }),
        ),
      );
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <>
      <select
        aria-label="Lead them to"
        value={target}
        onChange={(event) => setTarget(event.target.value)}
        className="min-h-7 max-w-60 border border-hairline bg-paper px-1 text-sm"
      >
        <option value="">Lead them to …</option>
        {places
          .filter(({ id }) => id !== place)
          .map(({ id, text, kind, chapter }) => (
            <option key={id} value={id}>
              {text || kindWords[kind]} ({chapter})
            </option>
          ))}
      </select>
      <Button kind="quiet" disabled={target === ""} onClick={() => void lead()}>
        Apply
      </Button>
      {problem && <span role="alert">{problem}</span>}
    </>
  );
}
