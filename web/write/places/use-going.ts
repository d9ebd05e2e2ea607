import { linkUses } from "@vennet/core/manuscript/links";
import type { EditorView } from "prosemirror-view";
import { useCallback, useEffect } from "react";
import { useNavigate, useSearchParams } from "react-router";
import type { PlaceListing } from "../../api/client";
import { selectLink } from "../text/link-commands";
import { leaveFootprint, showFootprint, showPlace } from "./show-place";
import { useTrail } from "./trail";

/** The ways to places of the book from the open chapter, and back; and what the address of the page points at. */
export function useGoing({
  bookId,
  chapterId,
  view,
  places,
  tell,
}: {
  bookId: string;
  chapterId: string;
  view: EditorView | null;
  places: readonly PlaceListing[] | undefined;
  tell: (problem: string) => void;
}): { goToPlace: (id: string) => void; goBack: () => void } {
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();

  const goToPlace = useCallback(
    (id: string): void => {
      if (!view) return;
      leaveFootprint(view, chapterId);
      if (showPlace(view, id)) return;
      const elsewhere = places?.find((one) => one.id === id);
      if (elsewhere) void navigate(`/books/${bookId}/write/${elsewhere.chapterId}?place=${id}`);
      else tell("That place is not in the book any more.");
    },
    [view, places, navigate, bookId, chapterId, tell],
  );

  const goBack = useCallback((): void => {
    const footprint = useTrail.getState().back();
    if (!footprint) return;
    if (footprint.chapterId === chapterId && view) showFootprint(view, footprint);
    else
      void navigate(
        `/books/${bookId}/write/${footprint.chapterId}?at=${footprint.from}-${footprint.to}-${Math.round(footprint.scrolled)}`,
      );
  }, [view, chapterId, navigate, bookId]);

  // A link or place that another page points to is shown and selected.
  const [wantedLink, wantedPlace, wantedAt] = [search.get("link"), search.get("place"), search.get("at")];
  useEffect(() => {
    if (!view || (!wantedLink && !wantedPlace && !wantedAt)) return;
    const use = linkUses(view.state.doc).find((candidate) => candidate.id === wantedLink);
    if (use) {
      view.dispatch(selectLink(view.state, use));
      view.focus();
    }
    if (wantedPlace) showPlace(view, wantedPlace);
    const [from, to, scrolled] = wantedAt?.split("-").map(Number) ?? [];
    if (from !== undefined) showFootprint(view, { from, to: to ?? from, scrolled: scrolled ?? null });
    setSearch({}, { replace: true });
  }, [view, wantedLink, wantedPlace, wantedAt, setSearch]);

  return { goToPlace, goBack };
}
