import { newId } from "@vennet/core/manuscript/ids";
import { placesOf } from "@vennet/core/manuscript/outline";
import { schema } from "@vennet/core/manuscript/schema";
import { closeHistory } from "prosemirror-history";
import type { EditorView } from "prosemirror-view";
import { useCallback, useState, type ReactNode } from "react";
import { flushSync } from "react-dom";
import { bookAround } from "../text/book-numbers";
import { ReferenceLine, type TakenReference } from "./reference-line";

interface Open {
  view: EditorView;
  position: number;
  top: number;
}

/** The line for cross-references, opened at the cursor; what it gives is put into the text there. */
export function useReferenceLine(topOf: (view: EditorView, position: number) => number): {
  openReference: (view: EditorView) => void;
  referenceLine: ReactNode;
} {
  const [open, setOpen] = useState<Open | null>(null);
  const openReference = useCallback(
    (view: EditorView): void => {
      const { $to } = view.state.selection;
      if (!$to.parent.inlineContent || $to.parent.type.spec.code) return;
      // At once, so that no key that is typed next falls into the text.
      flushSync(() => setOpen({ view, position: $to.pos, top: topOf(view, $to.pos) }));
    },
    [topOf],
  );
  if (!open || open.view.isDestroyed) return { openReference, referenceLine: null };
  const { view, position, top } = open;
  const leave = (): void => {
    setOpen(null);
    view.focus();
  };
  const take = (taken: TakenReference): void => {
    leave();
    const node =
      taken.kind === "note"
        ? schema.node("note_reference", { note: taken.note })
        : schema.node("cross_reference", {
            id: newId(),
            target: taken.target,
            form: taken.form,
            fallback: taken.fallback,
          });
    view.dispatch(closeHistory(view.state.tr).insert(position, node).scrollIntoView());
  };
  const notesHere = new Set(
    placesOf(view.state.doc).flatMap(({ kind, id }) => (kind === "note" ? [id] : [])),
  );
  return {
    openReference,
    referenceLine: (
      <div className="absolute right-0 left-0 z-20" style={{ top }}>
        <ReferenceLine
          around={bookAround(view.state)}
          position={position}
          notesHere={notesHere}
          onTake={take}
          onLeave={leave}
        />
      </div>
    ),
  };
}
