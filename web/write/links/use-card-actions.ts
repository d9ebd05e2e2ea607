import { sameDestination } from "@vennet/core/destination/destination";
import { linkUses, type LinkUse } from "@vennet/core/manuscript/links";
import { referenceAttrs } from "@vennet/core/manuscript/attributes";
import { closeHistory } from "prosemirror-history";
import { NodeSelection, type EditorState } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";
import { useMemo } from "react";
import { editLink, removeLink, selectLink } from "../text/link-commands";
import type { CardActions } from "./card-context";
import { useTakenLink } from "./taken-link";

/** What cards do to the text; null while there is no editor. */
export function useCardActions({
  view,
  openLine,
  goToPlace,
  everyMention,
  follow,
}: {
  view: EditorView | null;
  openLine: (view: EditorView) => void;
  goToPlace: (id: string) => void;
  everyMention: (use: LinkUse) => void;
  /** Offers to open where the link of an id leads; null for none. */
  follow: (id: string | null) => void;
}): CardActions | null {
  return useMemo((): CardActions | null => {
    if (!view) return null;
    // A card may be a moment older than the text; what is done to its link is done where that stands now.
    const dispatch = ({ id }: LinkUse, make: (now: EditorState, use: LinkUse) => EditorState["tr"]): void => {
      const use = linkUses(view.state.doc).find((candidate) => candidate.id === id);
      if (use) view.dispatch(make(view.state, use));
    };
    return {
      select: (use) => {
        dispatch(use, selectLink);
        follow(null);
      },
      change: (use, to) => {
        if (to.destination && sameDestination(use.destination, to.destination)) delete to.destination;
        view.dispatch(closeHistory(view.state.tr));
        dispatch(use, (now, fresh) => editLink(now, fresh, to));
      },
      say: (use, to) => {
        view.dispatch(closeHistory(view.state.tr));
        dispatch(use, (now, fresh) => {
          const attrs = { ...referenceAttrs(now.doc.nodeAt(fresh.from)!), ...to };
          const change = now.tr.setNodeMarkup(fresh.from, null, attrs);
          return change.setSelection(NodeSelection.create(change.doc, fresh.from));
        });
      },
      remove: (use) => {
        view.dispatch(closeHistory(view.state.tr));
        dispatch(use, removeLink);
        view.focus();
      },
      openLine: (use) => {
        dispatch(use, selectLink);
        openLine(view);
      },
      everyMention,
      take: (use) => useTakenLink.getState().take(use),
      goTo: (id) => {
        follow(null);
        goToPlace(id);
      },
      leave: () => view.focus(),
      follow: (use) => follow(use?.id ?? null),
    };
  }, [view, openLine, goToPlace, everyMention, follow]);
}
